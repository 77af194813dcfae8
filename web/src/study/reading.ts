import { scaleLinear } from "d3-scale";
import type { Schemas } from "../api/client";

type Axis = Schemas["ChartOut"]["x"];
type Curve = Schemas["ChartOut"]["curves"][number];

/** How an axis writes its numbers in the units that are shown: figure = start + scale × value, read off its own marks. */
function written(axis: Axis, units: "mm" | "inch"): { start: number; scale: number } {
  const marks = axis.ticks
    .map(
      (tick) =>
        [tick.value, Number((units === "inch" ? tick.inch : tick.metric).replace(/[^\d.-]/g, ""))] as const,
    )
    .filter(([, text]) => Number.isFinite(text));
  const first = marks[0];
  const last = marks.at(-1);
  const scale = first && last && last[0] !== first[0] ? (last[1] - first[1]) / (last[0] - first[0]) : 1;
  return { start: first ? first[1] - scale * first[0] : 0, scale };
}

/** A number of an axis as its own marks tell it: in the units that are shown. */
export function told(axis: Axis, value: number, units: "mm" | "inch"): string {
  const { start, scale } = written(axis, units);
  return String(Number((start + scale * value).toPrecision(4)));
}

const MARKS = 6;

/** An axis from one of its places to another, with marks of its own. */
export function closer(axis: Axis, low: number, high: number, units: "mm" | "inch"): Axis {
  const { start, scale } = written(axis, units);
  const figures = scaleLinear([start + scale * low, start + scale * high], [0, 1]).ticks(MARKS);
  const marks = figures.map((figure) => {
    const text = String(Number(figure.toPrecision(6)));
    return { value: (figure - start) / scale, metric: text, inch: text };
  });
  return { ...axis, low, high, ticks: marks };
}

/** The chart over a part of its x axis, as high as its curves are there. */
export function part(
  chart: Schemas["ChartOut"],
  low: number,
  high: number,
  units: "mm" | "inch",
): Schemas["ChartOut"] {
  const heights = chart.curves
    .flatMap((curve) => [
      heightAt(curve, low),
      heightAt(curve, high),
      ...curve.points.filter(([at]) => at! >= low && at! <= high).map(([, height]) => height!),
    ])
    .filter((height): height is number => height !== null)
    .map((height) => Math.min(height, chart.y.high));
  const [least, most] = heights.length
    ? [Math.min(...heights), Math.max(...heights)]
    : [chart.y.low, chart.y.high];
  const room = 0.08 * (most - least || chart.y.high - chart.y.low);
  return {
    ...chart,
    x: closer(chart.x, low, high, units),
    y: closer(chart.y, Math.max(least - room, Math.min(chart.y.low, least)), most + room, units),
    marks: chart.marks.filter((mark) => mark.at[0]! >= low && mark.at[0]! <= high),
  };
}

/** A curve's height at a place, straight between its points; none beyond its ends. */
export function heightAt(curve: Curve, place: number): number | null {
  const points = curve.points as [number, number][];
  const next = points.findIndex(([at]) => at >= place);
  if (next < 0 || !points.length || place < points[0]![0]) return null;
  const [b, high] = points[next]!;
  if (next === 0) return high;
  const [a, low] = points[next - 1]!;
  return b === a ? high : low + ((high - low) * (place - a)) / (b - a);
}

/** The curves as a table that any spreadsheet reads: a line for each place of the first, in the units that are shown. */
export function asCsv(chart: Schemas["ChartOut"], units: "mm" | "inch"): string {
  const quoted = (text: string) => `"${text.replace(/"/g, '""')}"`;
  const label = (axis: Axis) => (units === "inch" ? axis.label.inch : axis.label.metric);
  const names = chart.curves.map((curve) =>
    curve.label ? `${curve.label}; ${label(chart.y)}` : label(chart.y),
  );
  const places = [...new Set(chart.curves.flatMap((curve) => curve.points.map(([at]) => at!)))].sort(
    (a, b) => a - b,
  );
  const rows = places.map((place) =>
    [
      told(chart.x, place, units),
      ...chart.curves.map((curve) => {
        const height = heightAt(curve, place);
        return height === null ? "" : told(chart.y, height, units);
      }),
    ].join(","),
  );
  return [[label(chart.x), ...names].map(quoted).join(","), ...rows].join("\r\n") + "\r\n";
}

/** Gives a file to the person. */
export function offered(name: string, content: Blob): void {
  const link = document.createElement("a");
  link.href = URL.createObjectURL(content);
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 1000);
}

/** A drawing of the page as a file of its own: with the colours and letters that it has here. */
export function asSvg(svg: SVGSVGElement): string {
  const copy = svg.cloneNode(true) as SVGSVGElement;
  const own = [svg, ...svg.querySelectorAll<SVGElement>("*")];
  const copied = [copy, ...copy.querySelectorAll<SVGElement>("*")];
  const kept = [
    "fill",
    "stroke",
    "stroke-width",
    "stroke-dasharray",
    "font-family",
    "font-size",
    "font-weight",
    "opacity",
    "paint-order",
  ];
  own.forEach((one, k) => {
    const style = getComputedStyle(one);
    copied[k]!.setAttribute("style", kept.map((name) => `${name}:${style.getPropertyValue(name)}`).join(";"));
    copied[k]!.removeAttribute("class");
  });
  copy.setAttribute("xmlns", "http://www.w3.org/2000/svg");
  return `<?xml version="1.0" encoding="UTF-8"?>\n${new XMLSerializer().serializeToString(copy)}`;
}

/** The same as a picture, twice as fine as it stands on the screen. */
export async function asPng(svg: SVGSVGElement): Promise<Blob | null> {
  const { width, height } = svg.getBoundingClientRect();
  const picture = new Image();
  picture.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(asSvg(svg))}`;
  await picture.decode();
  const canvas = document.createElement("canvas");
  [canvas.width, canvas.height] = [2 * width, 2 * height];
  const pen = canvas.getContext("2d");
  if (!pen) return null;
  pen.fillStyle = getComputedStyle(document.body).backgroundColor;
  pen.fillRect(0, 0, canvas.width, canvas.height);
  pen.drawImage(picture, 0, 0, canvas.width, canvas.height);
  return new Promise((done) => canvas.toBlob(done, "image/png"));
}
