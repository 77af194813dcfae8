<script lang="ts">
  import { scaleLinear } from "d3-scale";
  import { pulled } from "../../../lib/pointer";
  import Marks from "../../../lib/Marks.svelte";
  import Panel from "../../../lib/Panel.svelte";
  import { shown } from "../../../session.svelte";
  import type { OperationBench } from "../../bench.svelte";
  import ScrubBar from "../ScrubBar.svelte";
  import { strokeKeys } from "../StrokeKeys";
  import { pathOf, viewOf } from "../view";

  let { bench }: { bench: OperationBench } = $props();
  let width = $state(330);
  let height = $state(230);

  const view = $derived(viewOf(bench, "cut off"));
  const rim = $derived(view?.diameter_axis.high ?? 1);
  // the rim stands left, the centre right, as the blade travels
  const x = $derived(scaleLinear([rim, 0], [30, width - 12]));
  const floor = $derived(height - 34);
  const part = (peak: number | undefined, share: number) =>
    scaleLinear([0, peak || 1], [floor, floor - (floor - 22) * share]);
  const speed = $derived(part(view?.peak.speed, 0.92));
  const spindle = $derived(part(view?.peak.spindle, 0.92));
  const feed = $derived(part(view?.peak.feed, 0.66));
  const force = $derived(part(view?.peak.force, 0.5));
  const line = (points: number[][] | undefined, y: (v: number) => number) =>
    pathOf((points ?? []).map(([d, v]) => [x(d!), y(v!)]));
  const now = $derived(view?.moments[bench.scrub.index]);
  const onLeft = $derived(!!now && x(now.diameter) < width / 2);
  const area = $derived(view ? `${line(view.feed, feed)}L${x(0)},${floor}L${x(rim)},${floor}Z` : "");

  const keys = $derived(strokeKeys(bench.scrub));
  const pull = pulled((across) => {
    if (!view) return;
    const place = view.moments.findIndex((one) => one.diameter <= x.invert(across));
    bench.scrub.goto(place < 0 ? view.moments.length - 1 : place);
  });
</script>

<Panel title="Over diameter" stale={bench.stale} class="area-map">
  {#snippet aside()}<ScrubBar scrub={bench.scrub} said="Ø{shown(now?.labels.diameter)}" />{/snippet}
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
        aria-label="Speed, feed and force over diameter; at Ø{now.labels.diameter?.metric}: {now.labels
          .cutting_speed?.metric}, {now.labels.feed?.metric}; arrow keys travel"
        onkeydown={keys}
        {...pull}
      >
        <rect x={x(rim)} y="22" width={x(0) - x(rim)} height={floor - 22} fill="var(--paper)" />
        <path d={area} fill="var(--window)" stroke="var(--safe)" />
        <path
          d={line(view.spindle, spindle)}
          fill="none"
          stroke="var(--soft)"
          stroke-dasharray="5 3"
          stroke-width="1.3"
        />
        <path d={line(view.speed, speed)} fill="none" stroke="var(--ink)" stroke-width="1.8" />
        <path
          d={line(view.force, force)}
          fill="none"
          stroke="var(--warn)"
          stroke-width="1.3"
          stroke-dasharray="1.5 2.5"
        />
        <text x={x(rim) + 5} y={speed(view.peak.speed ?? 0) - 5} class="draw-figure draw-over"
          >cutting speed {shown(view.moments[0]?.labels.cutting_speed)}</text
        >
        <text
          x={x(rim) + 5}
          y={feed(view.peak.feed ?? 0) - 5}
          fill="var(--safe)"
          class="figure draw-over"
          font-size="13">feed {shown(view.moments[0]?.labels.feed)}</text
        >
        <text
          x={x(rim) + 5}
          y={force(view.peak.force ?? 0) + 15}
          fill="var(--warn)"
          class="figure draw-over"
          font-size="13">force {shown(view.moments[0]?.labels.cutting_force)}</text
        >
        <text x={width - 12} y="15" text-anchor="end" class="draw-text"
          >clamp {shown(view.clamp)} below Ø{shown(view.scene_labels.clamp_diameter)}</text
        >
        <Marks ticks={view.diameter_axis.ticks} place={x} at={floor + 15} side="below" />
        <text x={x(0)} y={floor + 15} text-anchor="middle" class="draw-text figure" font-size="12">0</text>
        <text x="30" y={height - 4} class="draw-text">{shown(view.diameter_axis.label)}</text>
        {#if view.break_off > 0}
          <line
            x1={x(view.break_off)}
            x2={x(view.break_off)}
            y1="30"
            y2={floor}
            stroke="var(--soft)"
            stroke-dasharray="2 3"
          />
        {/if}
        <g class="draw-mark">
          <line x1={x(now.diameter)} x2={x(now.diameter)} y1="22" y2={floor} stroke-width="1.6" />
          <circle cx={x(now.diameter)} cy={floor} r="4.5" stroke="none" />
        </g>
        <text
          x={onLeft ? x(now.diameter) + 8 : x(now.diameter) - 8}
          y={floor - 26}
          text-anchor={onLeft ? "start" : "end"}
          class="figure fill-mark draw-over"
          >Ø{shown(now.labels.diameter)} · {shown(now.labels.cutting_speed)}</text
        >
        <text
          x={onLeft ? x(now.diameter) + 8 : x(now.diameter) - 8}
          y={floor - 9}
          text-anchor={onLeft ? "start" : "end"}
          class="figure fill-mark draw-over">{shown(now.labels.feed)} · {shown(now.labels.seconds)}</text
        >
      </svg>
    {/if}
  </div>
</Panel>
