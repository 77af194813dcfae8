<script lang="ts">
  import { when } from "../lib/names";
  import { createQuery } from "@tanstack/svelte-query";
  import { api, ask, askOnce, Problem } from "../api/client";
  import { Draft } from "../lib/draft.svelte";
  import FormField from "../lib/FormField.svelte";
  import Sheet from "../lib/Sheet.svelte";
  import { session, shown } from "../session.svelte";
  import type { OperationBench } from "./bench.svelte";
  import Doubt from "./Doubt.svelte";
  import { Measuring } from "./measure.svelte";
  import SizeFields from "./SizeFields.svelte";

  let { bench, close }: { bench: OperationBench; close: () => void } = $props();
  const path = $derived({ job_id: bench.editor.id });
  const notes = createQuery(() => ({
    queryKey: ["notes", bench.editor.id],
    queryFn: () => ask(api.GET("/api/jobs/{job_id}/notes", { params: { path } })),
  }));
  const measurements = createQuery(() => ({
    queryKey: ["measurements", bench.editor.id],
    queryFn: () => ask(api.GET("/api/jobs/{job_id}/measurements", { params: { path } })),
  }));
  // svelte-ignore state_referenced_locally
  const measuring = new Measuring(bench.editor.id, bench.operation, "log");
  // svelte-ignore state_referenced_locally
  const note = new Draft(`note ${bench.editor.id} ${bench.operation}`, () => ({ text: "", pass: "1" }));
  let refused = $state("");

  async function write(event: SubmitEvent) {
    event.preventDefault();
    refused = "";
    try {
      const body = { operation: bench.operation, text: note.value.text };
      await askOnce((once) => api.POST("/api/jobs/{job_id}/notes", { ...once, params: { path }, body }));
      note.value = { ...note.value, text: "" };
      await notes.refetch();
    } catch (reason) {
      if (!(reason instanceof Problem)) throw reason;
      refused = reason.message;
    }
  }

  async function measure(event: SubmitEvent) {
    event.preventDefault();
    if (
      await measuring.send({
        pass_number: note.value.pass,
        commanded: measuring.commanded(),
        measured: measuring.draft.value.measured,
        piece: "1",
        temperature: "20",
      })
    )
      await measurements.refetch();
  }
  const of = <T extends { operation: string }>(rows: T[] | undefined) =>
    (rows ?? []).filter((row) => row.operation === bench.operation || row.operation === "");
</script>

<Sheet title="Notes and measurements · {bench.heading}" {close}>
  <p class="text-soft">Stop the spindle before you measure or clear chips.</p>
  <h3 class="mt-2 font-semibold">Measured after a pass</h3>
  <fieldset class="contents" disabled={!session.mayNote}>
    <form class="mt-1 flex flex-wrap items-end gap-2" onsubmit={measure}>
      <label class="grid w-16"
        >pass <FormField
          field="pass_number"
          problem={measuring.refusal}
          inputmode="numeric"
          bind:value={note.value.pass}
        /></label
      >
      <SizeFields {measuring} />
      <button class="control">Save measurement</button>
    </form>
  </fieldset>
  <Doubt {measuring} kept={() => measurements.refetch()} />
  <table class="mt-2 w-full">
    <tbody>
      {#each of(measurements.data) as row (row.id)}
        <tr class="border-line border-t">
          <td class="py-1">pass {row.pass_number}</td><td class="figure"
            >{shown(row.commanded)} → {shown(row.measured)}</td
          >
          <td class="figure text-right">{shown(row.difference)}</td><td class="text-soft pl-3"
            >{row.author}</td
          >
        </tr>
      {:else}<tr><td class="text-soft">Nothing measured yet.</td></tr>{/each}
    </tbody>
  </table>
  <h3 class="mt-4 font-semibold">Notes</h3>
  <fieldset class="contents" disabled={!session.mayNote}>
    <form class="mt-1 grid gap-2" onsubmit={write}>
      <textarea class="control w-full" rows="2" aria-label="Note" required bind:value={note.value.text}
      ></textarea>
      <button class="control justify-self-start">Save note</button>
    </form>
  </fieldset>
  <ul class="mt-2">
    {#each of(notes.data) as row (row.id)}
      <li class="border-line border-t py-1">
        {row.text} <span class="text-soft">· {row.author}, {when(row.at)}</span>
      </li>
    {:else}<li class="text-soft">No notes yet.</li>{/each}
  </ul>
  {#if refused}<p role="alert" class="text-signal mt-2">{refused}</p>{/if}
</Sheet>
