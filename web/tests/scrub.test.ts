import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { along, sense, type Moment } from "../src/operation/kinds/along";
import { Scrub } from "../src/operation/scrub.svelte";

beforeEach(
  () => void vi.useFakeTimers({ toFake: ["requestAnimationFrame", "cancelAnimationFrame", "performance"] }),
);
afterEach(() => vi.useRealTimers());

test("the place in the cut is held between its ends and told as the stop that is reached", () => {
  const scrub = new Scrub(() => [0, 2, 5]);
  expect(scrub.total).toBe(5);
  scrub.set(99);
  expect([scrub.seconds, scrub.index]).toEqual([5, 2]);
  scrub.set(-1);
  expect([scrub.seconds, scrub.index]).toEqual([0, 0]);
  scrub.step(1);
  expect(scrub.seconds).toBe(2);
  scrub.goto(9);
  expect(scrub.seconds).toBe(5);
});

test.each([
  [1, 4],
  [8, 8],
  [300, 12],
])("a cut of %d s plays in %d s, stops at its end, and begins anew from there", (total, wanted) => {
  const scrub = new Scrub(() => [0, total]);
  scrub.toggle();
  vi.advanceTimersByTime(wanted * 500);
  expect(scrub.seconds / total).toBeCloseTo(0.5, 1);
  vi.advanceTimersByTime(wanted * 600);
  expect([scrub.playing, scrub.seconds]).toEqual([false, total]);
  scrub.toggle();
  expect([scrub.playing, scrub.seconds]).toEqual([true, 0]);
  scrub.set(0.5);
  expect(scrub.playing).toBe(false);
});

test("without anything to play nothing plays", () => {
  const scrub = new Scrub(() => []);
  scrub.toggle();
  expect([scrub.playing, scrub.index, scrub.total]).toEqual([false, 0, 0]);
});

test("a tool on its way stands in proportion between two places, and waits where the way waits", () => {
  const way: Moment[] = [
    [0, 0, 0, 0],
    [2, 10, 0, -4],
    [3, 10, 0, -4],
    [5, 10, 6, -4],
  ];
  expect(along(way, 1)).toEqual({ x: 5, y: 0, z: -2 });
  expect(along(way, 2.5)).toEqual({ x: 10, y: 0, z: -4 });
  expect(along(way, 9)).toEqual({ x: 10, y: 6, z: -4 });
  expect(along([], 1)).toEqual({ x: 0, y: 0, z: 0 });
});

test("the sense of a circle, seen from the spindle", () => {
  const circle = (way: 1 | -1): Moment[] =>
    Array.from({ length: 41 }, (_, k) => {
      const angle = (way * 2 * Math.PI * k) / 40;
      return [k, Math.cos(angle), Math.sin(angle), 0] as const;
    });
  expect(sense(circle(-1), 13)).toBe(1);
  expect(sense(circle(1), 13)).toBe(-1);
});
