<script lang="ts">
  import { api, ask, Problem, type Schemas } from "../api/client";
  import type { OperationBench } from "../operation/bench.svelte";
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
  let commanded = $state<string | null>(null);
  let measured = $state("");
  let temperature = $state("20");
  let uncertainty = $state("");
  let refused = $state("");
  const wanted = $derived(commanded ?? (next ? shown(next.command) : ""));

  async function send(call: () => Promise<unknown>) {
    refused = "";
    try {
      await call();
      await reload();
      return true;
    } catch (reason) {
      if (!(reason instanceof Problem)) throw reason;
      refused = reason.message;
      return false;
    }
  }

  async function keep(event: SubmitEvent) {
    event.preventDefault();
    const body = {
      operation: bench.operation,
      pass_number: pass,
      commanded: wanted,
      measured,
      piece,
      temperature: Number(temperature),
      uncertainty: uncertainty.trim() || null,
      units: session.units,
    };
    const params = { path: { job_id: bench.editor.id } };
    if (await send(() => ask(api.POST("/api/jobs/{job_id}/measurements", { params, body })))) {
      measured = "";
      commanded = null;
    }
  }

  const drop = (id: number) =>
    send(() =>
      ask(
        api.DELETE("/api/jobs/{job_id}/measurements/{measurement_id}", {
          params: { path: { job_id: bench.editor.id, measurement_id: id } },
        }),
      ),
    );
</script>

<section class="border-line mt-4 border-t pt-3" aria-label="Size control">
  <h3 class="font-semibold">Size control</h3>
  <p class="text-soft">
    Stop the spindle before you measure. Offset is measured less commanded; the instrument is taken as ±
    {shown(ledger.uncertainty)} (k = 2) unless said otherwise.
  </p>
  <div class="mt-2 grid gap-x-6 gap-y-3 md:grid-cols-[1.25fr_1fr]">
    <div>
      <form class="flex flex-wrap items-end gap-2" onsubmit={keep}>
        <span class="pb-1.5">piece {piece}, pass {pass}</span>
        <label class="grid w-28"
          >commanded Ø <input
            class="control figure w-full"
            required
            value={wanted}
            oninput={(event) => (commanded = event.currentTarget.value)}
          /></label
        >
        <label class="grid w-28"
          >measured Ø <input class="control figure w-full" required bind:value={measured} /></label
        >
        <label class="grid w-16"
          >at °C <input
            class="control figure w-full"
            type="number"
            step="any"
            min="-20"
            max="200"
            required
            bind:value={temperature}
          /></label
        >
        <label class="grid w-24"
          >± of it <input
            class="control figure w-full"
            placeholder="as usual"
            bind:value={uncertainty}
          /></label
        >
        <button class="control">Keep</button>
        {#if !next && newPiece <= ledger.piece}<button
            type="button"
            class="control"
            onclick={() => (newPiece = ledger.piece + 1)}>Next piece</button
          >{/if}
      </form>
      {#if refused}<p role="alert" class="text-signal">{refused}</p>{/if}
      <table class="mt-2 w-full" aria-label="Offset ledger">
        <thead class="text-soft text-left text-[13px]"
          ><tr class="border-line border-b"
            ><th scope="col" class="py-1 font-normal">pass</th><th scope="col" class="font-normal"
              >commanded</th
            ><th scope="col" class="font-normal">at 20 °C</th><th scope="col" class="font-normal"
              >really cut</th
            ><th scope="col" class="font-normal">push</th><th scope="col" class="font-normal">offset</th><th
              scope="col"
              class="font-normal">foretold</th
            ><th><span class="sr-only">take back</span></th></tr
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
                  onclick={() => void drop(row.id)}>take back</button
                ></td
              ></tr
            >
          {:else}<tr><td class="text-soft py-1" colspan="8">Nothing measured yet.</td></tr>{/each}
        </tbody>
      </table>
    </div>
    <div>
      {#if next}
        <p>
          {next.last ? "Last pass" : `Pass ${next.pass_number}`}, to
          <span class="figure">{shown(next.target)}</span>: command
        </p>
        <p class="figure text-signal text-[22px] font-semibold" data-testid="command">
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
      {#each ledger.notes as note (note)}<p class="text-soft mt-1" data-testid="ledger-note">{note}</p>{/each}
      {#each ledger.warnings as warning (warning)}<p class="text-warn mt-1" data-testid="ledger-warning">
          ▲ {warning}
        </p>{/each}
    </div>
  </div>
</section>
