<script lang="ts">
  import type { Schemas } from "../api/client";
  import { shown } from "../session.svelte";
  import HoleSection from "./HoleSection.svelte";

  interface Props {
    outline: Schemas["OutlineOut"];
    width: number;
    height: number;
    /** Operation whose removed metal is marked. */
    marked?: string;
    chuck?: boolean;
    /** Diameters written below. */
    labels?: boolean;
    /** Distances of the shoulders from the free face, as on a drawing. */
    lengths?: boolean;
    name?: string;
  }
  let {
    outline,
    width,
    height,
    marked = "",
    chuck: wanted = true,
    labels = false,
    lengths = false,
    name = "Half section of the part",
  }: Props = $props();
  const chuck = $derived(wanted && outline.chucked);

  /** Of a flat part on a table a cut through its hole: seen from the side it is a line. */
  const FLAT = 0.25; // of its radius
  const hole = $derived.by(() => {
    if (outline.chucked || (outline.layers.length < 2 && outline.length > FLAT * outline.radius)) return null;
    const own = outline.removed.find((one) => one.identity === marked) ?? outline.removed[0];
    if (!own?.corners.length) return null;
    const places = own.corners.map(([place]) => place!);
    const radii = own.corners.map(([, radius]) => radius!);
    const [inner, outer] = [Math.min(...radii), Math.max(...radii)];
    return {
      near: Math.min(...places),
      far: Math.max(...places),
      inner: inner < 1e-9 ? -outer : inner,
      outer,
    };
  });

  const margin = $derived(chuck ? 34 : 6);
  const LINE = 15; // pixels of a dimension line with its figure
  const dimensions = $derived(lengths ? outline.lengths.slice(-5) : []);
  const foot = $derived((labels ? 22 : 0) + (dimensions.length ? dimensions.length * LINE + 6 : 0));
  const scale = $derived(
    Math.max(
      Math.min(
        (width - margin - 8) / Math.max(outline.length, 1),
        (height - foot - 12) / Math.max(2.26 * outline.radius, 1),
      ),
      0.01,
    ),
  );
  const middle = $derived((height - foot) / 2);
  const x = $derived((place: number) => margin + scale * place);
  const y = $derived((radius: number) => middle - scale * radius);
  const below = $derived(y(-outline.radius * 1.02) + (labels ? 22 : 4));
  const end = $derived(outline.finished.at(-1)?.[0] ?? outline.length);

  /** Labels that do not run into the one before. */
  const roomy = $derived.by(() => {
    let last = -Infinity;
    return outline.labels.filter((label) => {
      const half = (shown(label.display).length + 1) * 4;
      const free = x(label.at) - half > last + 4 && x(label.at) + half < width - 2;
      if (free) last = x(label.at) + half;
      return free;
    });
  });
  const inside = $derived(outline.inside as [number, number][]);
  const path = (corners: [number, number][], mirror: number) =>
    corners.map(([a, r], k) => `${k ? "L" : "M"}${x(a)},${y(mirror * r)}`).join("");
  const closed = (mirror: number) =>
    `${path(outline.finished as [number, number][], mirror)}L${x(end)},${y(0)}L${x(0)},${y(0)}Z`;
</script>

{#if hole}
  <HoleSection {outline} {hole} {width} {height} {name} {labels} strong={marked !== ""} />
{:else}
  <svg {width} {height} viewBox="0 0 {width} {height}" role="img" aria-label={name} class="block">
    {#if chuck}
      <rect
        x="4"
        y={y(outline.radius * 1.12)}
        width="22"
        height={y(0) * 2 - 2 * y(outline.radius * 1.12)}
        class="draw-jaw"
      />
      <rect x="26" y={y(outline.radius) - 5} width={x(outline.held) - 23} height="10" class="draw-steel" />
      <rect x="26" y={y(-outline.radius) - 5} width={x(outline.held) - 23} height="10" class="draw-steel" />
    {/if}
    <path d={path(outline.stock as [number, number][], 1)} class="draw-size" stroke-dasharray="4 3" />
    <path d={path(outline.stock as [number, number][], -1)} class="draw-size" stroke-dasharray="4 3" />
    <path d={closed(-1)} class="draw-part" />
    <path d={closed(1)} class="draw-part" fill-opacity="0.55" />
    {#if inside.length}
      <path d="{path(inside, 1)}L{x(end)},{y(0)}L{x(0)},{y(0)}Z" fill="var(--sheet)" />
      <path d={path(inside, 1)} class="draw-size" stroke-dasharray="5 3" />
      <path d={path(inside, -1)} class="draw-size" stroke-dasharray="5 3" />
    {/if}
    {#each outline.rings as ring, k (k)}
      <path d="{path(ring as [number, number][], 1)}Z" fill="var(--sheet)" />
      <path d="{path(ring as [number, number][], 1)}Z" class="draw-size" fill="none" />
      <path
        d="{path(ring as [number, number][], -1)}Z"
        class="draw-size"
        fill="none"
        stroke-dasharray="5 3"
      />
    {/each}
    {#each outline.removed as removed (removed.identity)}
      {#if removed.identity === marked}
        <path d="{path(removed.corners as [number, number][], 1)}Z" class="fill-mark" />
      {/if}
    {/each}
    {#each outline.threads as thread, k (k)}
      {@const strong = thread.identity === marked ? "draw-strong" : "draw-edge"}
      {@const wide = Math.max(thread.crest, thread.root)}
      {#each thread.off ? [thread.off, -thread.off] : [0] as off (off)}
        {#each [1, -1] as side (side)}
          <path
            d="M{x(thread.near)},{y(off + side * thread.crest)}H{x(thread.far)}"
            class={strong}
            stroke-dasharray={off + side * thread.crest < 0 && thread.crest < thread.root ? "5 3" : undefined}
          />
          <path
            d="M{x(thread.near)},{y(off + side * thread.root)}H{x(thread.far)}"
            class="draw-size"
            stroke-dasharray={off + side * thread.root < 0 && thread.crest < thread.root ? "5 3" : undefined}
          />
        {/each}
        <path d="M{x(thread.near)},{y(off + wide)}V{y(off - wide)}" class={strong} />
      {/each}
    {/each}
    {#each outline.layers as layer, k (k)}
      {#if k < outline.layers.length - 1}<path
          d="M{x(layer.near)},{y(outline.radius)}V{y(-outline.radius)}"
          class="draw-size"
          stroke-dasharray="8 3"
        />{/if}
      <text x={x(layer.at)} y={y(outline.radius) + 12} text-anchor="middle" class="draw-text draw-over"
        >{layer.material}</text
      >
    {/each}
    {#if labels}
      {#each roomy as label, k (k)}
        <text
          x={Math.max(x(label.at), 30)}
          y={y(-label.radius) + 16}
          text-anchor="middle"
          class="draw-text draw-over figure">Ø{shown(label.display)}</text
        >
      {/each}
    {/if}
    {#each dimensions as size, k (size.at)}
      {@const down = below + (dimensions.length - 1 - k) * LINE + 8}
      <path
        d="M{x(size.at)},{y(0)}V{down + 3}M{x(end)},{y(0)}V{down + 3}"
        class="draw-size"
        stroke-opacity="0.45"
      />
      <path
        d="M{x(size.at)},{down}H{x(end)}m-6,-3l6,3l-6,3M{x(size.at) + 6},{down - 3}l-6,3l6,3"
        class="draw-size"
      />
      <text
        x={(x(size.at) + x(end)) / 2}
        y={down + 4.5}
        text-anchor="middle"
        class="draw-text draw-over figure">{shown(size.display)}</text
      >
    {/each}
    <line x1="2" x2={width - 2} y1={y(0)} y2={y(0)} class="draw-centre" />
  </svg>
{/if}
