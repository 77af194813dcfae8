<script lang="ts">
  import { scaleLinear } from "d3-scale";
  import Panel from "../../../lib/Panel.svelte";
  import { shown } from "../../../session.svelte";
  import type { OperationBench } from "../../bench.svelte";
  import ScrubBar from "../ScrubBar.svelte";
  import { strokeKeys } from "../StrokeKeys";
  import { numbersOf, pathOf, viewOf } from "../view";

  let { bench }: { bench: OperationBench } = $props();
  let width = $state(330);
  let height = $state(230);
  const view = $derived(viewOf(bench, "face groove"));
  const num = numbersOf(() => view);
  const now = $derived(view?.strokes[bench.scrub.index]);
  // seen along the axis: the groove's ring, the blade below its edge, and the range that it is curved for
  const largest = $derived(Math.max(num("face_high"), num("outer_diameter")) / 2);
  const scale = $derived(Math.min((width - 70) / (largest * 1.1), (height - 58) / (largest * 0.95)));
  const x = $derived(scaleLinear([0, 1], [26, 26 + scale]));
  const y = $derived(scaleLinear([0, 1], [46, 46 - scale]));
  const outer = $derived((now?.end[0] ?? num("outer_diameter")) / 2);
  const first = $derived(num("first_diameter") / 2);
  const blade = $derived(
    ((view?.blade ?? []) as [number, number][]).map(([a, b]) => [x(a), y(b)] as [number, number]),
  );
  const arc = (r: number) => `M${x(r)},${y(0)}A${r * scale},${r * scale} 0 0 1 ${x(0)},${y(-r)}`;
  const band = (a: number, b: number) =>
    `M${x(a)},${y(0)}A${a * scale},${a * scale} 0 0 1 ${x(0)},${y(-a)}V${y(-b)}A${b * scale},${b * scale} 0 0 0 ${x(b)},${y(0)}Z`;
  const rubs = $derived(num("outer_clearance") < 0 || num("inner_clearance") < 0);
</script>

<Panel title="Blade in its ring" stale={bench.stale} class="area-map">
  {#snippet aside()}<ScrubBar scrub={bench.scrub} said="stroke {bench.scrub.index + 1}" />{/snippet}
  <div class="min-h-0 flex-1" bind:clientWidth={width} bind:clientHeight={height}>
    {#if view && now}
      <!-- svelte-ignore a11y_no_noninteractive_element_interactions, a11y_no_noninteractive_tabindex -->
      <svg
        id="operation-map"
        {width}
        {height}
        class="block"
        role="application"
        tabindex="0"
        aria-label="Blade in the first plunge, seen along the axis: {view.scene_labels.outer_clearance
          ?.metric} from the outer wall, {view.scene_labels.inner_clearance
          ?.metric} from the inner one; arrow keys step through the strokes"
        onkeydown={strokeKeys(bench.scrub)}
      >
        <path d={band(num("face_high") / 2, num("face_low") / 2)} fill="var(--window)" stroke="none" />
        <path
          d={band(num("outer_diameter") / 2, num("inner_diameter") / 2)}
          fill="var(--part)"
          stroke="var(--ink)"
          stroke-width="0.8"
        />
        <path d={arc(first)} fill="none" stroke="var(--ink)" stroke-width="1.4" />
        <path d={arc(first - num("width"))} fill="none" stroke="var(--ink)" stroke-width="1.4" />
        {#if num("hub_diameter") > 0}<path
            d={arc(num("hub_diameter") / 2)}
            fill="none"
            stroke="var(--soft)"
            stroke-dasharray="4 3"
          />{/if}
        <path d={arc(num("face_low") / 2)} fill="none" stroke="var(--safe)" stroke-dasharray="5 3" />
        <path d={arc(num("face_high") / 2)} fill="none" stroke="var(--safe)" stroke-dasharray="5 3" />
        <path
          d="{pathOf(blade)}Z"
          class="draw-steel"
          fill-opacity="0.9"
          stroke={rubs ? "var(--signal)" : "var(--ink)"}
        />
        <rect
          x={x(outer - num("width"))}
          y={y(0) - 5}
          width={num("width") * scale}
          height="7"
          class="draw-insert"
        />
        <line x1="6" x2={width - 6} y1={y(0)} y2={y(0)} class="draw-centre" />
        <line x1={x(0)} x2={x(0)} y1="20" y2={height - 6} class="draw-centre" />
        <text
          x={x(num("face_low") / 2)}
          y="14"
          text-anchor="middle"
          fill="var(--safe)"
          class="figure"
          font-size="12">Ø{shown(view.scene_labels.face_low)}</text
        >
        <text
          x={Math.min(x(num("face_high") / 2), width - 18)}
          y="14"
          text-anchor="middle"
          fill="var(--safe)"
          class="figure"
          font-size="12">Ø{shown(view.scene_labels.face_high)}</text
        >
        <text x={x(first)} y="31" text-anchor="middle" class="figure fill-mark draw-over"
          >Ø{shown(view.scene_labels.first_diameter)}</text
        >
        <text x={width - 8} y={height - 38} text-anchor="end" class="draw-text draw-over"
          >outer wall <tspan class="figure" fill={num("outer_clearance") < 0 ? "var(--signal)" : "var(--ink)"}
            >{shown(view.scene_labels.outer_clearance)}</tspan
          ></text
        >
        <text x={width - 8} y={height - 21} text-anchor="end" class="draw-text draw-over"
          >inner wall <tspan class="figure" fill={num("inner_clearance") < 0 ? "var(--signal)" : "var(--ink)"}
            >{shown(view.scene_labels.inner_clearance)}</tspan
          ></text
        >
        <text x={width - 8} y={height - 4} text-anchor="end" class="draw-text draw-over"
          >dashed: what it is curved for; {view.scene.hand === "L" ? "left" : "right"} hand</text
        >
      </svg>
    {/if}
  </div>
</Panel>
