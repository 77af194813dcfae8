<script lang="ts">
  import { toolName } from "../lib/names";
  import Sheet from "../lib/Sheet.svelte";
  import { shown } from "../session.svelte";
  import type { OperationBench } from "./bench.svelte";

  let { bench, close }: { bench: OperationBench; close: () => void } = $props();
  const advice = $derived(bench.follow?.advice);
</script>

<Sheet title="Why not the others" {close} wide>
  {#if advice}
    <p>
      <span class="figure">{advice.pairs}</span> tools can be put together from the crib;
      <span class="figure">{advice.fitting}</span>
      fit, <span class="figure">{advice.feasible}</span> stay within every limit.
    </p>
    {#if advice.note}<p class="mt-1">{advice.note}</p>{/if}
    <h3 class="mt-3 font-semibold">Excluded by rules of fit</h3>
    <ul>
      {#each advice.refused as refused (refused.reason)}<li class="border-line border-t py-1">
          <span class="figure">{refused.pairs}</span> pairs: {refused.reason}
        </li>{:else}<li class="text-soft">None.</li>{/each}
    </ul>
    <h3 class="mt-3 font-semibold">
      Fit, but exceed a limit{advice.missed
        ? advice.missed > advice.nearly.length
          ? `: the nearest ${advice.nearly.length} of ${advice.missed}`
          : `: ${advice.missed}`
        : ""}
    </h3>
    <ul>
      {#each advice.nearly as row (row.edge + row.way)}<li class="border-line border-t py-1">
          <span class="figure">{toolName(row.edge)}</span> on {row.on}{row.way ? `, ${row.way}` : ""}: {row.miss
            ? shown(row.miss)
            : row.reason}
        </li>{:else}<li class="text-soft">None.</li>{/each}
    </ul>
  {/if}
</Sheet>
