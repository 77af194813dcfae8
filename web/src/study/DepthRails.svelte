<script lang="ts">
  import { scaleLinear } from "d3-scale";
  import type { Schemas } from "../api/client";
  import { shown } from "../session.svelte";

  let { plan }: { plan: Schemas["PlanOut"] } = $props();
  const most = $derived(Math.max(...plan.bounds.map((bound) => bound.depth), 0.1));
  const x = $derived(scaleLinear([0, most * 1.08], [0, 100]));
  const first = $derived(plan.bounds.find((bound) => !bound.least)?.name);
</script>

<ul aria-label="What bounds the depth of a pass, the closest first">
  {#each plan.bounds as bound (bound.name + bound.least)}
    {@const binds = !bound.least && bound.name === first}
    <li class="py-[3px] {binds ? 'font-semibold' : ''}" title={bound.why}>
      <span class="flex justify-between gap-2"
        ><span>{bound.label}</span><span class="figure {binds ? '' : 'text-soft'}"
          >{bound.least ? "≥" : "≤"} {shown(bound.display)}</span
        ></span
      >
      <svg
        viewBox="0 0 100 8"
        preserveAspectRatio="none"
        class="block h-2 w-full overflow-visible"
        aria-hidden="true"
      >
        <rect x="0" y="2.4" width="100" height="3.2" class="fill-[var(--rail)]" />
        <rect
          x={bound.least ? x(bound.depth) : 0}
          y="2.4"
          width={bound.least ? 100 - x(bound.depth) : x(bound.depth)}
          height="3.2"
          class={binds ? "fill-mark" : "fill-[var(--rail-used)]"}
        />
        <rect x={x(bound.depth)} y="-1" width="0.7" height="10" class="fill-ink" />
      </svg>
    </li>
  {/each}
</ul>
<p class="text-soft mt-1">
  At this tool, speed and feed. The deepest pass that breaks nothing is <span class="figure"
    >{shown(plan.deepest)}</span
  >, the shallowest worth taking <span class="figure">{shown(plan.shallowest)}</span>.
</p>
