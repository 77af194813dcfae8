<script lang="ts">
  import { scaleLinear } from "d3-scale";
  import { shown } from "../session.svelte";
  import type { Display } from "../api/client";

  interface Props {
    edges: number[];
    counts: number[];
    label: string;
    /** Named values on the axis. */
    marks: { name: string; value: number; display: Display }[];
  }
  let { edges, counts, label, marks }: Props = $props();
  let width = $state(420);
  const HEIGHT = 150;
  const FOOT = 36;
  const ends = $derived([...edges, ...marks.map((one) => one.value)]);
  const x = $derived(scaleLinear([Math.min(...ends), Math.max(...ends)], [10, width - 10]).nice());
  const y = $derived(scaleLinear([0, Math.max(...counts)], [HEIGHT - FOOT, 18]));
</script>

<div bind:clientWidth={width}>
  <svg {width} height={HEIGHT} role="img" aria-label={label} class="block">
    {#each counts as count, k (k)}
      <rect
        x={x(edges[k]!) + 0.5}
        width={Math.max(x(edges[k + 1]!) - x(edges[k]!) - 1, 1)}
        y={y(count)}
        height={y(0) - y(count)}
        fill="var(--soft)"
      />
    {/each}
    <line x1="10" x2={width - 10} y1={HEIGHT - FOOT} y2={HEIGHT - FOOT} stroke="var(--edge)" />
    {#each x.ticks(5) as tick (tick)}
      <text x={x(tick)} y={HEIGHT - FOOT + 15} text-anchor="middle" class="draw-text figure" font-size="12"
        >{x.tickFormat(5)(tick)}</text
      >
    {/each}
    {#each marks as one, k (one.name)}
      {@const at = x(one.value)}
      <line
        x1={at}
        x2={at}
        y1="16"
        y2={HEIGHT - FOOT}
        stroke="var(--mark)"
        stroke-dasharray={k ? "4 3" : ""}
      />
      <text
        x={at}
        y={k ? HEIGHT - 4 : 12}
        text-anchor={at > width * 0.7 ? "end" : at < width * 0.3 ? "start" : "middle"}
        class="draw-text"
        font-size="12">{one.name} {shown(one.display)}</text
      >
    {/each}
  </svg>
</div>
