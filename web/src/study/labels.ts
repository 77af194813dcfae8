/** Where words go in a chart so that they cover neither each other nor a mark. */

export interface Placed {
  x: number;
  y: number;
  anchor: "start" | "end";
}

const CHARACTER = 7.6; // px, of the figures' face at the charts' size
const LINE = 13;
const DOT = 6;
const SIDES: [number, number, Placed["anchor"]][] = [
  [8, -8, "start"],
  [-8, -8, "end"],
  [8, 17, "start"],
  [-8, 17, "end"],
  [10, 4, "start"],
];

/** A place beside each mark: the first side at which its words meet no other mark, no words set before, and no edge. */
export function besideMarks(marks: { x: number; y: number; text: string }[], width: number): Placed[] {
  const boxes: [number, number, number, number][] = marks.map((m) => [
    m.x - DOT,
    m.y - DOT,
    m.x + DOT,
    m.y + DOT,
  ]);
  return marks.map((mark, k) => {
    const tried = SIDES.map(([dx, dy, anchor]) => {
      const x = mark.x + dx;
      const y = mark.y + dy;
      const long = mark.text.length * CHARACTER;
      const left = anchor === "start" ? x : x - long;
      const box: [number, number, number, number] = [left, y - LINE + 2, left + long, y + 3];
      const hits = boxes.filter(
        (b, j) => j !== k && box[0] < b[2] && b[0] < box[2] && box[1] < b[3] && b[1] < box[3],
      ).length;
      const outside = left < 0 || left + long > width || y < LINE ? 1 : 0;
      return { placed: { x, y, anchor }, box, bad: hits + 2 * outside };
    });
    const best = tried.reduce((a, b) => (b.bad < a.bad ? b : a));
    boxes.push(best.box);
    return best.placed;
  });
}

/** Heights for words at the ends of curves: at their curve, lifted until a line lies between each two. */
export function stacked(wanted: number[]): number[] {
  const found = [...wanted];
  const order = wanted.map((_, k) => k).sort((a, b) => wanted[b]! - wanted[a]!);
  let above = Infinity;
  for (const k of order) {
    found[k] = Math.min(wanted[k]!, above - LINE);
    above = found[k]!;
  }
  return found;
}
