<script lang="ts">
  import { createQuery } from "@tanstack/svelte-query";
  import { push } from "svelte-spa-router";
  import { api, ask, askOnce, Problem } from "../api/client";
  import AsLeft from "../lib/AsLeft.svelte";
  import { Draft } from "../lib/draft.svelte";
  import FormField from "../lib/FormField.svelte";
  import Sheet from "../lib/Sheet.svelte";
  import { session } from "../session.svelte";

  let { close }: { close: () => void } = $props();
  const machines = createQuery(() => ({
    queryKey: ["machines"],
    queryFn: () => ask(api.GET("/api/floor/machines")),
  }));
  const draft = new Draft("new job", () => ({
    name: "",
    material: "",
    machine: "two-axis lathe",
    diameter: "",
    free_length: "",
    bore: "0",
    pieces: "50",
  }));
  let refusal = $state<Problem | null>(null);
  const said = $derived(refusal && !refusal.errors.some((one) => one.field in draft.value) ? refusal : null);

  async function start(event: SubmitEvent) {
    event.preventDefault();
    refusal = null;
    try {
      const body = { ...$state.snapshot(draft.value), units: session.units };
      const job = await askOnce((once) => api.POST("/api/jobs", { ...once, body }));
      draft.done();
      close();
      await push(`/jobs/${job.id}`);
    } catch (reason) {
      if (!(reason instanceof Problem)) throw reason;
      refusal = reason;
    }
  }
</script>

<Sheet title="New job" {close}>
  <form class="grid grid-cols-[200px_1fr] items-center gap-2" onsubmit={start}>
    <AsLeft {draft} />
    <label for="new-name">part</label>
    <FormField id="new-name" field="name" problem={refusal} bind:value={draft.value.name} />
    <label for="new-material">material, any standard</label>
    <FormField
      id="new-material"
      field="material"
      problem={refusal}
      placeholder="4140, C45, 1.4404, brass …"
      bind:value={draft.value.material}
    />
    <label for="new-machine">machine</label>
    <select id="new-machine" class="control" bind:value={draft.value.machine}>
      {#each machines.data ?? [] as one (one.name)}<option>{one.name}</option>{/each}
    </select>
    <label for="new-diameter">blank Ø</label>
    <FormField
      id="new-diameter"
      field="diameter"
      problem={refusal}
      placeholder="64"
      bind:value={draft.value.diameter}
    />
    <label for="new-length">stick-out from the jaws</label>
    <FormField
      id="new-length"
      field="free_length"
      problem={refusal}
      placeholder="268"
      bind:value={draft.value.free_length}
    />
    <label for="new-bore">bore in the blank</label>
    <FormField id="new-bore" field="bore" problem={refusal} bind:value={draft.value.bore} />
    <label for="new-pieces">pieces in the batch</label>
    <FormField id="new-pieces" field="pieces" problem={refusal} bind:value={draft.value.pieces} />
    {#if said}<p role="alert" class="text-signal col-span-2">{said.message}</p>{/if}
    <button class="bg-ink text-sheet col-start-2 min-h-9 font-semibold">Start the job</button>
  </form>
</Sheet>
