<script lang="ts">
  import { createQuery } from "@tanstack/svelte-query";
  import { api, ask } from "../api/client";
  import type { OperationBench } from "../operation/bench.svelte";
  import Doubt from "../operation/Doubt.svelte";
  import { Measuring } from "../operation/measure.svelte";
  import SizeFields from "../operation/SizeFields.svelte";
  import { session, shown } from "../session.svelte";

  let { bench }: { bench: OperationBench } = $props();
  // svelte-ignore state_referenced_locally
  const measuring = new Measuring(bench.editor.id, bench.operation, "machine size");
  const plan = createQuery(() => ({
    queryKey: ["plan", bench.editor.id, bench.operation, bench.editor.job?.revision, session.units],
    queryFn: () => ask(api.POST("/api/jobs/{job_id}/operations/{operation}/plan", bench.question)),
  }));
  const ledger = $derived(plan.data?.ledger);
  const next = $derived(ledger?.next);
  const planned = $derived(next ? shown(next.command) : "");

  async function keep(event: SubmitEvent) {
    event.preventDefault();
    const { measured, temperature } = measuring.draft.value;
    const given = {
      pass_number: next?.pass_number ?? 1,
      piece: ledger?.piece ?? 1,
      commanded: measuring.commanded(planned),
      measured,
      temperature,
      uncertainty: null,
    };
    if (await measuring.send(given)) await plan.refetch();
  }
</script>

<section class="bg-sheet border-line border p-3" aria-label="Size">
  <h2 class="text-soft font-semibold">Size · stop the spindle before you measure</h2>
  {#if next}
    <p class="mt-1">
      {next.last ? "Last pass" : `Pass ${next.pass_number}`}, to
      <span class="figure !text-[17px]">{shown(next.target)}</span>: command
      <b class="figure text-mark !text-[26px]" data-testid="command">Ø {shown(next.command)}</b>
    </p>
    <form class="mt-2 flex flex-wrap items-start gap-3" onsubmit={keep}>
      <SizeFields {measuring} {planned} width="w-40" />
      <button class="control mt-[1.4em] font-semibold">Save size</button>
    </form>
    <Doubt {measuring} kept={() => plan.refetch()} />
  {:else if ledger}<p>All passes of this piece are measured.</p>
  {:else if plan.isError}<p role="alert" class="text-signal">{plan.error.message}</p>{/if}
  {#if ledger}
    <ul class="mt-1">
      {#each ledger.rows as row (row.id)}<li class="border-line flex justify-between gap-3 border-t py-1.5">
          <span>pass {row.pass_number}</span><span class="figure !text-[16px]"
            >{shown(row.commanded)} → {shown(row.at_20)}, offset {shown(row.offset)}</span
          >
        </li>{/each}
      {#each ledger.warnings as warning, k (k)}<li class="text-warn py-1">▲ {warning}</li>{/each}
    </ul>
  {/if}
</section>
