<script lang="ts">
  import ArrowDown from "@lucide/svelte/icons/arrow-down";
  import ArrowUp from "@lucide/svelte/icons/arrow-up";
  import Pencil from "@lucide/svelte/icons/pencil";
  import Trash2 from "@lucide/svelte/icons/trash-2";
  import { push } from "svelte-spa-router";
  import { api, ask, askOnce, type Schemas } from "../api/client";
  import BaselinePanel from "../job/BaselinePanel.svelte";
  import BestSheet from "../job/BestSheet.svelte";
  import PartStudySheet from "../job/PartStudySheet.svelte";
  import DrawnList from "../job/DrawnList.svelte";
  import DrawnSheet from "../job/DrawnSheet.svelte";
  import { JobEditor } from "../job/editor.svelte";
  import FeatureSheet from "../job/FeatureSheet.svelte";
  import PartPanel from "../job/PartPanel.svelte";
  import ProgramSheet from "../job/ProgramSheet.svelte";
  import ShaftLineSheet from "../job/ShaftLineSheet.svelte";
  import StaleBar from "../job/StaleBar.svelte";
  import TheirsBar from "../job/TheirsBar.svelte";
  import WalkSheet from "../job/WalkSheet.svelte";
  import ToolTable from "../job/ToolTable.svelte";
  import { Watch } from "../job/watch.svelte";
  import Choice from "../lib/Choice.svelte";
  import ConflictSheet from "../lib/ConflictSheet.svelte";
  import { edgeOf, toolName } from "../lib/names";
  import { arrows, step } from "../lib/list";
  import Panel from "../lib/Panel.svelte";
  import Silhouette from "../lib/Silhouette.svelte";
  import { STANDING, TONES } from "../lib/standing";
  import Tape from "../lib/Tape.svelte";
  import FirstSteps from "../help/FirstSteps.svelte";
  import { guarded, listen } from "../keys";
  import { page } from "../page.svelte";
  import { session, shown } from "../session.svelte";

  let { params }: { params: { id: string } } = $props();
  const editor = $derived(new JobEditor(Number(params.id)));
  const watch = new Watch(
    () => editor,
    () => !!(sheet || asked || drawing), // a form is open: their version waits, and meets it when it is kept
  );
  let missing = $state("");
  let sheet = $state<"add" | "line" | "best" | "tried" | "program" | "walk" | null>(null);
  let asked = $state("");
  let drawing = $state("");
  let place = $state(0);
  let width = $state(700);
  let list: HTMLElement | undefined = $state();
  let shows = $state<"run order" | "tools">("run order");

  $effect(() => {
    page.open("Job", [{ label: "Jobs", href: "#/" }]);
    page.actions = [
      ...(session.mayEdit
        ? [
            { label: "add an operation", key: "a", run: () => (sheet = "add") },
            { label: "enter the part in one line", key: "l", run: () => (sheet = "line") },
            { label: "test the plan", key: "p", run: () => (sheet = "tried") },
          ]
        : []),
      { label: "best tools for all operations", key: "t", run: () => (sheet = "best") },
      { label: "set-up sheet", key: "o", run: () => window.open(sheetOf("page"), "_blank", "noopener") },
    ];
    page.setGoal = (goal) => void editor.save({ action: "set_part", operation: "", goal });
    editor
      .load()
      .then(() => (page.crumbs = [{ label: "Jobs", href: "#/" }, { label: editor.job!.document.name }]))
      .catch((reason: Error) => (missing = reason.message));
  });

  $effect(() =>
    listen(
      guarded({
        j: () => step(list, 1),
        k: () => step(list, -1),
        a: () => session.mayEdit && (sheet = "add"),
        l: () => session.mayEdit && (sheet = "line"),
        t: () => (sheet = "best"),
        p: () => session.mayEdit && (sheet = "tried"),
        o: () => window.open(sheetOf("page"), "_blank", "noopener"),
        b: () => void push("/"),
      }),
    ),
  );

  // what is over stands first, then what is close, then the first
  const governing = $derived.by(() => {
    const rows = editor.job?.state.operations ?? [];
    const found =
      rows.find((one) => one.status === "over") ?? rows.find((one) => one.status === "close") ?? rows[0];
    return found ?? { id: "", number: 0, title: "" };
  });

  /** The last of the first steps: the operation with the help beside it; then they have been gone. */
  function judge(operation: string) {
    void session.prefer({ first_steps: false });
    page.explain();
    void push(`/jobs/${params.id}/operations/${operation}`);
  }

  const sheetOf = (form: "page" | "pdf", paper = "a4") =>
    `/api/jobs/${params.id}/setup-sheet?form=${form}&paper=${paper}&units=${session.units}`;

  async function copy() {
    const made = await askOnce((once) =>
      api.POST("/api/jobs/{job_id}/copy", { ...once, params: { path: { job_id: Number(params.id) } } }),
    );
    await push(`/jobs/${made.id}`);
  }

  async function archive(archived: boolean) {
    await ask(
      api.POST("/api/jobs/{job_id}/archive", {
        params: { path: { job_id: Number(params.id) } },
        body: { archived },
      }),
    );
    if (archived) await push("/");
    else await editor.load();
  }

  const reason = (row: Schemas["OperationRow"]) => (row.problem ? shown(row.problem) : row.binding);
</script>

{#if missing}
  <p role="alert" class="text-signal p-6">{missing}</p>
{:else if editor.job}
  {@const job = editor.job}
  <div class="mx-auto flex h-full max-w-[1500px] flex-col p-2">
    {#if job.document.operations.length}<FirstSteps
        step={3}
        label="Open {governing.number} {governing.title}"
        go={() => judge(governing.id)}
      />{:else}<FirstSteps
        step={2}
        label="Enter the part in one line"
        key="l"
        go={() => (sheet = "line")}
      />{/if}
    <div class="job-bench grid min-h-[640px] flex-1 gap-2">
      <h1 class="sr-only">{job.document.name}</h1>
      <StaleBar {editor} />
      <div class="area-asked">
        <DrawnList
          drawing={job.state.drawing}
          noted={job.document.noted ?? []}
          leave={(word) =>
            void editor.keep({
              action: "set_noted",
              operation: "",
              noted: (job.document.noted ?? []).filter((one) => one !== word),
            })}
          open={(feature) => (asked = feature)}
          add={() => (sheet = "add")}
        />
      </div>
      <Panel title="{job.document.name} · {job.document.material}" class="area-drawing">
        {#snippet aside()}
          <span class="flex flex-wrap items-center gap-x-4"
            >{#if job.archived}<span class="text-warn"
                >in the archive <button class="plain-link" onclick={() => void archive(false)}>Restore</button
                ></span
              >{/if}
            <a class="plain-link" href="#/jobs/{job.id}/at-machine">Operator page</a>
            <span
              ><a class="plain-link" href={sheetOf("page")} target="_blank" rel="noopener"
                >set-up sheet <kbd>o</kbd></a
              >
              PDF <a class="plain-link" href={sheetOf("pdf", "a4")} target="_blank" rel="noopener">A4</a>
              <a class="plain-link" href={sheetOf("pdf", "letter")} target="_blank" rel="noopener">Letter</a
              ></span
            >
            {#if job.document.operations.length}<span
                ><button class="plain-link" onclick={() => (sheet = "walk")}>explained</button>
                <button class="plain-link ml-2" onclick={() => (sheet = "program")}>program</button></span
              >{/if}
            {#if session.mayEdit}<span
                ><button class="plain-link" onclick={() => void copy()}>copy the job</button>
                <a class="plain-link ml-2" href="/api/jobs/{job.id}/file" download>Export</a>
                {#if !job.archived}<button class="plain-link ml-2" onclick={() => void archive(true)}
                    >archive it</button
                  >{/if}</span
              >{/if}</span
          >
        {/snippet}
        <div class="min-h-0 flex-1" bind:clientWidth={width}>
          <Silhouette
            outline={job.state.outline}
            {width}
            height={258}
            labels
            lengths
            marked={job.state.operations[place]?.id}
          />
        </div>
      </Panel>
      <div class="area-side grid min-h-0 grid-rows-[auto_1fr] gap-2">
        <PartPanel {editor} />
        <BaselinePanel {editor} />
      </div>
      <Panel title={shows === "tools" ? "Tools of the part" : "Run order"} class="area-order">
        {#snippet aside()}
          <span class="flex items-center gap-4">
            <Choice
              label="What the list shows"
              options={["run order", "tools"]}
              value={shows}
              choose={(one) => (shows = one)}
              tone="sheet"
            />
            {#if job.document.operations.length}<button class="plain-link" onclick={() => (sheet = "best")}
                >best tools for all <kbd>t</kbd></button
              >
              {#if session.mayEdit}<button class="plain-link" onclick={() => (sheet = "tried")}
                  >test the plan <kbd>p</kbd></button
                >{/if}{/if}
            {#if session.mayEdit}
              <button class="plain-link" onclick={() => (sheet = "line")}>one-line entry <kbd>l</kbd></button>
              <button class="plain-link" onclick={() => (sheet = "add")}>add an operation <kbd>a</kbd></button
              >
            {/if}</span
          >
        {/snippet}
        <div class="overflow-auto">
          {#if shows === "tools"}<ToolTable {editor} />
          {:else}
            <table class="w-full">
              <thead class="text-soft text-left text-[13px]">
                <tr class="border-line border-b">
                  <th class="px-2.5 font-normal" scope="col">no.</th><th scope="col" class="font-normal"
                    >operation</th
                  >
                  <th scope="col" class="font-normal">tool</th><th scope="col" class="text-right font-normal"
                    >time</th
                  >
                  <th scope="col" class="pr-4 text-right font-normal">cost</th><th
                    scope="col"
                    class="font-normal">governing limit</th
                  >
                  <th scope="col" class="font-normal">state</th><th scope="col"
                    ><span class="sr-only">change</span></th
                  >
                </tr>
              </thead>
              <!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
              <tbody bind:this={list} onkeydown={arrows}>
                {#each job.state.operations as row, k (row.id)}
                  {@const entry = job.document.operations.find((one) => one.id === row.id)}
                  <tr class="border-line border-b {k === place ? 'bg-wash' : ''}">
                    <td class="figure px-2.5">{row.number}</td>
                    <td class="py-1.5"
                      ><a
                        class="plain-link font-semibold"
                        href="#/jobs/{job.id}/operations/{row.id}"
                        data-stop={k === place ? "current" : ""}
                        onfocus={() => (place = k)}>{editor.told(row.title)}</a
                      >{#if row.held || row.metal}<span class="text-soft ml-2"
                          >{[row.held, row.metal].filter(Boolean).join(", ")}</span
                        >{/if}</td
                    >
                    <td class="text-soft">{toolName(edgeOf(entry?.tool))}</td>
                    <td class="figure text-right">{shown(row.seconds_display)}</td>
                    <td class="figure pr-4 text-right">{shown(row.cost_display)}</td>
                    <td class="max-w-[230px]">{reason(row)}</td>
                    <td class="whitespace-nowrap {TONES[row.status]}">{STANDING[row.status]}</td>
                    <td class="pr-2 text-right whitespace-nowrap">
                      {#if session.mayEdit}
                        <button
                          class="p-1"
                          aria-label="Drawing of {row.title}"
                          onclick={() => (drawing = row.id)}><Pencil size={15} /></button
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
                          onclick={() =>
                            void editor.save({ action: "move_operation", operation: row.id, by: 1 })}
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
            <p class="text-soft px-2.5 py-2">
              {#if !job.state.operations.length}
                No operations yet. Type the whole part in one line, or add what the drawing requires one by
                one.
                {#if session.mayEdit}<button class="control ml-2" onclick={() => (sheet = "line")}
                    >Enter the part in one line</button
                  >{/if}
              {:else}{job.state.planned ? "" : "Not planned yet. "}{job.state.attention < 3
                  ? `${shown(job.state.why).replace(/\.$/, "")}.`
                  : "Every operation holds."}
                {#if job.state.sure && job.state.sure.enough}In the whole plan {job.state.sure
                    .words}.{/if}{/if}
            </p>
          {/if}
          {#each job.state.meetings as one (one.metric)}<p
              class="text-warn px-2.5 pb-1"
              data-testid="meeting"
            >
              ▲ {shown(one)}.
            </p>{/each}
          {#if editor.problem}<p role="alert" class="text-signal p-2.5">
              {editor.problem.message}
            </p>{/if}
        </div>
      </Panel>
      <div class="area-tape">
        <Tape state={job.state} open={(id) => void push(`/jobs/${job.id}/operations/${id}`)} />
      </div>
    </div>
  </div>
  {#if sheet === "add"}<FeatureSheet {editor} close={() => (sheet = null)} />
  {:else if sheet === "line"}<ShaftLineSheet {editor} close={() => (sheet = null)} />
  {:else if sheet === "best"}<BestSheet {editor} close={() => (sheet = null)} />
  {:else if sheet === "tried"}<PartStudySheet {editor} close={() => (sheet = null)} />
  {:else if sheet === "walk"}<WalkSheet
      job={job!.id}
      name={job!.document.name}
      state={job!.state}
      metal={job!.document.material}
      tools={Object.fromEntries(job!.document.operations.map((one) => [one.id, one.tool]))}
      close={() => (sheet = null)}
    />
  {:else if sheet === "program"}<ProgramSheet
      job={job!.id}
      name={job!.document.name}
      machine={job!.document.machine}
      close={() => (sheet = null)}
    />{/if}
  {#if asked}{#key asked}<DrawnSheet {editor} feature={asked} close={() => (asked = "")} />{/key}{/if}
  {#if drawing}
    <FeatureSheet
      {editor}
      entry={job.document.operations.find((one) => one.id === drawing)}
      close={() => (drawing = "")}
    />
  {/if}
  <ConflictSheet {editor} />
  <TheirsBar {watch} />
{:else}
  <p class="text-soft p-6">Evaluating the job …</p>
{/if}

<style>
  .job-bench {
    grid-template: "stale stale" auto "asked side" auto "drawing side" 290px "order side" 1fr "tape tape" auto / 1fr 330px;
  }
  .job-bench > :global(.area-drawing) {
    grid-area: drawing;
  }
  .job-bench > :global(.area-stale) {
    grid-area: stale;
  }
  .area-asked {
    grid-area: asked;
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
      flex: none;
      flex-direction: column;
      height: auto;
    }
  }
</style>
