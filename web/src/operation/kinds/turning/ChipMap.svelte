<script lang="ts">
  import { scaleLinear } from "d3-scale";
  import Panel from "../../../lib/Panel.svelte";
  import { session } from "../../../session.svelte";
  import type { OperationBench } from "../../bench.svelte";
  import ChipForm from "../../ChipForm.svelte";
  import { viewOf } from "../view";

  let { bench }: { bench: OperationBench } = $props();
  let width = $state(330);
  let height = $state(230);
  let dragging = $state(false);
  let surface: SVGSVGElement | undefined = $state();

  const map = $derived(viewOf(bench, "turning")?.map);
  const chip = $derived(bench.evaluation?.chip);
  const x = $derived(scaleLinear(map?.feed_axis ?? [0, 1], [42, width - 8]));
  const y = $derived(scaleLinear(map?.depth_axis ?? [0, 1], [height - 30, 6]));
  const polygon = (points: [number, number][]) => points.map(([f, a]) => `${x(f)},${y(a)}`).join(" ");
  const line = (points: [number, number][]) =>
    points.map(([f, a], k) => `${k ? "L" : "M"}${x(f)},${y(a)}`).join("");
  const tick = (t: { metric: string; inch: string }) => (session.units === "inch" ? t.inch : t.metric);
  const hull = $derived((map?.window ?? []) as [number, number][]);
  const middle = $derived({
    left: hull.length ? Math.min(...hull.map(([f]) => f)) : 0,
    right: hull.length ? Math.max(...hull.map(([f]) => f)) : 1,
    top: hull.length ? Math.max(...hull.map(([, a]) => a)) : 1,
  });
  const labelled = $derived.by(() => {
    const placed: { left: number; top: number }[] = [];
    return (map?.contours ?? []).map((contour) => {
      const points = contour.lines.flat() as [number, number][];
      const at = points.reduce((best, p) => (p[1] > best[1] ? p : best), points[0] ?? [0, 0]);
      const left = Math.min(Math.max(x(at[0]) - 4, 110), width - 10);
      let top = Math.max(Math.min(y(at[1]) + 13, height - 36), 16);
      // the words keep apart: further down where another stands already
      while (placed.some((one) => Math.abs(one.left - left) < 95 && Math.abs(one.top - top) < 13)) top += 13;
      placed.push({ left, top });
      return { ...contour, left, top };
    });
  });

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
        <b class={chip.verdict === "breaks" ? "text-safe" : "text-signal"}>{chip.verdict}</b></span
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
        {#each labelled as contour (contour.name)}
          <text x={contour.left} y={contour.top} text-anchor="end" fill="var(--warn)" font-size="12.5"
            >{contour.label}</text
          >
        {/each}
        <text x={x(middle.left) - 4} y={y(middle.top * 0.66)} text-anchor="end" class="draw-text"
          >strings</text
        >
        <text x={x(middle.right) + 4} y={y(middle.top * 0.3)} class="draw-text">packs</text>
        <text
          x={x((middle.left + middle.right) / 2)}
          y={y(middle.top * 0.86)}
          text-anchor="middle"
          fill="var(--safe)"
          font-weight="600">breaks</text
        >
        {#each map.feed_ticks as t (t.value)}
          <text x={x(t.value)} y={height - 16} text-anchor="middle" class="draw-text figure" font-size="12"
            >{tick(t)}</text
          >
        {/each}
        {#each map.depth_ticks as t (t.value)}
          <text x="38" y={y(t.value) + 4} text-anchor="end" class="draw-text figure" font-size="12"
            >{tick(t)}</text
          >
        {/each}
        <text x={width - 8} y={height - 3} text-anchor="end" class="draw-text"
          >feed {session.units === "inch" ? "ipr" : "mm/rev"}</text
        >
        <text x="42" y={height - 3} class="draw-text"
          >depth {session.units === "inch" ? "in" : "mm"} upward</text
        >
        {#each map.passes as [feed, depth], k (k)}
          {#if depth !== map.depth}<circle cx={x(feed!)} cy={y(depth!)} r="3.5" class="fill-ink"
              ><title>pass {k + 1}</title></circle
            >{/if}
        {/each}
        <g transform="translate({x(map.feed)},{y(map.depth)})" class="draw-signal">
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
