/** Marks of an axis whose figures keep apart: at least `apart` pixels, or the width of their words. */
export function sparse<T extends { metric: string; inch: string }>(
  ticks: T[],
  place: (tick: T) => number,
  apart?: number,
): T[] {
  let last = -Infinity;
  return ticks.filter((tick) => {
    const half = apart === undefined ? Math.max(tick.metric.length, tick.inch.length) * 3.9 + 3 : apart / 2;
    const free = Math.abs(place(tick) - last) >= 2 * half;
    if (free) last = place(tick);
    return free;
  });
}
