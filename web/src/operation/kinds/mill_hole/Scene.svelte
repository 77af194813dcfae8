<script lang="ts">
  import { scaleLinear } from "d3-scale";
  import { seatOf } from "../../../lib/names";
  import Panel from "../../../lib/Panel.svelte";
  import { shown } from "../../../session.svelte";
  import type { OperationBench } from "../../bench.svelte";
  import Arrow from "../Arrow.svelte";
  import ScrubBar from "../ScrubBar.svelte";
  import { along, sense, type Moment } from "../along";
  import { numbersOf, pathOf, viewOf } from "../view";

  let { bench }: { bench: OperationBench } = $props();
  let width = $state(700);
  let height = $state(190);

  const e = $derived(viewOf(bench, "mill hole"));
  const num = numbersOf(() => e);
  const WORDS = 190;
  const helix = $derived(e?.scene.path === "helix");
  const wide = $derived(num("hole") * 1.7);
  const ABOVE = $derived(num("depth") * 0.35 + num("diameter") * 0.9);
  const scale = $derived(
    Math.min((width - WORDS - 30) / (2 * wide + 12), (height - 26) / (num("depth") * 1.12 + ABOVE)),
  );
  // at the left in section, beside it as seen along the axis
  const x = $derived(scaleLinear([0, 1], [16 + (wide / 2) * scale, 16 + (wide / 2 + 1) * scale]));
  const y = $derived(scaleLinear([0, 1], [8 + ABOVE * scale, 8 + (ABOVE + 1) * scale]));
  const seenScale = $derived(
    Math.min((width - WORDS - 40 - wide * scale) / (num("hole") * 1.25), (height - 26) / (num("hole") * 1.2)),
  );
  const seen = $derived({ x: 30 + wide * scale + num("hole") * 0.62 * seenScale, y: (height - 6) / 2 });
  const way = $derived((e?.way ?? []) as unknown as Moment[]);
  const total = $derived(way.at(-1)?.[0] ?? 0);
  const gone = $derived(bench.scrub.total > 0 ? (bench.scrub.seconds / bench.scrub.total) * total : 0);
  const place = $derived(along(way, gone));
  $effect(() => {
    if (e && bench.scrub.seconds === 0 && !bench.scrub.playing)
      bench.scrub.goto(Math.round(e.moments.length * 0.55));
  });
  const now = $derived(e?.moments[bench.scrub.index]);
  const deep = $derived(Math.min(Math.max(-place.z, 0), num("depth")));
  const turned = $derived(Math.atan2(place.y, place.x));
  const orbit = $derived(helix ? (num("rough") - num("diameter")) / 2 : 0);
  const middle = $derived(place.x);
  const r = $derived(num("diameter") / 2);
  const bore = $derived(helix ? num("rough") / 2 : r);
  const thread = $derived(
    helix ? pathOf(way.map(([, px, , z]) => [x(px), y(Math.min(-z, num("depth")))] as [number, number])) : "",
  );
  const at = (angle: number, radius: number): [number, number] => [
    seen.x + Math.cos(angle) * radius * seenScale,
    seen.y - Math.sin(angle) * radius * seenScale,
  ];
  const centre = $derived<[number, number]>([seen.x + place.x * seenScale, seen.y - place.y * seenScale]);
  /** The stretch of the mill's edge that is in the metal: from the wall back by the engagement, on the side where it runs. */
  const inMetal = $derived.by(() => {
    const span = (-sense(way, gone) * (num("engagement") * Math.PI)) / 180;
    const points = Array.from({ length: 25 }, (_, k) => {
      const a = turned + (span * k) / 24;
      return [centre[0] + Math.cos(a) * r * seenScale, centre[1] - Math.sin(a) * r * seenScale] as [
        number,
        number,
      ];
    });
    return pathOf(points);
  });
  // the deflecting force to scale: ten pixels for each 50 N, from the wall where the mill stands
  const wall = $derived(at(turned, bore));
  const pushed = $derived(
    at(turned, bore - Math.min(num("push") / 5, num("hole") * seenScale * 0.8) / seenScale),
  );
  const named = $derived(at(turned, num("hole") * 0.55));
  const teeth = $derived(
    Array.from({ length: Math.max(Math.round(num("flutes")), 1) }, (_, k) => {
      const a = -turned * 3 + (2 * Math.PI * k) / num("flutes");
      return [centre[0] + Math.cos(a) * r * seenScale, centre[1] - Math.sin(a) * r * seenScale];
    }),
  );
  const body = $derived.by(() => {
    const tip = y(deep);
    const c = num("corner");
    const cut = y(deep - num("cutting_length"));
    const neck = num("neck") / 2;
    const top = 2;
    const half = (sign: number) =>
      [
        [x(middle + sign * (r - c)), tip],
        [x(middle + sign * r), y(deep - c)],
        [x(middle + sign * r), Math.max(cut, top)],
        [x(middle + sign * neck), Math.max(cut, top)],
        [x(middle + sign * neck), top],
      ] as [number, number][];
    return pathOf([...half(1), ...half(-1).reverse()]) + "Z";
  });
  const through = $derived(e?.scene.through === "yes");
</script>

<Panel title="Scene · {seatOf(bench.entry?.tool)}" stale={bench.stale} class="area-scene">
  {#snippet aside()}
    {#if e}<span class="figure">{shown(now?.labels.depth)}</span> deep,
      <span class="figure">{shown(now?.labels.turns)}</span>
      <ScrubBar scrub={bench.scrub} said="{shown(now?.labels.depth)} deep" />{/if}
  {/snippet}
  <div class="relative min-h-0 flex-1" bind:clientWidth={width} bind:clientHeight={height}>
    {#if e}
      <svg
        {width}
        {height}
        class="block"
        role="img"
        aria-label="The end mill in its hole, in section and seen along its axis, to scale. {shown(
          e.scene_labels.pitch,
        )} a turn, ramp {shown(e.scene_labels.ramp)}"
      >
        <rect
          x={x(-wide / 2)}
          y={y(0)}
          width={wide * scale}
          height={num("depth") * (through ? 1 : 1.12) * scale}
          class="draw-part"
        />
        {#if num("pilot") > 0}
          <rect
            x={x(-num("pilot") / 2)}
            y={y(0)}
            width={num("pilot") * scale}
            height={num("depth") * scale}
            fill="var(--sheet)"
          />
        {/if}
        <rect
          x={x(-num("hole") / 2)}
          y={y(0)}
          width={num("hole") * scale}
          height={num("depth") * scale}
          fill="none"
          stroke="var(--ink)"
          stroke-dasharray="4 3"
        />
        <rect
          x={x(-bore)}
          y={y(0)}
          width={2 * bore * scale}
          height={deep * scale}
          fill="var(--sheet)"
          stroke="var(--ink)"
          stroke-width="0.8"
        />
        <path d={body} class="draw-insert" />
        <path d={thread} fill="none" stroke="var(--mark)" stroke-width="1.2" />
        <line x1={x(0)} x2={x(0)} y1="2" y2={height - 4} class="draw-centre" />
        <circle cx={x(middle)} cy={y(deep)} r="3" class="fill-mark" />

        <circle cx={seen.x} cy={seen.y} r={num("hole") * 0.6 * seenScale} class="draw-part" />
        <circle cx={seen.x} cy={seen.y} r={bore * seenScale} fill="var(--sheet)" stroke="var(--ink)" />
        <circle
          cx={seen.x}
          cy={seen.y}
          r={(num("hole") / 2) * seenScale}
          fill="none"
          stroke="var(--ink)"
          stroke-dasharray="4 3"
        />
        {#if orbit > 0}
          <circle
            cx={seen.x}
            cy={seen.y}
            r={orbit * seenScale}
            fill="none"
            stroke="var(--mark)"
            stroke-width="1.2"
          />
        {/if}
        <circle cx={centre[0]} cy={centre[1]} r={r * seenScale} class="draw-insert" />
        {#each teeth as [a, b], k (k)}
          <line x1={centre[0]} y1={centre[1]} x2={a} y2={b} stroke="var(--ink)" stroke-width="0.8" />
        {/each}
        {#if helix}<path d={inMetal} fill="none" stroke="var(--mark)" stroke-width="3.5" />{/if}
        <circle cx={centre[0]} cy={centre[1]} r="3" class="fill-mark" />
        {#if helix}
          <g class="draw-mark">
            <line x1={wall[0]} y1={wall[1]} x2={pushed[0]} y2={pushed[1]} stroke-width="2.2" />
            <circle cx={pushed[0]} cy={pushed[1]} r="2.6" />
          </g>
          <text
            x={named[0]}
            y={named[1] + 4}
            text-anchor="middle"
            class="draw-over draw-on-part fill-mark text-[12.5px] font-semibold">Fn</text
          >
        {/if}
        {#if !helix}<Arrow x={x(0) + r * scale + 12} y={y(0) - 34} length={26} to="down" />{/if}
        <path d="M{x(-wide / 2) - 6},{y(0)}h5m-2.5,0V{y(num('depth'))}m-2.5,0h5" class="draw-size" />
        <text x={16} y={height - 4} class="draw-text draw-over"
          >{shown(e.scene_labels.depth)} deep, {e.scene.path === "helix" ? e.scene.sense : "plunge"}</text
        >
      </svg>
      <dl class="absolute top-0 right-2.5 grid grid-cols-[auto_auto] gap-x-2 text-[13px] leading-[16px]">
        {#each [["pitch", e.scene_labels.pitch], ["ramp", e.scene_labels.ramp], ["feed, middle", e.scene_labels.middle], ["feed, wall", e.scene_labels.wall], ["in the metal", e.scene_labels.engagement], ["mean chip", e.scene_labels.chip], ["deflecting", e.scene_labels.push_off], ["off its size", e.scene_labels.off_size]] as const as [word, value] (word)}
          <dt class="text-soft">{word}</dt>
          <dd class="figure text-right">{shown(value)}</dd>
        {/each}
      </dl>
    {/if}
  </div>
</Panel>
