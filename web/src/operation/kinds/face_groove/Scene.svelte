<script lang="ts">
  import { scaleLinear } from "d3-scale";
  import { seatOf } from "../../../lib/names";
  import Panel from "../../../lib/Panel.svelte";
  import { shown } from "../../../session.svelte";
  import type { OperationBench } from "../../bench.svelte";
  import Arrow from "../Arrow.svelte";
  import HalfSection from "../HalfSection.svelte";
  import { numbersOf, viewOf } from "../view";

  let { bench }: { bench: OperationBench } = $props();
  let width = $state(700);
  let height = $state(170);
  const view = $derived(viewOf(bench, "face groove"));
  const num = numbersOf(() => view);
  const CHUCK = 84;
  const part = $derived((view?.part ?? []) as [number, number][]);
  const face = $derived(part.at(-1)?.[0] ?? num("free_length"));
  const radius = $derived(
    Math.max(num("grip_diameter") / 2, num("outer_diameter") / 2, ...part.map(([, r]) => r), 1),
  );
  const scale = $derived(
    Math.min((width - CHUCK - 260) / Math.max(face + num("hub_height"), 1), (height - 50) / (2.05 * radius)),
  );
  const x = $derived(scaleLinear([0, 1], [CHUCK, CHUCK + scale]));
  const axis = $derived(height * 0.54);
  const y = $derived(scaleLinear([0, 1], [axis, axis - scale]));
  const stroke = $derived(view?.strokes[bench.scrub.index]);
  const outer = $derived((stroke?.end[0] ?? 0) / 2);
  const depth = $derived(stroke?.end[1] ?? 0);
  const slack = $derived((num("width") - num("thickness")) / 2);
  const ring = (side: 1 | -1) =>
    `M${x(face)},${y((side * num("outer_diameter")) / 2)}H${x(face - num("depth"))}V${y((side * num("inner_diameter")) / 2)}H${x(face)}Z`;
</script>

<Panel title="Scene · {seatOf(bench.entry?.tool)}" stale={bench.stale} class="area-scene">
  {#snippet aside()}
    {#if stroke}<span class="figure">{shown(stroke.labels.spindle_speed)}</span>, spindle {view?.scene
        .spindle} · stroke
      <span class="figure">{bench.scrub.index + 1} of {view?.strokes.length}</span>, {stroke.labels.kind
        ?.metric} · chip {bench.evaluation?.chip.form}, {bench.evaluation?.chip.length}{/if}
  {/snippet}
  <div class="min-h-0 flex-1" bind:clientWidth={width} bind:clientHeight={height}>
    {#if view && stroke}
      <svg {width} {height} class="block" role="img" aria-label="Blade, hub and jaws in section to scale">
        <HalfSection {part} bore={num("bore")} grip={num("grip_diameter")} {x} {y} chuck={CHUCK} />
        {#if num("hub_diameter") > 0 && num("hub_height") > 0}
          <rect
            x={x(face)}
            y={y(num("hub_diameter") / 2)}
            width={num("hub_height") * scale}
            height={num("hub_diameter") * scale}
            class="draw-part"
          />
        {/if}
        {#if num("jaw_diameter") > 0 && num("jaw_height") > 0}
          {#each [1, -1] as side (side)}
            <rect
              x={x(face)}
              y={y((side * num("jaw_diameter")) / 2) - (side > 0 ? 14 : 0)}
              width={num("jaw_height") * scale}
              height="14"
              class="draw-steel"
            />
          {/each}
        {/if}
        <path d={ring(1)} class="draw-cut" />
        <path d={ring(-1)} class="draw-cut" />
        <line x1="6" x2={width - 4} y1={axis} y2={axis} class="draw-centre" />
        <!-- the blade's thin part as long as its reach, its shank behind, towards the axis -->
        <rect
          x={x(face - depth) + 3}
          y={y(outer - slack)}
          width={num("reach") * scale}
          height={num("thickness") * scale}
          class="draw-steel"
        />
        <rect
          x={x(face - depth + num("reach"))}
          y={y(outer - slack)}
          width={width - 150 - x(face - depth + num("reach"))}
          height={(num("width") + 6) * scale}
          class="draw-steel"
        />
        <rect
          x={x(face - depth)}
          y={y(outer)}
          width={num("width") * scale * 0.9}
          height={num("width") * scale}
          class="draw-insert"
        />
        <Arrow x={x(face) + 62} y={y(outer) - 12} length={30} to="left" />
        <text x={x(face) + 70} y={y(outer) - 8} class="figure fill-mark draw-over"
          >feed {shown(stroke.labels.feed)}</text
        >
        <text x={x(face) + 16} y={Math.max(y(outer) - 28, 14)} class="draw-figure draw-over"
          >cutting force {shown(view.scene_labels.cutting_force)}, feed force {shown(
            view.scene_labels.feed_force,
          )}</text
        >
        <text x={width - 8} y={height - 5} text-anchor="end" class="draw-text"
          >Ø{shown(view.scene_labels.outer_diameter)} – Ø{shown(view.scene_labels.inner_diameter)}, {shown(
            view.scene_labels.depth,
          )} deep · set {shown(view.scene_labels.overhang)} out, reaches {shown(
            view.scene_labels.reach,
          )}</text
        >
      </svg>
    {/if}
  </div>
</Panel>
