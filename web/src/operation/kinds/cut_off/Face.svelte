<script lang="ts">
  import { scaleLinear } from "d3-scale";
  import { shown } from "../../../session.svelte";
  import type { OperationBench } from "../../bench.svelte";
  import { pathOf, viewOf } from "../view";

  let { bench }: { bench: OperationBench } = $props();
  const view = $derived(viewOf(bench, "cut off"));
  const WIDE = 216;
  const TALL = 66;
  const rim = $derived(view?.face[0]?.[0] ?? 1);
  const inner = $derived(view?.face.at(-1)?.[0] ?? 0);
  const highest = $derived(Math.max(...(view?.face.map(([, v]) => Math.abs(v!)) ?? []), 1));
  const hollow = $derived(view?.scene.hollow === "hollow");
  const x = $derived(scaleLinear([rim, inner], [6, WIDE - 12]));
  // the tip wandered towards the part: there the face is hollow
  const y = $derived(scaleLinear([0, highest], [hollow ? 18 : 34, hollow ? 38 : 16]));
  const times = $derived(Math.round(20_000 / highest / Math.max(rim, 1)) || 1);
  const path = $derived(pathOf((view?.face ?? []).map(([r, v]) => [x(r!), y(Math.abs(v!))])));
  const pip = $derived(Math.min((view?.pip_part ?? 0) / 2 / Math.max(rim, 1), 0.3) * (WIDE - 18));
</script>

{#if view}
  <div class="flex flex-wrap justify-between gap-x-2 px-2.5 text-[13px]">
    <span class="text-soft">face, height × {times}</span>
    <span class="figure"
      >dish {shown(view.face_label)}{view.face_limit ? `, limit ${shown(view.face_limit)}` : ""}</span
    >
  </div>
  <svg
    viewBox="0 0 {WIDE} {TALL}"
    class="w-full"
    role="img"
    aria-label="Face of the part: {view.scene.hollow} by {view.face_label.metric}"
  >
    <line
      x1="6"
      x2={WIDE - 12}
      y1={y(0)}
      y2={y(0)}
      stroke="var(--soft)"
      stroke-dasharray="4 3"
      stroke-width="0.8"
    />
    <path d="{path}L{WIDE - 12},{TALL - 16}L6,{TALL - 16}Z" fill="var(--part)" stroke="none" />
    <path d={path} fill="none" stroke="var(--ink)" stroke-width="1.5" />
    {#if pip > 0.5}<path
        d="M{WIDE - 12 - pip},{y(highest)}l{pip * 0.3},-14h{pip * 0.7}V{y(highest)}Z"
        class="fill-mark"
      />{/if}
    <text x="6" y={TALL - 4} class="draw-text" font-size="12">rim</text>
    <text x={WIDE - 12} y={TALL - 4} text-anchor="end" class="draw-text" font-size="12"
      >{inner > 0.1 * rim ? "bore" : "centre"} · {view.scene.hollow}</text
    >
  </svg>
{/if}
