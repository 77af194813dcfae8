<script lang="ts">
  import { scaleLinear } from "d3-scale";
  import { seatOf } from "../../../lib/names";
  import Panel from "../../../lib/Panel.svelte";
  import { shown } from "../../../session.svelte";
  import type { OperationBench } from "../../bench.svelte";
  import { numbersOf, viewOf } from "../view";

  let { bench }: { bench: OperationBench } = $props();
  let width = $state(700);
  let height = $state(190);
  let chosen = $state(-1);

  const e = $derived(viewOf(bench, "turned"));
  const evaluation = $derived(bench.evaluation);
  const num = numbersOf(() => e);
  const facing = $derived(e?.scene.operation === "face");
  const held = $derived(String(e?.scene.holding ?? "chuck"));
  const CHUCK = 92; // pixels kept for chuck and jaws
  const scale = $derived(
    Math.min(
      (width - CHUCK - 74) / Math.max(num("free_length"), 1),
      (height - 66) / Math.max(num("start_diameter"), num("grip_diameter"), 1),
    ),
  );
  const x = $derived(scaleLinear([0, 1], [CHUCK, CHUCK + scale]));
  const axis = $derived(height * 0.55);
  const y = $derived(scaleLinear([0, 1], [axis, axis - scale]));
  const stages = $derived(e?.stages ?? []);
  const index = $derived(chosen >= 0 && chosen < stages.length ? chosen : stages.length - 1);
  const stage = $derived(stages[index]);
  const tip = $derived({ x: stage?.tip[0] ?? 0, r: stage?.tip[1] ?? 0 });
  const toolScale = $derived(Math.max(scale, 1.5));
  const corner = (points: [number, number][]) =>
    points.map(([a, b]) => `${x(tip.x) + a * toolScale},${y(tip.r) - b * toolScale}`).join(" ");
  const force = $derived(
    scaleLinear([0, Math.max(num("cutting_force"), 1)], [0, Math.min(48, Math.max(y(tip.r) - 18, 12))]),
  );
  const body = $derived(Math.max(num("start_diameter"), num("grip_diameter")) / 2);
  const outline = $derived((stage?.corners ?? []) as [number, number][]);
  const path = (mirror: number) =>
    outline.map(([a, r], k) => `${k ? "L" : "M"}${x(a)},${y(mirror * r)}`).join("") +
    `L${x(outline.at(-1)?.[0] ?? 0)},${axis}L${x(0)},${axis}Z`;
  const band = $derived(
    ((stage?.band ?? []) as [number, number][]).map(([a, r]) => `${x(a)},${y(r)}`).join(" "),
  );
  // the bow of the last cut, exaggerated so that its largest change of diameter shows
  const BOW = 15;
  const bowTop = $derived(Math.max(...(e?.bow.errors ?? [0]), 1e-6));
  const bow = $derived(
    (e?.bow.places ?? [])
      .map((place, k) => `${k ? "L" : "M"}${x(place)},${y(tip.r) - 3 - (BOW * e!.bow.errors[k]!) / bowTop}`)
      .join(""),
  );
  const LETTER = 8; // pixels of a letter in the drawing, at most
  /** Where a word of so many letters may stand so that the picture keeps all of it. */
  function inside(at: number, letters: number, anchor: "start" | "middle" | "end") {
    const long = letters * LETTER;
    const before = { start: 0, middle: long / 2, end: long }[anchor];
    return Math.max(Math.min(at, width - (long - before) - 4), before + 4);
  }
  const ff = $derived(force(num("feed_force")));
  const fp = $derived(force(num("passive_force")));
  const fc = $derived(force(num("cutting_force")));
</script>

<Panel title="Scene" stale={bench.stale} class="area-scene">
  {#snippet aside()}
    {#if e}
      <span class="figure">{shown(e.scene_labels.spindle_speed)}</span> · Ø<span class="figure"
        >{shown(evaluation?.passes[index]?.from_diameter)} → {shown(
          evaluation?.passes[index]?.to_diameter,
        )}</span
      >
      · chip {evaluation?.chip.form}, {evaluation?.chip.length} ·
      {#if stages.length > 1}
        <label
          >pass <input
            type="range"
            min="0"
            max={stages.length - 1}
            value={index}
            class="w-20 align-middle"
            oninput={(event) => (chosen = Number(event.currentTarget.value))}
          /></label
        >
        <span class="figure">{index + 1} of {stages.length}</span>
      {:else}pass <span class="figure">1 of 1</span>{/if}
    {/if}
  {/snippet}
  {#if e}
    <p class="text-soft flex flex-wrap gap-x-4 px-2.5 text-[13px] leading-[18px]">
      <span
        >{seatOf(bench.entry?.tool)}, <span class="figure">{shown(e.scene_labels.overhang)}</span> out</span
      >
      <span
        ><b class="text-ink">Fc</b> cutting
        <span class="figure">{shown(e.scene_labels.cutting_force)}</span></span
      >
      <span
        ><b class="text-mark">Ff</b> feed
        <span class="figure">{shown(e.scene_labels.feed_force)}</span></span
      >
      <span
        ><b class="text-mark">Fp</b> passive
        <span class="figure">{shown(e.scene_labels.passive_force)}</span></span
      >
    </p>
  {/if}
  <div class="min-h-0 flex-1" bind:clientWidth={width} bind:clientHeight={height}>
    {#if e}
      <svg {width} {height} class="block" role="img" aria-label="Tool and part to scale, with forces">
        <rect x="8" y={y(body) - 16} width="50" height={y(-body) - y(body) + 32} class="draw-jaw" />
        <rect x="58" y={y(num("grip_diameter") / 2) - 13} width={CHUCK - 58} height="16" class="draw-steel" />
        <rect x="58" y={y(-num("grip_diameter") / 2) - 3} width={CHUCK - 58} height="16" class="draw-steel" />
        <path d={path(1)} class="draw-part" />
        <path d={path(-1)} class="draw-part" />
        {#if num("bore") > 0}
          <path
            d="M{x(0)},{y(num('bore') / 2)}H{x(num('free_length'))}M{x(0)},{y(-num('bore') / 2)}H{x(
              num('free_length'),
            )}"
            class="draw-size"
            stroke-dasharray="5 3"
          />
        {/if}
        <polygon points={band} class="draw-cut" />
        {#if held !== "chuck"}
          {@const r = num("end_diameter") / 2}
          <path
            d="M{x(num('free_length')) - 6},{axis}L{x(num('free_length')) + 34},{axis -
              Math.min(r * scale * 0.7, 20)}h24v{2 * Math.min(r * scale * 0.7, 20)}h-24Z"
            class="draw-steel"
          />
        {/if}
        {#if num("steady") > 0}
          {@const pad = num("end_diameter") / 2}
          <path
            d="M{x(num('steady'))},{y(pad)}V{y(body) - 12}M{x(num('steady'))},{y(-pad)}V{y(-body) + 12}"
            stroke="var(--ink)"
            stroke-width="5"
          />
        {/if}
        <line x1="6" x2={width - 4} y1={axis} y2={axis} class="draw-centre" />
        {#if !facing}<path
            d={bow}
            fill="none"
            stroke="var(--mark)"
            stroke-width="1.2"
            stroke-dasharray="5 2"
          />{/if}
        <polygon points={corner(e.holder_outline as [number, number][])} class="draw-steel" />
        <polygon points={corner(e.insert_outline as [number, number][])} class="draw-insert" />
        <g class="draw-mark" stroke-width="1.8">
          {#if facing}
            <path d="M{x(tip.x) - 10},{y(tip.r)}v{ff}m-4,-6l4,6l4,-6" fill="none" />
            <path d="M{x(tip.x)},{y(tip.r)}h{-fp}m6,-4l-6,4l6,4" fill="none" />
          {:else}
            <path d="M{x(tip.x)},{y(tip.r) + 8}h{-ff}m6,-4l-6,4l6,4" fill="none" />
            <path d="M{x(tip.x)},{y(tip.r)}v{fp}m-4,-6l4,6l4,-6" fill="none" />
          {/if}
        </g>
        <g stroke="var(--ink)" stroke-width="1.8" fill="none">
          <path d="M{x(tip.x) - 16},{y(tip.r) - 8}v{-fc}m-4,6l4,-6l4,6" />
        </g>
        <g class="draw-over text-[12.5px] font-semibold">
          <text
            x={inside(x(tip.x) - 21, 2, "end")}
            y={Math.max(y(tip.r) - 8 - fc + 4, 12)}
            text-anchor="end"
            class="fill-ink">Fc</text
          >
          <text
            x={inside(x(tip.x) - (facing ? fp : ff) - 4, 2, "end")}
            y={y(tip.r) + (facing ? 4 : 12)}
            text-anchor="end"
            class="draw-on-part fill-mark">{facing ? "Fp" : "Ff"}</text
          >
          <text
            x={x(tip.x) + 6}
            y={y(tip.r) + Math.max(facing ? ff : fp, 16) + 2}
            class="draw-on-part fill-mark">{facing ? "Ff" : "Fp"}</text
          >
        </g>
        {#if e.scene.fouls_with}
          {@const place = x(num("fouls_at"))}
          {@const top = y(num("fouls_diameter") / 2)}
          <!-- above the cross, or below it where the words of the forces stand there already -->
          {@const words = [
            Math.max(y(tip.r) - 4 - fc, 12),
            y(tip.r) + (facing ? 4 : 12),
            y(tip.r) + Math.max(facing ? ff : fp, 16) + 2,
          ]}
          {@const heights = [Math.max(top - 14, 12), top + 28, top + 46, top + 64, top + 82]}
          {@const clear = heights.find((at) => words.every((one) => Math.abs(one - at) >= 17)) ?? heights[0]}
          <path
            d="M{place - 9},{top - 9}l18,18m0,-18l-18,18"
            stroke="var(--mark)"
            stroke-width="3"
            fill="none"
          />
          <text
            x={inside(place, `${e.scene.fouls_with} in the way`.length, "middle")}
            y={Math.abs(x(tip.x) - place) < 110 ? clear : heights[0]}
            text-anchor="middle"
            class="draw-over fill-signal font-semibold">{e.scene.fouls_with} in the way</text
          >
        {/if}
        <g stroke="var(--soft)" stroke-width="1.4" fill="none">
          {#if facing}<path d="M{x(tip.x) + 44},{y(tip.r) - 34}v26m-3,-5l3,5l3,-5" />
          {:else if e.scene.direction === "away from the chuck"}<path
              d="M{x(tip.x) + 44},{y(tip.r) - 26}h30m-5,-3l5,3l-5,3"
            />
          {:else}<path d="M{x(tip.x) + 74},{y(tip.r) - 26}h-30m5,-3l-5,3l5,3" />{/if}
        </g>
        <text
          x={inside(x(tip.x) + (facing ? 50 : 80), 4, "start")}
          y={Math.max(y(tip.r) - 22, 12)}
          class="draw-text draw-over">feed</text
        >
        <path d="M{x(0)},{height - 16}v-6m0,3H{x(num('free_length'))}m0,-3v6" class="draw-size" />
        <text x={width - 8} y={height - 5} text-anchor="end" class="draw-text draw-over"
          >stick-out {shown(e.scene_labels.free_length)}, {held === "chuck"
            ? "no centre"
            : held === "between centres"
              ? "between centres"
              : "centre in"} · {num("overhang_ratio").toFixed(1)} × D · {facing
            ? `springs ${shown(e.scene_labels.springs)}`
            : `${e.bow.shape}: ${shown(e.bow.at_chuck)} … ${shown(e.bow.largest)} on Ø, drawn exaggerated`}</text
        >
      </svg>
    {/if}
  </div>
</Panel>
