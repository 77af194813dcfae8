import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { api, ask, Problem } from "../src/api/client";
import { page } from "../src/page.svelte";
import { other, session, shown } from "../src/session.svelte";
import { signedIn } from "./people";
import { Refusal, Server } from "./server";

beforeEach(() => void vi.useFakeTimers());
afterEach(() => vi.useRealTimers());

const HALF = { metric: "12.7 mm", inch: "0.5 in" } as Parameters<typeof shown>[0];

test("a value is shown in the units the person chose, and the small print in the others", () => {
  signedIn();
  expect([shown(HALF), other(HALF)]).toEqual(["12.7 mm", "0.5 in"]);
  signedIn({ units: "inch" });
  expect([shown(HALF), other(HALF), shown(null)]).toEqual(["0.5 in", "12.7 mm", "–"]);
});

test.each([
  ["reader", false, false],
  ["operator", false, true],
  ["engineer", true, true],
  ["administrator", true, true],
])("a %s may edit: %s, and note: %s", (role, edits, notes) => {
  signedIn({ role });
  expect([session.mayEdit, session.mayNote]).toEqual([edits, notes]);
});

test("a preference shows at once and is what the server then says", async () => {
  signedIn();
  const server = new Server({ "PATCH /api/session/preferences": { ...session.person, units: "mm" } });
  server.held = "PATCH";
  const asked = session.prefer({ units: "inch" });
  expect(session.units).toBe("inch");
  await vi.advanceTimersByTimeAsync(1);
  await server.release();
  await asked;
  expect(session.units).toBe("mm");
});

test("who is signed out by the server keeps the page and signs in with a token that opens", async () => {
  signedIn();
  const server = new Server({
    "GET /api/crib/tools": new Refusal(401, { title: "Sign in." }),
    "GET /api/session": { token: "t2" },
    "POST /api/session": { name: "Ida", role: "engineer", units: "mm", token: "t3" },
  });
  await expect(ask(api.GET("/api/crib/tools"))).rejects.toThrow(Problem);
  expect([session.ended, session.person?.name]).toEqual([true, "Ida"]);
  await session.signIn("Ida", "secret");
  expect(server.calls("POST")[0]!.headers.get("X-CSRFToken")).toBe("t2");
  expect(session.ended).toBe(false);
  session.person = null; // who never signed in has no page to keep
  await expect(ask(api.GET("/api/crib/tools"))).rejects.toThrow(Problem);
  expect(session.ended).toBe(false);
});

test("a view that opens clears what the view before had put into the head", () => {
  page.undo = () => {};
  page.saved = "saved 10:00 rev 3";
  page.open("Tools", [{ label: "Tools" }]);
  expect([page.undo, page.saved, document.title]).toEqual([null, "", "Tools · Arrow Bench"]);
});
