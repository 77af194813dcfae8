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
  let height = $state(190);

  const e = $derived(viewOf(bench, "bore"));
  const num = numbersOf(() => e);
  const head = $derived(e?.scene.turns === "head"); // the bar turns in a head, the part stands on its table
  const CHUCK = 70; // pixels kept for chuck and jaws
  const WORDS = 178; // and for what is told beside the drawing
  const long = $derived(num("free_length") + num("overhang") * 0.75);
  const scale = $derived(
    Math.min((width - CHUCK - WORDS) / Math.max(long, 1), (height - 34) / Math.max(num("outside"), 1)),
  );
  const x = $derived(scaleLinear([0, 1], [CHUCK, CHUCK + scale]));
  const axis = $derived(height * 0.5);
  const y = $derived(scaleLinear([0, 1], [axis, axis - scale]));
  const face = $derived(num("free_length"));
  const floor = $derived(Math.max(face - num("length"), 0));
  // the edge stands in the middle of its way: behind it the wall is bored, in front of it the old bore stands
  const tip = $derived(face - (face - floor) * 0.55);
  const now = $derived(num("start_diameter") / 2);
  const done = $derived(num("end_diameter") / 2);
  const half = (sign: number) =>
    pathOf(
      [
        [0, num("outside") / 2],
        [face, num("outside") / 2],
        [face, done],
        [tip, done],
        [tip, now],
        [0, now],
      ].map(([a, r]) => [x(a!), y(sign * r!)]),
    ) + "Z";
  // drawn bent as a beam that is held at one end, exaggerated: so many pixels at the tip where the size allows no more
  const BENT = $derived(10 * Math.min(num("bent"), 1.5));
  const sleeve = $derived(tip + num("overhang"));
  const middle = $derived(done - num("bar_diameter") / 2 - num("depth"));
  const bent = (share: number) => (BENT * share * share * (3 - share)) / 2;
  const STEPS = 14;
  const bar = $derived.by(() => {
    const r = num("bar_diameter") / 2;
    const ends = Array.from({ length: STEPS + 1 }, (_, k) => k / STEPS);
    const edge = (side: number) =>
      ends.map(
        (share) =>
          [x(sleeve - share * (num("overhang") - 2)), y(middle + side * r) + bent(share)] as [number, number],
      );
    return pathOf([...edge(1), ...edge(-1).reverse()]) + "Z";
  });
  const insert = $derived(
    ((e?.insert_outline ?? []) as [number, number][])
      .map(([a, b]) => `${x(tip + a)},${y(done + b) + BENT * 0.4}`)
      .join(" "),
  );
</script>

<Panel title="Scene · {seatOf(bench.entry?.tool)}" stale={bench.stale} class="area-scene">
  {#snippet aside()}
    {#if e}<span class="figure">{shown(e.scene_labels.spindle_speed)}</span> ·
      <span class="figure">{shown(e.scene_labels.overhang)}</span> out · chip {bench.evaluation?.chip.form}, {bench
        .evaluation?.chip.length}{/if}
  {/snippet}
  <div class="relative min-h-0 flex-1" bind:clientWidth={width} bind:clientHeight={height}>
    {#if e}
      <svg
        {width}
        {height}
        class="block"
        role="img"
        aria-label="The bar in its bore, in section and to scale"
      >
        {#if !head}
          <rect
            x="6"
            y={y(num("outside") / 2) - 12}
            width="36"
            height={2 * (axis - y(num("outside") / 2)) + 24}
            class="draw-jaw"
          />
        {/if}
        {#each [1, -1] as sign (sign)}
          {#if !head}
            <rect
              x="42"
              y={sign > 0 ? y(num("outside") / 2) - 12 : y(-num("outside") / 2)}
              width={CHUCK - 42 + 12}
              height="12"
              class="draw-steel"
            />
          {/if}
          <path d={half(sign)} class="draw-part" />
        {/each}
        <line x1="6" x2={x(sleeve) + 30} y1={axis} y2={axis} class="draw-centre" />
        <rect
          x={x(sleeve)}
          y={y(middle + num("bar_diameter") * 0.8)}
          width={head ? 40 : 26}
          height={num("bar_diameter") * 1.6 * scale}
          class={head ? "draw-steel" : "draw-jaw"}
        />
        <path d={bar} class="draw-steel" />
        <polygon points={insert} class="draw-insert" />
        <Arrow x={x(tip) - 8} y={y(done) + 12} length={22} to="left" />
        <Arrow x={x(tip) + 4} y={y(done) + 14} length={20} to="down" />
        <text
          x={x(tip) + 10}
          y={y(done) + 36}
          class="draw-over draw-on-part fill-mark text-[12.5px] font-semibold">Fp</text
        >
        <path d="M{x(floor)},{height - 8}v-6m0,3H{x(face)}m0,-3v6" class="draw-size" />
        <text x={x((floor + face) / 2)} y={height - 13} text-anchor="middle" class="draw-text draw-over"
          >{shown(e.scene_labels.length)}</text
        >
        <text x={width - 10} y={height - 6} text-anchor="end" class="draw-text draw-over"
          >bend drawn exaggerated</text
        >
      </svg>
      <dl class="absolute top-0 right-2.5 grid grid-cols-[auto_auto] gap-x-2 text-[13px] leading-[16px]">
        {#each [["bar", e.scene_labels.bar], ["out", e.scene_labels.slender], ["stiffness", e.scene_labels.stiffness], ["natural freq.", e.scene_labels.frequency], ["passive Fp", e.scene_labels.passive_force], ["springs, on Ø", e.scene_labels.springs], ["bore after", e.scene_labels.size_after], ["section", e.scene_labels.room]] as const as [word, value] (word)}
          <dt class="text-soft">{word}</dt>
          <dd class="figure text-right">{shown(value)}</dd>
        {/each}
      </dl>
    {/if}
  </div>
</Panel>
