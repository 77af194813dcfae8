<script lang="ts">
  import { scaleLinear } from "d3-scale";
  import Marks from "../../../lib/Marks.svelte";
  import Panel from "../../../lib/Panel.svelte";
  import { shown } from "../../../session.svelte";
  import type { OperationBench } from "../../bench.svelte";
  import ScrubBar from "../ScrubBar.svelte";
  import { strokeKeys } from "../StrokeKeys";
  import { numbersOf, viewOf } from "../view";

  let { bench }: { bench: OperationBench } = $props();
  let width = $state(330);
  let full = $state(230);
  const TOP = 46;
  const view = $derived(viewOf(bench, "groove"));
  const num = numbersOf(() => view);
  const section = $derived((view?.section ?? []) as [number, number][]);
  const left = $derived(section[0]?.[0] ?? 0);
  const right = $derived(section.at(-1)?.[0] ?? 1);
  const scale = $derived(
    Math.min((width - 44) / Math.max(right - left, 0.1), (full - 150) / Math.max(num("depth"), 0.1)),
  );
  // true to scale: what is left below belongs to the words
  const height = $derived(Math.min(full - 66, TOP + num("depth") * scale + 56));
  const middle = $derived((left + right) / 2);
  const x = $derived(
    scaleLinear([0, 1], [width / 2 + 14 - middle * scale, width / 2 + 14 - middle * scale + scale]),
  );
  const y = $derived(scaleLinear([0, 1], [TOP, TOP + scale]));
  const done = $derived(view?.strokes.slice(0, bench.scrub.index + 1) ?? []);
  const now = $derived(view?.strokes[bench.scrub.index]);
  const edge = $derived(num("width"));
  const radius = $derived(Math.min(num("insert_radius"), edge / 2) * scale);
  // where the ranking goes another way than the usual one, it says why
  const first = $derived(bench.follow?.advice.candidates[0]);
  const usual = $derived(bench.follow?.advice.candidates.find((one) => one.way === view?.advised));
  const COLOURS: Record<string, string> = { wall: "var(--safe)", floor: "var(--safe)" };
  const outline = $derived(section.map(([a, t], k) => `${k ? "L" : "M"}${x(a)},${y(t)}`).join(""));
  /** What a stroke takes away: down its own width, or a layer along the floor. */
  const swept = (one: (typeof done)[number]) => {
    const [a = 0, t = 0] = one.start;
    const [b = 0, u = 0] = one.end;
    if (one.kind === "turn" || one.kind === "floor")
      return `M${x(Math.min(a, b))},${y(u - one.engaged)}H${x(Math.max(a, b) + edge)}V${y(u)}H${x(Math.min(a, b))}Z`;
    return `M${x(a)},${y(t)}H${x(a + edge)}L${x(b + edge)},${y(u)}H${x(b)}Z`;
  };
</script>

<Panel title="Stroke sequence" stale={bench.stale} class="area-map">
  {#snippet aside()}<ScrubBar scrub={bench.scrub} said="stroke {bench.scrub.index + 1}" />{/snippet}
  <div class="relative min-h-0 flex-1" bind:clientWidth={width} bind:clientHeight={full}>
    {#if view && now}
      <!-- svelte-ignore a11y_no_noninteractive_element_interactions, a11y_no_noninteractive_tabindex -->
      <svg
        id="operation-map"
        {width}
        {height}
        class="block"
        role="application"
        tabindex="0"
        aria-label="Section of the groove: stroke {bench.scrub.index + 1} of {view.strokes.length}, {now
          .labels.kind?.metric}; arrow keys step"
        onkeydown={strokeKeys(bench.scrub)}
      >
        <rect x="34" y={TOP} width={width - 44} height={height - TOP - 30} fill="var(--part)" />
        <path d="{outline}Z" fill="var(--paper)" stroke="none" />
        {#each done as one, k (k)}
          <path
            d={swept(one)}
            fill={COLOURS[one.kind] ?? "var(--mark)"}
            fill-opacity={k === done.length - 1 ? 0.3 : 0.13}
          />
        {/each}
        <path d={outline} fill="none" stroke="var(--ink)" stroke-width="1.5" />
        {#each view.strokes as one, k (k)}
          <path
            d="M{x(one.start[0]!) + (edge * scale) / 2},{y(one.start[1]!)}L{x(one.end[0]!) +
              (edge * scale) / 2},{y(one.end[1]!)}"
            fill="none"
            stroke={k <= bench.scrub.index ? "var(--ink)" : "var(--soft)"}
            stroke-width={k === bench.scrub.index ? 1.8 : 0.8}
            stroke-dasharray={k <= bench.scrub.index ? "" : "3 3"}
          />
          {#if one.kind === "plunge" || one.kind === "ridge"}
            <text
              x={x(one.start[0]!) + (edge * scale) / 2}
              y={TOP - 6}
              text-anchor="middle"
              class="figure {k === bench.scrub.index ? 'fill-mark' : 'fill-ink'}"
              font-size="12">{view.strokes.length < 12 || one.start[1] === 0 ? k + 1 : ""}</text
            >
          {/if}
        {/each}
        <rect
          x={x(now.end[0]!)}
          y={Math.max(y(now.end[1]!) - edge * scale, 14)}
          width={edge * scale}
          height={y(now.end[1]!) - Math.max(y(now.end[1]!) - edge * scale, 14)}
          rx={radius}
          class="draw-insert"
          fill-opacity="0.85"
        />
        <Marks ticks={view.across.ticks} place={x} at={height - 17} side="below" />
        <Marks
          ticks={view.deep.ticks.filter((t) => y(t.value) < height - 34)}
          place={y}
          at={36}
          side="left"
        />
        <text x="30" y={height - 3} class="draw-text">{shown(view.across.label)}</text>
        <text x={width - 8} y={height - 3} text-anchor="end" class="draw-text"
          >{view.scene.where === "inside"
            ? "the bore's wall drawn up"
            : `${shown(view.deep.label)} downward`}</text
        >
        <text x="30" y="14" class="figure fill-mark"
          >{shown(now.labels.feed)} · cuts {shown(now.labels.engaged)} · {shown(now.labels.seconds)}</text
        >
      </svg>
      <p class="absolute inset-x-2.5 bottom-1 text-[13px] leading-tight">
        {#if first?.way && first.way !== view.advised}<b class="text-warn"
            >Best: {first.way}{usual ? `; ${usual.reason}` : `; no tool does it ${view.advised}`}.</b
          >{/if}
        <b>Usual practice: {view.advised}.</b>
        <span class="text-soft"
          >{view.advised_why[0]?.toUpperCase()}{view.advised_why.slice(1)} (common practice).</span
        >
      </p>
    {/if}
  </div>
</Panel>
