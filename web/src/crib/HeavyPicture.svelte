<script lang="ts">
  import { scaleLinear } from "d3-scale";
  import type { Schemas } from "../api/client";
  import { pathOf } from "../operation/kinds/view";
  import { shown } from "../session.svelte";
  import Marks from "../lib/Marks.svelte";

  /** The tool as it hangs on the gripper: its solids in section, where it weighs, and the moment that tilts it. */
  let { sheet, stale }: { sheet: Schemas["HeavyOut"]; stale: boolean } = $props();
  let width = $state(760);
  let height = $state(230);
  const LEFT = 96;
  const tall = $derived(
    Math.max(...sheet.solids.map((one) => one.outer), ...sheet.steps.map((one) => one.diameter)),
  );
  const scale = $derived(
    Math.min((width - LEFT - 150) / Math.max(sheet.length, 1), (height - 48) / Math.max(tall, 1)),
  );
  const axis = $derived(height / 2 - 4);
  const x = $derived(scaleLinear([0, 1], [LEFT, LEFT + scale]));
  const limit = $derived(sheet.limits.find((one) => one.name === "changer_moment"));
  const over = $derived((limit?.utilisation ?? 0) > 1);
  const end = $derived(x(sheet.length));
  // the torque of the pass stands beside the drawing where there is room
  const left = $derived(end + 190);
  const stroke = $derived(scaleLinear([0, sheet.stroke_axis.high], [left, width - 14]));
  const torque = $derived(scaleLinear([0, sheet.torque_axis.high], [height - 44, 34]));
  const roomy = $derived(width - left > 130);
</script>

<div class="min-h-0 flex-1" bind:clientWidth={width} bind:clientHeight={height}>
  <svg
    {width}
    {height}
    class="block"
    role="img"
    aria-busy={stale}
    aria-label="The tool on its gripper, to scale: {shown(
      sheet.labels.mass,
    )} with its centre of gravity {shown(sheet.labels.lever)} out, {shown(
      sheet.labels.moment,
    )} at the gripper"
  >
    <path
      d="M{x(0)},{axis - sheet.seat * 0.42 * scale}L{x(0) - 62},{axis - sheet.seat * 0.3 * scale}V{axis +
        sheet.seat * 0.3 * scale}L{x(0)},{axis + sheet.seat * 0.42 * scale}Z"
      class="draw-steel"
    />
    <rect
      x={x(0)}
      y={axis - (sheet.seat / 2) * scale}
      width={sheet.face * scale}
      height={sheet.seat * scale}
      class="draw-steel"
    />
    {#each sheet.solids as one, k (k)}
      {@const wide = (one.end - one.start) * scale}
      {#if one.arms || one.inner > 0}
        {#each [1, -1] as side (side)}
          <rect
            x={x(one.start)}
            y={side > 0 ? axis - (one.outer / 2) * scale : axis + (one.inner / 2) * scale}
            width={wide}
            height={((one.outer - one.inner) / 2) * scale}
            class="draw-part"
            stroke-dasharray={one.share < 1 ? "5 3" : undefined}
          />
        {/each}
      {:else}
        <rect
          x={x(one.start)}
          y={axis - (one.outer / 2) * scale}
          width={wide}
          height={one.outer * scale}
          class="draw-part"
          stroke-dasharray={one.share < 1 ? "5 3" : undefined}
        />
      {/if}
    {/each}
    {#each sheet.steps as step, k (k)}
      {#each [1, -1] as side (side)}
        <rect
          x={x(step.at) - 4}
          y={side > 0 ? axis - (step.diameter / 2) * scale - 1 : axis + (step.diameter / 2) * scale - 9}
          width="9"
          height="10"
          class="draw-insert"
        />
      {/each}
    {/each}
    {#each sheet.steps as step, k (k)}
      <text x={end + 14} y={20 + k * 18} class="draw-text draw-over"
        ><tspan class="fill-ink">{step.name}</tspan> Ø{step.diameter.toFixed(0)}
        {step.grade}</text
      >
    {/each}
    <line x1={x(0) - 76} x2={end + 30} y1={axis} y2={axis} class="draw-centre" />
    <g class={over ? "draw-signal" : ""}>
      <path d="M{x(0) - 9},{axis - sheet.seat * 0.62 * scale}l9,14l9,-14z" class="fill-ink" />
      <line
        x1={x(0)}
        x2={x(0)}
        y1={axis - sheet.seat * 0.62 * scale}
        y2={axis + sheet.seat * 0.62 * scale}
        stroke="var(--ink)"
        stroke-dasharray="3 3"
      />
    </g>
    <text x={x(0)} y={axis - sheet.seat * 0.62 * scale - 4} text-anchor="middle" class="draw-text draw-over"
      >gripper</text
    >
    <g class="draw-mark" transform="translate({x(sheet.lever)},{axis})">
      <circle r="8" fill="var(--sheet)" />
      <path d="M0,-8A8,8 0 0 1 8,0H0ZM0,8A8,8 0 0 1 -8,0H0Z" />
      <path d="M0,10V{38}m-4,-8l4,8l4,-8" fill="none" stroke-width="1.8" />
    </g>
    <text x={x(sheet.lever) + 12} y={axis + 36} class="figure fill-mark draw-over draw-on-part"
      >{shown(sheet.labels.mass)}</text
    >
    <path d="M{x(0)},{height - 20}v-6m0,3H{x(sheet.lever)}m0,-3v6" class="draw-size" />
    <text x={(x(0) + x(sheet.lever)) / 2} y={height - 6} text-anchor="middle" class="draw-text draw-over"
      >{shown(sheet.labels.lever)}</text
    >
    <text x={x(sheet.lever) + 14} y={height - 6} class="figure draw-over {over ? 'fill-signal' : 'fill-ink'}"
      >{shown(sheet.labels.moment)} at the gripper{limit
        ? ` of ${shown(limit.bound_display).replace("≤ ", "")}`
        : ""}</text
    >
    {#if roomy}
      <text x={left} y="20" class="draw-text">{shown(sheet.torque_axis.label)}</text>
      <Marks
        ticks={sheet.torque_axis.ticks}
        place={torque}
        at={left - 4}
        side="left"
        across={[left, width - 14]}
      />
      <Marks ticks={sheet.stroke_axis.ticks} place={stroke} at={height - 28} side="below" />
      <path
        d={pathOf(sheet.torque.map(([a, b]) => [stroke(a!), torque(b!)]))}
        fill="none"
        stroke="var(--ink)"
        stroke-width="1.8"
      />
      <text x={width - 14} y={height - 8} text-anchor="end" class="draw-text"
        >{shown(sheet.stroke_axis.label)}</text
      >
    {/if}
  </svg>
</div>
