import { flushSync } from "svelte";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { HeavyBuild } from "../src/crib/heavy.svelte";
import { ToolSearch } from "../src/crib/search.svelte";
import { Draft } from "../src/lib/draft.svelte";
import { Measuring } from "../src/operation/measure.svelte";
import type { OperationBench } from "../src/operation/bench.svelte";
import { Problem } from "../src/api/client";
import { RecordForm } from "../src/records/form.svelte";
import { Study } from "../src/study/study.svelte";
import { signedIn } from "./people";
import { rooted } from "./rooted.svelte";
import { Refusal, Server, settle } from "./server";

beforeEach(() => {
  vi.useFakeTimers();
  signedIn();
});
afterEach(() => vi.useRealTimers());

test("what was typed into a form that closes comes back as it was left, until the form is done with", () => {
  const open = () => rooted(() => new Draft("new job", () => ({ name: "" })));
  let [draft, close] = open();
  expect(draft.reopened).toBe(false);
  draft.value.name = "Sha";
  flushSync();
  close();
  [draft, close] = open();
  expect([draft.reopened, draft.value.name]).toEqual([true, "Sha"]);
  draft.done();
  close(); // at once, as a form does that was sent
  [draft, close] = open();
  expect([draft.reopened, draft.value.name]).toEqual([false, ""]);
  close();
});

test("a doubtful reading is asked about once more, and the same reading is then sent as sure", async () => {
  const server = new Server({
    "POST /api/jobs/7/measurements": ({ body }: { body: { sure: boolean } }) =>
      body.sure
        ? {}
        : new Refusal(422, { errors: [{ field: "measured", message: "Off by 5 mm.", doubt: true }] }),
  });
  const [measuring, end] = rooted(() => new Measuring(7, "op10", "bench"));
  expect(measuring.commanded("20.00")).toBe("20.00");
  measuring.draft.value.commanded = "";
  expect(measuring.commanded("20.00")).toBe("");
  expect(await measuring.send({ measured: "25" } as Parameters<Measuring["send"]>[0])).toBe(false);
  expect([measuring.doubt, measuring.said]).toEqual(["Off by 5 mm.", null]);
  measuring.draft.value.measured = "25";
  expect(await measuring.insist()).toBe(true);
  expect(server.calls("POST").at(-1)!.body).toMatchObject({ measured: "25", sure: true, operation: "op10" });
  expect([measuring.refusal, measuring.draft.value.measured]).toEqual([null, ""]);
  end();
});

const COLUMNS = [{ name: "name" }, { name: "power" }];
const RECORD = { id: 4, version: 2, cells: { power: { shown: { metric: "11 kW", inch: "14.8 hp" } } } };

test("a record shows what is typed over what is kept; a refusal says each field and keeps all that was typed", async () => {
  const refusal = {
    title: "Not saved.",
    errors: [{ field: "power", message: "Above 200 kW.", readings: ["1.5", "1500"] }],
  };
  const server = new Server({
    "GET /api/records/machines/columns": COLUMNS,
    "GET /api/records/machines/4": RECORD,
    "POST /api/records/machines/4": new Refusal(422, refusal),
  });
  const form = new RecordForm("machines");
  await form.load(4);
  expect(form.value("power")).toBe("11 kW");
  signedIn({ units: "inch" });
  expect(form.value("power")).toBe("14.8 hp");
  form.type("power", "1,500");
  expect(await form.save()).toBeNull();
  expect([form.errors.power, form.readings.power, form.value("power"), form.busy]).toEqual([
    "Above 200 kW.",
    ["1.5", "1500"],
    "1,500",
    false,
  ]);

  const again = new RecordForm("machines"); // closed by mistake
  await again.load(4);
  expect(again.value("power")).toBe("1,500");
  server.say("POST /api/records/machines/4", { ...RECORD, version: 3 });
  await again.save();
  expect(server.calls("POST").at(-1)!.body).toEqual({ cells: { power: "1,500" }, units: "inch", version: 2 });
  expect([again.value("power"), again.record?.version]).toEqual(["14.8 hp", 3]);
  const later = new RecordForm("machines");
  await later.load(4);
  expect(later.value("power")).toBe("14.8 hp");
});

const found = (names: string[], matched: number) => ({
  rows: names.map((name) => ({ name })),
  matched,
  total: 900,
  facets: [],
});

test("of two searches the newer counts, also where the older answers later", async () => {
  const server = new Server({
    "GET /api/crib/tools": ({ call }: { call: string }) => found([/q=(\w*)/.exec(call)![1]!], 1),
  });
  const search = new ToolSearch();
  server.held = "GET";
  search.q = "old";
  void search.start();
  await settle();
  search.q = "new";
  void search.start();
  await settle();
  await server.release("newest");
  await server.release("oldest");
  expect(search.row(0)?.name).toBe("new");
});

test("rows come page by page, each page once; a facet is a switch", async () => {
  const server = new Server({
    "GET /api/crib/tools": ({ call }: { call: string }) =>
      found(
        Array.from({ length: 60 }, (_, k) => `row ${Number(/offset=(\d+)/.exec(call)![1]) + k}`),
        200,
      ),
  });
  const search = new ToolSearch();
  search.toggle("grade", "P25");
  await search.start();
  expect(server.calls("GET")[0]!.call).toContain("grade=P25");
  await Promise.all([search.need(50, 130), search.need(60, 119)]);
  expect(server.calls("GET")).toHaveLength(3);
  expect([search.row(125)?.name, search.row(185)]).toEqual(["row 125", undefined]);
  search.toggle("grade", "P25");
  expect(search.chosen.grade).toEqual([]);
  server.say("GET /api/crib/tools", new Refusal(503, { title: "Away." }));
  await search.start();
  expect([search.problem, search.row(0)?.name]).toEqual(["Away.", "row 0"]);
});

const heavyForm = (name: string) => ({
  tool: { name },
  segments: [{ name: "solid", length: "80", width: "3" }],
  material: "m",
  machine: "l",
});

test("a heavy tool: a change is studied, saved when the hand rests, and undone; a refused one never stands", async () => {
  const server = new Server({
    "GET /api/crib/heavy-tools/3": { id: 3, revision: 1, form: heavyForm("bar") },
    "POST /api/crib/heavy-tools/study": ({ body }: { body: { form: { tool: { name: string } } } }) =>
      body.form.tool.name === "" || body.form.tool.name === undefined
        ? new Refusal(422, { title: "A tool has a name." })
        : { form: body.form },
    "PUT /api/crib/heavy-tools/3": { id: 3, revision: 2 },
  });
  const build = new HeavyBuild();
  await build.open(3);
  expect(await build.set("tool", null, "name", "long bar")).toBeNull();
  expect([build.form?.tool.name, build.saved, build.canUndo]).toEqual(["long bar", "not saved yet", true]);
  expect((await build.set("tool", null, "name", ""))?.status).toBe(422);
  expect(build.form?.tool.name).toBe("long bar");
  await vi.advanceTimersByTimeAsync(900);
  expect(server.calls("PUT")[0]!.body).toMatchObject({ revision: 1, form: { tool: { name: "long bar" } } });
  expect(build.saved).toBe("saved, version 2");
  await build.undo();
  expect([build.form?.tool.name, build.canRedo]).toEqual(["bar", true]);
  await build.redo();
  expect(build.form?.tool.name).toBe("long bar");
  await build.add("segments");
  expect(build.form?.segments.at(-1)).toEqual({ name: "solid", length: "80" }); // as long as the last, without its slots
  await build.remove("segments", 0);
  expect(build.form?.segments).toHaveLength(1);
  await build.undo();
  await build.set("tool", null, "name", "other bar");
  expect(build.canRedo).toBe(false);

  server.held = "POST /api/crib/heavy-tools/study";
  void build.set("tool", null, "name", "older");
  void build.set("tool", null, "name", "newer");
  await settle();
  await server.release("newest");
  await server.release("oldest");
  expect(build.form?.tool.name).toBe("newer");
});

test("two people at one heavy tool: mine is saved over theirs, or theirs is opened", async () => {
  const server = new Server({
    "GET /api/crib/heavy-tools/3": { id: 3, revision: 1, form: heavyForm("bar") },
    "POST /api/crib/heavy-tools/study": ({ body }: { body: { form: unknown } }) => ({ form: body.form }),
    "PUT /api/crib/heavy-tools/3": new Refusal(409, { title: "Saved meanwhile.", current_revision: 8 }),
  });
  const build = new HeavyBuild();
  await build.open(3);
  await build.set("tool", null, "name", "mine");
  await vi.advanceTimersByTimeAsync(900);
  expect([build.conflict?.status, build.saved]).toEqual([409, "not saved"]);
  server.say("PUT /api/crib/heavy-tools/3", { id: 3, revision: 9 });
  await build.settle(true);
  expect([server.calls("PUT").at(-1)!.body.revision, build.saved]).toEqual([8, "saved, version 9"]);
  await build.settle(false);
  expect(build.form?.tool.name).toBe("bar");
});

test("a study is asked when it opens, the latest answer counts, and a refusal keeps the answer that stood", async () => {
  const bench = { evaluation: {} } as unknown as OperationBench;
  const waits: ((value: string) => void)[] = [];
  let load = () => new Promise<string>((go) => waits.push(go));
  const [study, end] = rooted(() => new Study(bench, () => load()));
  void study.ask();
  waits[1]!("second");
  waits[0]!("first");
  await settle();
  expect([study.answer, study.stale]).toEqual(["second", false]);
  load = () => Promise.reject(new Problem(422, { title: "Not with this tool." }));
  await study.ask();
  expect([study.answer, study.problem, study.stale]).toEqual(["second", "Not with this tool.", false]);
  end();
});
