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
  const view = $derived(viewOf(bench, "groove"));
  const num = numbersOf(() => view);
  const CHUCK = 84;
  const part = $derived((view?.part ?? []) as [number, number][]);
  const longest = $derived(Math.max(num("free_length"), part.at(-1)?.[0] ?? 0, 1));
  const radius = $derived(
    Math.max(num("diameter") / 2, num("grip_diameter") / 2, ...part.map(([, r]) => r), 1),
  );
  const scale = $derived(Math.min((width - CHUCK - 290) / longest, (height - 50) / (2.1 * radius)));
  const x = $derived(scaleLinear([0, 1], [CHUCK, CHUCK + scale]));
  const axis = $derived(height * 0.56);
  const y = $derived(scaleLinear([0, 1], [axis, axis - scale]));
  const inside = $derived(view?.scene.where === "inside");
  const near = $derived(num("distance_from_chuck"));
  const top = $derived(num("diameter") / 2);
  const floor = $derived(num("floor") / 2);
  const stroke = $derived(view?.strokes[bench.scrub.index]);
  const place = $derived(near + (stroke?.end[0] ?? 0));
  const tip = $derived(inside ? top + (stroke?.end[1] ?? 0) : top - (stroke?.end[1] ?? 0));
  const out = $derived(inside ? -1 : 1); // which way the shank lies from the edge
  const words = $derived(Math.max(x(longest) + (inside ? 130 : 60), width * 0.52));
  const sideways = $derived(!!stroke && ["turn", "ramp", "arc"].includes(stroke.kind));
  const cavity = $derived(
    [
      [near, top],
      [near, floor],
      [near + num("groove_width"), floor],
      [near + num("groove_width"), top],
    ]
      .map(([a, r]) => `${x(a!)},${y(r!)}`)
      .join(" "),
  );
</script>

<Panel title="Scene · {seatOf(bench.entry?.tool)}" stale={bench.stale} class="area-scene">
  {#snippet aside()}
    {#if stroke}<span class="figure">{shown(stroke.labels.spindle_speed)}</span> · stroke
      <span class="figure">{bench.scrub.index + 1} of {view?.strokes.length}</span>, {stroke.labels.kind
        ?.metric} · chip {bench.evaluation?.chip.form}, {bench.evaluation?.chip.length}{/if}
  {/snippet}
  <div class="min-h-0 flex-1" bind:clientWidth={width} bind:clientHeight={height}>
    {#if view && stroke}
      <svg
        {width}
        {height}
        class="block"
        role="img"
        aria-label="Tool and part to scale, groove {view.scene.where}"
      >
        <HalfSection {part} bore={num("bore")} grip={num("grip_diameter")} {x} {y} chuck={CHUCK} />
        <polygon points={cavity} class="draw-cut" />
        {#if view.scene.holding !== "chuck"}
          <path d="M{x(longest) - 4},{axis}l30,-12h22v24h-22Z" class="draw-steel" />
        {/if}
        <line x1="6" x2={width - 4} y1={axis} y2={axis} class="draw-centre" />
        {#if inside}
          <rect
            x={x(place + num("width") * 0.2)}
            y={y(tip) + num("width") * scale * 0.9}
            width={x(longest) + 110 - x(place)}
            height={Math.min(
              num("thickness") * scale,
              y(0) - y(tip) - num("width") * scale * 0.9 + num("thickness") * scale * 0.4,
            )}
            class="draw-steel"
          />
          <rect
            x={x(place)}
            y={y(tip)}
            width={num("width") * scale}
            height={num("width") * scale}
            class="draw-insert"
          />
        {:else}
          <rect
            x={x(place) + ((num("width") - num("thickness")) / 2) * scale}
            y="-4"
            width={num("thickness") * scale}
            height={Math.max(y(tip) - num("width") * scale * 0.6 + 4, 0)}
            class="draw-steel"
          />
          <rect
            x={x(place)}
            y={y(tip) - num("width") * scale}
            width={num("width") * scale}
            height={num("width") * scale}
            rx={num("insert_radius") * scale}
            class="draw-insert"
          />
        {/if}
        {#if sideways}
          <Arrow
            x={x(place) + (num("width") * scale) / 2}
            y={y(tip) + 12 * out}
            length={30}
            to={(stroke.end[0] ?? 0) >= (stroke.start[0] ?? 0) ? "right" : "left"}
          />
        {:else}
          <Arrow
            x={x(place + num("width")) + 12}
            y={y(tip) - 40 * out}
            length={26}
            to={inside ? "up" : "down"}
          />
        {/if}
        <text x={words} y="18" class="draw-figure"
          >Ø{shown(view.scene_labels.diameter)} → Ø{shown(view.scene_labels.floor)}</text
        >
        <text x={words} y="35" class="draw-text">{shown(view.scene_labels.width)} wide, {view.scene.way}</text
        >
        <text x={words} y="58" class="figure fill-mark">feed {shown(stroke.labels.feed)}</text>
        <text x={words} y="75" class="figure fill-mark"
          >{sideways ? "side force" : "feed force"}
          {shown(sideways ? stroke.labels.side_force : view.scene_labels.feed_force)}</text
        >
        <text x={words} y="92" class="draw-figure"
          >cutting force {shown(view.scene_labels.cutting_force)}</text
        >
        <text x={width - 8} y={height - 5} text-anchor="end" class="draw-text draw-over"
          >{shown(view.scene_labels.overhang)} overhang · reaches {shown(view.scene_labels.reach)}, needs {shown(
            view.scene_labels.needs,
          )} · floor springs {shown(view.scene_labels.springs)} on Ø</text
        >
      </svg>
    {/if}
  </div>
</Panel>
