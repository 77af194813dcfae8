<script lang="ts">
  import { scaleLog } from "d3-scale";
  import { api, ask } from "../../../api/client";
  import { shown } from "../../../session.svelte";
  import Offer from "../../../study/Offer.svelte";
  import { Study } from "../../../study/study.svelte";
  import type { OperationBench } from "../../bench.svelte";
  import { pathOf } from "../view";
  import Marks from "../../../lib/Marks.svelte";

  let { bench }: { bench: OperationBench } = $props();
  let width = $state(330);
  let height = $state(230);
  // svelte-ignore state_referenced_locally
  const study = new Study(bench, () =>
    ask(api.POST("/api/jobs/{job_id}/operations/{operation}/window", bench.question)),
  );
  const found = $derived(study.answer);
  const x = $derived(scaleLog([found?.speed_axis.low ?? 1, found?.speed_axis.high ?? 2], [46, width - 10]));
  const y = $derived(scaleLog([found?.feed_axis.low ?? 1, found?.feed_axis.high ?? 2], [height - 34, 10]));
  const line = (points: number[][]) => pathOf(points.map(([speed, feed]) => [x(speed!), y(feed!)]));
  const LINES = ["", "6 3", "2 3", "8 3 2 3", "1 3", "10 3", "4 2 1 2", "3 1"];
</script>

<div class="min-h-0 flex-1" bind:clientWidth={width} bind:clientHeight={height}>
  {#if study.problem}<p role="alert" class="text-signal px-2.5">{study.problem}</p>{/if}
  {#if found}
    <svg
      id="operation-map"
      {width}
      {height}
      class="block"
      role="img"
      aria-busy={study.stale}
      aria-label="Speed and feed with the limits of every layer. {shown(found.says)}"
    >
      <defs
        ><clipPath id="window-field"><rect x="46" y="10" width={width - 56} height={height - 44} /></clipPath
        ><pattern
          id="window-works"
          width="6"
          height="6"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"><rect width="2" height="6" fill="var(--window)" /></pattern
        ></defs
      >
      <rect x="46" y="10" width={width - 56} height={height - 44} fill="var(--paper)" />
      <g clip-path="url(#window-field)">
        {#each found.field as cell, k (k)}
          <rect
            x={x(cell[0]!)}
            y={y(cell[3]!)}
            width={Math.max(x(cell[2]!) - x(cell[0]!), 0.5)}
            height={Math.max(y(cell[1]!) - y(cell[3]!), 0.5)}
            fill="var(--window)"
          />
        {/each}
        {#each found.workable as cell, k (k)}
          <rect
            x={x(cell[0]!)}
            y={y(cell[3]!)}
            width={Math.max(x(cell[2]!) - x(cell[0]!), 0.5)}
            height={Math.max(y(cell[1]!) - y(cell[3]!), 0.5)}
            fill="url(#window-works)"
          />
        {/each}
        {#each found.edges as edge, k (k)}
          {#each edge.lines as points, j (j)}
            <path
              d={line(points)}
              fill="none"
              stroke={edge.parts ? "var(--signal)" : "var(--warn)"}
              stroke-width={edge.parts ? 1.8 : 1.1}
              stroke-dasharray={LINES[edge.layer % LINES.length]}
            />
          {/each}
        {/each}
        {#each found.gears as gear, k (k)}
          <circle cx={x(gear[0]!)} cy={y(gear[1]!)} r="2.4" fill="var(--soft)" />
        {/each}
      </g>
      <Marks ticks={found.speed_axis.ticks} place={x} at={height - 20} side="below" />
      <Marks ticks={found.feed_axis.ticks} place={y} at={42} side="left" />
      {#each found.named as name, k (k)}
        {@const right = x(name.at[0]!) > width * 0.55}
        <text
          x={x(name.at[0]!) + (right ? -3 : 3)}
          y={y(name.at[1]!) - 4}
          text-anchor={right ? "end" : "start"}
          class="draw-text draw-over"
          font-size="11">{name.label}</text
        >
      {/each}
      <circle cx={x(found.now[0]!)} cy={y(found.now[1]!)} r="4.5" class="fill-mark" />
      <text x="46" y={height - 3} class="draw-text">{shown(found.feed_axis.label)} upward</text>
      <text x={width - 10} y={height - 3} text-anchor="end" class="draw-text"
        >{shown(found.speed_axis.label)}</text
      >
    </svg>
  {:else if !study.problem}<p class="text-soft px-2.5">Looking at every layer …</p>{/if}
</div>
{#if found}
  <div class="max-h-[84px] overflow-auto px-2.5 pb-1 text-[13px] leading-tight" data-testid="window-says">
    <p class={found.open || found.workable.length ? "" : "text-signal"}>{shown(found.says)}</p>
    {#each found.opens as remedy, k (k)}
      <p class="mt-0.5">
        <Offer {bench} {remedy} />
        <span>{shown(remedy.text)}</span>
        <span class="text-soft">{shown(remedy.effect)}</span>
      </p>
    {/each}
  </div>
{/if}
