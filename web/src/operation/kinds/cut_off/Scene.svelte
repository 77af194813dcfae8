<script lang="ts">
  import { scaleLinear } from "d3-scale";
  import { seatOf } from "../../../lib/names";
  import Panel from "../../../lib/Panel.svelte";
  import { shown } from "../../../session.svelte";
  import type { OperationBench } from "../../bench.svelte";
  import Arrow from "../Arrow.svelte";
  import { numbersOf, pathOf, viewOf } from "../view";

  let { bench }: { bench: OperationBench } = $props();
  let width = $state(700);
  let height = $state(170);

  const view = $derived(viewOf(bench, "cut off"));
  const num = numbersOf(() => view);
  const part = $derived((view?.part ?? []) as [number, number][]);
  const length = $derived(
    Math.max(num("distance_from_chuck") + num("slot") + num("part_length"), part.at(-1)?.[0] ?? 0),
  );
  const scale = $derived(
    Math.min((width - 380) / Math.max(length, 1), (height - 84) / Math.max(num("diameter"), 1)),
  );
  // room for the words left of the blade
  const CHUCK = $derived(Math.max(92, 206 - num("distance_from_chuck") * scale));
  const x = $derived(scaleLinear([0, 1], [CHUCK, CHUCK + scale]));
  const end = $derived(part.at(-1)?.[0] ?? length);
  const axis = $derived(height * 0.54);
  const y = $derived(scaleLinear([0, 1], [axis, axis - scale]));
  const near = $derived(num("distance_from_chuck"));
  const far = $derived(near + num("slot"));
  // in a slot that is widened the last plunge stands at the part's side
  const stands = $derived(far - num("width"));
  const now = $derived(view?.moments[bench.scrub.index]);
  const tip = $derived((now?.diameter ?? num("diameter")) / 2);
  const bore = $derived(num("bore") / 2);
  const top = $derived(num("diameter") / 2);
  const through = $derived(!!now && bench.scrub.index >= (view?.moments.length ?? 1) - 1);
  // a blade is as tall as its reach; its insert a little wider than it
  const thin = $derived((num("width") - num("thickness")) / 2);
  const edge = $derived(
    [
      [stands, tip + (num("slant") > 0 ? num("slant") : 0)],
      [far, tip - (num("slant") < 0 ? num("slant") : 0)],
      [far, tip + num("width")],
      [stands, tip + num("width")],
    ]
      .map(([a, r]) => `${x(a!)},${y(r!)}`)
      .join(" "),
  );
  const drop = $derived(through && !view?.scene.sub_spindle ? 8 : 0);
  // what lies beyond the slot, as earlier operations left it
  const outline = (side: 1 | -1) => {
    const steps = part.filter(([a]) => a > far);
    const radius = [...part].reverse().find(([a]) => a <= far)?.[1] ?? top;
    return pathOf(([[far, radius], ...steps] as [number, number][]).map(([a, r]) => [x(a), y(side * r)]));
  };
</script>

<Panel title="Scene · {seatOf(bench.entry?.tool)}" stale={bench.stale} class="area-scene">
  {#snippet aside()}
    {#if now}<span class="figure">{shown(now.labels.spindle_speed)}</span> · Ø<span class="figure"
        >{shown(now.labels.diameter)}</span
      >
      · <span class="figure">{shown(now.labels.seconds)}</span> · chip {bench.evaluation?.chip.form}, {bench
        .evaluation?.chip.length}{/if}
  {/snippet}
  <div class="min-h-0 flex-1" bind:clientWidth={width} bind:clientHeight={height}>
    {#if view && now}
      <svg
        {width}
        {height}
        class="block"
        role="img"
        aria-label="Blade and bar to scale at Ø{now.labels.diameter?.metric}, with forces"
      >
        <rect x={CHUCK - 84} y={y(top) - 14} width="44" height={y(-top) - y(top) + 28} class="draw-jaw" />
        <rect x={CHUCK - 40} y={y(top) - 12} width="40" height="12" class="draw-steel" />
        <rect x={CHUCK - 40} y={y(-top)} width="40" height="12" class="draw-steel" />
        <!-- bar and part as they stand, with the slot cut so far -->
        <g transform="translate(0,{drop})">
          <path d="{outline(1)}L{x(end)},{axis}L{x(far)},{axis}Z" class="draw-part" />
          <path d="{outline(-1)}L{x(end)},{axis}L{x(far)},{axis}Z" class="draw-part" />
        </g>
        <rect x={x(0)} y={y(top)} width={x(near) - x(0)} height={y(-top) - y(top)} class="draw-part" />
        {#if !through}<rect
            x={x(near)}
            y={y(tip)}
            width={x(far) - x(near)}
            height={y(-tip) - y(tip)}
            class="draw-part"
          />{/if}
        {#if bore > 0}<rect
            x={x(0)}
            y={y(bore)}
            width={x(length) - x(0)}
            height={y(-bore) - y(bore)}
            fill="var(--sheet)"
            stroke="var(--ink)"
            stroke-width="0.8"
          />{/if}
        {#if view.scene.sub_spindle}
          <rect x={x(length) - 14} y={y(top) - 12} width="50" height="12" class="draw-steel" />
          <rect x={x(length) - 14} y={y(-top)} width="50" height="12" class="draw-steel" />
          <text x={x(length) + 40} y={y(top) - 2} class="draw-text">sub-spindle</text>
        {:else if view.scene.part_catcher}
          <path
            d="M{x(far) + 6},{y(-top) + 3}v9H{x(length)}v-9"
            fill="none"
            stroke="var(--ink)"
            stroke-width="2"
          />
        {/if}
        <line x1="6" x2={width - 4} y1={axis} y2={axis} class="draw-centre" />
        <rect
          x={x(stands + thin)}
          y="-4"
          width={x(far - thin) - x(stands + thin)}
          height={Math.max(y(tip + num("width") * 0.6) + 4, 0)}
          class="draw-steel"
        />
        <polygon points={edge} class="draw-insert" />
        <Arrow x={x(far) + 16} y={Math.max(y(tip) - 44, 8)} length={26} to="down" />
        <text x={x(far) + 24} y={Math.max(y(tip) - 30, 20)} class="figure fill-mark"
          >feed {shown(now.labels.feed)}</text
        >
        {#if num("slant") !== 0 && now.labels.side_force}
          <Arrow x={x(near) - 2} y={y(tip) - 3} length={26} to={num("slant") > 0 ? "left" : "right"} />
          <text x={x(near) - 8} y="31" text-anchor="end" class="figure fill-mark draw-over"
            >side {shown(now.labels.side_force)}, bends {shown(now.labels.bends)}</text
          >
        {/if}
        <text x={x(near) - 8} y="14" text-anchor="end" class="draw-figure draw-over"
          >cutting force {shown(now.labels.cutting_force)}</text
        >
        <text x={x(length) + 10} y={axis - 8} class="draw-text"
          >{view.break_off > 0 ? `falls at Ø${shown(view.falls)}` : "cut through"}</text
        >
        <text x={x(length) + 10} y={axis + 16} class="draw-text"
          >{num("bore") > 0 ? "a thin ring stays" : `pip Ø${shown(view.pip_label)} on the part`}</text
        >
        <text x={width - 8} y={height - 4} text-anchor="end" class="draw-text draw-over"
          >blade {shown(view.scene_labels.width)} wide, lead {num("lead_angle")}°, reaches {shown(
            view.scene_labels.reach,
          )}, needs {shown(view.scene_labels.needs)} · cut {shown(view.scene_labels.distance)} in front of {view
            .scene.guide_bush
            ? "the guide bush"
            : "the collet"}</text
        >
      </svg>
    {/if}
  </div>
</Panel>
