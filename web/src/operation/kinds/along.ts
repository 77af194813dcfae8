export type Moment = readonly [seconds: number, x: number, y: number, z: number];

/** Where a tool stands after so many seconds of its way: between two places on a straight line. */
export function along(way: readonly Moment[], seconds: number): { x: number; y: number; z: number } {
  if (!way.length) return { x: 0, y: 0, z: 0 };
  let low = 0;
  let high = way.length - 1;
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (way[middle]![0] <= seconds) low = middle;
    else high = middle;
  }
  const [a, b] = [way[low]!, way[high]!];
  const share = b[0] > a[0] ? Math.min(Math.max((seconds - a[0]) / (b[0] - a[0]), 0), 1) : 1;
  const at = (k: 1 | 2 | 3) => a[k] + share * (b[k] - a[k]);
  return { x: at(1), y: at(2), z: at(3) };
}

/** Which way it goes round its middle there, seen from the spindle: 1 clockwise, −1 the other way. */
export function sense(way: readonly Moment[], seconds: number): 1 | -1 {
  const total = way.at(-1)?.[0] ?? 0;
  const [a, b] = [along(way, seconds), along(way, Math.min(seconds + total * 0.002, total))];
  return a.x * b.y - a.y * b.x > 0 ? -1 : 1;
}
