<script lang="ts">
  import { createQuery } from "@tanstack/svelte-query";
  import { push } from "svelte-spa-router";
  import { api, ask, askOnce, Problem } from "../api/client";
  import { JobEditor } from "../job/editor.svelte";
  import TheirsBar from "../job/TheirsBar.svelte";
  import { Watch } from "../job/watch.svelte";
  import { Draft } from "../lib/draft.svelte";
  import Silhouette from "../lib/Silhouette.svelte";
  import { when } from "../lib/names";
  import { guarded, listen } from "../keys";
  import { OperationBench } from "../operation/bench.svelte";
  import { page } from "../page.svelte";
  import { session } from "../session.svelte";
  import StartTrial from "../trial/StartTrial.svelte";
  import MachineSize from "../job/MachineSize.svelte";

  let { params }: { params: { id: string; operation?: string } } = $props();
  const editor = $derived(new JobEditor(Number(params.id)));
  const watch = new Watch(
    () => editor,
    () => false,
  );
  const rows = $derived(editor.job?.document.operations ?? []);
  const at = $derived(
    Math.max(
      rows.findIndex((row) => row.id === params.operation),
      0,
    ),
  );
  const entry = $derived(rows[at]);
  const bench = $derived(new OperationBench(editor, entry?.id ?? ""));
  let missing = $state("");
  let asking = $state(false);
  let width = $state(760);

  $effect(() => {
    page.open("At the machine", [{ label: "Jobs", href: "#/" }]);
    editor
      .load()
      .then(() => {
        page.goal = null;
        page.undo = page.redo = null;
        page.crumbs = [
          { label: "Jobs", href: "#/" },
          { label: editor.job!.document.name, href: `#/jobs/${editor.id}` },
          { label: "Operator page" },
        ];
      })
      .catch((reason: Error) => (missing = reason.message));
  });

  const card = createQuery(() => ({
    queryKey: ["card", editor.id, entry?.id, editor.job?.revision, session.units],
    enabled: !!entry,
    queryFn: () =>
      ask(
        api.GET("/api/jobs/{job_id}/operations/{operation}/card", {
          params: { path: { job_id: editor.id, operation: entry!.id }, query: { units: session.units } },
        }),
      ),
  }));
  const notes = createQuery(() => ({
    queryKey: ["notes", editor.id],
    queryFn: () => ask(api.GET("/api/jobs/{job_id}/notes", { params: { path: { job_id: editor.id } } })),
  }));
  const here = $derived((notes.data ?? []).filter((one) => one.operation === entry?.id || !one.operation));

  function go(by: 1 | -1) {
    const next = rows[at + by];
    if (next) void push(`/jobs/${params.id}/at-machine/${next.id}`);
  }

  $effect(() =>
    listen(guarded({ "[": () => go(-1), "]": () => go(1), b: () => void push(`/jobs/${params.id}`) })),
  );

  // svelte-ignore state_referenced_locally
  const note = new Draft(`machine note ${params.id}`, () => ({ text: "" }));
  let refused = $state("");

  async function keep(event: SubmitEvent) {
    event.preventDefault();
    refused = "";
    try {
      const body = { operation: entry?.id ?? "", text: note.value.text };
      await askOnce((once) =>
        api.POST("/api/jobs/{job_id}/notes", { ...once, params: { path: { job_id: editor.id } }, body }),
      );
      note.done();
      await notes.refetch();
    } catch (reason) {
      if (!(reason instanceof Problem)) throw reason;
      refused = reason.message;
    }
  }
  const sheet = $derived(
    `/api/jobs/${params.id}/setup-sheet?operation=${entry?.id ?? ""}&form=page&units=${session.units}`,
  );
</script>

{#if missing}
  <p role="alert" class="text-signal p-6">{missing}</p>
{:else if editor.job && entry}
  {@const job = editor.job}
  <div class="at-machine mx-auto grid max-w-[1100px] gap-3 p-3 text-[17px]">
    <div class="flex items-stretch gap-3">
      <button class="control step" disabled={at === 0} onclick={() => go(-1)}
        >◂ <span class="max-sm:sr-only">previous</span></button
      >
      <div class="bg-sheet border-line min-w-0 flex-1 border px-3 py-2">
        <h1 class="text-[24px] leading-tight font-semibold">
          <span class="figure !text-[22px]">{entry.number}</span>
          {editor.told(entry.title)}
        </h1>
        <p class="text-soft">
          {job.document.name} · revision {job.revision} · operation {at + 1} of {rows.length} · place {card
            .data?.place ?? "–"}
        </p>
      </div>
      <button class="control step" disabled={at >= rows.length - 1} onclick={() => go(1)}
        ><span class="max-sm:sr-only">next</span> ▸</button
      >
    </div>
    {#if card.data}
      {#if card.data.problem}<p
          role="alert"
          class="bg-sheet border-signal text-signal border-2 p-3 font-semibold"
        >
          ■ {card.data.problem}
        </p>{/if}
      <section class="bg-sheet border-line border p-3" aria-label="Part" bind:clientWidth={width}>
        <Silhouette
          outline={job.state.outline}
          width={Math.max(width - 26, 200)}
          height={190}
          labels
          lengths
          marked={entry.id}
        />
      </section>
      <div class="grid gap-3 sm:grid-cols-2">
        {#each [["Tool", card.data.tool], ["Speeds", card.data.speeds]] as const as [title, lines] (title)}
          <section class="bg-sheet border-line border p-3" aria-label={title}>
            <h2 class="text-soft font-semibold">{title}</h2>
            <dl>
              {#each lines as line, k (k)}
                <div class="border-line flex justify-between gap-3 border-t py-1.5">
                  <dt class="text-soft">{line.label}</dt>
                  <dd class="figure !text-[17px] text-right font-semibold">{line.value}</dd>
                </div>
              {/each}
            </dl>
          </section>
        {/each}
      </div>
      {#if ["turn", "bore"].includes(entry.operation)}
        {#key entry.id}<MachineSize {bench} />{/key}
      {/if}
      <section class="bg-sheet border-line border p-3" aria-label="Checks and cautions">
        <h2 class="text-soft font-semibold">Before the cut</h2>
        <ul>
          {#each card.data.checks as line, k (k)}<li class="border-line border-t py-1.5">▸ {line}</li>{/each}
          {#each card.data.cautions as line, k (k)}<li class="border-line text-warn border-t py-1.5">
              ▲ {line}
            </li>{/each}
        </ul>
      </section>
      {#if card.data.table.rows.length}
        <section class="bg-sheet border-line overflow-x-auto border p-3" aria-label="Passes">
          <h2 class="text-soft font-semibold">{card.data.table.caption}</h2>
          <table class="w-full">
            <thead class="text-soft text-left"
              ><tr
                >{#each card.data.table.head as head, k (k)}<th scope="col" class="font-normal">{head}</th
                  >{/each}</tr
              ></thead
            >
            <tbody>
              {#each card.data.table.rows as row, k (k)}<tr class="border-line border-t"
                  >{#each row as cell, j (j)}<td class="figure py-1.5 !text-[16px]">{cell}</td>{/each}</tr
                >{/each}
            </tbody>
          </table>
        </section>
      {/if}
    {:else if card.isError}<p role="alert" class="text-signal">{card.error.message}</p>
    {:else}<p class="text-soft">Opening the card …</p>{/if}
    <section class="bg-sheet border-line border p-3" aria-label="Notes">
      <h2 class="text-soft font-semibold">Notes</h2>
      <fieldset class="contents" disabled={!session.mayNote}>
        <form class="mt-1 grid gap-2" onsubmit={keep}>
          <textarea
            class="control w-full !text-[17px]"
            rows="2"
            aria-label="Note"
            placeholder="chips, sound, marks, what was changed"
            required
            bind:value={note.value.text}></textarea>
          <button class="control justify-self-start font-semibold">Save note</button>
        </form>
      </fieldset>
      {#if refused}<p role="alert" class="text-signal">{refused}</p>{/if}
      <ul>
        {#each here as one (one.id)}<li class="border-line border-t py-1.5">
            {one.text} <span class="text-soft">· {one.author}, {when(one.at)}</span>
          </li>{:else}<li class="text-soft py-1.5">No notes yet.</li>{/each}
      </ul>
    </section>
    <p class="flex flex-wrap gap-3">
      <button class="control step" onclick={() => (asking = true)}>trials of this operation</button>
      <a class="control step" href={sheet} target="_blank" rel="noopener">set-up sheet on paper</a>
      {#each job.prints as print (print.id)}<a
          class="control step"
          href="/api/jobs/{job.id}/prints/{print.id}">{print.name}</a
        >{/each}
    </p>
    <p class="text-soft">The machine's manual, local rules and trained people come first.</p>
  </div>
  <TheirsBar {watch} />
  {#if asking}<StartTrial
      job={editor.id}
      operation={entry.id}
      heading={editor.told(entry.title)}
      close={() => (asking = false)}
    />{/if}
{:else if editor.job}
  <p class="p-6">The job has no operations yet.</p>
{:else}
  <p class="text-soft p-6">Opening the job …</p>
{/if}

<style>
  .at-machine :global(.control) {
    min-height: 48px;
    padding-inline: 14px;
  }
  .at-machine :global(button),
  .at-machine :global(a) {
    min-height: 44px;
  }
  .step {
    display: inline-flex;
    align-items: center;
    gap: 8px;
  }
</style>
