<script lang="ts">
  import type { Schemas } from "../api/client";
  import { session } from "../session.svelte";
  import { sparse } from "./marks";

  /** The figures of one axis of a drawing: below it or at its left, with a thin line across where one is wanted. */
  interface Props {
    ticks: Schemas["TickOut"][];
    place: (value: number) => number;
    /** Where the figures stand: their baseline below, their right end at the left. */
    at: number;
    side: "below" | "left";
    /** Lines from and to, in pixels. */
    across?: [number, number];
    /** The furthest right that the middle of a figure may stand, by its length. */
    keep?: (text: string) => number;
  }
  let { ticks, place, at, side, across, keep }: Props = $props();
  const APART = 14; // px between figures at the left
  const shownTicks = $derived(sparse(ticks, (t) => place(t.value), side === "left" ? APART : undefined));
  const text = (t: Schemas["TickOut"]) => (session.units === "inch" ? t.inch : t.metric);
  const middle = (t: Schemas["TickOut"]) => Math.min(place(t.value), keep?.(text(t)) ?? Infinity);
</script>

{#each shownTicks as t (t.value)}
  {#if across}<line
      x1={side === "left" ? across[0] : place(t.value)}
      x2={side === "left" ? across[1] : place(t.value)}
      y1={side === "left" ? place(t.value) : across[0]}
      y2={side === "left" ? place(t.value) : across[1]}
      stroke="var(--line)"
    />{/if}
  {#if side === "left"}
    <text x={at} y={place(t.value) + 4} text-anchor="end" class="draw-text figure" font-size="12"
      >{text(t)}</text
    >
  {:else}
    <text x={middle(t)} y={at} text-anchor="middle" class="draw-text figure" font-size="12">{text(t)}</text>
  {/if}
{/each}
