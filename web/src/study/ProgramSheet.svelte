<script lang="ts">
  import { api, ask } from "../api/client";
  import Sheet from "../lib/Sheet.svelte";
  import type { OperationBench } from "../operation/bench.svelte";
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
  const own = $derived((study.answer?.texts ?? []).filter((one) => one.units === session.units));
  const now = $derived(own.find((one) => one.dialect === dialect) ?? own[0]);
  const lines = $derived(now?.text.trimEnd().split("\n") ?? []);
  const wrong = $derived(new Set(now?.findings.map((one) => one.line)));

  async function copy() {
    await navigator.clipboard.writeText(now!.text);
    copied = true;
    setTimeout(() => (copied = false), 2000);
  }
  const download = () =>
    offered(
      `${bench.entry?.number ?? ""} ${now!.dialect}.nc`.trim().replace(/\s+/g, "-"),
      new Blob([now!.text], { type: "text/plain" }),
    );
</script>

<Sheet title="Program · {bench.heading}" wide {close}>
  {#if study.problem}<p role="alert" class="text-signal">{study.problem}</p>{/if}
  {#if study.answer && now}
    {#if study.answer.broken.length}
      <p role="alert" class="text-signal mb-2 font-semibold">
        Do not run: limit exceeded. {study.answer.broken.join(", ")}.
      </p>
    {/if}
    <div class="flex flex-wrap items-center gap-3">
      <label
        >for <select
          class="control"
          value={now.dialect}
          onchange={(event) => (dialect = event.currentTarget.value)}
          aria-label="Control"
        >
          {#each own as one (one.dialect)}<option value={one.dialect}>{one.title}</option>{/each}
        </select></label
      >
      <button class="control" onclick={() => void copy()}>{copied ? "copied" : "Copy"}</button>
      <button class="control" onclick={download}>Download</button>
      <span class="text-soft"
        ><span class="figure">{lines.length}</span> blocks,
        <span class="figure">{shown(study.answer.seconds)}</span>; zero at {study.answer.zero}</span
      >
    </div>
    {#each study.answer.dangers as danger (danger)}<p class="text-warn mt-2">
        <b>▲ Danger:</b>
        {danger}
      </p>{/each}
    <p class="text-warn mt-2">
      <b>Warning:</b> prove it out: single block, dry, above the part, hand on feed hold. The machine's own manual
      and trained people come first.
    </p>
    <ol
      class="border-line figure mt-2 max-h-[44vh] overflow-auto border py-1 text-[13px]"
      aria-label="Program text"
      tabindex="-1"
      aria-busy={study.stale}
    >
      {#each lines as line, k (k)}
        <li class="flex gap-3 px-2 {wrong.has(k + 1) ? 'bg-wash text-signal' : ''}">
          <span class="text-soft w-8 shrink-0 text-right" aria-hidden="true"
            >{wrong.has(k + 1) ? "▲ " : ""}{k + 1}</span
          ><span class="whitespace-pre">{line}</span>
        </li>
      {/each}
    </ol>
    {#if now.findings.length}
      <ul class="mt-2" aria-label="Findings">
        {#each now.findings as one, k (k)}
          <li>
            <span class="figure">line {one.line}</span>:
            <span class={one.severity === "stop" ? "text-signal" : ""}>{one.text}</span>{#if one.remedy}
              → {one.remedy}{/if}
          </li>
        {/each}
      </ul>
    {:else}<p class="mt-2">Read back, every move ends where it is planned, at its feed and speed.</p>{/if}
    <p class="text-soft mt-1">Not checked: {study.answer.not_checked.join("; ")}.</p>
  {:else if !study.problem}<p class="text-soft" aria-busy="true">Writing the program …</p>{/if}
</Sheet>
