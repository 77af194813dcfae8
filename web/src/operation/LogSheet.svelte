<script lang="ts">
  import { createQuery } from "@tanstack/svelte-query";
  import { api, ask, type Problem } from "../api/client";
  import Sheet from "../lib/Sheet.svelte";
  import { session, shown } from "../session.svelte";
  import type { OperationBench } from "./bench.svelte";

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
  let text = $state("");
  let pass = $state(1);
  let commanded = $state("");
  let measured = $state("");
  let refused = $state("");

  async function write(send: () => Promise<unknown>, refetch: () => Promise<unknown>) {
    refused = "";
    try {
      await send();
      await refetch();
      return true;
    } catch (reason) {
      refused = (reason as Problem).message;
      return false;
    }
  }

  async function note(event: SubmitEvent) {
    event.preventDefault();
    const body = { operation: bench.operation, text };
    const send = () => ask(api.POST("/api/jobs/{job_id}/notes", { params: { path }, body }));
    if (await write(send, () => notes.refetch())) text = "";
  }

  async function measure(event: SubmitEvent) {
    event.preventDefault();
    const body = { operation: bench.operation, pass_number: pass, commanded, measured, units: session.units };
    const send = () => ask(api.POST("/api/jobs/{job_id}/measurements", { params: { path }, body }));
    if (await write(send, () => measurements.refetch())) commanded = measured = "";
  }
  const of = <T extends { operation: string }>(rows: T[] | undefined) =>
    (rows ?? []).filter((row) => row.operation === bench.operation || row.operation === "");
</script>

<Sheet title="Notes and measurements · {bench.entry?.number} {bench.entry?.title}" {close}>
  <p class="text-soft">Stop the spindle before you measure or clear chips.</p>
  <h3 class="mt-2 font-semibold">Measured after a pass</h3>
  <form class="mt-1 flex flex-wrap items-end gap-2" onsubmit={measure}>
    <label class="grid"
      >pass <input
        class="control figure w-16"
        type="number"
        min="1"
        max="60"
        required
        bind:value={pass}
      /></label
    >
    <label class="grid"
      >commanded Ø <input class="control figure w-32" required bind:value={commanded} /></label
    >
    <label class="grid">measured Ø <input class="control figure w-32" required bind:value={measured} /></label
    >
    <button class="control">Keep the measurement</button>
  </form>
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
  <form class="mt-1 grid gap-2" onsubmit={note}>
    <textarea class="control w-full" rows="2" aria-label="Note" maxlength="4000" required bind:value={text}
    ></textarea>
    <button class="control justify-self-start">Keep the note</button>
  </form>
  <ul class="mt-2">
    {#each of(notes.data) as row (row.id)}
      <li class="border-line border-t py-1">
        {row.text} <span class="text-soft">· {row.author}, {new Date(row.at).toLocaleString()}</span>
      </li>
    {:else}<li class="text-soft">No notes yet.</li>{/each}
  </ul>
  {#if refused}<p role="alert" class="text-signal mt-2">{refused}</p>{/if}
</Sheet>
