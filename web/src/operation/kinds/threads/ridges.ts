/** The line of a thread's ridges along an axis, as points (along, from the axis), from `from` over `length`. */
export function ridges(
  from: number,
  length: number,
  pitch: number,
  crest: number,
  root: number,
  slope = 0.577,
): [number, number][] {
  const points: [number, number][] = [[from, root]];
  const tall = Math.abs(crest - root);
  const half = Math.min(tall * slope, pitch * 0.48);
  const flat = Math.max((pitch - 2 * half) / 4, pitch * 0.02);
  const count = Math.min(Math.max(Math.floor(length / pitch + 1e-6), 1), 400);
  for (let k = 0; k < count; k += 1) {
    const middle = from + (k + 0.5) * pitch;
    points.push(
      [middle - flat - half, root],
      [middle - flat, crest],
      [middle + flat, crest],
      [middle + flat + half, root],
    );
  }
  points.push([from + length, root]);
  return points;
}
