<script lang="ts">
  import ArrowDown from "@lucide/svelte/icons/arrow-down";
  import ArrowUp from "@lucide/svelte/icons/arrow-up";
  import Pencil from "@lucide/svelte/icons/pencil";
  import Trash2 from "@lucide/svelte/icons/trash-2";
  import { push } from "svelte-spa-router";
  import FeatureSheet from "../job/FeatureSheet.svelte";
  import BaselinePanel from "../job/BaselinePanel.svelte";
  import { JobEditor } from "../job/editor.svelte";
  import PartPanel from "../job/PartPanel.svelte";
  import StaleBar from "../job/StaleBar.svelte";
  import ConflictSheet from "../lib/ConflictSheet.svelte";
  import Panel from "../lib/Panel.svelte";
  import Silhouette from "../lib/Silhouette.svelte";
  import Tape from "../lib/Tape.svelte";
  import { guarded, listen } from "../keys";
  import { page } from "../page.svelte";
  import { session, shown } from "../session.svelte";

  let { params }: { params: { id: string } } = $props();
  const editor = $derived(new JobEditor(Number(params.id)));
  let missing = $state("");
  let adding = $state(false);
  let drawing = $state("");
  let place = $state(0);
  let width = $state(700);

  $effect(() => {
    page.open("Job", [{ label: "Jobs", href: "#/" }]);
    page.setGoal = (goal) => void editor.save({ action: "set_part", operation: "", goal });
    editor
      .load()
      .then(() => page.crumbs.push({ label: editor.job!.document.name }))
      .catch((reason: Error) => (missing = reason.message));
  });

  $effect(() => {
    const rows = editor.job?.state.operations ?? [];
    return listen(
      guarded({
        j: () => (place = Math.min(place + 1, rows.length - 1)),
        k: () => (place = Math.max(place - 1, 0)),
        Enter: () => rows[place] && void push(`/jobs/${params.id}/operations/${rows[place]!.id}`),
        b: () => void push("/"),
      }),
    );
  });

  const words = { ok: "✓ within limits", care: "▲ with care", broken: "■ over a limit" };
</script>

{#if missing}
  <p role="alert" class="text-signal p-6">{missing}</p>
{:else if editor.job}
  {@const job = editor.job}
  <div class="job-bench mx-auto grid h-full min-h-[640px] max-w-[1500px] gap-2 p-2">
    <h1 class="sr-only">{job.document.name}</h1>
    <StaleBar {editor} />
    <Panel title="{job.document.name} · {job.document.material}" class="area-drawing">
      {#snippet aside()}half section, removed by the selected operation in the signal colour{/snippet}
      <div class="min-h-0 flex-1" bind:clientWidth={width}>
        <Silhouette
          outline={job.state.outline}
          {width}
          height={250}
          labels
          marked={job.state.operations[place]?.id}
        />
      </div>
    </Panel>
    <div class="area-side grid min-h-0 grid-rows-[auto_1fr] gap-2">
      <PartPanel {editor} />
      <BaselinePanel {editor} />
    </div>
    <Panel title="Run order" class="area-order">
      {#snippet aside()}
        {#if session.mayEdit}<button class="plain-link" onclick={() => (adding = true)}
            >add an operation</button
          >{/if}
      {/snippet}
      <div class="overflow-auto">
        <table class="w-full">
          <thead class="text-soft text-left text-[13px]">
            <tr class="border-line border-b">
              <th class="px-2.5 font-normal" scope="col">no.</th><th scope="col" class="font-normal"
                >operation</th
              >
              <th scope="col" class="font-normal">tool</th><th scope="col" class="text-right font-normal"
                >time</th
              >
              <th scope="col" class="pr-4 text-right font-normal">cost</th><th scope="col" class="font-normal"
                >held by</th
              >
              <th scope="col" class="font-normal">state</th><th scope="col"
                ><span class="sr-only">change</span></th
              >
            </tr>
          </thead>
          <tbody>
            {#each job.state.operations as row, k (row.id)}
              {@const entry = job.document.operations.find((one) => one.id === row.id)}
              <tr class="border-line border-b {k === place ? 'bg-wash' : ''}">
                <td class="figure px-2.5">{row.number}</td>
                <td class="py-1.5"
                  ><a
                    class="plain-link font-semibold"
                    href="#/jobs/{job.id}/operations/{row.id}"
                    onfocus={() => (place = k)}>{row.title}</a
                  ></td
                >
                <td class="text-soft truncate">{entry?.tool.insert}</td>
                <td class="figure text-right">{shown(row.seconds_display)}</td>
                <td class="figure pr-4 text-right">{shown(row.cost_display)}</td>
                <td class="max-w-[230px] truncate" title={row.problem ?? row.binding}
                  >{row.problem ?? row.binding}</td
                >
                <td
                  class={row.status === "ok"
                    ? "text-safe"
                    : row.status === "care"
                      ? "text-warn"
                      : "text-signal font-semibold"}>{words[row.status]}</td
                >
                <td class="pr-2 text-right whitespace-nowrap">
                  {#if session.mayEdit}
                    <button class="p-1" aria-label="Drawing of {row.title}" onclick={() => (drawing = row.id)}
                      ><Pencil size={15} /></button
                    >
                    <button
                      class="p-1"
                      aria-label="Move {row.title} earlier"
                      disabled={k === 0}
                      onclick={() =>
                        void editor.save({ action: "move_operation", operation: row.id, by: -1 })}
                      ><ArrowUp size={15} /></button
                    >
                    <button
                      class="p-1"
                      aria-label="Move {row.title} later"
                      disabled={k === job.state.operations.length - 1}
                      onclick={() => void editor.save({ action: "move_operation", operation: row.id, by: 1 })}
                      ><ArrowDown size={15} /></button
                    >
                    <button
                      class="p-1"
                      aria-label="Remove {row.title}"
                      onclick={() => void editor.save({ action: "remove_operation", operation: row.id })}
                      ><Trash2 size={15} /></button
                    >
                  {/if}
                </td>
              </tr>
            {/each}
          </tbody>
        </table>
        {#if editor.problem && !adding && !drawing}<p role="alert" class="text-signal p-2.5">
            {editor.problem.message}
          </p>{/if}
        <p class="text-soft px-2.5 py-2">
          {job.state.attention < 3 ? job.state.why : "Every operation is within its limits."}
        </p>
      </div>
    </Panel>
    <div class="area-tape">
      <Tape state={job.state} open={(id) => void push(`/jobs/${job.id}/operations/${id}`)} />
    </div>
  </div>
  {#if adding}<FeatureSheet {editor} close={() => (adding = false)} />{/if}
  {#if drawing}
    <FeatureSheet
      {editor}
      entry={job.document.operations.find((one) => one.id === drawing)}
      close={() => (drawing = "")}
    />
  {/if}
  <ConflictSheet {editor} />
{:else}
  <p class="text-soft p-6">Evaluating the job …</p>
{/if}

<style>
  .job-bench {
    grid-template: "stale stale" auto "drawing side" 290px "order side" 1fr "tape tape" auto / 1fr 330px;
  }
  .job-bench > :global(.area-drawing) {
    grid-area: drawing;
  }
  .job-bench > :global(.area-stale) {
    grid-area: stale;
  }
  .area-side {
    grid-area: side;
  }
  .job-bench > :global(.area-order) {
    grid-area: order;
  }
  .area-tape {
    grid-area: tape;
  }
  @media (max-width: 1000px) {
    .job-bench {
      display: flex;
      flex-direction: column;
      height: auto;
    }
  }
</style>
