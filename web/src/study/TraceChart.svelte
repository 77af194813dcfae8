<script lang="ts">
  import { scaleLinear } from "d3-scale";
  import { session } from "../session.svelte";

  interface Props {
    thrust: number[][];
    torque: number[][];
    fittedThrust?: number[][];
    fittedTorque?: number[][];
  }
  let { thrust, torque, fittedThrust = [], fittedTorque = [] }: Props = $props();
  let width = $state(420);
  const HIGH = 120;
  const inch = $derived(session.units === "inch");
  const all = $derived([...thrust, ...fittedThrust]);
  const span = $derived([Math.min(0, ...all.map((p) => p[0]!)), Math.max(1, ...all.map((p) => p[0]!))]);
  const x = $derived(scaleLinear(span, [52, width - 8]));
  const path = (points: number[][], y: (v: number) => number) =>
    points.map(([a, b], k) => `${k ? "L" : "M"}${x(a!).toFixed(1)},${y(b!).toFixed(1)}`).join("");
  const rows = $derived(
    [
      {
        name: inch ? "thrust, lbf" : "thrust, N",
        seen: thrust,
        fitted: fittedThrust,
        scale: inch ? 0.224809 : 1,
      },
      {
        name: inch ? "torque, lbf·ft" : "torque, N·m",
        seen: torque,
        fitted: fittedTorque,
        scale: inch ? 0.737562 : 1,
      },
    ].map((row) => {
      const values = [...row.seen, ...row.fitted].map((p) => p[1]!);
      const y = scaleLinear([Math.min(0, ...values), Math.max(1e-6, ...values) * 1.08], [HIGH - 4, 8]);
      return { ...row, y, ticks: y.ticks(3) };
    }),
  );
  const depths = $derived(
    scaleLinear(
      span.map((v) => (inch ? v! / 25.4 : v!)),
      [0, 1],
    ).ticks(6),
  );
</script>

<div bind:clientWidth={width}>
  <svg
    {width}
    height={2 * HIGH + 30}
    class="block"
    role="img"
    aria-label="Thrust and torque over depth, recorded and fitted"
  >
    {#each rows as row, k (row.name)}
      <g transform="translate(0,{k * (HIGH + 4)})">
        <rect x="52" y="4" width={Math.max(width - 60, 1)} height={HIGH - 8} fill="var(--paper)" />
        {#each row.ticks as t (t)}
          <line x1="52" x2={width - 8} y1={row.y(t)} y2={row.y(t)} stroke="var(--line)" />
          <text x="48" y={row.y(t) + 4} text-anchor="end" class="draw-text figure" font-size="12"
            >{+(t * row.scale).toPrecision(3)}</text
          >
        {/each}
        <path d={path(row.seen, row.y)} fill="none" stroke="var(--soft)" stroke-width="1" />
        <path d={path(row.fitted, row.y)} fill="none" stroke="var(--mark)" stroke-width="1.6" />
        <text x="58" y="18" class="draw-text draw-over">{row.name}</text>
      </g>
    {/each}
    {#each depths as t (t)}
      <text
        x={x(inch ? t * 25.4 : t)}
        y={2 * HIGH + 16}
        text-anchor="middle"
        class="draw-text figure"
        font-size="12">{+t.toPrecision(3)}</text
      >
    {/each}
    <text x={width - 8} y={2 * HIGH + 29} text-anchor="end" class="draw-text"
      >depth, {inch ? "in" : "mm"}</text
    >
    {#if fittedThrust.length}<text x="52" y={2 * HIGH + 29} class="draw-text"
        >grey: recorded, red: fitted</text
      >{/if}
  </svg>
</div>
