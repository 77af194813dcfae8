<script lang="ts">
  import { api, ask } from "../api/client";
  import Sheet from "../lib/Sheet.svelte";
  import type { OperationBench } from "../operation/bench.svelte";
  import { shown } from "../session.svelte";
  import Offer from "./Offer.svelte";
  import { Study } from "./study.svelte";

  let { bench, close }: { bench: OperationBench; close: () => void } = $props();
  // svelte-ignore state_referenced_locally
  const study = new Study(bench, () =>
    ask(api.POST("/api/jobs/{job_id}/operations/{operation}/ways", bench.question)),
  );
</script>

<Sheet title="Turning methods · {bench.heading}" wide {close}>
  {#if study.problem}<p role="alert" class="text-signal">{study.problem}</p>{/if}
  {#if study.answer}
    <table class="w-full" aria-label="Turning methods this feature" aria-busy={study.stale}>
      <thead class="text-soft text-left text-[13px]"
        ><tr class="border-line border-b"
          ><th scope="col" class="py-1 font-normal">way, with its best tool</th><th
            scope="col"
            class="font-normal">speed</th
          ><th scope="col" class="font-normal">feed</th><th scope="col" class="font-normal">passes</th><th
            scope="col"
            class="font-normal">time</th
          ><th scope="col" class="font-normal">cost</th><th scope="col" class="font-normal">secure</th><th
            scope="col"
            class="font-normal">chip</th
          ><th scope="col" class="font-normal">Ra</th><th><span class="sr-only">use it</span></th></tr
        ></thead
      >
      <tbody>
        {#each study.answer as way (way.name)}
          <tr
            class="border-line border-b align-top {way.present ? 'bg-wash' : ''}"
            data-testid="way-{way.name}"
          >
            <td class="py-1.5 pr-3"
              ><b>{way.title}</b>{way.present ? " · as now" : ""}<br /><span class="text-soft"
                >{way.when}</span
              >
              {#if way.edge}<br /><span class="figure">{way.edge}</span> in
                <span class="figure">{way.on}</span>{/if}
              {#if way.reach}<br /><span class="text-warn">▲ {way.reach}</span>{/if}</td
            >
            {#if way.why_not}<td colspan="9" class="text-soft py-1.5">not suitable: {way.why_not}</td>
            {:else}
              <td class="figure py-1.5">{shown(way.speed)}</td><td class="figure py-1.5">{shown(way.feed)}</td
              ><td class="figure py-1.5">{way.passes}</td><td class="figure py-1.5">{shown(way.seconds)}</td
              ><td class="figure py-1.5">{shown(way.cost)}</td><td class="figure py-1.5">{way.secure}</td><td
                class="figure py-1.5">{way.chip_index.toFixed(0)}</td
              ><td class="figure py-1.5">{shown(way.roughness)}</td><td class="py-1.5 text-right"
                ><Offer {bench} remedy={way.remedy} /></td
              >
            {/if}
          </tr>
        {/each}
      </tbody>
    </table>
    <p class="text-soft mt-3">
      Each way with the tool of the crib that suits the goal best. When a way is the right one: common
      practice, no source.
    </p>
  {:else if !study.problem}<p class="text-soft" aria-busy="true">Trying the ways …</p>{/if}
</Sheet>
