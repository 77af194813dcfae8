<script lang="ts">
  import { scaleLinear } from "d3-scale";
  import type { Schemas } from "../api/client";
  import { session, shown } from "../session.svelte";
  import { besideMarks, stacked } from "./labels";
  import Marks from "../lib/Marks.svelte";
  import { asCsv, asPng, asSvg, heightAt, offered, part, told } from "./reading";

  interface Props {
    chart: Schemas["ChartOut"];
    label: string;
    height?: number;
    /** Curves drawn thin and dashed: bounds and bands. */
    thin?: string[];
    /** A stretch of the x axis that is marked, in its own unit. */
    span?: [number, number] | null;
  }
  let { chart: whole, label, height = 190, thin = [], span = null }: Props = $props();
  let width = $state(460);
  const id = $props.id();

  // a part of the x axis that is looked at closer
  const CLOSER = 0.5; // of what is seen, with each step
  const CLOSEST = 0.02; // of the whole
  let seen = $state<[number, number] | null>(null);
  const chart = $derived(seen ? part(whole, seen[0], seen[1], session.units) : whole);

  function zoom(by: number) {
    const [low, high] = seen ?? [whole.x.low, whole.x.high];
    const range = whole.x.high - whole.x.low;
    const width = Math.max((high - low) * by, CLOSEST * range);
    if (width >= range) {
      seen = null;
      return;
    }
    const now = whole.marks[0]?.at[0];
    const middle = place ?? (now !== undefined && now >= low && now <= high ? now : (low + high) / 2);
    const start = Math.min(Math.max(middle - width / 2, whole.x.low), whole.x.high - width);
    seen = [start, start + width];
  }

  const LEFT = 52;
  const x = $derived(scaleLinear([chart.x.low, chart.x.high], [LEFT, width - 12]));
  const y = $derived(scaleLinear([chart.y.low, chart.y.high], [height - 34, 12]));
  const path = (points: number[][]) =>
    points.map(([a, b], k) => `${k ? "L" : "M"}${x(a!)},${y(b!)}`).join("");
  const ends = $derived(
    chart.curves.map((curve) => {
      const inside = curve.points.filter(([a, b]) => b! <= chart.y.high && a! <= chart.x.high);
      return { ...curve, end: inside.at(-1) };
    }),
  );
  const named = $derived(ends.filter((curve) => curve.end && curve.label && chart.curves.length > 1));
  const heights = $derived(stacked(named.map((curve) => Math.max(y(curve.end![1]!) - 5, 20))));
  const dots = $derived(
    chart.marks.map((mark) => ({
      x: x(mark.at[0]!),
      y: Math.max(y(mark.at[1]!), 12),
      text: chart.marks.length > 1 ? mark.name : shown(mark.label),
    })),
  );
  const places = $derived(besideMarks(dots, width));

  // what stands under the pointer, or under the place that the keys have gone to
  const STEPS = 60;
  let place = $state<number | null>(null);
  let svg: SVGSVGElement | undefined = $state();
  const read = $derived(
    place === null
      ? []
      : chart.curves.flatMap((curve) => {
          const height = heightAt(curve, place!);
          return height === null ? [] : [{ curve, height }];
        }),
  );
  const axisName = (text: string) => text.split(",")[0]!;
  const file = $derived(label.toLowerCase().replace(/[^a-z0-9]+/g, "-"));

  function over(event: PointerEvent) {
    const box = svg!.getBoundingClientRect();
    const at = x.invert(event.clientX - box.left);
    place = at >= chart.x.low && at <= chart.x.high ? at : null;
  }
  function key(event: KeyboardEvent) {
    const by = { ArrowLeft: -1, ArrowRight: 1, PageDown: -10, PageUp: 10 }[event.key];
    const range = chart.x.high - chart.x.low;
    if (by)
      place = Math.min(
        Math.max((place ?? chart.x.low + range / 2) + (by * range) / STEPS, chart.x.low),
        chart.x.high,
      );
    else if (event.key === "+") zoom(CLOSER);
    else if (event.key === "-") zoom(1 / CLOSER);
    else if (event.key === "0") seen = null;
    else if (event.key === "Escape" && place !== null) place = null;
    else return;
    event.preventDefault();
    event.stopPropagation();
  }
  async function save(form: "CSV" | "SVG" | "PNG") {
    if (form === "CSV") offered(`${file}.csv`, new Blob([asCsv(whole, session.units)], { type: "text/csv" }));
    else if (form === "SVG") offered(`${file}.svg`, new Blob([asSvg(svg!)], { type: "image/svg+xml" }));
    else {
      const made = await asPng(svg!);
      if (made) offered(`${file}.png`, made);
    }
  }
</script>

<div bind:clientWidth={width}>
  <!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
  <svg
    bind:this={svg}
    {width}
    {height}
    class="block"
    role="img"
    aria-label="{label}; arrow keys read it, + and − look closer, 0 shows all"
    tabindex="0"
    onpointermove={over}
    onpointerleave={() => (place = null)}
    onkeydown={key}
  >
    <defs
      ><clipPath {id}
        ><rect x={LEFT} y="8" width={Math.max(width - LEFT - 12, 1)} height={height - 42} /></clipPath
      ></defs
    >
    {#if span}<rect
        x={x(span[0])}
        y="12"
        width={Math.max(x(span[1]) - x(span[0]), 0)}
        height={height - 46}
        fill="var(--window)"
        clip-path="url(#{id})"
      />{/if}
    <Marks ticks={chart.y.ticks} place={y} at={LEFT - 6} side="left" across={[LEFT, width - 12]} />
    <Marks ticks={chart.x.ticks} place={x} at={height - 19} side="below" />
    <path d="M{LEFT},12V{height - 34}H{width - 12}" class="draw-size" />
    <text x={width - 12} y={height - 4} text-anchor="end" class="draw-text">{shown(chart.x.label)}</text>
    <text x="4" y={height - 4} class="draw-text">{shown(chart.y.label)} ↑</text>
    <g clip-path="url(#{id})" fill="none">
      {#each chart.curves as curve (curve.name)}
        <path
          d={path(curve.points)}
          stroke={thin.includes(curve.name) ? "var(--warn)" : "var(--ink)"}
          stroke-width={thin.includes(curve.name) ? 1.2 : 1.8}
          stroke-dasharray={thin.includes(curve.name) ? "6 3" : undefined}
        />
      {/each}
    </g>
    {#each named as curve, k (curve.name)}
      <text
        x={Math.min(x(curve.end![0]!), width - 14)}
        y={heights[k]}
        text-anchor="end"
        class="draw-text draw-over">{curve.label}</text
      >
    {/each}
    {#each chart.marks as mark, k (mark.name)}
      <g
        class={mark.name === "now" || mark.name === "planned" || mark.name === "largest"
          ? "fill-mark"
          : "fill-ink"}
      >
        <circle cx={dots[k]?.x} cy={dots[k]?.y} r="4.5" />
        <text
          x={places[k]?.x}
          y={places[k]?.y}
          text-anchor={places[k]?.anchor}
          class="figure draw-over"
          font-size="12.5">{dots[k]?.text}</text
        >
      </g>
    {/each}
    {#if place !== null}
      <path d="M{x(place)},12V{height - 34}" stroke="var(--mark)" stroke-dasharray="2 2" />
      {#each read as one (one.curve.name)}<circle
          cx={x(place)}
          cy={Math.max(y(one.height), 8)}
          r="3"
          class="fill-mark"
        />{/each}
    {/if}
  </svg>
  <p class="text-soft flex min-h-5 justify-between gap-3 text-[13px]">
    <span aria-live="polite" data-testid="chart-reading"
      >{#if place !== null}{axisName(shown(chart.x.label))}
        <b class="figure">{told(chart.x, place, session.units)}</b>{#each read as one (one.curve.name)}
          <span class="ml-1">· {one.curve.label || axisName(shown(chart.y.label))}</span>
          <b class="figure">{told(chart.y, one.height, session.units)}</b>{/each}{/if}</span
    >
    <span class="shrink-0"
      ><button class="plain-link" aria-label="look closer at {label}" onclick={() => zoom(CLOSER)}
        >closer</button
      >{#if seen}<button
          class="plain-link ml-2"
          aria-label="show all of {label}"
          onclick={() => (seen = null)}>all</button
        >{/if}
      {#each ["CSV", "SVG", "PNG"] as const as form (form)}<button
          class="plain-link ml-2"
          aria-label="{label} as {form}"
          onclick={() => void save(form)}>{form}</button
        >{/each}</span
    >
  </p>
</div>
