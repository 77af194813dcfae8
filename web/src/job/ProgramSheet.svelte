<script lang="ts">
  import { createQuery } from "@tanstack/svelte-query";
  import { api, ask } from "../api/client";
  import Sheet from "../lib/Sheet.svelte";
  import ProgramView from "../program/ProgramView.svelte";
  import ProveOut from "../program/ProveOut.svelte";
  import { session, shown } from "../session.svelte";
  import { offered } from "../study/reading";

  /** The job in one program: its operations in run order. */
  let { job, name, machine, close }: { job: number; name: string; machine: string; close: () => void } =
    $props();
  const found = createQuery(() => ({
    queryKey: ["job program", job],
    queryFn: () => ask(api.POST("/api/jobs/{job_id}/program", { params: { path: { job_id: job } } })),
    staleTime: 0,
  }));
  let dialect = $state("");
  let typed = $state<string | null>(null);
  let copied = $state(false);
  const written = $derived((found.data?.texts ?? []).filter((one) => one.units === session.units));
  const now = $derived(written.find((one) => one.dialect === dialect) ?? written[0]);
  const text = $derived(typed ?? now?.text ?? "");
  const read = (own: string) =>
    ask(
      api.POST("/api/programs/check", {
        body: { text: own, dialect: now!.dialect, machine, zero: "jaws", units: session.units },
      }),
    );
  async function copy() {
    await navigator.clipboard.writeText(text);
    copied = true;
    setTimeout(() => (copied = false), 2000);
  }
</script>

<Sheet title="Program of the job · {name}" wide {close}>
  {#if found.error}<p role="alert" class="text-signal">{found.error.message}</p>{/if}
  {#if found.data}
    {#if found.data.broken.length}
      <p role="alert" class="text-signal mb-2 font-semibold">
        Do not run: limit exceeded. {found.data.broken.join("; ")}.
      </p>
    {/if}
    {#each found.data.left_out as one (one.number)}<p class="text-warn">
        Not in it: <b>{one.number} {one.title}</b>: {one.why}
      </p>{/each}
    {#if now}
      <div class="flex flex-wrap items-center gap-3">
        <label
          >for <select
            class="control"
            value={now.dialect}
            onchange={(event) => {
              dialect = event.currentTarget.value;
              typed = null;
            }}
            aria-label="Control"
          >
            {#each written as one (one.dialect)}<option value={one.dialect}>{one.title}</option>{/each}
          </select></label
        >
        <button class="control" onclick={() => void copy()}>{copied ? "copied" : "Copy"}</button>
        <button
          class="control"
          onclick={() =>
            offered(
              `${name} ${now.dialect}.nc`.replace(/[^\w.]+/g, "-"),
              new Blob([text], { type: "text/plain" }),
            )}>Download</button
        >
        {#if found.data.seconds}<span class="text-soft"
            >about <span class="figure">{shown(found.data.seconds)}</span> without tool changes</span
          >{/if}
      </div>
      {#each found.data.dangers as danger (danger)}<p class="text-warn mt-2">
          <b>▲ Danger:</b>
          {danger}
        </p>{/each}
      <ProveOut />
      <div class="mt-2">
        {#key now.dialect}
          <ProgramView
            {text}
            label="Program of the job"
            {read}
            change={(own) => (typed = own)}
            height="40vh"
          />
        {/key}
      </div>
      <p class="text-soft mt-1">
        Each operation begins with its own modes: the program can be started at any of them.
      </p>
    {/if}
  {:else if !found.error}<p class="text-soft" aria-busy="true">Writing the program …</p>{/if}
</Sheet>
