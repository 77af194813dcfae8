<script lang="ts">
  import { api, ask, type Problem } from "../api/client";
  import { Draft } from "../lib/draft.svelte";
  import FormField from "../lib/FormField.svelte";
  import Sheet from "../lib/Sheet.svelte";
  import type { OperationBench } from "../operation/bench.svelte";
  import { session, shown } from "../session.svelte";
  import { Study } from "./study.svelte";
  import Working from "./Working.svelte";

  let { bench, close }: { bench: OperationBench; close: () => void } = $props();
  // svelte-ignore state_referenced_locally
  const study = new Study(bench, () =>
    ask(api.POST("/api/jobs/{job_id}/operations/{operation}/hard", bench.question)),
  );
  const found = $derived(study.answer);
  // svelte-ignore state_referenced_locally
  const known = bench.entry?.grinding;
  // svelte-ignore state_referenced_locally
  const draft = new Draft(`grinding ${bench.editor.id} ${bench.operation}`, () => ({
    seconds: known ? String(known.seconds) : "",
    rate: known ? String(known.rate) : "",
    wheel: known ? String(known.wheel) : "0",
  }));
  let refusal = $state<Problem | null>(null);

  async function keep(event: SubmitEvent) {
    event.preventDefault();
    const grinding = { ...$state.snapshot(draft.value), wheel: draft.value.wheel || "0" };
    refusal = await bench.editor.keep({ action: "set_grinding", operation: bench.operation, grinding });
    if (!refusal) await study.ask();
  }
</script>

<Sheet title="Hard turning or grinding · {bench.heading}" {close}>
  {#if study.problem}<p role="alert" class="text-signal">{study.problem}</p>{/if}
  {#if found}
    <p>Work at {found.hardness}.</p>
    {#each found.says as line, k (k)}<p>{line}</p>{/each}
    <table class="mt-2 w-full" aria-label="Hard turning against grinding" aria-busy={study.stale}>
      <thead class="text-soft text-left text-[13px]"
        ><tr class="border-line border-b"
          ><th scope="col" class="py-1 font-normal"><span class="sr-only">what</span></th><th
            scope="col"
            class="text-right font-normal">turned</th
          ><th scope="col" class="text-right font-normal">ground</th><th scope="col" class="pl-3 font-normal"
            >how known</th
          ></tr
        ></thead
      >
      <tbody>
        {#each found.rows as row, k (k)}
          <tr class="border-line border-b"
            ><th scope="row" class="py-1 text-left font-normal">{row.label}</th><td class="figure text-right"
              >{shown(row.hard)}</td
            ><td class="figure text-right">{row.grinding ? shown(row.grinding) : ""}</td><td
              class="text-soft pl-3">{row.note}</td
            ></tr
          >
        {/each}
      </tbody>
    </table>
    {#if found.saving}<p class="mt-2 font-semibold" data-testid="saving">
        Turning saves {shown(found.saving)} per piece, {shown(found.saving_per_batch)} per batch.
      </p>{/if}
    {#if session.mayEdit}
      <h3 class="mt-3 font-semibold">Grinding as it is done now</h3>
      <form class="mt-1 flex flex-wrap items-end gap-2" onsubmit={keep}>
        <label class="grid w-28"
          >seconds per piece <FormField
            field="seconds"
            problem={refusal}
            bind:value={draft.value.seconds}
          /></label
        >
        <label class="grid w-24"
          >{session.currency} an hour <FormField
            field="rate"
            problem={refusal}
            bind:value={draft.value.rate}
          /></label
        >
        <label class="grid w-28"
          >wheel, {session.currency} per piece <FormField
            field="wheel"
            problem={refusal}
            bind:value={draft.value.wheel}
          /></label
        >
        <button class="control">Compare</button>
      </form>
    {/if}
    <p class="text-soft mt-3">
      Sparks and hot chips: guard closed. The machine's manual, local rules and trained people come first.
    </p>
    <Working lines={found.working} />
  {:else if !study.problem}<p class="text-soft" aria-busy="true">Weighing both …</p>{/if}
</Sheet>
