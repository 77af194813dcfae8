<script lang="ts">
  import { scaleLinear } from "d3-scale";
  import Marks from "../../../lib/Marks.svelte";
  import Panel from "../../../lib/Panel.svelte";
  import { shown } from "../../../session.svelte";
  import type { OperationBench } from "../../bench.svelte";
  import { pathOf, viewOf } from "../view";

  let { bench }: { bench: OperationBench } = $props();
  let width = $state(330);
  let height = $state(230);
  const view = $derived(viewOf(bench, "trepan"));
  const x = $derived(
    scaleLinear([view?.diameter_axis.low ?? 0, view?.diameter_axis.high ?? 1], [50, width - 12]),
  );
  const y = $derived(scaleLinear([0, view?.torque_axis.high ?? 1], [height - 34, 14]));
  const line = (points: number[][] | undefined) => pathOf((points ?? []).map(([d, v]) => [x(d!), y(v!)]));
  const last = (points: number[][] | undefined) => points?.at(-1) ?? [0, 0];
</script>

<Panel title="Torque over diameter" stale={bench.stale} class="area-map">
  <div class="min-h-0 flex-1" bind:clientWidth={width} bind:clientHeight={height}>
    {#if view}
      <svg
        id="operation-map"
        {width}
        {height}
        class="block"
        role="img"
        aria-label="Torque of the ring against drilling from solid, over diameter: {view.scene_labels.torque
          ?.metric} against {view.scene_labels.solid_torque?.metric}"
      >
        <defs
          ><clipPath id="torque-field"
            ><rect x="50" y="14" width={width - 62} height={height - 48} /></clipPath
          ></defs
        >
        <rect x="50" y="14" width={width - 62} height={height - 48} fill="var(--paper)" />
        <Marks ticks={view.torque_axis.ticks} place={y} at={46} side="left" across={[50, width - 12]} />
        <Marks ticks={view.diameter_axis.ticks} place={x} at={height - 19} side="below" />
        <g clip-path="url(#torque-field)">
          <path
            d={line(view.can)}
            fill="none"
            stroke="var(--warn)"
            stroke-dasharray="7 3"
            stroke-width="1.4"
          />
          <path
            d={line(view.solid)}
            fill="none"
            stroke="var(--soft)"
            stroke-width="1.5"
            stroke-dasharray="3 3"
          />
          <path d={line(view.ring)} fill="none" stroke="var(--ink)" stroke-width="1.8" />
        </g>
        <text x={width - 16} y={y(last(view.ring)[1]!) - 6} text-anchor="end" class="draw-figure draw-over"
          >ring</text
        >
        <text x="58" y="28" class="draw-text draw-over">- - drilled from solid</text>
        <text x="58" y="44" fill="var(--warn)" font-size="13" class="draw-over"
          >— — what the spindle gives</text
        >
        <circle cx={x(view.at[0]!)} cy={y(view.at[1]!)} r="4.5" class="fill-mark" />
        <text x={x(view.at[0]!) + 8} y={y(view.at[1]!) + 18} class="figure fill-mark draw-over"
          >{shown(view.scene_labels.torque)}</text
        >
        <text x="50" y={height - 3} class="draw-text">{shown(view.torque_axis.label)} upward</text>
        <text x={width - 12} y={height - 3} text-anchor="end" class="draw-text"
          >{shown(view.diameter_axis.label)}</text
        >
      </svg>
    {/if}
  </div>
</Panel>
