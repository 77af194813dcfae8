<script lang="ts">
  import { spaced } from "../lib/names";
  import { TABLES } from "../records/form.svelte";
  import { createQuery, useQueryClient } from "@tanstack/svelte-query";
  import { api, ask, Problem, type Schemas } from "../api/client";
  import CribTabs from "../crib/CribTabs.svelte";
  import FateList from "../exchange/FateList.svelte";
  import { page } from "../page.svelte";
  import { session } from "../session.svelte";

  page.open("Import and export", [{ label: "Tools", href: "#/crib" }, { label: "Import and export" }]);
  type Run = Schemas["RunOut"];
  const queries = useQueryClient();
  let picked = $state<number | null>(null);
  let table = $state("");
  let what = $state<Schemas["ExportIn"]["table"]>("tools");
  let format = $state<Schemas["ExportIn"]["format"]>("csv");
  let problem = $state("");
  let over = $state(false);
  const busy = (run: Run) => run.state === "waiting" || run.state === "running";
  const runs = createQuery(() => ({
    queryKey: ["runs"],
    queryFn: () => ask(api.GET("/api/exchange/runs")),
    refetchInterval: (query) => (query.state.data?.some(busy) ? 400 : false),
  }));
  const run = $derived(runs.data?.find((r) => r.id === picked) ?? runs.data?.[0]);
  const words: Record<Run["state"], string> = {
    waiting: "queued",
    running: "running",
    previewed: "ready for review",
    done: "done",
    refused: "refused",
    cancelled: "stopped",
  };

  async function tried(call: () => Promise<Run>) {
    problem = "";
    try {
      picked = (await call()).id;
    } catch (reason) {
      problem = (reason as Problem).message;
    }
    await queries.invalidateQueries({ queryKey: ["runs"] });
  }

  function take(files: FileList | null | undefined) {
    const file = files?.[0];
    if (!file) return;
    const body = new FormData();
    body.append("file", file);
    body.append("table", table);
    void tried(() =>
      ask(
        api.POST("/api/exchange/imports", { body: body as never, bodySerializer: (sent) => sent as never }),
      ),
    );
  }

  const apply = (leave: boolean) =>
    tried(() =>
      ask(
        api.POST("/api/exchange/runs/{run_id}/apply", {
          params: { path: { run_id: run!.id } },
          body: { leave_out_refused: leave },
        }),
      ),
    );
  const stop = () =>
    tried(() =>
      ask(api.POST("/api/exchange/runs/{run_id}/cancel", { params: { path: { run_id: run!.id } } })),
    );
</script>

<div class="mx-auto flex h-full max-w-[1500px] flex-col gap-2 p-2">
  <h1 class="sr-only">Import and export</h1>
  <CribTabs />
  <div
    class="grid min-h-0 flex-1 grid-cols-[330px_minmax(0,1fr)] gap-2 max-lg:grid-cols-1 max-lg:overflow-auto"
  >
    <div class="flex min-h-0 flex-col gap-2">
      {#if session.mayEdit}
        <section
          class="bg-sheet border p-2.5 {over ? 'border-signal' : 'border-line'}"
          aria-label="Import"
          ondragover={(event) => {
            event.preventDefault();
            over = true;
          }}
          ondragleave={() => (over = false)}
          ondrop={(event) => {
            event.preventDefault();
            over = false;
            take(event.dataTransfer?.files);
          }}
        >
          <h2 class="font-semibold">Import</h2>
          <p class="text-soft text-[13px]">
            CSV, XLSX or JSON; columns by ISO 13399 symbol or by name. You see what becomes of every row
            before anything is written.
          </p>
          <label class="mt-1 block"
            >table <select class="control" bind:value={table}
              ><option value="">as its columns say</option>
              {#each TABLES as t (t)}<option>{t}</option>{/each}</select
            ></label
          >
          {#if table}<p class="text-[13px]">
              an empty table to fill in:
              <a class="plain-link" href="/api/exchange/template?table={table}&format=csv" download>CSV</a>
              <a class="plain-link ml-1" href="/api/exchange/template?table={table}&format=xlsx" download
                >XLSX</a
              >
            </p>{/if}
          <input
            class="control mt-2 block w-full"
            type="file"
            accept=".csv,.txt,.tsv,.xlsx,.json"
            aria-label="File to import"
            onchange={(event) => {
              take(event.currentTarget.files);
              event.currentTarget.value = "";
            }}
          />
        </section>
      {/if}
      <section class="bg-sheet border-line border p-2.5" aria-label="Export">
        <h2 class="font-semibold">Export</h2>
        <div class="mt-1 flex flex-wrap items-center gap-2">
          <select class="control" aria-label="What to export" bind:value={what}>
            {#each TABLES as t (t)}<option>{t}</option>{/each}
            <option value="">everything</option>
          </select>
          <select class="control" aria-label="Format" bind:value={format}
            ><option>csv</option><option>xlsx</option><option>json</option></select
          >
          <button
            class="control"
            onclick={() =>
              void tried(() => ask(api.POST("/api/exchange/exports", { body: { table: what, format } })))}
            >Write the file</button
          >
        </div>
      </section>
      {#if problem}<p role="alert" class="text-signal px-1">{problem}</p>{/if}
      <section
        class="bg-sheet border-line min-h-0 flex-1 overflow-auto border p-2.5"
        aria-label="Runs"
        tabindex="-1"
      >
        <h2 class="font-semibold">Runs</h2>
        <ul>
          {#each runs.data ?? [] as row (row.id)}
            <li class="border-line border-t">
              <button
                class="w-full px-1 py-1 text-left {row.id === run?.id ? 'bg-ink text-sheet' : ''}"
                aria-pressed={row.id === run?.id}
                onclick={() => (picked = row.id)}
              >
                <span class="block truncate"
                  ><b>{row.work === "export" ? "export" : "import"}</b> {row.file_name}</span
                >
                <span class="block text-[13px]"
                  >{words[row.state]} · {row.author} · {row.at.slice(0, 16).replace("T", " ")}</span
                >
              </button>
            </li>
          {:else}<li class="text-soft">None yet.</li>{/each}
        </ul>
      </section>
    </div>
    <section class="bg-sheet border-line flex min-h-0 flex-col border p-2.5" aria-label="Run">
      {#if run}
        <div class="flex flex-wrap items-center gap-x-4 gap-y-1">
          <h2 class="text-[16px] font-semibold">{run.file_name}</h2>
          <span role="status" data-testid="run-state">{words[run.state]}</span>
          {#if run.seconds}<span class="text-soft figure">{run.seconds.toFixed(1)} s</span>{/if}
          <span class="flex-1"></span>
          {#if run.has_file}<a
              class="bg-ink text-sheet px-4 py-1.5"
              href="/api/exchange/runs/{run.id}/file"
              download>Fetch the file</a
            >{/if}
          {#if session.mayEdit && run.state === "previewed" && (run.counts["new"] || run.counts["changed"])}
            {#if run.counts["refused"]}
              <button class="control" onclick={() => void apply(true)}
                >Import valid rows, skip {spaced(run.counts["refused"])}</button
              >
            {:else}
              <button class="bg-ink text-sheet min-h-8 px-4" onclick={() => void apply(false)}
                >Write {spaced((run.counts["new"] ?? 0) + (run.counts["changed"] ?? 0))} rows</button
              >
            {/if}
          {/if}
          {#if session.mayEdit && (busy(run) || run.state === "previewed")}<button
              class="control"
              onclick={() => void stop()}>{busy(run) ? "Stop" : "Drop"}</button
            >{/if}
        </div>
        {#if busy(run)}
          <progress class="mt-2 h-3 w-full" max={Math.max(run.total, 1)} value={run.done} aria-label="How far"
          ></progress>
          <p class="text-soft figure">{spaced(run.done)} of {spaced(run.total)} steps</p>
        {/if}
        {#if run.message}<p class="mt-1 {run.state === 'refused' ? 'text-signal' : ''}">{run.message}</p>{/if}
        {#if Object.keys(run.counts).length && !busy(run)}{#key `${run.id}${run.state}`}<FateList
              {run}
            />{/key}{/if}
      {:else}
        <p class="text-soft">
          Files that a spreadsheet opens: one row a tool, material or machine. Export one to see the columns;
          every column names its unit, and inches are read where the heading says [in].
        </p>
      {/if}
    </section>
  </div>
</div>
