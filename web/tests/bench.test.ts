import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { JobEditor } from "../src/job/editor.svelte";
import { nameOf, OperationBench, type Candidate } from "../src/operation/bench.svelte";
import { page } from "../src/page.svelte";
import { signedIn } from "./people";
import { Refusal, Server, settle } from "./server";

const AT = "/api/jobs/7/operations/op10";
const LADDER = { rungs: ["0.1", "0.12", "0.15", "0.2", "0.25"], place: 1, normal: 2, coarse: 4 };
const evaluation = { results: {}, limits: [], stops: [0, 2, 5], ladders: { feed: LADDER } };
const job = (revision: number, settings = {}) => ({
  revision,
  at: "2026-12-01T10:00:00Z",
  can_undo: true,
  can_redo: false,
  document: { operations: [{ id: "op10", settings }], goal: "cost" },
});

let server: Server;
let bench: OperationBench;

beforeEach(async () => {
  vi.useFakeTimers();
  signedIn();
  server = new Server({
    "GET /api/jobs/7": job(1, { feed: "0.12" }),
    "POST /api/jobs/7/edits": job(2, { feed: "0.2" }),
    [`POST ${AT}/evaluate`]: evaluation,
    [`POST ${AT}/follow`]: { remedies: { power: [{ text: "less feed" }] } },
  });
  const editor = new JobEditor(7);
  await editor.load();
  bench = new OperationBench(editor, "op10");
  await bench.repaint();
});
afterEach(() => vi.useRealTimers());

test("a run of nudges walks the ladder, repaints at once, and is saved as one gesture when the hand rests", async () => {
  bench.nudge("feed", "normal", 1);
  bench.nudge("feed", "fine", -1);
  expect(bench.tried.feed).toBe("0.15");
  expect(page.saved).toBe("not saved yet");
  await settle();
  expect(server.calls(`POST ${AT}/evaluate`).at(-1)!.body).toEqual({
    settings: { feed: "0.15" },
    units: "mm",
  });
  await vi.advanceTimersByTimeAsync(700);
  expect(server.calls("POST /api/jobs/7/edits")).toHaveLength(0);
  await vi.advanceTimersByTimeAsync(200);
  const edits = server.calls("POST /api/jobs/7/edits");
  expect(edits).toHaveLength(1);
  expect(edits[0]!.body).toMatchObject({ base_revision: 1, edit: { settings: { feed: "0.15" } } });
  expect(bench.tried).toEqual({});
  expect(page.saved).toContain("rev 2");
});

test("a ladder ends at its last rung, in either direction", () => {
  bench.nudge("feed", "coarse", 1);
  expect(bench.tried.feed).toBe("0.25");
  bench.nudge("feed", "coarse", -1);
  bench.nudge("feed", "coarse", -1);
  expect(bench.tried.feed).toBe("0.1");
});

test("while one repaint is under way the next waits, and only the newest values are asked", async () => {
  server.held = `POST ${AT}/evaluate`;
  const before = server.calls(`POST ${AT}/evaluate`).length;
  for (const feed of ["0.11", "0.13", "0.14"]) bench.attempt({ feed });
  await settle();
  expect(server.calls(`POST ${AT}/evaluate`)).toHaveLength(before + 1);
  expect(bench.stale).toBe(true);
  await server.release();
  server.held = "";
  await server.release();
  const asked = server.calls(`POST ${AT}/evaluate`).slice(before);
  expect(asked.map((one) => (one.body.settings as { feed: string }).feed)).toEqual(["0.11", "0.14"]);
});

test("the ranking follows only when the hand has rested, and its remedies show only then", async () => {
  bench.attempt({ feed: "0.2" });
  await settle();
  expect([server.calls(`POST ${AT}/follow`).length, bench.remediesOf("power")]).toEqual([0, []]);
  await vi.advanceTimersByTimeAsync(360);
  expect(bench.remediesOf("power")).toHaveLength(1);
});

test("a value that is refused is not saved, and what was typed stays", async () => {
  server.say(`POST ${AT}/evaluate`, new Refusal(422, { title: "Feed is below 0.001 mm." }));
  bench.attempt({ feed: "0" });
  await vi.advanceTimersByTimeAsync(2000);
  expect([bench.problem?.status, bench.tried.feed]).toEqual([422, "0"]);
  expect(server.calls("POST /api/jobs/7/edits")).toHaveLength(0);
  server.say(`POST ${AT}/evaluate`, evaluation);
  bench.drop("feed");
  await settle();
  expect([bench.problem, bench.kept("feed")]).toEqual([null, "0.12"]);
});

test("a save that meets nobody is tried again; what was nudged on meanwhile stays tried", async () => {
  server.say("POST /api/jobs/7/edits", new TypeError("no net"));
  bench.attempt({ feed: "0.2" });
  await vi.advanceTimersByTimeAsync(8000);
  expect(bench.tried.feed).toBe("0.2");
  server.say("POST /api/jobs/7/edits", job(2, { feed: "0.2" }));
  await vi.advanceTimersByTimeAsync(12000);
  expect(bench.tried).toEqual({});
});

test("a reader cannot try anything", async () => {
  signedIn({ role: "reader" });
  bench.attempt({ feed: "0.2" });
  bench.nudge("feed", "fine", 1);
  expect(bench.tried).toEqual({});
});

test("three candidates are pinned at most, the oldest gives way, and pinning twice takes off", () => {
  const one = (edge: string) => ({ edge, way: "", steps: [] as Candidate["steps"] }) as Candidate;
  for (const edge of ["a", "b", "c", "d"]) bench.pin(one(edge));
  expect(bench.pinned).toEqual(["b", "c", "d"].map((edge) => nameOf(one(edge))));
  bench.pin(one("c"));
  expect(bench.pinned).toEqual(["b", "d"].map((edge) => nameOf(one(edge))));
  const after = (step: string) => ({ ...one("a"), way: "ream", steps: [{ title: step, edge: "drill" }] });
  expect(nameOf(after("Drill Ø9.8") as Candidate)).not.toBe(nameOf(after("Drill Ø9.6") as Candidate));
});

test("taking a candidate first saves what was being tried, as a gesture of its own", async () => {
  bench.attempt({ feed: "0.2" });
  await bench.take({
    edge: "a",
    way: "",
    tool: {},
    settings: {},
    becomes: null,
    before: [],
  } as unknown as Candidate);
  const actions = server
    .calls("POST /api/jobs/7/edits")
    .map((one) => (one.body.edit as { action: string }).action);
  expect(actions).toEqual(["set_settings", "take_tool"]);
});
