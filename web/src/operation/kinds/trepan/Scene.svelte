<script lang="ts">
  import { scaleLinear } from "d3-scale";
  import { seatOf } from "../../../lib/names";
  import Panel from "../../../lib/Panel.svelte";
  import { shown } from "../../../session.svelte";
  import type { OperationBench } from "../../bench.svelte";
  import Arrow from "../Arrow.svelte";
  import { numbersOf, viewOf } from "../view";

  let { bench }: { bench: OperationBench } = $props();
  let width = $state(700);
  let height = $state(170);
  const view = $derived(viewOf(bench, "trepan"));
  const num = numbersOf(() => view);
  const scale = $derived(
    Math.min(
      (width - 330) / Math.max(num("outer_diameter") * 1.5, 1),
      (height - 60) / Math.max(num("plate") + num("reach") * 0.9, 1),
    ),
  );
  const x = $derived(scaleLinear([0, 1], [width * 0.44, width * 0.44 + scale]));
  const top = $derived(height - 26 - num("plate") * scale);
  const y = (depth: number) => top + depth * scale;
  const outer = $derived(num("outer_diameter") / 2);
  const inner = $derived(num("inner_diameter") / 2);
  const second = $derived(num("second_outer") / 2); // of another ring in the same pass; 0 where there is none
  const rings = $derived<[number, number][]>([
    [inner, outer],
    ...(second ? ([[num("second_inner") / 2, second]] as [number, number][]) : []),
  ]);
  const plate = $derived(outer * 1.45);
  const two = $derived(view?.scene.cartridges !== "one cartridge");
  const depth = $derived(num("depth") * 0.62); // drawn on its way through
  const kept = $derived(view?.scene.keeps === "the disc");
</script>

<Panel title="Scene · {seatOf(bench.entry?.tool)}" stale={bench.stale} class="area-scene">
  {#snippet aside()}
    {#if bench.evaluation}<span class="figure">{shown(bench.evaluation.results.spindle_speed?.display)}</span>
      · {view?.scene.cartridges} · chip {bench.evaluation.chip.form}, {bench.evaluation.chip.length}{/if}
  {/snippet}
  <div class="min-h-0 flex-1" bind:clientWidth={width} bind:clientHeight={height}>
    {#if view}
      <svg
        {width}
        {height}
        class="block"
        role="img"
        aria-label="Trepanning head over the plate, in section to scale"
      >
        <rect
          x={x(-plate)}
          y={y(0)}
          width={x(plate) - x(-plate)}
          height={num("plate") * scale}
          class="draw-part"
        />
        {#each [1, -1] as side (side)}
          {#each rings as [from, to] (from)}
            {@const a = x(side * to)}
            {@const b = x(side * from)}
            <rect
              x={Math.min(a, b)}
              y={y(0)}
              width={Math.abs(a - b)}
              height={depth * scale}
              fill="var(--sheet)"
              stroke="var(--ink)"
              stroke-width="0.8"
            />
            <rect
              x={Math.min(a, b)}
              y={y(depth)}
              width={Math.abs(a - b)}
              height={(num("depth") - depth) * scale}
              class="draw-cut"
            />
          {/each}
          {#if side === 1 || two}
            {@const edge =
              side === 1
                ? outer
                : view.scene.cartridges === "two on two radii"
                  ? inner + num("width")
                  : second || outer}
            <rect
              x={Math.min(x(side * edge), x(side * (edge - num("width")))) + 1}
              y={y(depth) - num("reach") * scale * 0.95}
              width={num("thickness") * scale}
              height={num("reach") * scale * 0.95}
              class="draw-steel"
            />
            <rect
              x={Math.min(x(side * edge), x(side * (edge - num("width"))))}
              y={y(depth) - num("width") * scale}
              width={num("width") * scale}
              height={num("width") * scale}
              class="draw-insert"
            />
          {/if}
        {/each}
        <rect
          x={x(-outer - 6)}
          y={Math.max(y(depth) - num("reach") * scale * 0.95 - 20, 2)}
          width={x(outer + 6) - x(-outer - 6)}
          height="20"
          class="draw-jaw"
        />
        <line x1={x(0)} x2={x(0)} y1="2" y2={height - 6} class="draw-centre" />
        <text x={x(0)} y={y(num("plate") / 2) + 4} text-anchor="middle" class="draw-figure draw-over"
          >{kept ? "disc" : "core"} {shown(view.scene_labels.core_mass)}</text
        >
        <Arrow x={x(outer) + 26} y={y(0) - 44} length={30} to="down" />
        <text x={x(outer) + 36} y={y(0) - 26} class="figure fill-mark draw-over"
          >feed {shown(bench.evaluation?.results.feed_rev?.display)}</text
        >
        <text x={x(outer) + 36} y={y(0) - 8} class="figure fill-mark draw-over"
          >thrust {shown(view.scene_labels.thrust)}</text
        >
        <text x="10" y="20" class="draw-text"
          >torque <tspan class="figure fill-ink">{shown(view.scene_labels.torque)}</tspan></text
        >
        <text x="10" y="38" class="draw-text"
          >drilled from solid <tspan class="figure fill-ink">{shown(view.scene_labels.solid_torque)}</tspan
          ></text
        >
        <text x="10" y="56" class="draw-text"
          >ring, of the metal <tspan class="figure fill-ink">{shown(view.scene_labels.share)}</tspan></text
        >
        <text x={width - 8} y={height - 5} text-anchor="end" class="draw-text"
          >Ø{shown(view.scene_labels.outer_diameter)} – Ø{shown(view.scene_labels.inner_diameter)}, ring {shown(
            view.scene_labels.ring_width,
          )}, {shown(view.scene_labels.depth)} deep{num("web") > 0
            ? `, web ${shown(view.scene_labels.web)}`
            : ""}{second ? `; second ring Ø${shown(view.scene_labels.second)}` : ""}</text
        >
      </svg>
    {/if}
  </div>
</Panel>
