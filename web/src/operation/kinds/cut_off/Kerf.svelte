<script lang="ts">
  import { session, shown } from "../../../session.svelte";
  import type { OperationBench } from "../../bench.svelte";
  import { viewOf } from "../view";

  let { bench }: { bench: OperationBench } = $props();
  const view = $derived(viewOf(bench, "cut off"));
  const curve = $derived(
    `/api/jobs/${bench.editor.id}/operations/${bench.operation}/curve.csv?units=${session.units}`,
  );
</script>

{#if view}
  <div class="px-2.5 pb-1.5">
    <h3 class="text-soft text-[13px] font-semibold">Kerf</h3>
    {#if view.kerf.length}
      <dl class="grid grid-cols-[1fr_auto] text-[13px]">
        {#each view.kerf as line (line.label.metric)}
          <dt class="border-line border-t">{shown(line.label)}</dt>
          <dd class="figure border-line border-t text-right {line.saving ? 'text-safe' : ''}">
            {shown(line.value)}
          </dd>
        {/each}
      </dl>
    {:else}
      <p class="text-soft text-[13px]">Enter a bar price in the job to see kerf cost.</p>
    {/if}
    <a class="plain-link text-[13px]" href={curve} download>curve over diameter, CSV</a>
  </div>
{/if}
