<script lang="ts">
  import { api, ask, Problem, type Schemas } from "../api/client";
  import FormField from "../lib/FormField.svelte";
  import type { OperationBench } from "../operation/bench.svelte";
  import Doubt from "../operation/Doubt.svelte";
  import { Measuring } from "../operation/measure.svelte";
  import SizeFields from "../operation/SizeFields.svelte";
  import { session, shown } from "../session.svelte";

  interface Props {
    bench: OperationBench;
    ledger: Schemas["LedgerOut"];
    reload: () => Promise<void>;
  }
  let { bench, ledger, reload }: Props = $props();
  const next = $derived(ledger.next);
  let newPiece = $state(0); // a piece begun here that nothing is written of yet
  const piece = $derived(Math.max(newPiece, ledger.piece));
  const pass = $derived(newPiece > ledger.piece ? 1 : (next?.pass_number ?? ledger.rows.length));
  // svelte-ignore state_referenced_locally
  const measuring = new Measuring(bench.editor.id, bench.operation, "size");
  const draft = $derived(measuring.draft.value);
  let refused = $state("");
  const planned = $derived(next ? shown(next.command) : "");

  async function keep(event: SubmitEvent) {
    event.preventDefault();
    const given = {
      pass_number: pass,
      commanded: measuring.commanded(planned),
      measured: draft.measured,
      piece,
      temperature: draft.temperature,
      uncertainty: draft.uncertainty.trim() || null,
    };
    if (await measuring.send(given)) await reload();
  }

  async function drop(id: number) {
    refused = "";
    const params = { path: { job_id: bench.editor.id, measurement_id: id } };
    try {
      await ask(api.DELETE("/api/jobs/{job_id}/measurements/{measurement_id}", { params }));
      await reload();
    } catch (reason) {
      if (!(reason instanceof Problem)) throw reason;
      refused = reason.message;
    }
  }
</script>

<section class="border-line mt-4 border-t pt-3" aria-label="Size control">
  <h3 class="font-semibold">Size control</h3>
  <p class="text-soft">
    Stop the spindle before you measure. Offset is measured less commanded; the instrument is taken as ±
    {shown(ledger.uncertainty)} (k = 2) unless said otherwise.
  </p>
  <div class="mt-2 grid gap-x-6 gap-y-3 md:grid-cols-[1.25fr_1fr]">
    <div>
      <fieldset class="contents" disabled={!session.mayNote}>
        <form class="flex flex-wrap items-end gap-2" onsubmit={keep}>
          <span class="pb-1.5">piece {piece}, pass {pass}</span>
          <SizeFields {measuring} {planned} width="w-28" />
          <label class="grid w-16"
            >at °C <FormField
              field="temperature"
              problem={measuring.refusal}
              inputmode="decimal"
              bind:value={measuring.draft.value.temperature}
            /></label
          >
          <label class="grid w-24"
            >± of it <FormField
              field="uncertainty"
              problem={measuring.refusal}
              placeholder="as usual"
              bind:value={measuring.draft.value.uncertainty}
            /></label
          >
          <button class="control">Keep</button>
          {#if !next && newPiece <= ledger.piece}<button
              type="button"
              class="control"
              onclick={() => (newPiece = ledger.piece + 1)}>Next piece</button
            >{/if}
        </form>
      </fieldset>
      <Doubt {measuring} kept={reload} />
      {#if refused}<p role="alert" class="text-signal">{refused}</p>{/if}
      <table class="mt-2 w-full" aria-label="Offset ledger">
        <thead class="text-soft text-left text-[13px]"
          ><tr class="border-line border-b"
            ><th scope="col" class="py-1 font-normal">pass</th><th scope="col" class="font-normal"
              >commanded</th
            ><th scope="col" class="font-normal">at 20 °C</th><th scope="col" class="font-normal"
              >actual depth</th
            ><th scope="col" class="font-normal">push</th><th scope="col" class="font-normal">offset</th><th
              scope="col"
              class="font-normal">predicted</th
            ><th><span class="sr-only">Remove</span></th></tr
          ></thead
        >
        <tbody>
          {#each ledger.rows as row (row.id)}
            <tr class="border-line border-b" data-testid="ledger-row"
              ><td class="figure py-1">{row.piece > 1 ? `${row.piece}·` : ""}{row.pass_number}</td><td
                class="figure">{shown(row.commanded)}</td
              ><td class="figure">{shown(row.at_20)}</td><td class="figure">{shown(row.actual_depth)}</td><td
                class="figure">{shown(row.force)}</td
              ><td class="figure font-semibold">{shown(row.offset)}</td><td class="figure text-soft"
                >{row.expected ? shown(row.expected) : "–"}</td
              ><td class="text-right"
                ><button
                  class="plain-link"
                  aria-label="Take back pass {row.pass_number}"
                  onclick={() => void drop(row.id)}>Remove</button
                ></td
              ></tr
            >
          {:else}<tr><td class="text-soft py-1" colspan="8">Nothing measured that counts yet.</td></tr>{/each}
          {#each ledger.doubtful as row (row.id)}
            <tr class="border-line text-soft border-b" data-testid="ledger-doubt"
              ><td class="figure py-1">{row.piece > 1 ? `${row.piece}·` : ""}{row.pass_number}</td><td
                class="figure">{shown(row.commanded)}</td
              ><td class="figure">{shown(row.measured)}</td><td colspan="4">doubtful, not counted</td><td
                class="text-right"
                ><button
                  class="plain-link"
                  aria-label="Take back the doubtful pass {row.pass_number}"
                  onclick={() => void drop(row.id)}>Remove</button
                ></td
              ></tr
            >
          {/each}
        </tbody>
      </table>
    </div>
    <div>
      {#if next}
        <p>
          {next.last ? "Last pass" : `Pass ${next.pass_number}`}, to
          <span class="figure">{shown(next.target)}</span>: command
        </p>
        <p class="figure text-mark text-[22px] font-semibold" data-testid="command">
          Ø {shown(next.command)}
        </p>
        {#if ledger.rows.length}<p>
            Offset expected <span class="figure">{shown(next.offset)}</span>, with 95 % between
            <span class="figure">{shown(next.low)}</span> and <span class="figure">{shown(next.high)}</span>;
            it takes
            <span class="figure">{shown(next.depth)}</span> and pushes with
            <span class="figure">{shown(next.force)}</span>.
          </p>{/if}
      {:else}<p>All passes of this piece are measured.</p>{/if}
      {#if ledger.rows.length}<p class="mt-1">
          Setting <span class="figure">{shown(ledger.setting)} ± {shown(ledger.setting_band)}</span>,
          springing at the next cut
          <span class="figure">{shown(ledger.springing)} ± {shown(ledger.springing_band)}</span>.
        </p>{/if}
      {#if ledger.warmth}<p class="mt-1 {ledger.warmth.broken ? 'text-warn' : ''}" data-testid="warmth">
          {ledger.warmth.broken ? "■ " : ""}Warm growth
          <span class="figure">{shown(ledger.warmth.growth)}</span>
          against <span class="figure">{shown(ledger.warmth.bound)}</span> of its tolerance: {(
            100 * ledger.warmth.utilisation
          ).toFixed(0)} %.
        </p>{/if}
      {#each ledger.notes as note, k (k)}<p class="text-soft mt-1" data-testid="ledger-note">{note}</p>{/each}
      {#each ledger.warnings as warning, k (k)}<p class="text-warn mt-1" data-testid="ledger-warning">
          ▲ {warning}
        </p>{/each}
    </div>
  </div>
  {#if ledger.fit}
    <div class="mt-3 grid gap-x-6 gap-y-2 md:grid-cols-[1.25fr_1fr]" data-testid="fit">
      <div>
        <h4 class="font-semibold">Chance of meeting the fit, aiming at Ø {shown(ledger.fit.aim)}</h4>
        <table class="w-full" aria-label="What each measured cut settles">
          <thead class="text-soft text-left text-[13px]"
            ><tr class="border-line border-b"
              ><th scope="col" class="py-1 font-normal">cuts measured</th><th scope="col" class="font-normal"
                >size ±, 95 %</th
              ><th scope="col" class="font-normal">within its limits</th><th scope="col" class="font-normal"
                >grade reached</th
              ></tr
            ></thead
          >
          <tbody>
            {#each ledger.fit.stages as stage, k (stage.measured)}
              <tr class="border-line border-b {k ? 'text-soft' : 'font-semibold'}"
                ><td class="figure py-1">{stage.measured}{k ? "" : ", now"}</td><td class="figure"
                  >{shown(stage.spread)}</td
                ><td class="figure">{stage.chance}</td><td>{stage.grade}</td></tr
              >
            {/each}
          </tbody>
        </table>
      </div>
      <div>
        <h4 class="font-semibold">What is not known</h4>
        <dl class="grid grid-cols-[auto_auto_1fr] gap-x-2 text-[13px]">
          {#each ledger.fit.shares as share (share.name)}
            <dt>{share.name}</dt>
            <dd class="figure text-right">±{shown(share.spread)}</dd>
            <dd class="text-soft">{share.of_tolerance}; {share.why}</dd>
          {/each}
        </dl>
      </div>
    </div>
  {/if}
</section>
