<script lang="ts">
  import { scaleLinear } from "d3-scale";
  import Marks from "../../../lib/Marks.svelte";
  import Panel from "../../../lib/Panel.svelte";
  import { pulled } from "../../../lib/pointer";
  import { shown } from "../../../session.svelte";
  import type { OperationBench } from "../../bench.svelte";
  import ScrubBar from "../ScrubBar.svelte";
  import { strokeKeys } from "../StrokeKeys";
  import { pathOf, viewOf } from "../view";

  let { bench }: { bench: OperationBench } = $props();
  let width = $state(330);
  let height = $state(230);
  const LEFT = 44;
  const view = $derived(viewOf(bench, "tap"));
  const x = $derived(scaleLinear([0, view?.time_axis.high ?? 1], [LEFT, width - 10]));
  const high = $derived(view?.torque_axis.high ?? 1);
  const y = $derived(scaleLinear([-0.35 * high, high], [height - 34, 16]));
  const now = $derived(view?.moments[bench.scrub.index]);
  const line = $derived(pathOf((view?.torque ?? []).map(([a, b]) => [x(a!), y(b!)])));
  const at = $derived.by(() => {
    const points = view?.torque ?? [];
    const found = points.reduce(
      (best, one) =>
        Math.abs(one[0]! - (now?.seconds ?? 0)) < Math.abs(best[0]! - (now?.seconds ?? 0)) ? one : best,
      points[0] ?? [0, 0],
    );
    return found[1] ?? 0;
  });
  const keys = $derived(strokeKeys(bench.scrub));
  const pull = pulled((across) => {
    if (!view) return;
    const place = view.moments.findIndex((one) => one.seconds >= x.invert(across));
    bench.scrub.goto(place < 0 ? view.moments.length - 1 : place);
  });
  const bounds = $derived(
    view
      ? [
          ["breaks the tap", view.breaking, "var(--warn)"] as const,
          ...(view.clutch ? [["clutch slips", view.clutch, "var(--safe)"] as const] : []),
          ["spindle gives", view.spindle, "var(--soft)"] as const,
        ].filter(([, value]) => value <= high)
      : [],
  );
</script>

<Panel title="Torque in and out" stale={bench.stale} class="area-map">
  {#snippet aside()}<ScrubBar scrub={bench.scrub} said={shown(now?.labels.torque)} />{/snippet}
  <div class="min-h-0 flex-1" bind:clientWidth={width} bind:clientHeight={height}>
    {#if view && now}
      <!-- svelte-ignore a11y_no_noninteractive_element_interactions, a11y_no_noninteractive_tabindex -->
      <svg
        id="operation-map"
        {width}
        {height}
        class="block cursor-ew-resize touch-none"
        role="application"
        tabindex="0"
        aria-label="Torque over time; {shown(now.labels.way)} at {shown(now.labels.depth)}: {shown(
          now.labels.torque,
        )}; arrow keys travel"
        onkeydown={keys}
        {...pull}
      >
        <rect x={LEFT} y="16" width={width - LEFT - 10} height={height - 50} fill="var(--paper)" />
        <line x1={LEFT} x2={width - 10} y1={y(0)} y2={y(0)} stroke="var(--soft)" />
        <line x1={x(view.turns_back)} x2={x(view.turns_back)} y1="16" y2={height - 34} stroke="var(--line)" />
        <text x={x(view.turns_back) + 4} y={height - 40} class="draw-text draw-over" font-size="11"
          >turns back</text
        >
        {#each bounds as [word, value, colour] (word)}
          <line
            x1={LEFT}
            x2={width - 10}
            y1={y(value)}
            y2={y(value)}
            stroke={colour}
            stroke-dasharray="7 3"
          />
          <text x={width - 14} y={y(value) - 4} text-anchor="end" class="draw-text draw-over" font-size="11"
            >{word}</text
          >
        {/each}
        <path d={line} fill="none" stroke="var(--ink)" stroke-width="1.8" />
        <Marks ticks={view.torque_axis.ticks} place={y} at={LEFT - 5} side="left" />
        <Marks ticks={view.time_axis.ticks} place={x} at={height - 20} side="below" />
        <text x={LEFT} y="11" class="draw-text">{shown(view.torque_axis.label)}</text>
        <text x={width - 10} y={height - 5} text-anchor="end" class="draw-text"
          >{shown(view.time_axis.label)}</text
        >
        <g class="draw-mark">
          <line x1={x(now.seconds)} x2={x(now.seconds)} y1="16" y2={height - 34} stroke-width="1.6" />
          <circle cx={x(now.seconds)} cy={y(at)} r="4.5" stroke="none" />
        </g>
        <text
          x={x(now.seconds) > width / 2 ? x(now.seconds) - 8 : x(now.seconds) + 8}
          y={y(at) - 8 < 24 ? 30 : y(at) - 8}
          text-anchor={x(now.seconds) > width / 2 ? "end" : "start"}
          class="figure fill-mark draw-over">{shown(now.labels.torque)} · {shown(now.labels.margin)}×</text
        >
      </svg>
    {/if}
  </div>
</Panel>
