<script lang="ts">
  import { scaleLinear } from "d3-scale";
  import Panel from "../../../lib/Panel.svelte";
  import { places } from "../../../lib/places";
  import { session, shown } from "../../../session.svelte";
  import type { OperationBench } from "../../bench.svelte";
  import { pathOf, sparse, viewOf } from "../view";

  let { bench }: { bench: OperationBench } = $props();
  let width = $state(330);
  let height = $state(230);
  let dragging = $state(false);
  let surface: SVGSVGElement | undefined = $state();
  const view = $derived(viewOf(bench, "mill hole"));
  const helix = $derived(view?.scene.path === "helix");
  const x = $derived(scaleLinear([0, view?.feed_axis.high ?? 1], [50, width - 12]));
  const y = $derived(scaleLinear([0, view?.pitch_axis.high ?? 1], [height - 34, 10]));
  const tick = (t: { metric: string; inch: string }) => (session.units === "inch" ? t.inch : t.metric);
  const lines = $derived(
    (view?.edges ?? []).map((edge) =>
      edge.lines.map((line) => line.map(([f, p]) => [x(f!), y(p!)] as [number, number])),
    ),
  );
  const labelled = $derived.by(() => {
    if (!view) return [];
    const point = {
      left: x(view.at[0]!) - 14,
      right: x(view.at[0]!) + 14,
      top: y(view.at[1]!) - 14,
      bottom: y(view.at[1]!) + 14,
    };
    const found = places(
      view.edges.map((edge, k) => ({ text: edge.label, along: lines[k]!.flat() })),
      lines.flat(2),
      [point],
      { left: 52, right: width - 14, top: 12, bottom: height - 36 },
    );
    return view.edges.map((edge, k) => ({ label: edge.label, at: found[k] }));
  });

  function drag(event: PointerEvent) {
    if (!dragging || !surface || !view || !helix) return;
    const box = surface.getBoundingClientRect();
    const held = (value: number, top: number) => Math.max(top / 200, Math.min(top, value));
    const feed = held(x.invert(event.clientX - box.left), view.feed_axis.high);
    const pitch = held(y.invert(event.clientY - box.top), view.pitch_axis.high);
    bench.attempt({ feed_per_tooth: `${feed.toFixed(3)} mm/z`, pitch: `${pitch.toFixed(2)} mm` });
  }
  function start(event: PointerEvent) {
    if (!session.mayEdit) return;
    dragging = true;
    surface?.setPointerCapture(event.pointerId);
    drag(event);
  }
  function stop() {
    if (dragging) void bench.save();
    dragging = false;
  }
  const KEYS: Record<string, [string, 1 | -1]> = {
    ArrowRight: ["feed_per_tooth", 1],
    ArrowLeft: ["feed_per_tooth", -1],
    ArrowUp: ["pitch", 1],
    ArrowDown: ["pitch", -1],
  };
  function key(event: KeyboardEvent) {
    const found = KEYS[event.key];
    if (!found) return;
    event.preventDefault();
    bench.nudge(found[0], event.shiftKey ? "fine" : "normal", found[1]);
  }
</script>

<Panel title="Pitch over feed" stale={bench.stale} class="area-map">
  <div class="min-h-0 flex-1" bind:clientWidth={width} bind:clientHeight={height}>
    {#if view && !helix}
      <p class="text-soft px-2.5">Straight down there is no helix: the feed alone is set.</p>
    {:else if view}
      <!-- svelte-ignore a11y_no_noninteractive_element_interactions, a11y_no_noninteractive_tabindex -->
      <svg
        bind:this={surface}
        id="operation-map"
        {width}
        {height}
        class="block touch-none"
        role="application"
        tabindex="0"
        aria-label="Pitch over feed a tooth; the field that no limit forbids is shaded. Arrow keys move feed and pitch."
        onpointerdown={start}
        onpointermove={drag}
        onpointerup={stop}
        onkeydown={key}
      >
        <defs
          ><clipPath id="pitch-field"><rect x="50" y="10" width={width - 62} height={height - 44} /></clipPath
          ></defs
        >
        <rect x="50" y="10" width={width - 62} height={height - 44} fill="var(--paper)" />
        <g clip-path="url(#pitch-field)">
          {#each view.sound as cell, k (k)}
            <rect
              x={x(cell[0]!)}
              y={y(cell[3]!)}
              width={Math.max(x(cell[2]!) - x(cell[0]!), 0.5)}
              height={Math.max(y(cell[1]!) - y(cell[3]!), 0.5) + 0.3}
              fill="var(--window)"
            />
          {/each}
          {#each lines as edge, k (k)}
            {#each edge as line, j (j)}
              <path d={pathOf(line)} fill="none" stroke="var(--warn)" stroke-width="1.3" />
            {/each}
          {/each}
        </g>
        {#each sparse(view.pitch_axis.ticks, (t) => y(t.value), 14) as t (t.value)}
          <text x="46" y={y(t.value) + 4} text-anchor="end" class="draw-text figure" font-size="12"
            >{tick(t)}</text
          >
        {/each}
        {#each sparse(view.feed_axis.ticks, (t) => x(t.value)) as t (t.value)}
          <text x={x(t.value)} y={height - 20} text-anchor="middle" class="draw-text figure" font-size="12"
            >{tick(t)}</text
          >
        {/each}
        {#each labelled as { label, at } (label)}
          {#if at}<text x={at.x} y={at.y} text-anchor={at.anchor} class="draw-text draw-over" font-size="12"
              >{label}</text
            >{/if}
        {/each}
        <circle cx={x(view.at[0]!)} cy={y(view.at[1]!)} r="5" class="fill-signal" />
        <text x="50" y={height - 3} class="draw-text">{shown(view.pitch_axis.label)} upward</text>
        <text x={width - 12} y={height - 3} text-anchor="end" class="draw-text"
          >{shown(view.feed_axis.label)}</text
        >
      </svg>
    {/if}
  </div>
</Panel>
