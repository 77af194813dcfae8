<script lang="ts">
  import { api, ask } from "../api/client";
  import Sheet from "../lib/Sheet.svelte";
  import type { OperationBench } from "../operation/bench.svelte";
  import { shown } from "../session.svelte";
  import Chart from "./Chart.svelte";
  import HoldingFields from "./HoldingFields.svelte";
  import Offer from "./Offer.svelte";
  import { Study } from "./study.svelte";
  import Working from "./Working.svelte";

  let { bench, close }: { bench: OperationBench; close: () => void } = $props();
  // svelte-ignore state_referenced_locally
  const study = new Study(bench, () =>
    ask(api.POST("/api/jobs/{job_id}/operations/{operation}/rigidity", bench.question)),
  );
  const found = $derived(study.answer);
</script>

<Sheet title="Rigidity · {bench.heading}" wide {close}>
  {#if study.problem}<p role="alert" class="text-signal">{study.problem}</p>{/if}
  <HoldingFields {bench} />
  {#if found}
    <div class="mt-3 grid gap-x-6 md:grid-cols-2" aria-busy={study.stale}>
      <section>
        <h3 class="font-semibold">
          Along the cut: {found.shape}
        </h3>
        <Chart
          chart={found.bow}
          label="Change of diameter along the cut, drawn exaggerated"
          thin={["allowed"]}
        />
        <p>
          Largest <b class="figure">{shown(found.largest)}</b> on diameter, the drawing leaves
          <span class="figure">{shown(found.allowed)}</span>; taper
          <span class="figure">{shown(found.taper)}</span>, barrel
          <span class="figure">{shown(found.barrel)}</span>. Model, ± 40 %.
        </p>
      </section>
      <section>
        <h3 class="font-semibold">Chatter</h3>
        <Chart chart={found.lobes} label="Stable width of cut over spindle speed" thin={["tool"]} />
        <p>
          {found.says} Part about {found.part_frequency}, {found.tool_frequency}. Model, ± 50 %.
        </p>
        {#each found.suggestions as one (one.text.metric)}
          <p class="mt-1 flex items-center gap-2">
            <span class="figure">{shown(one.text)}</span>
            {one.gain}
            <Offer {bench} remedy={one.remedy} />
          </p>
        {/each}
      </section>
    </div>
    <h3 class="mt-4 font-semibold">What would support it</h3>
    <table class="mt-1 w-full" aria-label="Ways to support the part">
      <thead class="text-soft text-left text-[13px]"
        ><tr class="border-line border-b"
          ><th scope="col" class="py-1 font-normal">support</th><th scope="col" class="font-normal"
            >largest</th
          ><th scope="col" class="font-normal">taper</th><th scope="col" class="font-normal">barrel</th><th
            scope="col"
            class="font-normal">stiffer</th
          ><th><span class="sr-only">use it</span></th></tr
        ></thead
      >
      <tbody>
        {#each found.supports as one (one.name)}
          <tr class="border-line border-b" data-testid="support"
            ><td class="py-1">{one.text}</td><td class="figure">{shown(one.largest)}</td><td class="figure"
              >{shown(one.taper)}</td
            ><td class="figure">{shown(one.barrel)}</td><td class="figure">{one.times_stiffer}</td><td
              class="text-right"><Offer {bench} remedy={one.remedy} /></td
            ></tr
          >
        {:else}<tr
            ><td class="text-soft py-1" colspan="6">No available support adds noticeable stiffness.</td></tr
          >{/each}
      </tbody>
    </table>
    <p class="text-soft mt-3">
      Stepped beam with jaws, centre and steady as springs; stiffness of chuck, centre and tool post are the
      machine's row on the floor. Sources: Roark (force method), Altintas 2012.
    </p>
    <Working lines={found.working} />
  {:else if !study.problem}<p class="text-soft" aria-busy="true">Bending the part …</p>{/if}
</Sheet>
