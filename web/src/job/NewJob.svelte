<script lang="ts">
  import { createQuery } from "@tanstack/svelte-query";
  import { push } from "svelte-spa-router";
  import { api, ask, type Problem } from "../api/client";
  import Sheet from "../lib/Sheet.svelte";
  import { session } from "../session.svelte";

  let { close }: { close: () => void } = $props();
  const machines = createQuery(() => ({
    queryKey: ["machines", "turning"],
    queryFn: async () =>
      (await ask(api.GET("/api/floor/machines"))).filter((machine) => machine.abilities.includes("turns")),
  }));
  let name = $state("");
  let material = $state("");
  let machine = $state("two-axis lathe");
  let diameter = $state("");
  let freeLength = $state("");
  let bore = $state("0");
  let pieces = $state(50);
  let refused = $state("");

  async function start(event: SubmitEvent) {
    event.preventDefault();
    refused = "";
    try {
      const body = {
        name,
        material,
        machine,
        diameter,
        free_length: freeLength,
        bore,
        pieces,
        units: session.units,
      };
      const job = await ask(api.POST("/api/jobs", { body }));
      close();
      await push(`/jobs/${job.id}`);
    } catch (reason) {
      refused = (reason as Problem).message;
    }
  }
</script>

<Sheet title="New job" {close}>
  <form class="grid grid-cols-[200px_1fr] items-center gap-2" onsubmit={start}>
    <label for="new-name">part</label>
    <input id="new-name" class="control" required maxlength="120" bind:value={name} />
    <label for="new-material">material, any common name</label>
    <input
      id="new-material"
      class="control"
      required
      placeholder="4140, C45, 1.4404, brass …"
      bind:value={material}
    />
    <label for="new-machine">machine</label>
    <select id="new-machine" class="control" bind:value={machine}>
      {#each machines.data ?? [] as one (one.name)}<option>{one.name}</option>{/each}
    </select>
    <label for="new-diameter">blank Ø</label>
    <input id="new-diameter" class="control figure" required placeholder="64" bind:value={diameter} />
    <label for="new-length">length out of the chuck</label>
    <input id="new-length" class="control figure" required placeholder="268" bind:value={freeLength} />
    <label for="new-bore">bore in the blank</label>
    <input id="new-bore" class="control figure" bind:value={bore} />
    <label for="new-pieces">pieces in the batch</label>
    <input id="new-pieces" class="control figure" type="number" min="1" required bind:value={pieces} />
    {#if refused}<p role="alert" class="text-signal col-span-2">{refused}</p>{/if}
    <button class="bg-ink text-sheet col-start-2 min-h-9 font-semibold">Start the job</button>
  </form>
</Sheet>
