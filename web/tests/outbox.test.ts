import "fake-indexeddb/auto";
import { beforeEach, expect, test, vi } from "vitest";
import { Outbox, type EntryIn } from "../src/trial/outbox.svelte";

const entry = (key: string): EntryIn => ({
  key,
  edge: "1",
  count: 3,
  read: {},
  seen: {},
  sizes: [],
  words: "",
  photo: "",
  units: "mm",
});
let answers: (() => Response)[] = [];
let asked: string[] = [];

beforeEach(() => {
  asked = [];
  vi.stubGlobal("fetch", async (request: Request) => {
    const answer = answers.shift();
    if (!answer) throw new TypeError("no line");
    asked.push(((await request.clone().json()) as EntryIn).key);
    return answer();
  });
});

const taken = () => new Response("{}", { status: 201, headers: { "Content-Type": "application/json" } });
const refused = () =>
  new Response(JSON.stringify({ title: "Finish Ra: 'x' is not a number.", status: 422, errors: [] }), {
    status: 422,
    headers: { "Content-Type": "application/problem+json" },
  });

test("what is kept without a line is there in the next page and is sent once", async () => {
  answers = [];
  const before = new Outbox();
  await before.begin();
  await before.keep(7, entry("aaaaaaaa"));
  await before.keep(7, entry("bbbbbbbb"));
  expect(before.away).toBe(true);
  expect(before.waiting.map((one) => one.key)).toEqual(["aaaaaaaa", "bbbbbbbb"]);
  before.end();
  answers = [taken, taken, taken];
  const told: number[] = [];
  const after = new Outbox((trial) => told.push(trial));
  await after.begin();
  await vi.waitFor(() => expect(after.waiting).toEqual([]));
  expect(asked).toEqual(["aaaaaaaa", "bbbbbbbb"]);
  expect(told).toEqual([7, 7]);
  after.end();
});

test("what the server refuses stays, says why and holds up nothing", async () => {
  answers = [refused, taken];
  const box = new Outbox();
  await box.begin();
  await box.keep(7, entry("cccccccc"));
  await box.keep(7, entry("dddddddd"));
  expect(box.waiting.map((one) => [one.key, one.refused])).toEqual([
    ["cccccccc", "Finish Ra: 'x' is not a number."],
  ]);
  await box.drop("cccccccc");
  expect(box.waiting).toEqual([]);
  expect(await new Outbox().recall("nothing")).toBeUndefined();
  box.end();
});
