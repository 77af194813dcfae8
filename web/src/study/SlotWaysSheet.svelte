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
    ask(api.POST("/api/jobs/{job_id}/operations/{operation}/slot-ways", bench.question)),
  );
</script>

<Sheet title="Methods · {bench.heading}" wide {close}>
  {#if study.problem}<p role="alert" class="text-signal">{study.problem}</p>{/if}
  {#if study.answer}
    <table class="w-full" aria-label="Methods with this tool" aria-busy={study.stale}>
      <thead class="text-soft text-left text-[13px]"
        ><tr class="border-line border-b"
          ><th scope="col" class="py-1 font-normal">method</th><th scope="col" class="text-right font-normal"
            >feed</th
          ><th scope="col" class="text-right font-normal">time</th><th
            scope="col"
            class="text-right font-normal">cost</th
          ><th scope="col" class="text-right font-normal">reliable</th><th
            ><span class="sr-only">use it</span></th
          ></tr
        ></thead
      >
      <tbody>
        {#each study.answer as way (way.title)}
          <tr class="border-line border-b align-top {way.present ? 'bg-wash' : ''}">
            <td class="py-1.5 pr-3"
              ><b>{way.title}</b>{#if way.when}<br /><span class="text-soft">{way.when}</span
                >{/if}{#if way.note}<br />{way.note}{/if}</td
            >
            {#if way.why_not}<td colspan="5" class="text-soft py-1.5">not suitable: {way.why_not}</td>
            {:else}
              <td class="figure py-1.5 text-right">{way.feed ? shown(way.feed) : ""}</td><td
                class="figure py-1.5 text-right">{shown(way.seconds)}</td
              ><td class="figure py-1.5 text-right">{shown(way.cost)}</td><td class="figure py-1.5 text-right"
                >{way.secure}</td
              ><td class="py-1.5 text-right"
                >{#if way.remedy}<Offer {bench} remedy={way.remedy} />{/if}</td
              >
            {/if}
          </tr>
        {/each}
      </tbody>
    </table>
    <p class="text-soft mt-3">
      Each method with the tool that is in work, at the feed that suits the goal within its limits. When a
      method is the right one: common practice, no source. Other tools stand in the ranking.
    </p>
  {:else if !study.problem}<p class="text-soft" aria-busy="true">Trying the methods …</p>{/if}
</Sheet>
