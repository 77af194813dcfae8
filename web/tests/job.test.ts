import { afterEach, beforeEach, expect, test, vi } from "vitest";
import type { Schemas } from "../src/api/client";
import { JobEditor } from "../src/job/editor.svelte";
import { told } from "../src/job/kinds.svelte";
import { PartStudy } from "../src/job/partStudy.svelte";
import { Watch } from "../src/job/watch.svelte";
import { drops } from "../src/lib/draft.svelte";
import { page } from "../src/page.svelte";
import { signedIn } from "./people";
import { rooted } from "./rooted.svelte";
import { Refusal, Server, settle } from "./server";

const job = (revision: number) => ({
  revision,
  at: "2026-12-01T10:00:00Z",
  can_undo: revision > 1,
  can_redo: false,
  document: { operations: [], goal: "time" },
});
const EDIT = { action: "rename", name: "Shaft" } as unknown as Parameters<JobEditor["save"]>[0];
const CLASH = new Refusal(409, {
  title: "Somebody saved.",
  gesture: "rename",
  author: "Bo",
  current_revision: 5,
  differences: [{ where: "job", what: "name", base: "a", theirs: "b", yours: "c" }],
});

let server: Server;
let editor: JobEditor;

beforeEach(async () => {
  vi.useFakeTimers();
  signedIn();
  server = new Server({
    "GET /api/jobs/7": job(1),
    "POST /api/jobs/7/edits": job(2),
    "POST /api/jobs/7/undo": job(3),
    "POST /api/jobs/7/redo": job(4),
  });
  editor = new JobEditor(7);
  await editor.load();
});
afterEach(() => vi.useRealTimers());

test("gestures go out one after the other, each on top of the one before", async () => {
  server.held = "POST /api/jobs/7/edits";
  const both = [editor.save(EDIT), editor.save(EDIT)];
  await settle();
  expect(server.calls("POST")).toHaveLength(1);
  server.say("POST /api/jobs/7/edits", job(3));
  await server.release();
  await server.release();
  expect(await Promise.all(both)).toEqual([true, true]);
  expect(server.calls("POST").map((one) => one.body.base_revision)).toEqual([1, 2]);
});

test("undo and redo are offered where the job has them, and not to a reader", async () => {
  expect(page.undo).toBeNull();
  await editor.save(EDIT);
  expect(page.undo).not.toBeNull();
  await editor.undo();
  expect(editor.job?.revision).toBe(3);
  await editor.redo();
  expect(editor.job?.revision).toBe(4);
  signedIn({ role: "reader" });
  await editor.load();
  expect(page.undo).toBeNull();
});

test("a refusal is kept beside the job, and goes with the next save that is taken", async () => {
  server.say(
    "POST /api/jobs/7/edits",
    new Refusal(422, { title: "No such name.", errors: [{ field: "name", message: "!" }] }),
  );
  expect(await editor.save(EDIT)).toBe(false);
  expect([editor.problem?.errors[0]?.field, page.saved]).toEqual(["name", "not saved"]);
  server.say("POST /api/jobs/7/edits", job(2));
  expect([await editor.save(EDIT), editor.problem]).toEqual([true, null]);
});

test("of two saves that meet, mine goes on top of theirs, or is dropped and said so", async () => {
  server.say("POST /api/jobs/7/edits", CLASH);
  await editor.save(EDIT);
  expect([editor.conflict?.author, editor.conflict?.differences.length, editor.problem]).toEqual([
    "Bo",
    1,
    null,
  ]);
  server.say("GET /api/jobs/7", job(5));
  server.say("POST /api/jobs/7/edits", job(6));
  await editor.settle(true);
  expect([server.calls("POST").at(-1)!.body.base_revision, editor.job?.revision]).toEqual([5, 6]);

  server.say("POST /api/jobs/7/edits", CLASH);
  await editor.save(EDIT);
  const [before, sent] = [drops.count, server.calls("POST").length];
  await editor.settle(false);
  expect([drops.count, server.calls("POST").length, editor.conflict]).toEqual([before + 1, sent, null]);
});

test("somebody else's change is brought and said; one's own is not; while something is tried here it waits", async () => {
  let busy = true;
  const pulse = (author: string) => ({ number: 9, author });
  server.say("GET /api/jobs/7/pulse", pulse("Bo"));
  const [watch, end] = rooted(
    () =>
      new Watch(
        () => editor,
        () => busy,
      ),
  );
  await vi.advanceTimersByTimeAsync(2100);
  expect([
    watch.theirs?.author,
    server.calls("GET /api/jobs/7").filter((one) => !one.call.includes("pulse")).length,
  ]).toEqual(["Bo", 1]);
  busy = false;
  server.say("GET /api/jobs/7", job(9));
  await vi.advanceTimersByTimeAsync(2000);
  expect(editor.job?.revision).toBe(9);
  await vi.advanceTimersByTimeAsync(30_000);
  expect(watch.theirs).toBeNull();
  server.say("GET /api/jobs/7/pulse", { number: 10, author: "Ida" });
  await vi.advanceTimersByTimeAsync(2000);
  expect(watch.theirs).toBeNull();
  end();
  const asked = server.asked.length;
  await vi.advanceTimersByTimeAsync(5000);
  expect(server.asked).toHaveLength(asked);
});

test("a study of a part is watched until it is done, and can be stopped", async () => {
  server.say("POST /api/jobs/7/part-studies", { id: 3, state: "waiting" });
  server.say("GET /api/jobs/7/part-studies/3", { id: 3, state: "running" });
  server.say("POST /api/jobs/7/part-studies/3/cancel", { id: 3, state: "cancelled" });
  const study = new PartStudy(7, "chances");
  expect(study.busy).toBe(true);
  await study.begin();
  await vi.advanceTimersByTimeAsync(1100);
  expect([study.row?.state, server.calls("GET /api/jobs/7/part-studies").length]).toEqual(["running", 2]);
  await study.stop();
  const asked = server.asked.length;
  await vi.advanceTimersByTimeAsync(5000);
  expect([study.busy, server.asked.length]).toEqual([false, asked]);
});

test("an operation is told what the drawing asks, and over that its own; blank takes away", () => {
  const document = { features: [{ id: "f1", asked: { length: 20, ra: 1.6, tolerance: 0.02 } }] };
  const operation = { drawn: "f1", feature: { length: 18, tolerance: "", ra: null } };
  expect(
    told(document as unknown as Schemas["Document"], operation as unknown as Schemas["Operation"]),
  ).toEqual({ length: 18 });
});
