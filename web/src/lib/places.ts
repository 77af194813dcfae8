/** Where the names of curves go on a map: beside their curve, over nothing else, inside the field. */

export interface Place {
  x: number;
  y: number;
  anchor: "start" | "end" | "middle";
}

type Point = [number, number];
interface Box {
  left: number;
  right: number;
  top: number;
  bottom: number;
}

const LINE = 13;
const SIDES: [number, number, Place["anchor"]][] = [
  [6, 4, "start"],
  [-6, 4, "end"],
  [5, -5, "start"],
  [-5, -5, "end"],
  [5, 14, "start"],
  [-5, 14, "end"],
  [0, -6, "middle"],
  [0, 15, "middle"],
];
const MOST_ANCHORS = 24;

const meet = (a: Box, b: Box) => a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom;

function boxOf(at: Point, side: (typeof SIDES)[number], long: number): Box {
  const [dx, dy, anchor] = side;
  const x = at[0] + dx;
  const left = anchor === "start" ? x : anchor === "end" ? x - long : x - long / 2;
  return { left, right: left + long, top: at[1] + dy - LINE + 3, bottom: at[1] + dy + 3 };
}

/** A place for each name, first come first served, none where it would cover another; `marks` are points that should stay free. */
export function places(
  names: { text: string; along: Point[] }[],
  marks: Point[],
  taken: Box[],
  field: Box,
  character = 6.4,
): (Place | null)[] {
  const boxes = [...taken];
  return names.map(({ text, along }) => {
    const long = text.length * character;
    const every = Math.max(1, Math.floor(along.length / MOST_ANCHORS));
    const inside = along.filter(
      ([x, y]) => x >= field.left && x <= field.right && y >= field.top && y <= field.bottom,
    );
    let best: { cost: number; place: Place; box: Box } | undefined;
    for (let k = 0; k < inside.length; k += every) {
      const at = inside[k]!;
      for (const side of SIDES) {
        const box = boxOf(at, side, long);
        if (
          box.left < field.left ||
          box.right > field.right ||
          box.top < field.top ||
          box.bottom > field.bottom
        )
          continue;
        const struck = marks.filter(
          ([x, y]) => x > box.left && x < box.right && y > box.top && y < box.bottom,
        ).length;
        if (boxes.some((other) => meet(box, other))) continue;
        if (!best || struck < best.cost)
          best = { cost: struck, place: { x: at[0] + side[0], y: at[1] + side[1], anchor: side[2] }, box };
      }
    }
    if (best) boxes.push(best.box);
    return best?.place ?? null;
  });
}
