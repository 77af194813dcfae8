<script lang="ts">
  import type { Schemas } from "../api/client";
  import { session, shown } from "../session.svelte";

  /** A flat part cut through one of its holes: its layers from the face down with their thickness, the hole with its diameter. */
  interface Props {
    outline: Schemas["OutlineOut"];
    hole: { near: number; far: number; inner: number; outer: number };
    width: number;
    height: number;
    name: string;
    strong?: boolean;
    labels?: boolean;
  }
  let { outline, hole, width, height, name, strong = false, labels: wanted = false }: Props = $props();
  const ROOMY = 400; // px from which the layers' names stand beside each other without overprint
  const labels = $derived(wanted && width >= ROOMY);

  const HATCHES = ["M0,8L8,0", "M0,0L8,8", "M0,4H8", "M0,8L8,0M0,0L8,8"];
  const size = $derived(hole.outer - hole.inner);
  const left = $derived(labels ? 12 : 4);
  const right = $derived(labels ? Math.min(width * 0.42, 300) : 4);
  const top = $derived(labels ? 30 : 6);
  const deep = $derived(Math.max(outline.length, 1e-6));
  const scale = $derived(
    Math.min((height - top - (labels ? 12 : 6)) / deep, (width - left - right) / Math.max(3 * size, 1e-6)),
  );
  const wide = $derived(width - left - right);
  const middle = $derived(left + wide / 2);
  /** The face is drawn above: a drill comes down into it. */
  const y = $derived((place: number) => top + scale * (deep - place));
  const half = $derived((scale * size) / 2);
  const layers = $derived(
    outline.layers.length
      ? outline.layers.map((one, k) => ({ ...one, far: outline.layers[k - 1]?.near ?? deep, hatch: k }))
      : [{ near: 0, far: deep, at: deep / 2, material: "", thick: null, hatch: 0 }],
  );
  const diameter = $derived(
    session.units === "inch" ? (size / 25.4).toFixed(3) : size.toFixed(2).replace(/\.?0+$/, ""),
  );
  const id = $props.id();
</script>

<svg
  {width}
  {height}
  viewBox="0 0 {width} {height}"
  role="img"
  aria-label="{name}, cut through a hole"
  class="block"
>
  <defs>
    {#each HATCHES as path, k (k)}
      <pattern id="{id}-{k}" width="8" height="8" patternUnits="userSpaceOnUse"
        ><path d={path} class="draw-size" stroke-opacity="0.55" fill="none" /></pattern
      >
    {/each}
  </defs>
  {#each layers as layer, k (k)}
    {@const high = y(layer.far)}
    {@const tall = Math.max(y(layer.near) - high, 0.5)}
    {#each [[left, middle - half], [middle + half, left + wide]] as [from, to], j (j)}
      <rect x={from} y={high} width={Math.max(to! - from!, 0)} height={tall} class="draw-part" />
      <rect
        x={from}
        y={high}
        width={Math.max(to! - from!, 0)}
        height={tall}
        fill="url(#{id}-{layer.hatch % HATCHES.length})"
      />
    {/each}
    {#if labels && layer.material}
      <path d="M{left + wide},{(high + high + tall) / 2}h10" class="draw-size" />
      <text x={left + wide + 14} y={high + tall / 2 + 4} class="draw-text"
        >{layer.material} <tspan class="figure">{layer.thick ? shown(layer.thick) : ""}</tspan></text
      >
    {/if}
  {/each}
  <path
    d="M{middle - half},{y(hole.far)}V{y(hole.near)}M{middle + half},{y(hole.far)}V{y(hole.near)}"
    class={strong ? "draw-strong" : "draw-edge"}
    fill="none"
  />
  {#if hole.near > 1e-6}<path
      d="M{middle - half},{y(hole.near)}H{middle + half}"
      class={strong ? "draw-strong" : "draw-edge"}
    />{/if}
  <line x1={middle} x2={middle} y1={top - 12} y2={y(0) + 5} class="draw-centre" />
  {#if labels}
    <path
      d="M{middle - half},{top - 2}V{top - 14}M{middle + half},{top - 2}V{top - 14}M{middle - half},{top -
        10}H{middle + half}"
      class="draw-size"
    />
    <text x={middle + half + 6} y={top - 8} class="draw-text figure">Ø{diameter}</text>
  {/if}
</svg>
