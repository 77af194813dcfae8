<script lang="ts">
  import { scaleLinear } from "d3-scale";
  import Marks from "../lib/Marks.svelte";
  import { placeIn } from "../lib/pointer";
  import { api, ask, type Schemas } from "../api/client";
  import { session, shown } from "../session.svelte";

  interface Props {
    /** The points as dragged: feed, depth. */
    points: [number, number][];
    change: (points: [number, number][]) => void;
    done: () => void;
    locked: boolean;
  }
  let { points, change, done, locked }: Props = $props();
  const WIDTH = 560;
  const HEIGHT = 330;
  let held = $state<number | null>(null);
  let chosen = $state(0);
  let surface: SVGSVGElement | undefined = $state();
  let field = $state<Schemas["Hull"] | null>(null);
  let axes = $state<Schemas["Hull"] | null>(null);
  let problem = $state("");
  let turn = 0;

  const hull = $derived((field?.hull ?? []) as [number, number][]);
  const x = $derived(scaleLinear([0, axes?.feed_top ?? 1], [44, WIDTH - 12]));
  const y = $derived(scaleLinear([0, axes?.depth_top ?? 6], [HEIGHT - 34, 10]));
  const polygon = (list: [number, number][]) => list.map(([f, a]) => `${x(f)},${y(a)}`).join(" ");

  $effect(() => {
    const asked = ++turn;
    const units = session.units;
    ask(api.POST("/api/crib/geometries/hull", { body: { points, units } }))
      .then((found) => {
        if (asked !== turn) return;
        field = found;
        problem = "";
      })
      .catch((reason: Error) => asked === turn && (problem = reason.message));
  });

  $effect(() => {
    // the axes follow the field, but stay while a point is held
    if (held === null && field) axes = field;
  });

  const tidy = (value: number, step: number, top: number) =>
    Number(Math.min(Math.max(Math.round(value / step) * step, step), top).toFixed(3));

  function put(k: number, feed: number, depth: number) {
    change(points.map((p, n) => (n === k ? [tidy(feed, 0.005, 3), tidy(depth, 0.01, 30)] : p)));
  }

  function drag(event: PointerEvent) {
    if (held === null || !surface) return;
    const [across, down] = placeIn(surface, event, WIDTH);
    put(held, x.invert(across), y.invert(down));
  }

  function key(event: KeyboardEvent, k: number) {
    const [f, a] = points[k]!;
    const by = event.shiftKey ? 0.2 : 1;
    if (event.key === "ArrowRight") put(k, f + 0.025 * by, a);
    else if (event.key === "ArrowLeft") put(k, f - 0.025 * by, a);
    else if (event.key === "ArrowUp") put(k, f, a + 0.1 * by);
    else if (event.key === "ArrowDown") put(k, f, a - 0.1 * by);
    else if (event.key === "Delete" && points.length > 3) change(points.filter((_, n) => n !== k));
    else return;
    event.preventDefault();
    done();
  }

  function add() {
    const [f, a] = points[chosen]!;
    const [g, b] = points[(chosen + 1) % points.length]!;
    const made: [number, number] = [tidy((f + g) / 2, 0.005, 3), tidy((a + b) / 2, 0.01, 30)];
    change([...points.slice(0, chosen + 1), made, ...points.slice(chosen + 1)]);
    done();
  }
</script>

<svg
  bind:this={surface}
  viewBox="0 0 {WIDTH} {HEIGHT}"
  class="w-full touch-none"
  role="group"
  aria-label="Chip window: feed to the right, depth upward; each point moves by dragging or by arrow keys"
  onpointermove={drag}
  onpointerup={() => {
    if (held !== null) done();
    held = null;
  }}
>
  <rect x="44" y="10" width={WIDTH - 56} height={HEIGHT - 44} fill="var(--paper)" />
  <polygon points={polygon(hull)} fill="var(--window)" stroke="var(--safe)" />
  <polygon points={polygon(points)} fill="none" stroke="var(--safe)" stroke-dasharray="4 3" />
  <Marks ticks={axes?.feed_ticks ?? []} place={x} at={HEIGHT - 18} side="below" />
  <Marks ticks={axes?.depth_ticks ?? []} place={y} at={40} side="left" />
  <text x={WIDTH - 12} y={HEIGHT - 3} text-anchor="end" class="draw-text"
    >feed {session.units === "inch" ? "ipr" : "mm/rev"}</text
  >
  <text x="44" y={HEIGHT - 3} class="draw-text">depth {session.units === "inch" ? "in" : "mm"} upward</text>
  {#each points as [f, a], k (k)}
    <g
      role="slider"
      tabindex={locked ? -1 : 0}
      aria-label="Point {k + 1}"
      aria-valuenow={f}
      aria-valuetext="feed {shown(field?.points[k]?.feed)}, depth {shown(field?.points[k]?.depth)}"
      class="draw-mark {locked ? '' : 'cursor-grab'}"
      onpointerdown={(event) => {
        if (locked) return;
        held = chosen = k;
        surface?.setPointerCapture(event.pointerId);
      }}
      onfocus={() => (chosen = k)}
      onkeydown={(event) => !locked && key(event, k)}
    >
      <circle cx={x(f)} cy={y(a)} r="14" fill="transparent" stroke="none" />
      <circle
        cx={x(f)}
        cy={y(a)}
        r={k === chosen ? 6 : 4.5}
        fill={k === chosen ? "var(--mark)" : "var(--sheet)"}
        stroke-width="1.6"
      />
    </g>
  {/each}
</svg>
{#if problem}<p role="alert" class="text-signal">{problem}</p>{/if}
{#if !locked}
  <p class="flex flex-wrap items-center gap-x-3">
    <span class="figure whitespace-nowrap"
      >feed {shown(field?.points[chosen]?.feed)} · depth {shown(field?.points[chosen]?.depth)}</span
    >
    <button class="plain-link whitespace-nowrap" onclick={add}>add a point after it</button>
    <button
      class="plain-link whitespace-nowrap"
      disabled={points.length <= 3}
      onclick={() => {
        change(points.filter((_, n) => n !== chosen));
        chosen = 0;
        done();
      }}>take it away</button
    >
    <span class="text-soft text-[13px]">arrow keys move a point, Shift finely, Delete removes it</span>
  </p>
{/if}
