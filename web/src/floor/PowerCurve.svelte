<script lang="ts">
  import { scaleLinear } from "d3-scale";
  import { placeIn } from "../lib/pointer";
  import type { Schemas } from "../api/client";
  import { session, shown } from "../session.svelte";

  interface Props {
    label: string;
    power: [number, number][];
    torque: [number, number][];
    axes: Schemas["Axes"] | undefined;
    /** Points to hold; without a change they only show. */
    points?: [number, number][];
    change?: (points: [number, number][]) => void;
  }
  let { label, power, torque, axes, points = [], change }: Props = $props();
  const WIDTH = 520;
  const HEIGHT = 226;
  let held = $state<number | null>(null);
  let surface: SVGSVGElement | undefined = $state();
  let held_axes = $state<Schemas["Axes"] | undefined>();
  $effect(() => {
    // the axes follow the curve, but stay while a point is held
    if (held === null) held_axes = axes;
  });
  const x = $derived(scaleLinear([0, held_axes?.speed_top ?? 1], [40, WIDTH - 46]));
  const y = $derived(scaleLinear([0, held_axes?.power_top ?? 1], [HEIGHT - 36, 12]));
  const t = $derived(scaleLinear([0, held_axes?.torque_top ?? 1], [HEIGHT - 36, 12]));
  const line = (list: [number, number][], scale: (value: number) => number) =>
    list.map(([n, v], k) => `${k ? "L" : "M"}${x(n)},${scale(v)}`).join("");
  const round = (value: number, step: number) => Number((Math.round(value / step) * step).toFixed(2));

  function put(k: number, n: number, p: number) {
    const low = points[k - 1]?.[0] ?? -1;
    const high = points[k + 1]?.[0] ?? Infinity;
    const held_ = Math.min(Math.max(round(n, 5), low + 1), high - 1);
    change?.(
      points.map((point, at) => (at === k ? [Math.max(held_, 0), Math.max(round(p, 0.1), 0)] : point)),
    );
  }

  function drag(event: PointerEvent) {
    if (held === null || !surface) return;
    const [across, down] = placeIn(surface, event, WIDTH);
    put(held, x.invert(across), y.invert(down));
  }

  function key(event: KeyboardEvent, k: number) {
    const [n, p] = points[k]!;
    if (event.key === "ArrowRight") put(k, n + 25, p);
    else if (event.key === "ArrowLeft") put(k, n - 25, p);
    else if (event.key === "ArrowUp") put(k, n, p + 0.5);
    else if (event.key === "ArrowDown") put(k, n, p - 0.5);
    else if (event.key === "Delete" && points.length > 2) change?.(points.filter((_, at) => at !== k));
    else return;
    event.preventDefault();
  }
</script>

<svg
  bind:this={surface}
  viewBox="0 0 {WIDTH} {HEIGHT}"
  class="w-full {change ? 'touch-none' : ''}"
  role={change ? "group" : "img"}
  aria-label={label}
  onpointermove={drag}
  onpointerup={() => (held = null)}
>
  <path d="M40,12V{HEIGHT - 36}H{WIDTH - 46}" class="draw-size" />
  <path d={line(torque, t)} fill="none" stroke="var(--steel)" stroke-width="1.6" stroke-dasharray="6 3" />
  <path d={line(power, y)} fill="none" stroke="var(--ink)" stroke-width="2" />
  {#each held_axes?.speed ?? [] as n (n.value)}<text
      x={x(n.value)}
      y={HEIGHT - 20}
      text-anchor="middle"
      class="draw-text figure">{shown(n)}</text
    >{/each}
  {#each held_axes?.power ?? [] as p (p.value)}<text
      x="36"
      y={y(p.value) + 4}
      text-anchor="end"
      class="draw-text figure">{shown(p)}</text
    >{/each}
  {#each held_axes?.torque ?? [] as m (m.value)}<text
      x={WIDTH - 42}
      y={t(m.value) + 4}
      class="draw-text figure">{shown(m)}</text
    >{/each}
  <text x="40" y={HEIGHT - 4} class="draw-text">{session.units === "inch" ? "hp" : "kW"}, full line</text>
  <text x={WIDTH / 2} y={HEIGHT - 4} text-anchor="middle" class="draw-text">rpm at the spindle</text>
  <text x={WIDTH - 4} y={HEIGHT - 4} text-anchor="end" class="draw-text"
    >{session.units === "inch" ? "lbf·ft" : "N·m"}, broken line</text
  >
  {#if change}
    {#each points as [n, p], k (k)}
      <g
        role="slider"
        tabindex="0"
        aria-label="Point {k + 1}"
        aria-valuenow={p}
        aria-valuetext="{n} per minute, {p} kW"
        class="draw-mark cursor-grab"
        onpointerdown={(event) => {
          held = k;
          surface?.setPointerCapture(event.pointerId);
        }}
        onkeydown={(event) => key(event, k)}
      >
        <circle cx={x(n)} cy={y(p)} r="14" fill="transparent" stroke="none" />
        <circle cx={x(n)} cy={y(p)} r="5" fill="var(--sheet)" stroke-width="1.6" />
      </g>
    {/each}
  {/if}
</svg>
