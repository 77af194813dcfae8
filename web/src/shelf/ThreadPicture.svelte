<script lang="ts">
  import type { Schemas } from "../api/client";

  /** Both sides of a thread to scale: metal with the most and the least that the limits allow, the zone between them. */
  let { sides, pitch }: { sides: Schemas["ThreadSide"][]; pitch: number } = $props();

  const every = $derived(sides.flatMap((side) => [...side.most, ...side.least]));
  const long = $derived(Math.max(...every.map((p) => p[0] ?? 0)));
  const low = $derived(Math.min(...every.map((p) => p[1] ?? 0)) - 0.25 * pitch);
  const high = $derived(Math.max(...every.map((p) => p[1] ?? 0)) + 0.25 * pitch);
  const px = (point: number[]) => `${((point[0] ?? 0) * scale).toFixed(1)},${y(point[1] ?? 0)}`;
  const scale = $derived(600 / long);
  function y(radius: number) {
    return ((high - radius) * scale).toFixed(1);
  }
  const metal = (side: Schemas["ThreadSide"], line: number[][]) => {
    const edge = side.internal ? high : low;
    return `M0,${y(edge)} L${line.map(px).join(" L")} L600,${y(edge)} Z`;
  };
  const zone = (side: Schemas["ThreadSide"]) =>
    `M${side.most.map(px).join(" L")} L${[...side.least].reverse().map(px).join(" L")} Z`;
</script>

<svg
  viewBox="0 0 600 {((high - low) * scale).toFixed(1)}"
  class="max-h-[300px] w-full"
  role="img"
  aria-label="Profile to scale, inside thread above, outside thread below, with their tolerance zones"
>
  {#each sides as side (side.title)}
    <path d={metal(side, side.least)} class={side.internal ? "fill-line" : "fill-soft"} opacity="0.55" />
    <path d={zone(side)} class="fill-mark" opacity="0.4" />
    <path
      d="M{side.most.map(px).join(' L')}"
      fill="none"
      class="stroke-ink"
      stroke-width="1.4"
      stroke-dasharray={side.internal ? "5 3" : "none"}
    />
    <path d="M{side.least.map(px).join(' L')}" fill="none" class="stroke-ink" stroke-width="0.8" />
  {/each}
</svg>
