<script lang="ts">
  import type { Schemas } from "../api/client";
  import { shown } from "../session.svelte";

  /** The ways of a series beside each other, and in what order they are cut. */
  let { trial }: { trial: Schemas["TrialOut"] } = $props();
</script>

{#if trial.ways.length}
  <section class="bg-sheet border-line border p-3" aria-label="Ways side by side">
    <h2 class="font-semibold">Ways side by side</h2>
    <div class="overflow-x-auto">
      <table class="w-full">
        <thead class="text-soft text-left"
          ><tr>
            <th scope="col" class="font-normal">way</th><th scope="col" class="text-right font-normal"
              >edges to their end</th
            ><th scope="col" class="text-right font-normal">worst</th>
            <th scope="col" class="text-right font-normal">half last</th><th
              scope="col"
              class="text-right font-normal">90 %</th
            ><th scope="col" class="text-right font-normal">best</th>
            <th scope="col" class="text-right font-normal">a piece</th>
          </tr></thead
        >
        <tbody>
          {#each trial.ways as way (way.trial)}
            <tr class="border-line border-t {way.trial === trial.id ? 'font-semibold' : ''}">
              <td class="py-1"
                ><a class="plain-link" href="#/trials/{way.trial}">{way.name}</a>
                <span class="text-soft">{way.tool}</span></td
              >
              <td class="figure text-right">{way.edges}</td>
              <td class="figure text-right">{way.worst}</td>
              <td class="figure text-right">{way.middle}</td>
              <td class="figure text-soft text-right">{way.between}</td>
              <td class="figure text-right">{way.best}</td>
              <td class="figure text-right">{way.cost ? shown(way.cost) : ""}</td>
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
    {#if trial.order.length}<p class="text-soft mt-1">
        Order: {#each trial.order as bar, k (k)}{k ? " · " : ""}bar {k + 1}: {bar.join(", ")}{/each}
      </p>{/if}
  </section>
{/if}
