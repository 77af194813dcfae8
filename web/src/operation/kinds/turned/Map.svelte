<script lang="ts">
  import { scaleLinear } from "d3-scale";
  import Marks from "../../../lib/Marks.svelte";
  import Panel from "../../../lib/Panel.svelte";
  import { session } from "../../../session.svelte";
  import type { OperationBench } from "../../bench.svelte";
  import { places } from "../../../lib/places";
  import ChipForm from "../../ChipForm.svelte";
  import { viewOf } from "../view";

  let { bench }: { bench: OperationBench } = $props();
  let width = $state(330);
  let height = $state(230);
  let dragging = $state(false);
  let surface: SVGSVGElement | undefined = $state();

  const map = $derived((viewOf(bench, "turned") ?? viewOf(bench, "bore"))?.map);
  const chip = $derived(bench.evaluation?.chip);
  const tick = (t: { metric: string; inch: string }) => (session.units === "inch" ? t.inch : t.metric);
  // room for the longest figure of the depth
  const gutter = $derived(
    Math.max(42, 10 + 7.4 * Math.max(0, ...(map?.depth_ticks ?? []).map((t) => tick(t).length))),
  );
  const x = $derived(scaleLinear(map?.feed_axis ?? [0, 1], [gutter, width - 8]));
  const y = $derived(scaleLinear(map?.depth_axis ?? [0, 1], [height - 30, 6]));
  const polygon = (points: [number, number][]) => points.map(([f, a]) => `${x(f)},${y(a)}`).join(" ");
  const line = (points: [number, number][]) =>
    points.map(([f, a], k) => `${k ? "L" : "M"}${x(f)},${y(a)}`).join("");
  const hull = $derived((map?.window ?? []) as [number, number][]);
  const middle = $derived({
    left: hull.length ? Math.min(...hull.map(([f]) => f)) : 0,
    right: hull.length ? Math.max(...hull.map(([f]) => f)) : 1,
    top: hull.length ? Math.max(...hull.map(([, a]) => a)) : 1,
  });
  const field = $derived({ left: gutter + 2, right: width - 10, top: 8, bottom: height - 32 });
  /** Where words and lines of the window stand already. */
  // above or below the point, never over it
  const roomy = $derived(map && Math.abs(y(map.depth) - y(middle.top * 0.5)) < 40 ? 0.82 : 0.5);
  const words = $derived([
    { text: "breaks", x: x((middle.left + middle.right) / 2), y: y(middle.top * roomy), anchor: "middle" },
    { text: "strings", x: Math.max(x(middle.left) - 6, 92), y: y(middle.top * 0.72), anchor: "end" },
    { text: "packs", x: Math.min(x(middle.right) + 6, width - 44), y: y(middle.top * 0.24), anchor: "start" },
  ] as const);
  const labelled = $derived.by(() => {
    const contours = map?.contours ?? [];
    const lines = contours.map(
      (contour) => contour.lines.flat().map(([f, a]) => [x(f!), y(a!)]) as [number, number][],
    );
    const marks = [
      ...lines.flat(),
      ...edges(hull),
      ...edges((map?.drawn_window ?? []) as [number, number][]),
    ];
    const taken = words.map((word) => {
      const long = word.text.length * 6.6;
      const left =
        word.anchor === "start" ? word.x : word.anchor === "end" ? word.x - long : word.x - long / 2;
      return { left, right: left + long, top: word.y - 11, bottom: word.y + 4 };
    });
    if (map)
      taken.push({
        left: x(map.feed) - 13,
        right: x(map.feed) + 28,
        top: y(map.depth) - 28,
        bottom: y(map.depth) + 13,
      });
    const found = places(
      contours.map((contour, k) => ({ text: contour.label, along: lines[k]! })),
      marks,
      taken,
      field,
    );
    return contours.map((contour, k) => ({ ...contour, at: found[k] }));
  });
  /** Points along the sides of a polygon, so that words keep off them. */
  function edges(points: [number, number][]): [number, number][] {
    return points.flatMap(([f, a], k) => {
      const [g, b] = points[(k + 1) % points.length]!;
      return [0, 0.2, 0.4, 0.6, 0.8].map((t) => [x(f + (g - f) * t), y(a + (b - a) * t)] as [number, number]);
    });
  }

  function drag(event: PointerEvent) {
    if (!dragging || !surface || !map) return;
    const box = surface.getBoundingClientRect();
    const feed = x.invert(event.clientX - box.left);
    const depth = y.invert(event.clientY - box.top);
    const held = (value: number, top: number) => Math.max(top / 200, Math.min(top, value));
    bench.attempt({
      feed_per_rev: `${held(feed, map.feed_axis[1] ?? 1).toFixed(3)} mm/rev`,
      depth_of_cut: `${held(depth, map.depth_axis[1] ?? 1).toFixed(2)} mm`,
    });
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

  function key(event: KeyboardEvent) {
    const by = event.shiftKey ? "fine" : "normal";
    if (event.key === "ArrowRight") bench.nudge("feed_per_rev", by, 1);
    else if (event.key === "ArrowLeft") bench.nudge("feed_per_rev", by, -1);
    else if (event.key === "ArrowUp") bench.nudge("depth_of_cut", by, 1);
    else if (event.key === "ArrowDown") bench.nudge("depth_of_cut", by, -1);
    else return;
    event.preventDefault();
  }
</script>

<Panel title="Chip map" stale={bench.stale} class="area-map">
  {#snippet aside()}
    {#if chip}<span class="flex items-center gap-1.5" data-testid="chip"
        ><ChipForm code={chip.code} />
        {chip.form}, {chip.length} ·
        <b class={chip.verdict === "breaks" ? "text-safe" : "text-warn"}>{chip.verdict}</b></span
      >{/if}
  {/snippet}
  <div class="min-h-0 flex-1" bind:clientWidth={width} bind:clientHeight={height}>
    {#if map}
      <!-- svelte-ignore a11y_no_noninteractive_element_interactions, a11y_no_noninteractive_tabindex -->
      <svg
        id="operation-map"
        bind:this={surface}
        {width}
        {height}
        class="block touch-none {session.mayEdit ? 'cursor-crosshair' : ''}"
        role="application"
        tabindex="0"
        aria-label="Chip map: feed {bench.evaluation?.settings[1]?.display.metric}, depth {bench.evaluation
          ?.settings[2]?.display.metric}; arrow keys move them"
        onkeydown={key}
        onpointerdown={start}
        onpointermove={drag}
        onpointerup={stop}
        onpointercancel={stop}
      >
        <defs
          ><clipPath id="field"
            ><rect
              x={x.range()[0]}
              y={y.range()[1]}
              width={x.range()[1]! - x.range()[0]!}
              height={y.range()[0]! - y.range()[1]!}
            /></clipPath
          ></defs
        >
        <rect
          x={x.range()[0]}
          y={y.range()[1]}
          width={x.range()[1]! - x.range()[0]!}
          height={y.range()[0]! - y.range()[1]!}
          fill="var(--paper)"
        />
        <polygon points={polygon(hull)} fill="var(--window)" stroke="var(--safe)" />
        <polygon
          points={polygon(map.drawn_window as [number, number][])}
          fill="none"
          stroke="var(--safe)"
          stroke-dasharray="4 3"
        />
        <g clip-path="url(#field)">
          {#each labelled as contour (contour.name)}
            {#each contour.lines as points, k (k)}
              <path
                d={line(points as [number, number][])}
                fill="none"
                stroke="var(--warn)"
                stroke-width="1.4"
                stroke-dasharray="7 3"
              />
            {/each}
          {/each}
        </g>
        {#each labelled.filter((one) => one.at) as contour (contour.name)}
          <text
            x={contour.at!.x}
            y={contour.at!.y}
            text-anchor={contour.at!.anchor}
            class="draw-on-map"
            fill="var(--warn)"
            font-size="12.5">{contour.label}</text
          >
        {/each}
        {#each words as word (word.text)}
          <text
            x={word.x}
            y={word.y}
            text-anchor={word.anchor}
            class="{word.text === 'breaks' ? 'draw-on-window font-semibold' : 'draw-on-map'} text-[13px]"
            fill={word.text === "breaks" ? "var(--safe)" : "var(--soft)"}>{word.text}</text
          >
        {/each}
        <Marks
          ticks={map.feed_ticks}
          place={x}
          at={height - 16}
          side="below"
          keep={(text) => width - 4 - 3.8 * text.length}
        />
        <Marks ticks={map.depth_ticks.filter((t) => y(t.value) > 12)} place={y} at={gutter - 4} side="left" />
        <text x={width - 8} y={height - 3} text-anchor="end" class="draw-text"
          >feed {session.units === "inch" ? "ipr" : "mm/rev"}</text
        >
        <text x={gutter} y={height - 3} class="draw-text"
          >depth {session.units === "inch" ? "in" : "mm"} upward</text
        >
        {#each map.passes as [feed, depth], k (k)}
          {#if depth !== map.depth}<circle cx={x(feed!)} cy={y(depth!)} r="3.5" class="fill-ink"
              ><title>pass {k + 1}</title></circle
            >{/if}
        {/each}
        <g transform="translate({x(map.feed)},{y(map.depth)})" class="draw-mark">
          <circle r="11" fill="none" stroke-dasharray="3 2" />
          <circle r="4.5" stroke="none" />
          <path
            d="M6,0H26m-6,-3.5l6,3.5l-6,3.5M0,-6V-26m-3.5,6l3.5,-6l3.5,6"
            fill="none"
            stroke-width="1.6"
          />
        </g>
      </svg>
    {/if}
  </div>
</Panel>
