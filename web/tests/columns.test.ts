import { describe, expect, it, vi } from "vitest";
import { Columns } from "../src/lib/columns.svelte";
import { session } from "../src/session.svelte";
import { signedIn } from "./people";

describe("columns that a person puts away", () => {
  it("are gone until they are ticked again, and remembered with the panes", () => {
    const kept = vi.spyOn(session, "prefer").mockResolvedValue(undefined as never);
    signedIn({ panes: { "bench scene": 240 } });
    const columns = new Columns("ranking");
    expect(columns.shown("cost")).toBe(true);
    columns.toggle("cost");
    expect(columns.shown("cost")).toBe(false);
    expect(new Columns("jobs").shown("cost")).toBe(true);
    expect(kept).toHaveBeenLastCalledWith({ panes: { "bench scene": 240, "column ranking cost": 1 } });
    columns.toggle("cost");
    expect(columns.shown("cost")).toBe(true);
    expect(kept).toHaveBeenLastCalledWith({ panes: { "bench scene": 240 } });
  });
});
