<script lang="ts">
  import { scaleLinear } from "d3-scale";
  import type { Schemas } from "../../api/client";
  import Marks from "../../lib/Marks.svelte";
  import { places } from "../../lib/places";
  import { session, shown } from "../../session.svelte";
  import type { OperationBench } from "../bench.svelte";
  import { pathOf } from "./view";

  /** Two settings over each other: the limits' lines, the field that none forbids, and the point that is dragged or moved by keys. */
  interface Props {
    bench: OperationBench;
    map: Schemas["LimitMapOut"];
    across: Schemas["AxisOut"];
    up: Schemas["AxisOut"];
    /** The settings that the two axes set, and how a value of each is written. */
    sets: [string, string];
    write: [(value: number) => string, (value: number) => string];
    label: string;
  }
  let { bench, map, across, up, sets, write, label }: Props = $props();
  let width = $state(330);
  let height = $state(230);
  let dragging = $state(false);
  let surface: SVGSVGElement | undefined = $state();
  const id = $props.id();
  const x = $derived(scaleLinear([0, across.high], [50, width - 12]));
  const y = $derived(scaleLinear([0, up.high], [height - 34, 10]));
  const lines = $derived(
    map.edges.map((edge) =>
      edge.lines.map((line) => line.map(([a, b]) => [x(a!), y(b!)] as [number, number])),
    ),
  );
  const labelled = $derived.by(() => {
    const [a, b] = [x(map.at[0]!), y(map.at[1]!)];
    const found = places(
      map.edges.map((edge, k) => ({ text: edge.label, along: lines[k]!.flat() })),
      lines.flat(2),
      [{ left: a - 14, right: a + 14, top: b - 14, bottom: b + 14 }],
      { left: 52, right: width - 14, top: 12, bottom: height - 36 },
    );
    return map.edges.map((edge, k) => ({ label: edge.label, at: found[k] }));
  });

  function drag(event: PointerEvent) {
    if (!dragging || !surface) return;
    const box = surface.getBoundingClientRect();
    const held = (value: number, top: number) => Math.max(top / 200, Math.min(top, value));
    const [a, b] = [
      held(x.invert(event.clientX - box.left), across.high),
      held(y.invert(event.clientY - box.top), up.high),
    ];
    bench.attempt({ [sets[0]]: write[0](a), [sets[1]]: write[1](b) });
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
  const keys = $derived<Record<string, [string, 1 | -1]>>({
    ArrowRight: [sets[0], 1],
    ArrowLeft: [sets[0], -1],
    ArrowUp: [sets[1], 1],
    ArrowDown: [sets[1], -1],
  });
  function key(event: KeyboardEvent) {
    const found = keys[event.key];
    if (!found) return;
    event.preventDefault();
    bench.nudge(found[0], event.shiftKey ? "fine" : "normal", found[1]);
  }
</script>

<div class="min-h-0 flex-1" bind:clientWidth={width} bind:clientHeight={height}>
  <!-- svelte-ignore a11y_no_noninteractive_element_interactions, a11y_no_noninteractive_tabindex -->
  <svg
    bind:this={surface}
    id="operation-map"
    {width}
    {height}
    class="block touch-none"
    role="application"
    tabindex="0"
    aria-label={label}
    onpointerdown={start}
    onpointermove={drag}
    onpointerup={stop}
    onpointercancel={stop}
    onkeydown={key}
  >
    <defs><clipPath {id}><rect x="50" y="10" width={width - 62} height={height - 44} /></clipPath></defs>
    <rect x="50" y="10" width={width - 62} height={height - 44} fill="var(--paper)" />
    <g clip-path="url(#{id})">
      {#each map.sound as cell, k (k)}
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
    <Marks ticks={up.ticks} place={y} at={46} side="left" />
    <Marks ticks={across.ticks} place={x} at={height - 20} side="below" />
    {#each labelled as { label: word, at } (word)}
      {#if at}<text x={at.x} y={at.y} text-anchor={at.anchor} class="draw-text draw-over" font-size="12"
          >{word}</text
        >{/if}
    {/each}
    <circle cx={x(map.at[0]!)} cy={y(map.at[1]!)} r="5" class="fill-mark" />
    <text x="50" y={height - 3} class="draw-text">{shown(up.label)} upward</text>
    <text x={width - 12} y={height - 3} text-anchor="end" class="draw-text">{shown(across.label)}</text>
  </svg>
</div>
