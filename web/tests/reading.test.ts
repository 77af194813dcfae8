import { describe, expect, it } from "vitest";
import { asCsv, heightAt, part, told } from "../src/study/reading";

const axis = (label: string, marks: [number, string, string][]) => ({
  label: { metric: `${label}, m/min`, inch: `${label}, sfm` },
  low: 0,
  high: 200,
  ticks: marks.map(([value, metric, inch]) => ({ value, metric, inch })),
});
const x = axis("speed", [
  [50, "50", "164.04"],
  [100, "100", "328.08"],
]);
const y = axis("cost", [
  [0, "0", "0"],
  [2, "2", "2"],
]);
const curve = (name: string, points: [number, number][]) => ({ name, label: name, points });

describe("a chart that is read", () => {
  it("tells a place in the units of its marks", () => {
    expect(told(x, 75, "mm")).toBe("75");
    expect(Number(told(x, 75, "inch"))).toBeCloseTo(246.1, 1);
  });

  it("goes straight between points and nowhere beyond them", () => {
    const line = curve("a", [
      [50, 1],
      [100, 2],
      [150, 0],
    ]);
    expect(heightAt(line, 75)).toBe(1.5);
    expect(heightAt(line, 50)).toBe(1);
    expect(heightAt(line, 125)).toBe(1);
    expect(heightAt(line, 40)).toBeNull();
    expect(heightAt(line, 151)).toBeNull();
  });

  it("is a table with a column for each curve", () => {
    const chart = {
      x,
      y,
      marks: [],
      curves: [
        curve("a", [
          [50, 1],
          [100, 2],
        ]),
        curve("b", [
          [75, 3],
          [100, 5],
        ]),
      ],
    };
    const lines = asCsv(chart, "mm").trim().split("\r\n");
    expect(lines[0]).toBe('"speed, m/min","a; cost, m/min","b; cost, m/min"');
    expect(lines.slice(1)).toEqual(["50,1,", "75,1.5,3", "100,2,5"]);
  });

  it("looks closer with marks of its own, in the units that are shown, as high as its curves are there", () => {
    const line = curve("a", [
      [0, 0],
      [100, 2],
      [200, 0],
    ]);
    const dot = (name: string, at: [number, number]) => ({
      name,
      at,
      label: { metric: name, inch: name },
    });
    const chart = { x, y, curves: [line], marks: [dot("now", [110, 1.8]), dot("far", [10, 0.2])] };
    const seen = part(chart, 80, 120, "inch");
    expect([seen.x.low, seen.x.high]).toEqual([80, 120]);
    const figures = seen.x.ticks.map((tick) => Number(tick.inch));
    expect(figures.every((figure) => figure >= 262 && figure <= 394)).toBe(true);
    for (const tick of seen.x.ticks) expect(Number(tick.inch)).toBeCloseTo(tick.value * 3.2808, 0);
    expect(seen.marks.map((mark) => mark.name)).toEqual(["now"]);
    expect(seen.y.high).toBeGreaterThan(2);
    expect(seen.y.low).toBeGreaterThan(1);
  });
});
