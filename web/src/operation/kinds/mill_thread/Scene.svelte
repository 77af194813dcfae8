<script lang="ts">
  import { scaleLinear } from "d3-scale";
  import { seatOf } from "../../../lib/names";
  import Panel from "../../../lib/Panel.svelte";
  import { shown } from "../../../session.svelte";
  import type { OperationBench } from "../../bench.svelte";
  import ScrubBar from "../ScrubBar.svelte";
  import { ridges } from "../threads/ridges";
  import { along, sense, type Moment } from "../along";
  import { numbersOf, pathOf, viewOf } from "../view";

  let { bench }: { bench: OperationBench } = $props();
  let width = $state(700);
  let height = $state(190);
  const WORDS = 215;

  const e = $derived(viewOf(bench, "mill thread"));
  const num = numbersOf(() => e);
  const many = $derived(e?.scene.rows === "many");
  const wide = $derived(num("diameter") * 1.7);
  const above = $derived(num("length") * 0.3 + num("mill") * 0.6);
  const floor = $derived(Math.min(num("deep"), num("length") * 1.5));
  const scale = $derived(
    Math.min((width - WORDS - 40) / (2.4 * wide), (height - 26) / (floor * 1.08 + above)),
  );
  const x = $derived(scaleLinear([0, 1], [16 + (wide / 2) * scale, 16 + (wide / 2 + 1) * scale]));
  const y = $derived(scaleLinear([0, 1], [8 + above * scale, 8 + (above + 1) * scale]));
  const seenScale = $derived(
    Math.min(
      (width - WORDS - 46 - wide * scale) / (num("diameter") * 1.3),
      (height - 40) / (num("diameter") * 1.25),
    ),
  );
  const seen = $derived({ x: 34 + wide * scale + num("diameter") * 0.65 * seenScale, y: (height - 16) / 2 });
  const played = $derived(bench.scrub.total > 0 ? bench.scrub.seconds / bench.scrub.total : 0);
  $effect(() => {
    if (e && bench.scrub.seconds === 0 && !bench.scrub.playing)
      bench.scrub.goto(Math.round(e.moments.length * 0.6));
  });
  const now = $derived(e?.moments[bench.scrub.index]);
  const up = $derived(e?.scene.goes === "up");
  const way = $derived((e?.way ?? []) as unknown as Moment[]);
  const total = $derived(way.at(-1)?.[0] ?? 0);
  const place = $derived(along(way, played * total));
  const orbit = $derived((num("diameter") - num("mill")) / 2);
  const sign = $derived(sense(way, total / 2)); // seen from the spindle; down the page is clockwise
  const angle = $derived(Math.atan2(-place.y, place.x));
  const r = $derived(num("mill") / 2);
  const tall = $derived(
    many ? Math.min(num("teeth") * num("pitch"), num("length") + num("pitch")) : num("teeth") * num("pitch"),
  );
  // where its end stands: half a pitch below its lowest tooth
  const end = $derived(-place.z + num("pitch") / 2);
  const middle = $derived(place.x);
  const body = $derived.by(() => {
    const depth = Math.min(num("pitch") * 0.6, r * 0.45);
    const line = ridges(end - tall, tall, num("pitch"), r, r - depth);
    const half = (side: number) =>
      [
        [x(middle + (side * num("shank")) / 2), 2],
        [x(middle + (side * num("shank")) / 2), Math.max(y(end - num("reach")), 2)],
        [x(middle + (side * num("neck")) / 2), Math.max(y(end - num("reach")), 2)],
        [x(middle + (side * num("neck")) / 2), Math.max(y(end - tall), 2)],
        ...line.map(([a, b]) => [x(middle + side * b), Math.max(y(a), 2)]),
      ] as [number, number][];
    return pathOf([...half(1), ...half(-1).reverse()]) + "Z";
  });
  const done = $derived.by(() => {
    // what is threaded: all of it in one turn with many rows, else from where it began
    const all = many ? num("length") : num("length") * Math.min(played * 1.05, 1);
    const from = many || !up ? 0 : num("length") - all;
    return { from, long: many && played < 0.05 ? 0 : all };
  });
  const groove = $derived(
    done.long > num("pitch")
      ? ridges(done.from, done.long, num("pitch"), num("diameter") / 2, num("minor") / 2)
      : [],
  );
  const helix = $derived(
    pathOf(way.map(([, px, , z]) => [x(px), y(-z + num("pitch") / 2)] as [number, number])),
  );
  const centre = $derived([seen.x + place.x * seenScale, seen.y - place.y * seenScale] as const);
  const teeth = $derived(
    Array.from({ length: Math.max(Math.round(num("flutes")), 1) }, (_, k) => {
      const a = (e?.scene.cutting === "left" ? -1 : 1) * angle * sign * 4 + (2 * Math.PI * k) / num("flutes");
      return [centre[0] + Math.cos(a) * r * seenScale, centre[1] + Math.sin(a) * r * seenScale];
    }),
  );
  // an arrow head along the path
  const head = $derived.by(() => {
    const a = angle + sign * 0.9;
    const px = seen.x + Math.cos(a) * num("diameter") * 0.56 * seenScale;
    const py = seen.y + Math.sin(a) * num("diameter") * 0.56 * seenScale;
    const turn = ((a + (sign * Math.PI) / 2) * 180) / Math.PI;
    return `translate(${px},${py}) rotate(${turn})`;
  });
  const wrong = $derived(e?.scene.climb !== "yes");
</script>

<Panel title="Scene · {seatOf(bench.entry?.tool)}" stale={bench.stale} class="area-scene">
  {#snippet aside()}
    {#if e}<span class="figure">{shown(now?.labels.turns)}</span>
      <ScrubBar scrub={bench.scrub} said={shown(now?.labels.turns)} />{/if}
  {/snippet}
  <div class="relative min-h-0 flex-1" bind:clientWidth={width} bind:clientHeight={height}>
    {#if e}
      <svg
        {width}
        {height}
        class="block"
        role="img"
        aria-label="The thread mill in its hole, in section and seen from the spindle, to scale; path {shown(
          e.scene_labels.path,
        )}, {shown(e.scene_labels.goes)}"
      >
        <rect
          x={x(-wide / 2)}
          y={y(0)}
          width={wide * scale}
          height={floor * 1.08 * scale}
          class="draw-part"
        />
        <rect
          x={x(-(num("hole") || num("minor")) / 2)}
          y={y(0)}
          width={(num("hole") || num("minor")) * scale}
          height={(num("hole") ? floor : Math.min(Math.max(end, 0), floor)) * scale}
          fill="var(--sheet)"
          stroke="var(--ink)"
          stroke-width="0.8"
        />
        {#each [1, -1] as side (side)}
          {#if groove.length}<path
              d={pathOf(groove.map(([a, b]) => [x(side * b), y(a)])) + "Z"}
              fill="var(--sheet)"
              stroke="var(--ink)"
              stroke-width="0.9"
            />{/if}
        {/each}
        <path d={body} class="draw-insert" />
        <path d={helix} fill="none" stroke="var(--mark)" stroke-width="1.1" />
        <line x1={x(0)} x2={x(0)} y1="2" y2={height - 16} class="draw-centre" />
        <circle cx={x(middle)} cy={y(end)} r="3" class="fill-mark" />
        <text x={16} y={height - 4} class="draw-text draw-over"
          >{shown(e.scene_labels.length)} full thread, {up ? "up" : "down"} a pitch a turn, {e.scene.path}, {wrong
            ? "against the feed"
            : "climb"}</text
        >

        <circle cx={seen.x} cy={seen.y} r={num("diameter") * 0.62 * seenScale} class="draw-part" />
        <circle
          cx={seen.x}
          cy={seen.y}
          r={(num("diameter") / 2) * seenScale}
          fill="var(--sheet)"
          stroke="var(--ink)"
        />
        <circle
          cx={seen.x}
          cy={seen.y}
          r={(num("minor") / 2) * seenScale}
          fill="none"
          stroke="var(--ink)"
          stroke-dasharray="4 3"
        />
        <circle
          cx={seen.x}
          cy={seen.y}
          r={orbit * seenScale}
          fill="none"
          stroke="var(--mark)"
          stroke-width="1.2"
        />
        <circle cx={centre[0]} cy={centre[1]} r={r * seenScale} class="draw-insert" />
        {#each teeth as [a, b], k (k)}
          <line x1={centre[0]} y1={centre[1]} x2={a} y2={b} stroke="var(--ink)" stroke-width="0.8" />
        {/each}
        <path d="M-7,-5L5,0L-7,5Z" transform={head} class={wrong ? "fill-warn" : "fill-mark"} />
      </svg>
      <dl class="absolute top-0 right-2.5 grid grid-cols-[auto_auto] gap-x-2 text-[13px] leading-[16px]">
        {#each [["thread", e.scene_labels.thread], ["spindle", e.scene_labels.spindle], ["feed, middle", e.scene_labels.middle], ["feed, wall", e.scene_labels.wall], ["flank error", e.scene_labels.flank], ["set outward", e.scene_labels.offset], ["taper", e.scene_labels.taper], ["deflecting", e.scene_labels.push_off]] as const as [word, value] (word)}
          <dt class="text-soft">{word}</dt>
          <dd class="figure text-right">{shown(value)}</dd>
        {/each}
      </dl>
    {/if}
  </div>
</Panel>
