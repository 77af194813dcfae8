<script lang="ts">
  import { scaleLinear } from "d3-scale";
  import { seatOf } from "../../../lib/names";
  import Panel from "../../../lib/Panel.svelte";
  import { shown } from "../../../session.svelte";
  import type { OperationBench } from "../../bench.svelte";
  import { along, type Moment } from "../along";
  import Arrow from "../Arrow.svelte";
  import ScrubBar from "../ScrubBar.svelte";
  import { numbersOf, viewOf } from "../view";

  /** The tool of several steps on its way into the bores, in section to scale: the face of the part stands, the tool goes. */
  let { bench }: { bench: OperationBench } = $props();
  let width = $state(700);
  let height = $state(220);
  const ROOM = 40; // px for words above and below
  const view = $derived(viewOf(bench, "heavy bore"));
  const num = numbersOf(() => view);
  const deep = $derived(Math.max(...(view?.scene.edges ?? []).map((one) => one.far), 1));
  const wall = $derived(1.25 * Math.max(...(view?.scene.edges ?? []).map((one) => one.diameter), 1));
  // the face stands where the whole tool has room in front of it before the pass begins
  const before = $derived(num("length") - num("stands") + num("travel") - deep);
  const scale = $derived(
    Math.min((width - 20) / Math.max(before + deep * 1.15, 1), (height - ROOM) / Math.max(wall, 1)),
  );
  const axis = $derived(height / 2);
  const WORDS = 60; // px that the words at the left push the drawing over
  const left = $derived(Math.max((width - (before + deep * 1.15) * scale) / 2 + WORDS, 10));
  const face = $derived(Math.min(left + before * scale, width - 10 - deep * 1.15 * scale));
  const x = $derived(scaleLinear([0, 1], [face, face + scale]));
  const now = $derived(view?.moments[bench.scrub.index]);
  const way = $derived((view?.way ?? []) as unknown as Moment[]);
  const foremost = $derived(Math.max(...(view?.scene.edges ?? []).map((one) => one.at), 0));
  // places of the way are of the foremost edge, downward negative
  const gripper = $derived(-along(way, now?.seconds ?? 0).z - foremost);
  const at = (place: number) => x(gripper + place);
  const cut = (edge: { at: number; near: number; far: number }) =>
    Math.max(Math.min(gripper + edge.at, edge.far), edge.near);
  $effect(() => {
    if (view && bench.scrub.seconds === 0 && !bench.scrub.playing)
      bench.scrub.goto(Math.round(view.moments.length * 0.6));
  });
</script>

<Panel title="Scene · {seatOf(bench.entry?.tool)}" stale={bench.stale} class="area-scene">
  {#snippet aside()}
    <ScrubBar
      scrub={bench.scrub}
      said="{shown(now?.labels.depth)} of the pass, {shown(now?.labels.torque)}"
    />
  {/snippet}
  <div class="min-h-0 flex-1" bind:clientWidth={width} bind:clientHeight={height}>
    {#if view}
      <svg
        {width}
        {height}
        class="block"
        role="img"
        aria-label="A tool of {view.scene.edges.length} steps in its bores, in section to scale; {shown(
          view.scene_labels.mass,
        )}, {shown(view.scene_labels.moment)} at the gripper"
      >
        <rect
          x={x(0)}
          y={axis - (wall / 2) * scale}
          width={deep * 1.1 * scale}
          height={wall * scale}
          class="draw-part"
        />
        {#each view.scene.edges as edge (edge.name + edge.at)}
          <rect
            x={x(edge.near)}
            y={axis - (edge.rough / 2) * scale}
            width={(edge.far - edge.near) * scale}
            height={edge.rough * scale}
            fill="var(--sheet)"
          />
          {#each [1, -1] as side (side)}
            <rect
              x={x(cut(edge))}
              y={side > 0 ? axis - (edge.diameter / 2) * scale : axis + (edge.rough / 2) * scale}
              width={Math.max((edge.far - cut(edge)) * scale, 0)}
              height={Math.max(((edge.diameter - edge.rough) / 2) * scale, 1.4)}
              class="draw-cut"
            />
            <rect
              x={x(edge.near)}
              y={side > 0 ? axis - (edge.diameter / 2) * scale : axis + (edge.rough / 2) * scale}
              width={Math.max((cut(edge) - edge.near) * scale, 0)}
              height={Math.max(((edge.diameter - edge.rough) / 2) * scale, 1.4)}
              fill="var(--sheet)"
            />
          {/each}
        {/each}
        {#each view.scene.edges.slice(0, -1) as edge, k (edge.name + edge.at)}
          {@const next = view.scene.edges[k + 1]!}
          <rect
            x={x(edge.far)}
            y={axis - (next.rough / 2) * scale}
            width={(next.near - edge.far) * scale}
            height={next.rough * scale}
            fill="var(--sheet)"
          />
        {/each}
        <rect
          x={x(deep) - 0.5}
          y={axis - ((view.scene.edges.at(-1)?.rough ?? 0) / 2) * scale}
          width={deep * 0.1 * scale + 1}
          height={(view.scene.edges.at(-1)?.rough ?? 0) * scale}
          fill="var(--sheet)"
        />
        <rect
          x={at(0)}
          y={axis - (num("seat") / 2) * scale}
          width={num("face") * scale}
          height={num("seat") * scale}
          class="draw-steel"
        />
        {#each view.scene.solids as one, k (k)}
          {#each one.inner > 0 || one.arms ? [1, -1] : [0] as side (side)}
            <rect
              x={at(one.start)}
              y={side < 0 ? axis + (one.inner / 2) * scale : axis - (one.outer / 2) * scale}
              width={(one.end - one.start) * scale}
              height={(side ? (one.outer - one.inner) / 2 : one.outer) * scale}
              class="draw-steel"
              stroke-dasharray={one.share < 1 ? "5 3" : undefined}
            />
          {/each}
        {/each}
        {#each view.scene.edges as edge (edge.name + edge.at)}
          {#each [1, -1] as side (side)}
            <rect
              x={at(edge.at) - 7}
              y={side > 0 ? axis - (edge.diameter / 2) * scale : axis + (edge.diameter / 2) * scale - 8}
              width="7"
              height="8"
              class="draw-insert"
            />
          {/each}
        {/each}
        <line x1="4" x2={width - 4} y1={axis} y2={axis} class="draw-centre" />
        <g class="draw-mark" transform="translate({at(num('lever'))},{axis})">
          <circle r="6" fill="var(--sheet)" />
          <path d="M0,-6A6,6 0 0 1 6,0H0ZM0,6A6,6 0 0 1 -6,0H0Z" />
        </g>
        <Arrow x={10} y={height - 30} length={34} to="right" />
        <text x="52" y={height - 25} class="figure fill-mark draw-over"
          >feed {shown(bench.evaluation?.results.feed_rate?.display)}</text
        >
        <text x="10" y="16" class="draw-text"
          >on the gripper <tspan class="figure fill-ink"
            >{shown(view.scene_labels.mass)}, {shown(view.scene_labels.moment)}</tspan
          ></text
        >
        <text x="10" y="33" class="draw-text"
          >steps together <tspan class="figure fill-ink">{shown(view.scene_labels.torque)}</tspan>, coaxial
          within
          <tspan class="figure fill-ink">{shown(view.scene_labels.coaxiality)}</tspan></text
        >
      </svg>
    {/if}
  </div>
</Panel>
