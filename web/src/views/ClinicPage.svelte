<script lang="ts">
  import { createQuery } from "@tanstack/svelte-query";
  import { api, ask } from "../api/client";
  import { Clinic } from "../clinic/clinic.svelte";
  import ClinicPane from "../clinic/ClinicPane.svelte";
  import { page } from "../page.svelte";

  $effect(() => page.open("Clinic", [{ label: "Clinic" }]));
  const kinds = createQuery(() => ({ queryKey: ["kinds"], queryFn: () => ask(api.GET("/api/kinds")) }));
  let kind = $state("turn");
  const clinic = $derived(new Clinic(kind, null));
</script>

<div class="mx-auto max-w-[1400px] p-3">
  <section class="bg-sheet border-edge border p-3" aria-label="Clinic">
    <div class="flex flex-wrap items-end justify-between gap-3 pb-2">
      <div>
        <h1 class="text-lg font-semibold">Clinic</h1>
        <p class="text-soft">From what is seen to its cause, and to one change that helps.</p>
      </div>
      <label class="flex items-center gap-2"
        >kind of operation
        <select class="control w-48" bind:value={kind}>
          {#each kinds.data ?? [{ name: "turn", title: "turn" }] as one (one.name)}<option value={one.name}
              >{one.title}</option
            >{/each}
        </select></label
      >
      <a class="plain-link" href="#/exercises">practise on cases</a>
    </div>
    {#key clinic}<ClinicPane {clinic} />{/key}
  </section>
</div>
