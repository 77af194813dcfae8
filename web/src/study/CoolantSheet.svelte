<script lang="ts">
  import { api, ask } from "../api/client";
  import EntryField from "../lib/EntryField.svelte";
  import Sheet from "../lib/Sheet.svelte";
  import type { OperationBench } from "../operation/bench.svelte";
  import { session, shown } from "../session.svelte";
  import Offer from "./Offer.svelte";
  import { Study } from "./study.svelte";

  let { bench, close }: { bench: OperationBench; close: () => void } = $props();
  // svelte-ignore state_referenced_locally
  const study = new Study(bench, () =>
    ask(api.POST("/api/jobs/{job_id}/operations/{operation}/coolant", bench.question)),
  );
  const found = $derived(study.answer);
</script>

<Sheet title="Coolant · {bench.heading}" {close}>
  {#if study.problem}<p role="alert" class="text-signal">{study.problem}</p>{/if}
  {#if found}
    <p>
      <b>{found.wanted}</b>: {found.why}
      <span class="text-soft">Rule for {found.rule}; common practice, no source.</span>
    </p>
    {#if !found.present_fits}<p class="text-warn">▲ Now {found.present}.</p>{/if}
    <div class="mt-2 flex gap-3">
      <label
        >nozzles <span class="inline-block w-24"
          ><EntryField
            field="nozzles"
            problem={bench.problem}
            value={bench.kept("nozzles", "2")}
            disabled={!session.mayEdit}
            commit={(text) => bench.attempt({ nozzles: text || null })}
            giveUp={() => bench.drop("nozzles")}
          /></span
        ></label
      >
      <label
        >their Ø <span class="inline-block w-24"
          ><EntryField
            field="nozzle_diameter"
            problem={bench.problem}
            value={bench.kept("nozzle_diameter", "1 mm")}
            disabled={!session.mayEdit}
            commit={(text) => bench.attempt({ nozzle_diameter: text || null })}
            giveUp={() => bench.drop("nozzle_diameter")}
          /></span
        ></label
      >
    </div>
    <table class="mt-3 w-full" aria-label="Deliveries of the machine">
      <thead class="text-soft text-left text-[13px]"
        ><tr class="border-line border-b"
          ><th scope="col" class="py-1 font-normal">delivery</th><th scope="col" class="font-normal"
            >pressure</th
          ><th scope="col" class="font-normal">jet</th><th scope="col" class="font-normal">flow</th><th
            scope="col"
            class="font-normal">left of the pump</th
          ><th scope="col" class="font-normal">here</th><th><span class="sr-only">use it</span></th></tr
        ></thead
      >
      <tbody>
        {#each found.deliveries as one (one.name)}
          <tr class="border-line border-b"
            ><th scope="row" class="py-1 text-left font-normal">{one.name}</th><td class="figure"
              >{shown(one.pressure)}</td
            ><td class="figure">{one.jet_speed}</td><td class="figure">{shown(one.flow)}</td><td
              class="figure">{shown(one.left)}</td
            ><td class={one.fits === "forbidden" ? "text-signal" : one.fits === "wanted" ? "text-safe" : ""}
              >{one.fits}{one.says ? `; ${one.says}` : ""}</td
            ><td class="text-right"
              >{#if one.fits !== "forbidden"}<Offer {bench} remedy={one.remedy} />{/if}</td
            ></tr
          >
        {/each}
      </tbody>
    </table>
    {#each found.notes as note, k (k)}<p class="text-warn mt-2">▲ {note}</p>{/each}
    <p class="text-soft mt-3">
      Jet speed with Cv 0.97, flow with Cd 0.7, emulsion as water. Source: Bernoulli.
    </p>
  {:else if !study.problem}<p class="text-soft" aria-busy="true">Asking pump and nozzles …</p>{/if}
</Sheet>
