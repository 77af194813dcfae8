<script lang="ts">
  import { api, ask, type Problem } from "../api/client";
  import Sheet from "../lib/Sheet.svelte";
  import type { OperationBench } from "../operation/bench.svelte";
  import ProgramView from "../program/ProgramView.svelte";
  import ProveOut from "../program/ProveOut.svelte";
  import { session, shown } from "../session.svelte";
  import { offered } from "./reading";
  import { Study } from "./study.svelte";

  let { bench, close }: { bench: OperationBench; close: () => void } = $props();
  // svelte-ignore state_referenced_locally
  const study = new Study(bench, () =>
    ask(api.POST("/api/jobs/{job_id}/operations/{operation}/program", bench.question)),
  );
  let dialect = $state("");
  let copied = $state(false);
  let edited = $state<string | null>(null); // what is typed and not yet kept
  let refusal = $state<Problem | null>(null);
  const written = $derived((study.answer?.texts ?? []).filter((one) => one.units === session.units));
  const own = $derived(study.answer?.own?.units === session.units ? study.answer.own : null);
  const planned = $derived(written.find((one) => one.dialect === (dialect || own?.dialect)) ?? written[0]);
  const kept = $derived(own && own.dialect === planned?.dialect ? own.text : null);
  const text = $derived(edited ?? kept ?? planned?.text ?? "");
  const changed = $derived(text !== planned?.text);

  async function fingerprint(of: string): Promise<string> {
    const bytes = await crypto.subtle.digest("SHA-256", new TextEncoder().encode(of));
    return [...new Uint8Array(bytes)].map((one) => one.toString(16).padStart(2, "0")).join("");
  }
  async function keep(own: string | null) {
    refusal = await bench.editor.keep({
      action: "set_program",
      operation: bench.operation,
      dialect: planned!.dialect,
      units: session.units,
      text: own,
      of: own === null ? "" : await fingerprint(planned!.text),
    });
    if (refusal) return;
    await study.ask();
    edited = null;
  }
  async function copy() {
    await navigator.clipboard.writeText(text);
    copied = true;
    setTimeout(() => (copied = false), 2000);
  }
  const download = () =>
    offered(
      `${bench.entry?.number ?? ""} ${planned!.dialect}.nc`.trim().replace(/\s+/g, "-"),
      new Blob([text], { type: "text/plain" }),
    );
  const read = (now: string) =>
    ask(
      api.POST("/api/jobs/{job_id}/operations/{operation}/program-check", {
        ...bench.question,
        body: { ...bench.question.body, dialect: planned!.dialect, text: now },
      }),
    );
</script>

<Sheet title="Program · {bench.heading}" wide {close}>
  {#if study.problem}<p role="alert" class="text-signal">{study.problem}</p>{/if}
  {#if refusal}<p role="alert" class="text-signal">{refusal.errors[0]?.message}</p>{/if}
  {#if study.answer && planned}
    {#if study.answer.broken.length}
      <p role="alert" class="text-signal mb-2 font-semibold">
        Do not run: limit exceeded. {study.answer.broken.join(", ")}.
      </p>
    {/if}
    <div class="flex flex-wrap items-center gap-3">
      <label
        >for <select
          class="control"
          value={planned.dialect}
          onchange={(event) => {
            dialect = event.currentTarget.value;
            edited = null;
          }}
          aria-label="Control"
        >
          {#each written as one (one.dialect)}<option value={one.dialect}>{one.title}</option>{/each}
        </select></label
      >
      <button class="control" onclick={() => void copy()}>{copied ? "copied" : "Copy"}</button>
      <button class="control" onclick={download}>Download</button>
      {#if edited !== null && edited !== kept}<button class="control" onclick={() => void keep(edited)}
          >Keep as own program</button
        >{/if}
      {#if changed}<button
          class="control"
          onclick={() => {
            edited = planned.text;
            if (kept !== null) void keep(null);
          }}>As planned</button
        >{/if}
      <span class="text-soft"
        >planned <span class="figure">{shown(study.answer.seconds)}</span>; zero at {study.answer.zero}</span
      >
    </div>
    {#if kept !== null && edited === null}<p class="mt-1" role="status">
        This operation's own program{own?.moved ? ": the plan has moved on since it was written" : ""}.
      </p>{/if}
    {#each study.answer.dangers as danger (danger)}<p class="text-warn mt-2">
        <b>▲ Danger:</b>
        {danger}
      </p>{/each}
    <ProveOut />
    <div class="mt-2">
      {#key planned.dialect}
        <ProgramView {text} label="Program text" {read} change={(now) => (edited = now)} height="40vh" />
      {/key}
    </div>
  {:else if !study.problem}<p class="text-soft" aria-busy="true">Writing the program …</p>{/if}
</Sheet>
