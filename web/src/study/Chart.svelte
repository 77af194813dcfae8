<script lang="ts">
  import { scaleLinear } from "d3-scale";
  import type { Schemas } from "../api/client";
  import { shown } from "../session.svelte";
  import { besideMarks, stacked } from "./labels";
  import Marks from "../lib/Marks.svelte";

  interface Props {
    chart: Schemas["ChartOut"];
    label: string;
    height?: number;
    /** Curves drawn thin and dashed: bounds and bands. */
    thin?: string[];
    /** A stretch of the x axis that is marked, in its own unit. */
    span?: [number, number] | null;
  }
  let { chart, label, height = 190, thin = [], span = null }: Props = $props();
  let width = $state(460);
  const id = $props.id();

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
</script>

<div bind:clientWidth={width}>
  <svg {width} {height} class="block" role="img" aria-label={label}>
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
  </svg>
</div>
