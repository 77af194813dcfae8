<script lang="ts">
  import { onDestroy, untrack } from "svelte";
  import { push } from "svelte-spa-router";
  import type { Schemas } from "../api/client";
  import { JobEditor } from "../job/editor.svelte";
  import TheirsBar from "../job/TheirsBar.svelte";
  import { Watch } from "../job/watch.svelte";
  import { guarded, listen } from "../keys";
  import ConflictSheet from "../lib/ConflictSheet.svelte";
  import { step as walk } from "../lib/list";
  import Divider from "../lib/Divider.svelte";
  import Panel from "../lib/Panel.svelte";
  import { Panes } from "../lib/panes.svelte";
  import RunOrder from "../lib/RunOrder.svelte";
  import Scroll from "../lib/Scroll.svelte";
  import Silhouette from "../lib/Silhouette.svelte";
  import Tape from "../lib/Tape.svelte";
  import { OperationBench } from "../operation/bench.svelte";
  import FeatureSheet from "../job/FeatureSheet.svelte";
  import LogSheet from "../operation/LogSheet.svelte";
  import StartTrial from "../trial/StartTrial.svelte";
  import ClinicSheet from "../clinic/ClinicSheet.svelte";
  import Candidates from "../operation/Candidates.svelte";
  import CautionsSheet from "../operation/CautionsSheet.svelte";
  import CompareSheet from "../operation/CompareSheet.svelte";
  import OthersSheet from "../operation/OthersSheet.svelte";
  import Rails from "../operation/Rails.svelte";
  import Results from "../operation/Results.svelte";
  import { partsOf } from "../operation/kinds/registry";
  import Settings from "../operation/Settings.svelte";
  import Stiffness from "../operation/kinds/turned/Stiffness.svelte";
  import WorkingSheet from "../operation/WorkingSheet.svelte";
  import Sheet from "../lib/Sheet.svelte";
  import Studies from "../study/Studies.svelte";
  import { page } from "../page.svelte";
  import { session } from "../session.svelte";

  let { params }: { params: { id: string; operation: string } } = $props();
  const editor = $derived(new JobEditor(Number(params.id)));
  const bench = $derived(new OperationBench(editor, params.operation));
  const panes = new Panes("bench", {
    scene: { least: 120, usual: 164, most: 480 },
    ranking: { least: 120, usual: 216, most: 520 },
    part: { least: 180, usual: 236, most: 480 },
    map: { least: 200, usual: 312, most: 620 },
    limits: { least: 240, usual: 316, most: 560 },
  });
  let missing = $state("");
  let sheet = $state<
    "compare" | "others" | "log" | "trials" | "clinic" | "drawing" | "cautions" | "not here" | null
  >(null);
  let study = $state<string | null>(null);
  let limit = $state<Schemas["LimitOut"] | null>(null);
  /** The limit from which the clinic was opened. */
  let asked = $state("");
  /** The change with which the clinic began a trial. */
  let changing = $state("");
  let value = $state<Schemas["ValueOut"] | null>(null);
  const shownState = $derived(bench.follow?.state ?? editor.job?.state);

  let list: HTMLElement | undefined = $state();
  const watch = new Watch(
    () => editor,
    () => Object.keys(bench.tried).length > 0 || bench.stale || bench.typing,
  );

  const kind = $derived(bench.evaluation?.view.kind ?? "");
  const parts = $derived(partsOf(kind));
  const notHere = $derived(bench.evaluation?.not_here ?? []);
  const studies = $derived(bench.evaluation?.studies ?? []);

  $effect(() => {
    const current = editor;
    page.open("Operation", [{ label: "Jobs", href: "#/" }]);
    page.setGoal = (goal) => void current.save({ action: "set_part", operation: "", goal });
    current.load().catch((reason: Error) => (missing = reason.message));
  });

  $effect(() => {
    page.kind = bench.evaluation?.operation ?? "";
  });

  // a new revision, another operation or other units: everything anew
  $effect(() => {
    const job = editor.job;
    void session.units;
    const current = bench;
    if (!job) return;
    editor.onDrop = () => current.forget();
    untrack(() => {
      if (!current.entry) {
        missing = "The job has no such operation.";
        return;
      }
      page.crumbs = [
        { label: "Jobs", href: "#/" },
        { label: job.document.name, href: `#/jobs/${job.id}` },
        { label: `${current.entry.number} ${current.editor.told(current.entry.title)}` },
      ];
      void current.repaint();
    });
  });

  // a sheet belongs to the operation that it was opened on
  $effect(() => {
    void params.operation;
    study = null;
    sheet = null;
  });

  function step(by: 1 | -1) {
    const rows = editor.job?.document.operations ?? [];
    const next = rows[rows.findIndex((row) => row.id === params.operation) + by];
    if (next) void push(`/jobs/${params.id}/operations/${next.id}`);
  }

  function trouble(of = "") {
    asked = of;
    limit = null;
    sheet = "clinic";
  }

  function offer(k: number) {
    const binding = bench.limits[0];
    const held = !!binding?.wanting;
    const remedy = (held ? bench.remediesOf(binding.name) : (bench.follow?.faster ?? []))[k];
    if (remedy) void bench.apply(remedy);
  }

  const sheetOf = (form: "page" | "pdf", paper = "a4") =>
    `/api/jobs/${params.id}/setup-sheet?operation=${params.operation}&form=${form}&paper=${paper}&units=${session.units}`;
  const rows = () => bench.follow?.advice.candidates ?? [];
  const focus = (id: string) => document.getElementById(id)?.focus();

  $effect(() =>
    listen(
      guarded({
        s: () => focus("cutting_speed"),
        f: () => focus(bench.evaluation?.settings[1]?.name ?? ""),
        d: () => focus(bench.evaluation?.settings[2]?.name ?? ""),
        m: () => focus("operation-map"),
        ",": () => bench.scrub.step(-1),
        ".": () => bench.scrub.step(1),
        j: () => walk(list, 1),
        k: () => walk(list, -1),
        v: () => (sheet = "cautions"),
        y: () => (sheet = "others"),
        p: () => {
          const row = rows()[bench.candidate];
          if (row) bench.pin(row);
        },
        w: () => (limit = bench.limits[0] ?? null),
        b: () => void push(`/jobs/${params.id}`),
        n: () => (sheet = "log"),
        a: () => trouble(),
        e: () => session.mayEdit && (sheet = "drawing"),
        "1": () => offer(0),
        "2": () => offer(1),
        "3": () => offer(2),
        ...Object.fromEntries(
          [...notHere, ...studies].map((one) => [
            one.key,
            () => {
              if (studies.includes(one)) study = one.name;
              else sheet = "not here";
            },
          ]),
        ),
        o: () => window.open(sheetOf("page"), "_blank", "noopener"),
        "[": () => step(-1),
        "]": () => step(1),
      }),
    ),
  );
  $effect(() =>
    listen({
      Space: (event) => {
        const target = event.target as HTMLElement;
        if (target.closest("button, a, input, select, textarea, [role=dialog]") || !bench.scrub.total) return;
        event.preventDefault();
        bench.scrub.toggle();
      },
    }),
  );
  onDestroy(() => void bench.save());
</script>

{#if missing}
  <p role="alert" class="text-signal p-6">{missing}</p>
{:else if editor.job && shownState}
  {@const job = editor.job}
  <div
    class="bench mx-auto max-w-[1700px] gap-2 p-2"
    style:--pane-scene={panes.css("scene", "clamp(164px, 20.5vh, 300px)")}
    style:--pane-ranking={panes.css("ranking", "clamp(216px, 27vh, 420px)")}
    style:--pane-part={panes.css("part", "236px")}
    style:--pane-limits={panes.css("limits", "316px")}
    style:--pane-map={panes.css("map", "0.83fr")}
    class:no-part={panes.folded("part")}
    class:no-limits={panes.folded("limits")}
    class:no-map={panes.folded("map")}
  >
    <h1 class="sr-only">{bench.editor.told(bench.entry?.title ?? "")}</h1>
    <Panel title="{job.document.name} · {job.document.material}" class="area-part">
      <Silhouette outline={shownState.outline} width={232} height={126} labels marked={params.operation} />
      <Scroll counts="li">
        <RunOrder
          rows={shownState.operations}
          job={job.id}
          told={(text) => editor.told(text)}
          selected={params.operation}
        />
      </Scroll>
      <div class="flex flex-wrap gap-1 px-2.5 pb-1.5" role="group" aria-label="Studies of this operation">
        {#each studies as { name, title, key } (name)}
          <button class="at-hand" onclick={() => (study = name)}>{title} <kbd>{key}</kbd></button>
        {/each}
        <button class="at-hand" onclick={() => trouble()}>trouble <kbd>a</kbd></button>
        {#if notHere.length}<button
            class="plain-link w-full text-left text-[13px]"
            onclick={() => (sheet = "not here")}>{notHere.length} sheets that do not apply, and why</button
          >{/if}
        <span class="flex w-full items-center justify-between"
          ><a class="plain-link" href={sheetOf("page")} target="_blank" rel="noopener"
            >set-up sheet <kbd>o</kbd></a
          >
          <span
            >PDF <a class="plain-link" href={sheetOf("pdf", "a4")} target="_blank" rel="noopener">A4</a>
            <a class="plain-link" href={sheetOf("pdf", "letter")} target="_blank" rel="noopener">Letter</a
            ></span
          ></span
        >
      </div>
      <div class="flex flex-wrap gap-1 px-2.5 pb-1.5">
        <button class="at-hand" onclick={() => (sheet = "log")}>notes <kbd>n</kbd></button>
        <button
          class="at-hand"
          onclick={() => {
            changing = "";
            sheet = "trials";
          }}>trials</button
        >
        {#if session.mayEdit}<button class="at-hand" onclick={() => (sheet = "drawing")}
            >drawing <kbd>e</kbd></button
          >{/if}
      </div>
      {#if parts?.Foot}<parts.Foot {bench} />
      {:else}<Stiffness rows={shownState.operations} selected={params.operation} />{/if}
    </Panel>
    {#if parts}
      <parts.Scene {bench} />
      <parts.Map {bench} />
    {/if}
    <Settings {bench} warn={() => (sheet = "cautions")} />
    <Candidates {bench} bind:list compare={() => (sheet = "compare")} why={() => (sheet = "others")} />
    <Rails {bench} open={(one) => (limit = one)} />
    <Results {bench} open={(one) => (value = one)} />
    <div class="area-tape">
      <Tape
        state={shownState}
        selected={params.operation}
        stale={bench.following}
        open={(id) => void push(`/jobs/${job.id}/operations/${id}`)}
      />
    </div>
    <Divider {panes} name="scene" label="height of the scene" side="bottom" area="scene" of=".area-scene" />
    <Divider
      {panes}
      name="ranking"
      label="height of the ranking"
      side="top"
      area="candidates"
      of=".area-candidates"
    />
    <Divider {panes} name="part" label="width of the part" side="right" area="part" of=".area-part" />
    <Divider {panes} name="map" label="width of the map" side="right" area="map" of=".area-map" />
    <Divider
      {panes}
      name="limits"
      label="width of the limits"
      side="left"
      area="1 / 4 / 4 / 5"
      of=".area-rails"
    />
    {#if editor.problem}
      <p
        role="alert"
        class="bg-sheet border-signal text-signal fixed bottom-20 left-1/2 -translate-x-1/2 border px-4 py-2 font-semibold"
      >
        Not saved. {editor.problem.message}
      </p>
    {/if}
  </div>
  {#if limit}<WorkingSheet
      {bench}
      title={limit.label}
      {limit}
      trouble={() => trouble(limit?.name)}
      close={() => (limit = null)}
    />{/if}
  {#if value}<WorkingSheet {bench} title={value.label} {value} close={() => (value = null)} />{/if}
  <Studies {bench} open={study} close={() => (study = null)} />
  {#if sheet === "compare"}<CompareSheet {bench} close={() => (sheet = null)} />{/if}
  {#if sheet === "not here"}
    <Sheet title="Sheets that do not apply here" close={() => (sheet = null)}>
      <dl data-testid="not-here">
        {#each notHere as one (one.name)}
          <dt class="mt-2 font-semibold">{one.title}</dt>
          <dd>{one.why}</dd>
        {/each}
      </dl>
    </Sheet>
  {/if}
  {#if sheet === "cautions"}<CautionsSheet {bench} close={() => (sheet = null)} />{/if}
  {#if sheet === "others"}<OthersSheet {bench} close={() => (sheet = null)} />{/if}
  {#if sheet === "trials"}<StartTrial
      change={changing}
      job={editor.id}
      operation={params.operation}
      heading={bench.heading}
      fields={(bench.evaluation?.settings ?? []).map(({ name, label }) => ({ name, label }))}
      tools={rows()
        .slice(0, 12)
        .map((one) => ({ label: Object.values(one.tool).join(" + "), tool: one.tool }))}
      close={() => (sheet = null)}
    />{/if}
  {#if sheet === "clinic"}<ClinicSheet
      {bench}
      limit={asked}
      trial={(change) => {
        changing = change;
        sheet = "trials";
      }}
      close={() => (sheet = null)}
    />{/if}
  {#if sheet === "log"}<LogSheet {bench} close={() => (sheet = null)} />{/if}
  {#if sheet === "drawing"}<FeatureSheet {editor} entry={bench.entry} close={() => (sheet = null)} />{/if}
  <ConflictSheet {editor} />
  <TheirsBar {watch} />
{:else}
  <p class="text-soft p-6">Opening the bench …</p>
{/if}

<style>
  .bench {
    display: grid;
    height: 100%;
    min-height: 690px;
    grid-template:
      "part scene scene rails" var(--pane-scene)
      "part map settings rails" minmax(200px, 1fr)
      "part candidates candidates results" var(--pane-ranking)
      "tape tape tape tape" 74px / var(--pane-part) minmax(0, var(--pane-map)) minmax(0, 1fr) var(
        --pane-limits
      );
  }
  /* as wide as its word, so that two or three stand in a row of the left column */
  .at-hand {
    display: flex;
    flex: auto;
    align-items: center;
    justify-content: space-between;
    gap: 0.375rem;
    min-height: 1.5rem;
    padding-inline: 0.375rem;
    border: 1px solid var(--edge);
    white-space: nowrap;
  }
  .bench > :global(.area-part) {
    grid-area: part;
  }
  .bench > :global(.area-scene) {
    grid-area: scene;
  }
  .bench > :global(.area-map) {
    grid-area: map;
  }
  .bench > :global(.area-settings) {
    grid-area: settings;
  }
  .bench > :global(.area-candidates) {
    grid-area: candidates;
  }
  .bench > :global(.area-rails) {
    grid-area: rails;
  }
  .bench > :global(.area-results) {
    grid-area: results;
  }
  .area-tape {
    grid-area: tape;
  }
  /* a pane that is folded away leaves its edge, which brings it back */
  @media (min-width: 1151px) {
    .no-part > :global(.area-part > *),
    .no-map > :global(.area-map > *),
    .no-limits > :global(.area-rails > *),
    .no-limits > :global(.area-results > *) {
      visibility: hidden;
    }
    .no-part > :global(.area-part)::before,
    .no-map > :global(.area-map)::before,
    .no-limits > :global(.area-rails)::before,
    .no-limits > :global(.area-results)::before {
      content: attr(aria-label);
      position: absolute;
      margin: 10px 5px;
      max-height: 240px;
      overflow: hidden;
      font-size: 13px;
      writing-mode: vertical-rl;
      white-space: nowrap;
      color: var(--soft);
    }
  }
  @media (max-width: 1150px) {
    .bench {
      height: auto;
      grid-template:
        "scene scene" 220px
        "settings rails" 420px
        "map results" 300px
        "candidates candidates" 240px
        "part part" auto
        "tape tape" 80px / 1fr 1fr;
    }
  }
  @media (max-width: 700px) {
    .bench {
      grid-template:
        "scene" 200px
        "settings" 400px
        "rails" 460px
        "map" 300px
        "results" auto
        "candidates" 260px
        "part" auto
        "tape" 90px / minmax(0, 1fr);
    }
  }
</style>
