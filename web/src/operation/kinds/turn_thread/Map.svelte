<script lang="ts">
  import { scaleLinear } from "d3-scale";
  import Panel from "../../../lib/Panel.svelte";
  import { pulled } from "../../../lib/pointer";
  import { shown } from "../../../session.svelte";
  import type { OperationBench } from "../../bench.svelte";
  import ScrubBar from "../ScrubBar.svelte";
  import { strokeKeys } from "../StrokeKeys";
  import { pathOf, viewOf } from "../view";

  let { bench }: { bench: OperationBench } = $props();
  let width = $state(330);
  let height = $state(230);
  let hands = $state(false);
  const FOOT = 80;
  const view = $derived(viewOf(bench, "turn thread"));
  const open = $derived((view?.opening ?? 1) * 1.25);
  const scale = $derived(Math.min((width - 24) / open, (height - FOOT - 24) / ((view?.whole ?? 1) * 1.15)));
  const x = $derived(scaleLinear([0, 1], [width / 2, width / 2 + scale]));
  const y = $derived(scaleLinear([0, 1], [22, 22 + scale]));
  const now = $derived(view?.passes[bench.scrub.index]);
  const keys = $derived(strokeKeys(bench.scrub));
  const pull = pulled((_, down) => {
    if (!view) return;
    const place = view.passes.findIndex((one) => y(one.depth) >= down);
    bench.scrub.goto(place < 0 ? view.passes.length - 1 : place);
  });
  // the deepest first, so that each pass covers what the next one will take
  const drawn = $derived([...(view?.passes ?? [])].filter((one) => !one.spring).reverse());
</script>

<Panel title={hands ? "Hand, sense and direction" : "Stroke sequence"} stale={bench.stale} class="area-map">
  {#snippet aside()}
    {#if !hands}<ScrubBar scrub={bench.scrub} said="pass {now?.number}" />{/if}
    <button class="ml-1 hover:underline" aria-pressed={hands} onclick={() => (hands = !hands)}
      >{hands ? "the groove" : "hands"}</button
    >
  {/snippet}
  {#if view && hands}
    <div class="min-h-0 flex-1 overflow-auto px-2 text-[13.5px]">
      <table class="w-full">
        <thead class="text-soft text-left text-[12.5px]"
          ><tr
            ><th scope="col" class="font-normal"><span class="sr-only">drawn</span></th><th
              scope="col"
              class="font-normal">spindle</th
            ><th scope="col" class="font-normal">feed</th><th scope="col" class="font-normal">tool</th><th
              scope="col"
              class="font-normal">seat leans</th
            ></tr
          ></thead
        >
        <tbody
          >{#each view.hands as one (one.tool)}<tr
              class="border-line border-t {one.present ? 'bg-wash font-semibold' : ''}"
              ><td
                ><svg width="62" height="30" aria-hidden="true" class="block">
                  <rect x="1" y="5" width="9" height="20" class="draw-jaw" />
                  <rect x="10" y="10" width="48" height="10" class="draw-part" />
                  <path d="M{one.feeds.startsWith('towards') ? 36 : 30},29l-4,-7h8z" class="draw-insert" />
                  <path
                    d={one.feeds.startsWith("towards")
                      ? "M52,26h-12m4,-3l-4,3l4,3"
                      : "M16,26h10m-4,-3l4,3l-4,3"}
                    fill="none"
                    stroke="var(--mark)"
                    stroke-width="1.4"
                  />
                  <path
                    d={one.turns.startsWith("forward")
                      ? "M5.5,6v17m-3,-4l3,4l3,-4"
                      : "M5.5,24v-17m-3,4l3,-4l3,4"}
                    fill="none"
                    stroke="var(--mark)"
                    stroke-width="1.4"
                  />
                </svg></td
              ><td>{one.turns}</td><td>{one.feeds}</td><td>{one.tool}-hand</td><td
                >{one.with_lead ? "with the lead" : "against it"}</td
              ></tr
            >{/each}</tbody
        >
      </table>
      <p class="text-soft mt-2">
        For a {view.scene.hand}-hand thread, inside as outside; the tool's face up in front of the part.
        Reverse unscrews a chuck that is held by a thread.
      </p>
    </div>
  {:else}
    <div class="min-h-0 flex-1" bind:clientWidth={width} bind:clientHeight={height}>
      {#if view && now}
        <!-- svelte-ignore a11y_no_noninteractive_element_interactions, a11y_no_noninteractive_tabindex -->
        <svg
          id="operation-map"
          {width}
          {height}
          class="block cursor-ns-resize touch-none"
          role="application"
          tabindex="0"
          aria-label="Stroke sequence; pass {now.number}: infeed {shown(now.labels.infeed)}, {shown(
            now.labels.area,
          )}, {shown(now.labels.force)}; arrow keys travel"
          onkeydown={keys}
          {...pull}
        >
          <rect x={x(-open / 2)} y="22" width={open * scale} height={height - FOOT - 26} class="draw-part" />
          {#each drawn as one (one.number)}
            <path
              d={pathOf(one.corners.map(([a, b]) => [x(a!), y(b!)])) + "Z"}
              fill={one.number === now.number
                ? "var(--mark)"
                : one.number < now.number
                  ? "var(--sheet)"
                  : one.number % 2
                    ? "var(--line)"
                    : "var(--paper)"}
              stroke="var(--ink)"
              stroke-width={one.number === now.number ? 1.2 : 0.6}
            />
          {/each}
          {#each drawn.filter((one) => one.number < now.number).slice(0, 1) as one (one.number)}
            <path
              d={pathOf(one.corners.map(([a, b]) => [x(a!), y(b!)])) + "Z"}
              fill="var(--sheet)"
              stroke="var(--ink)"
              stroke-width="0.6"
            />
          {/each}
          <text x="8" y="14" class="draw-text"
            >{shown(view.scene_labels.infeed)}, {shown(view.scene_labels.whole)} deep in all</text
          >
          <text x="8" y={height - FOOT + 18} class="figure fill-mark"
            >pass {now.number}: infeed {shown(now.labels.infeed)}</text
          >
          <text x="8" y={height - FOOT + 35} class="draw-text"
            >{shown(now.labels.area)}, {shown(now.labels.force)}, depth {shown(now.labels.depth)}</text
          >
          <text x="8" y={height - FOOT + 52} class="draw-text"
            >at the leading flank {shown(now.labels.leading)}, trailing {shown(now.labels.trailing)}</text
          >
          <text x="8" y={height - FOOT + 69} class="draw-text"
            >under the tip {shown(now.labels.bottom)}, chip {shown(now.labels.chip)}</text
          >
        </svg>
      {/if}
    </div>
  {/if}
</Panel>
