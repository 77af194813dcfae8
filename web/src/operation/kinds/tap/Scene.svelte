<script lang="ts">
  import { scaleLinear } from "d3-scale";
  import { seatOf } from "../../../lib/names";
  import Panel from "../../../lib/Panel.svelte";
  import { shown } from "../../../session.svelte";
  import type { OperationBench } from "../../bench.svelte";
  import Arrow from "../Arrow.svelte";
  import ScrubBar from "../ScrubBar.svelte";
  import { ridges } from "../threads/ridges";
  import { numbersOf, pathOf, viewOf } from "../view";

  let { bench }: { bench: OperationBench } = $props();
  let width = $state(700);
  let height = $state(190);
  const WORDS = 215;

  const e = $derived(viewOf(bench, "tap"));
  const num = numbersOf(() => e);
  // lying, the entry at the left: a tap is long
  const deep = $derived(Math.max(num("hole"), num("length") + num("chamfer")) * 1.12);
  const before = $derived(num("length") * 0.55 + num("diameter") * 0.6);
  const scale = $derived(
    Math.min((width - WORDS - 24) / (deep + before), (height - 40) / (num("diameter") * 2.1)),
  );
  const x = $derived(scaleLinear([0, 1], [12 + before * scale, 12 + (before + 1) * scale]));
  const y = $derived(scaleLinear([0, 1], [(height - 10) / 2, (height - 10) / 2 - scale]));
  $effect(() => {
    if (e && bench.scrub.seconds === 0 && !bench.scrub.playing)
      bench.scrub.goto(Math.round(e.moments.length * 0.38));
  });
  const now = $derived(e?.moments[bench.scrub.index]);
  const tip = $derived(now?.depth ?? 0);
  const half = $derived(num("diameter") / 2);
  const block = $derived(num("diameter") * 0.98);
  const back = $derived((now?.labels.way?.metric ?? "in") !== "in");
  // what is threaded so far: at the deepest while it comes back out
  const cut = $derived(
    back ? num("length") : Math.max(0, Math.min(tip - num("chamfer") * 0.5, num("length"))),
  );
  const wall = $derived.by(() => {
    const line = cut > num("pitch") ? ridges(0, cut, num("pitch"), half, num("minor") / 2) : [];
    return line.map(([a, r]) => [x(a), y(r)] as [number, number]);
  });
  const mirrored = $derived(wall.map(([a, b]) => [a, 2 * y(0) - b] as [number, number]));
  const body = $derived.by(() => {
    const long = Math.min(num("reach"), num("diameter") * 2.2);
    const inner = Math.max(num("minor") / 2 - num("pitch") * 0.15, num("core") / 2);
    const start = tip - num("chamfer");
    const top: [number, number][] = ridges(tip - long, long - num("chamfer"), num("pitch"), half, inner);
    const nose: [number, number][] = [
      [start, half],
      [tip, inner],
    ];
    const shank: [number, number][] = [
      [-1e3, num("shank") / 2],
      [tip - long, num("shank") / 2],
    ];
    const upper = [...shank, ...top, ...nose].map(
      ([a, r]) => [Math.max(x(a), -20), y(r)] as [number, number],
    );
    const lower = upper.map(([a, b]) => [a, 2 * y(0) - b] as [number, number]).reverse();
    return pathOf([...upper, ...lower]) + "Z";
  });
  const chips = $derived(
    { down: "ahead", up: "back out", stay: "in its flutes", none: "no chips" }[String(e?.scene.chips)],
  );
</script>

<Panel title="Scene · {seatOf(bench.entry?.tool)}" stale={bench.stale} class="area-scene">
  {#snippet aside()}
    {#if e}<span class="figure">{shown(now?.labels.depth)}</span> deep, {shown(now?.labels.way)}
      <ScrubBar scrub={bench.scrub} said="{shown(now?.labels.depth)} deep" />{/if}
  {/snippet}
  <div class="relative min-h-0 flex-1" bind:clientWidth={width} bind:clientHeight={height}>
    {#if e}
      <svg
        {width}
        {height}
        class="block"
        role="img"
        aria-label="The tap in its hole in section, to scale; {shown(
          e.scene_labels.thread,
        )}, tapping hole {shown(e.scene_labels.hole)}"
      >
        <rect x={x(0)} y={y(block)} width={deep * scale} height={2 * block * scale} class="draw-part" />
        <rect
          x={x(0)}
          y={y(num("minor") / 2)}
          width={num("hole") * scale}
          height={num("minor") * scale}
          fill="var(--sheet)"
          stroke="var(--ink)"
          stroke-width="0.8"
        />
        {#if e.scene.through === "no"}
          <path
            d="M{x(num('hole'))},{y(num('minor') / 2)}l{num('minor') * 0.3 * scale},{(num('minor') / 2) *
              scale}l{-num('minor') * 0.3 * scale},{(num('minor') / 2) * scale}Z"
            fill="var(--sheet)"
            stroke="var(--ink)"
            stroke-width="0.8"
          />
        {/if}
        {#if wall.length}
          <path d={pathOf(wall) + "Z"} fill="var(--sheet)" stroke="var(--ink)" stroke-width="0.9" />
          <path d={pathOf(mirrored) + "Z"} fill="var(--sheet)" stroke="var(--ink)" stroke-width="0.9" />
        {/if}
        <path d={body} class="draw-insert" />
        <line x1="2" x2={width - WORDS} y1={y(0)} y2={y(0)} class="draw-centre" />
        <circle cx={x(tip)} cy={y(0)} r="3" class="fill-mark" />
        <Arrow x={x(0) - 10} y={y(block) - 2} length={30} to={back ? "left" : "right"} />
        <path d="M{x(0)},{y(-block) + 5}v5m0,-2.5H{x(num('length'))}m0,-2.5v5" class="draw-size" />
        <text x={x(0) + 4} y={y(-block) + 22} class="draw-text draw-over"
          >{shown(e.scene_labels.length)} full thread{e.scene.through === "no"
            ? `, hole needs ${shown(e.scene_labels.needed)}`
            : ", through"}</text
        >
      </svg>
      <dl class="absolute top-0 right-2.5 grid grid-cols-[auto_auto] gap-x-2 text-[13px] leading-[16px]">
        {#each [["thread", e.scene_labels.thread], ["tapping hole Ø", e.scene_labels.hole], ["pitch Ø", { metric: `${e.scene_labels.pitch_low?.metric} – ${e.scene_labels.pitch_high?.metric}`, inch: `${e.scene_labels.pitch_low?.inch} – ${e.scene_labels.pitch_high?.inch}` }], ["torque, worn", e.scene_labels.torque], ["breaks at", e.scene_labels.breaking], ["chips go", { metric: chips ?? "", inch: chips ?? "" }]] as const as [word, value] (word)}
          <dt class="text-soft">{word}</dt>
          <dd class="figure text-right">{shown(value)}</dd>
        {/each}
      </dl>
    {/if}
  </div>
</Panel>
