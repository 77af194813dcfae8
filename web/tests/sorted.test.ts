import { describe, expect, it } from "vitest";
import { figureOf, Sorted } from "../src/lib/sorted.svelte";

describe("a table sorted by a column", () => {
  it("reads figures as people do", () => {
    expect(figureOf("2:24 min")).toBe(144);
    expect(figureOf("1:02:03 h")).toBe(3723);
    expect(figureOf("1\u202f364")).toBe(1364);
    expect(figureOf("0.117 mm/rev")).toBe(0.117);
    expect(figureOf("over 49")).toBeGreaterThan(49);
    expect(figureOf("below 3")).toBeLessThan(3);
    expect(figureOf("-12 µm")).toBe(-12);
    expect(figureOf("from the outside in")).toBe("from the outside in");
  });

  it("goes up, down and back to how it came", () => {
    const order = new Sorted("test");
    const rows = [{ s: "106" }, { s: "9.5" }, { s: "1:10 min" }, { s: "–" }, { s: "9.5" }];
    const places = () => order.rows(rows, (row) => row.s).map((one) => one.k);
    expect(places()).toEqual([0, 1, 2, 3, 4]);
    order.by("time");
    expect(order.aria("time")).toBe("ascending");
    expect(order.aria("cost")).toBe("none");
    expect(places()).toEqual([1, 4, 2, 0, 3]);
    order.by("time");
    expect(places()).toEqual([0, 2, 1, 4, 3]);
    order.by("time");
    expect(places()).toEqual([0, 1, 2, 3, 4]);
  });
});
