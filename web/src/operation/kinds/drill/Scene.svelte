<script lang="ts">
  import { scaleLinear } from "d3-scale";
  import { labelOf, seatOf } from "../../../lib/names";
  import Panel from "../../../lib/Panel.svelte";
  import { shown } from "../../../session.svelte";
  import type { OperationBench } from "../../bench.svelte";
  import Arrow from "../Arrow.svelte";
  import { numbersOf, pathOf, viewOf } from "../view";

  let { bench }: { bench: OperationBench } = $props();
  const own = $props.id(); // a scene may stand twice on a page
  let width = $state(700);
  let height = $state(170);
  const view = $derived(viewOf(bench, "drill"));
  const num = numbersOf(() => view);
  const now = $derived(view?.moments[bench.scrub.index]);
  // the drill comes from the right, its axis lies level: depth runs to the left
  const deep = $derived(num("depth") + num("cone") + 4);
  const long = $derived(deep + num("flute_length") * 0.55 + num("diameter") * 3);
  const scale = $derived(
    Math.min((width - 250) / Math.max(long, 1), (height - 46) / Math.max(num("diameter") * 4.2, 1)),
  );
  const mouth = $derived(20 + deep * scale);
  const x = $derived(scaleLinear([0, 1], [mouth, mouth - scale])); // of a depth
  const axis = $derived(height * 0.46);
  const y = $derived(scaleLinear([0, 1], [axis, axis - scale])); // of a radius
  const radius = $derived(num("diameter") / 2);
  const wall = $derived(Math.min(radius * 4.2, (height - 46) / 2 / scale));
  const tip = $derived(now?.depth ?? 0);
  const corner = $derived(tip - num("cone"));
  const cut = $derived(Math.max(Math.min(corner, num("depth")), 0));
  const spirals = $derived.by(() => {
    const helix = num("helix");
    if (helix < 2) return [];
    const pitch = (Math.PI * num("diameter")) / Math.tan((helix * Math.PI) / 180) / 2;
    const found: [number, number][][] = [];
    for (let place = 0; place < num("flute_length") - pitch / 2 && found.length < 40; place += pitch) {
      const steps = Array.from({ length: 9 }, (_, k) => k / 8);
      found.push(
        steps.map((t) => [corner - place - t * pitch, -radius * Math.cos(Math.PI * t)] as [number, number]),
      );
    }
    return found;
  });
  const reams = $derived(view?.scene.reams === "yes");
  /** A reamer has a flat end with a chamfer, and edges along it; a drill has a point. */
  const front = $derived(reams ? radius - num("cone") : 0);
  const edges = $derived(reams ? [-0.6, 0, 0.6] : []);
  const outline = $derived(
    [
      [tip, front],
      [corner, radius],
      [corner - num("flute_length"), radius],
      [corner - num("flute_length"), -radius],
      [corner, -radius],
      [tip, -front],
    ]
      .map(([d, r]) => `${x(d!)},${y(r!)}`)
      .join(" "),
  );
  const shank = $derived(Math.max(num("shank"), num("diameter")) / 2);
</script>

<Panel title="Scene · {seatOf(bench.entry?.tool)}" stale={bench.stale} class="area-scene">
  {#snippet aside()}
    {#if now}<span class="figure">{shown(bench.evaluation?.results.spindle_speed?.display)}</span> ·
      <span class="figure">{shown(now.labels.depth)}</span>
      · <span class="figure">{shown(now.labels.seconds)}</span> · chip {bench.evaluation?.chip.form}{/if}
  {/snippet}
  <div class="min-h-0 flex-1" bind:clientWidth={width} bind:clientHeight={height}>
    {#if view && now}
      <svg
        {width}
        {height}
        class="block"
        role="img"
        aria-label="Drill in its hole, in section to scale, {now.labels.depth?.metric} deep in {now.labels
          .layer?.metric}"
      >
        <defs
          ><pattern id="{own}-plies-across" width="4" height="6" patternUnits="userSpaceOnUse"
            ><rect width="4" height="6" fill="var(--sheet)" /><path
              d="M2,0V4"
              stroke="var(--soft)"
              stroke-width="1.2"
            /></pattern
          ><clipPath id="{own}-drill-body"><polygon points={outline} /></clipPath>
          <clipPath id="{own}-scene-room"
            ><rect x="0" y="0" width={width - 176} height={height - 22} /></clipPath
          ></defs
        >
        <g clip-path="url(#{own}-scene-room)">
          {#each view.layers as layer, k (k)}
            <rect
              x={x(layer.far)}
              y={y(wall)}
              width={x(layer.near) - x(layer.far)}
              height={y(-wall) - y(wall)}
              class={layer.laminate ? "" : "draw-part"}
              fill={layer.laminate ? `url(#${own}-plies-across)` : undefined}
              stroke={layer.laminate ? "var(--ink)" : undefined}
              stroke-width={layer.laminate ? 0.7 : undefined}
            />
            {#if view.layers.length > 1 && x(layer.near) - x(layer.far) > 8}
              <text
                x={(x(layer.near) + x(layer.far)) / 2}
                y={y(wall) + 13}
                text-anchor="middle"
                class="draw-text draw-over"
                font-size="11">{labelOf(layer.name, k, x(layer.near) - x(layer.far))}</text
              >
            {/if}
          {/each}
          {#if num("pilot") > 0}
            <rect
              x={x(num("depth"))}
              y={y(num("pilot") / 2)}
              width={x(0) - x(num("depth"))}
              height={y(-num("pilot") / 2) - y(num("pilot") / 2)}
              fill="var(--sheet)"
              stroke="var(--soft)"
              stroke-width="0.7"
            />
          {/if}
          <rect
            x={x(cut)}
            y={y(num("hole") / 2)}
            width={x(0) - x(cut)}
            height={y(-num("hole") / 2) - y(num("hole") / 2)}
            fill="var(--sheet)"
            stroke="var(--ink)"
            stroke-width="0.8"
          />
          <rect
            x={x(corner - num("flute_length") + 0.001)}
            y={y(shank)}
            width={400}
            height={y(-shank) - y(shank)}
            class="draw-steel"
          />
          <polygon points={outline} class="draw-insert" />
          <g clip-path="url(#{own}-drill-body)">
            {#each edges as at (at)}
              <line
                x1={x(tip)}
                x2={x(corner - num("flute_length"))}
                y1={y(at * radius)}
                y2={y(at * radius)}
                stroke="var(--ink)"
                stroke-width="0.9"
              />
            {/each}
            {#each spirals as turn, k (k)}
              <path
                d={pathOf(turn.map(([d, r]) => [x(d), y(r)]))}
                fill="none"
                stroke="var(--ink)"
                stroke-width="0.9"
              />
            {/each}
            <rect
              x={x(Math.max(corner, 0))}
              y={y(radius)}
              width={Math.max(x(0) - x(Math.max(corner, 0)), 0)}
              height={y(-radius) - y(radius)}
              fill="var(--warn)"
              opacity={Math.min(now.filled, 1.2) * 0.35}
            />
          </g>
          {#if num("step") > 0}
            <rect
              x={x(corner - num("step_length"))}
              y={y(num("step") / 2)}
              width={18}
              height={y(-num("step") / 2) - y(num("step") / 2)}
              class="draw-steel"
            />
          {/if}
          <line x1="2" x2={width - 180} y1={axis} y2={axis} class="draw-centre" />
          <Arrow x={Math.min(x(corner) + 34, width - 190)} y={y(shank) - 14} length={28} to="left" />
        </g>
        <g class="figure">
          <text x={width - 168} y="18" class="draw-figure"
            >thrust <tspan class="fill-mark">{shown(now.labels.thrust)}</tspan></text
          >
          <text x={width - 168} y="36" class="draw-figure"
            >torque <tspan class="fill-mark">{shown(now.labels.torque)}</tspan></text
          >
          <text x={width - 168} y="54" class="draw-figure">power {shown(now.labels.power)}</text>
          <text x={width - 168} y="72" class="draw-figure">corner {shown(now.labels.temperature)}</text>
          <text x={width - 168} y="90" class="draw-figure">flutes {shown(now.labels.filled)} full</text>
          <text x={width - 168} y="108" class="draw-text"
            >{view.scene.turns === "part" ? "the part turns" : "the drill turns"}</text
          >
          {#if view.scene.through_tool === "yes"}
            <text x={width - 168} y="125" class="draw-text"
              >{shown(view.scene_labels.pressure)} through it</text
            >
          {/if}
        </g>
        <text x={width - 8} y={height - 5} text-anchor="end" class="draw-text draw-over"
          >Ø{shown(view.scene_labels.diameter)}, {reams ? "reamer" : `${num("point_angle")}° point`} · {view
            .scene.through === "yes"
            ? `through ${shown(view.scene_labels.depth)}`
            : `${shown(view.scene_labels.depth)} to the shoulder, ${shown(view.scene_labels.tip)} to the tip`} ·
          reaches {shown(view.scene_labels.reach)} · burr {view.scene.burr}</text
        >
      </svg>
    {/if}
  </div>
</Panel>
