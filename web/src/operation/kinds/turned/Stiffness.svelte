<script lang="ts">
  import { scaleLinear, scaleLog } from "d3-scale";
  import type { Schemas } from "../../../api/client";
  import { session, shown } from "../../../session.svelte";

  let { rows, selected }: { rows: Schemas["OperationRow"][]; selected: string } = $props();
  const known = $derived(rows.filter((row) => row.stiffness !== null && row.operation === "turn"));
  const x = $derived(scaleLinear([0, Math.max(known.length - 1, 1)], [10, 206]));
  const y = $derived(
    scaleLog(
      [
        Math.min(...known.map((row) => row.stiffness!)),
        Math.max(...known.map((row) => row.stiffness!), 1) * 1.001,
      ],
      [52, 20],
    ),
  );
</script>

{#if known.length > 1}
  <div class="px-2.5 pb-1">
    <h3 class="text-soft text-[13px]">
      Stiffness of the part at each turning cut, {session.units === "inch" ? "lbf/thou" : "N/µm"}
    </h3>
    <svg
      viewBox="0 0 216 64"
      width="216"
      height="64"
      class="block"
      role="img"
      aria-label="Stiffness in run order, logarithmic"
    >
      <path
        d={known.map((row, k) => `${k ? "L" : "M"}${x(k)},${y(row.stiffness!)}`).join("")}
        fill="none"
        stroke="var(--ink)"
        stroke-width="1.5"
      />
      {#each known as row, k (row.id)}
        <circle
          cx={x(k)}
          cy={y(row.stiffness!)}
          r={row.id === selected ? 4 : 2}
          class={row.id === selected ? "fill-mark" : "fill-ink"}
        />
        {#if k === 0 || k === known.length - 1 || row.id === selected}
          <text
            x={x(k)}
            y={y(row.stiffness!) + (k === 1 && known.length > 2 && y(row.stiffness!) < 44 ? 17 : -7)}
            text-anchor={k === 0 ? "start" : k === known.length - 1 ? "end" : "middle"}
            class="draw-text figure"
            font-size="12">{shown(row.stiffness_display)}</text
          >
        {/if}
      {/each}
    </svg>
  </div>
{/if}
