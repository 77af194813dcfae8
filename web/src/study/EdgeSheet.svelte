<script lang="ts">
  import { api, ask } from "../api/client";
  import EntryField from "../lib/EntryField.svelte";
  import Sheet from "../lib/Sheet.svelte";
  import type { OperationBench } from "../operation/bench.svelte";
  import { session, shown } from "../session.svelte";
  import EdgePicture from "./EdgePicture.svelte";
  import Offer from "./Offer.svelte";
  import { Study } from "./study.svelte";
  import Working from "./Working.svelte";

  let { bench, close }: { bench: OperationBench; close: () => void } = $props();
  // svelte-ignore state_referenced_locally
  const study = new Study(bench, () =>
    ask(api.POST("/api/jobs/{job_id}/operations/{operation}/edge-angles", bench.question)),
  );
  const found = $derived(study.answer);
</script>

<Sheet title="Edge angles · {bench.heading}" wide {close}>
  {#if study.problem}<p role="alert" class="text-signal">{study.problem}</p>{/if}
  <div class="flex flex-wrap items-end gap-3">
    <label class="grid w-36"
      >tip over the axis <EntryField
        field="centre_height"
        problem={bench.problem}
        giveUp={() => bench.drop("centre_height")}
        value={bench.kept("centre_height")}
        placeholder="as the house sets it"
        disabled={!session.mayEdit}
        commit={(text) => bench.attempt({ centre_height: text || null })}
      /></label
    >
    <label class="grid w-36"
      >overhang of the tool <EntryField
        field="overhang"
        problem={bench.problem}
        giveUp={() => bench.drop("overhang")}
        value={bench.kept("overhang")}
        placeholder={bench.entry?.operation === "bore" ? "least" : "as the holder's"}
        disabled={!session.mayEdit}
        commit={(text) => bench.attempt({ overhang: text || null })}
      /></label
    >
    {#if bench.entry?.operation === "turn"}<label class="grid"
        >feeds <select
          class="control"
          disabled={!session.mayEdit}
          value={bench.kept("direction", "towards the chuck")}
          onchange={(event) => bench.attempt({ direction: event.currentTarget.value })}
          ><option>towards the chuck</option><option>away from the chuck</option></select
        ></label
      >{/if}
  </div>
  {#if bench.problem}<p role="alert" class="text-signal mt-1">{bench.problem.message}</p>{/if}
  {#if found}
    <div class="mt-2"><EdgePicture {bench} /></div>
    <div class="mt-2 grid gap-x-6 gap-y-3 md:grid-cols-[1fr_1.5fr]" aria-busy={study.stale}>
      <section>
        <h3 class="font-semibold">In this cut</h3>
        <table class="mt-1 w-full" aria-label="Angles of the edge">
          <tbody>
            {#each found.angles as row, k (k)}
              <tr class="border-line border-b"
                ><th scope="row" class="py-1 text-left font-normal"
                  >{row.label}<br /><span class="text-soft text-[13px]">{row.says}</span></th
                ><td class="figure text-right align-top">{shown(row.display)}</td></tr
              >
            {/each}
          </tbody>
        </table>
        <p class="mt-1">{found.thinner}.</p>
      </section>
      <section>
        <h3 class="font-semibold">Height of the tip, both schools</h3>
        <table class="mt-1 w-full" aria-label="Heights of the tip">
          <thead class="text-soft text-left text-[13px]"
            ><tr class="border-line border-b"
              ><th scope="col" class="py-1 font-normal">tip</th><th scope="col" class="font-normal">height</th
              ><th scope="col" class="font-normal">rake</th><th scope="col" class="font-normal">clearance</th
              ><th scope="col" class="font-normal">inside: rake</th><th scope="col" class="font-normal"
                >clearance</th
              ><th scope="col" class="font-normal">passive force</th><th scope="col" class="font-normal"
                >larger by</th
              ><th scope="col" class="font-normal">pip</th><th><span class="sr-only">use it</span></th></tr
            ></thead
          >
          <tbody>
            {#each found.heights as one (one.name)}
              <tr class="border-line border-b {one.present ? 'bg-wash' : ''}" data-testid="height"
                ><th scope="row" class="py-1 text-left font-normal"
                  >{one.name}{one.present ? ", as now" : ""}</th
                ><td class="figure">{shown(one.height)}</td><td class="figure">{shown(one.rake)}</td><td
                  class="figure">{shown(one.clearance)}</td
                ><td class="figure">{shown(one.rake_inside)}</td><td class="figure"
                  >{shown(one.clearance_inside)}</td
                ><td class="figure">{shown(one.passive_force)}</td><td class="figure">{shown(one.larger)}</td
                ><td class="figure">{shown(one.pip)}</td><td class="text-right"
                  ><Offer {bench} remedy={one.remedy} /></td
                ></tr
              >
            {/each}
          </tbody>
        </table>
        <p class="text-soft mt-1">
          Above centre outside the edge cuts freer and rubs sooner; inside it is the other way round. One
          school sets the tip on centre, the other a little below outside and a little above inside; the house
          rule stands at the job.
        </p>
      </section>
    </div>
    <Working lines={found.working} />
  {:else if !study.problem}<p class="text-soft" aria-busy="true">Setting the tip …</p>{/if}
</Sheet>
