<script lang="ts">
  import { scaleLinear } from "d3-scale";
  import { labelOf } from "../../../lib/names";
  import { pulled } from "../../../lib/pointer";
  import { shown } from "../../../session.svelte";
  import type { OperationBench } from "../../bench.svelte";
  import { strokeKeys } from "../StrokeKeys";
  import { pathOf, viewOf } from "../view";
  import Marks from "../../../lib/Marks.svelte";

  let { bench }: { bench: OperationBench } = $props();
  let width = $state(330);
  let height = $state(230);

  const LEFT = 74;
  const view = $derived(viewOf(bench, "drill"));
  const middle = $derived(LEFT + (width - LEFT - 10) / 2);
  const y = $derived(scaleLinear([view?.depth_axis.low ?? 0, view?.depth_axis.high ?? 1], [20, height - 36]));
  const thrust = $derived(scaleLinear([0, view?.thrust_axis.high ?? 1], [LEFT, middle - 8]));
  const torque = $derived(scaleLinear([0, view?.torque_axis.high ?? 1], [middle + 4, width - 10]));
  const cone = $derived(Number(view?.scene.cone ?? 0));
  const now = $derived(view?.moments[bench.scrub.index]);
  const line = (points: number[][] | undefined, x: (v: number) => number) =>
    pathOf((points ?? []).map(([depth, value]) => [x(value!), y(depth!)]));
  const keys = $derived(strokeKeys(bench.scrub));
  const trace = $derived(bench.overlay);

  const pull = pulled((_, down) => {
    if (!view) return;
    const place = view.moments.findIndex((one) => one.depth >= y.invert(down));
    bench.scrub.goto(place < 0 ? view.moments.length - 1 : place);
  });
</script>

<div class="min-h-0 flex-1" bind:clientWidth={width} bind:clientHeight={height}>
  {#if view && now}
    <!-- svelte-ignore a11y_no_noninteractive_element_interactions, a11y_no_noninteractive_tabindex -->
    <svg
      id="operation-map"
      {width}
      {height}
      class="block cursor-ns-resize touch-none"
      role="application"
      tabindex="0"
      aria-label="Thrust and torque over depth; at {now.labels.depth?.metric} in {now.labels.layer
        ?.metric}: {now.labels.thrust?.metric}, {now.labels.torque?.metric}; arrow keys travel"
      onkeydown={keys}
      {...pull}
    >
      <defs
        ><pattern id="plies" width="6" height="4" patternUnits="userSpaceOnUse"
          ><rect width="6" height="4" fill="var(--sheet)" /><path
            d="M0,2H4"
            stroke="var(--soft)"
            stroke-width="1.2"
          /></pattern
        ></defs
      >
      <rect x={LEFT} y="20" width={width - LEFT - 10} height={height - 56} fill="var(--paper)" />
      {#each view.layers as layer, k (k)}
        {@const tall = y(layer.far) - y(layer.near)}
        <rect
          x="4"
          y={y(layer.near)}
          width={LEFT - 10}
          height={Math.max(tall, 1)}
          class={layer.laminate ? "" : "draw-part"}
          fill={layer.laminate ? "url(#plies)" : undefined}
          stroke={layer.laminate ? "var(--ink)" : undefined}
          stroke-width={layer.laminate ? 0.7 : undefined}
        />
        {#if k > 0}
          <!-- from the tip's passage to the corner's, lips cut in both layers -->
          <rect
            x={LEFT}
            y={y(layer.near)}
            width={width - LEFT - 10}
            height={Math.max(y(layer.near + cone) - y(layer.near), 0)}
            fill="var(--soft)"
            opacity="0.16"
          />
        {/if}
        <line x1={LEFT} x2={width - 10} y1={y(layer.near)} y2={y(layer.near)} stroke="var(--line)" />
        {#if tall > 13 && view.layers.length > 1}
          <text
            x="8"
            y={y(layer.near) + Math.min(tall / 2 + 4, 13)}
            class="draw-text draw-over"
            font-size="11">{labelOf(layer.name, k, LEFT - 16)}</text
          >
        {/if}
      {/each}
      <line
        x1={LEFT}
        x2={width - 10}
        y1={y(view.layers.at(-1)?.far ?? 0)}
        y2={y(view.layers.at(-1)?.far ?? 0)}
        stroke="var(--soft)"
        stroke-dasharray="4 3"
      />
      {#each view.pecks as depth, k (k)}
        <path d="M{LEFT},{y(depth)}l-7,-4v8z" fill="var(--safe)" />
      {/each}
      {#if view.thrust_limit && thrust(view.thrust_limit) <= middle}
        <line
          x1={thrust(view.thrust_limit)}
          x2={thrust(view.thrust_limit)}
          y1="20"
          y2={height - 36}
          stroke="var(--warn)"
          stroke-dasharray="7 3"
        />
      {/if}
      {#if view.torque_limit && torque(view.torque_limit) <= width - 10}
        <line
          x1={torque(view.torque_limit)}
          x2={torque(view.torque_limit)}
          y1="20"
          y2={height - 36}
          stroke="var(--warn)"
          stroke-dasharray="7 3"
        />
      {/if}
      {#if trace}
        <path
          d={line(trace.thrust, thrust)}
          fill="none"
          stroke="var(--safe)"
          stroke-width="1"
          opacity="0.85"
        />
        <path
          d={line(trace.torque, torque)}
          fill="none"
          stroke="var(--safe)"
          stroke-width="1"
          opacity="0.85"
        />
      {/if}
      <path d={line(view.thrust, thrust)} fill="none" stroke="var(--ink)" stroke-width="1.8" />
      <path d={line(view.torque, torque)} fill="none" stroke="var(--ink)" stroke-width="1.8" />
      <path
        d={line(view.margin, torque)}
        fill="none"
        stroke="var(--soft)"
        stroke-width="1.2"
        stroke-dasharray="3 3"
      />
      <text x={LEFT + 4} y="14" class="draw-text">thrust {shown(view.scene_labels.thrust)}</text>
      <text x={middle + 6} y="14" class="draw-text">torque {shown(view.scene_labels.torque)}</text>
      <Marks ticks={view.thrust_axis.ticks} place={thrust} at={height - 21} side="below" />
      <Marks ticks={view.torque_axis.ticks} place={torque} at={height - 21} side="below" />
      <text x={LEFT} y={height - 5} class="draw-text"
        >{shown(view.thrust_axis.label)}{trace ? " · thin: recorded, sharp" : ""}</text
      >
      {#if view.layers.length > 1}
        <text x={LEFT + 4} y={height - 40} class="draw-text draw-over" font-size="11"
          >shaded: lips in two</text
        >
      {/if}
      <text x={middle + 6} y={height - 40} class="draw-text draw-over" font-size="11">- - margins</text>
      <text x={width - 10} y={height - 5} text-anchor="end" class="draw-text"
        >{shown(view.torque_axis.label)}</text
      >
      <g class="draw-mark">
        <line x1={LEFT} x2={width - 10} y1={y(now.depth)} y2={y(now.depth)} stroke-width="1.6" />
        <circle cx={LEFT} cy={y(now.depth)} r="4.5" stroke="none" />
      </g>
      <text
        x={width - 14}
        y={y(now.depth) > height / 2 ? y(now.depth) - 6 : y(now.depth) + 15}
        text-anchor="end"
        class="figure fill-mark draw-over">{shown(now.labels.thrust)} · {shown(now.labels.torque)}</text
      >
    </svg>
  {/if}
</div>
