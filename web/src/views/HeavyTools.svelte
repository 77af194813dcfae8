<script lang="ts">
  import { createQuery, useQueryClient } from "@tanstack/svelte-query";
  import { onDestroy } from "svelte";
  import { push } from "svelte-spa-router";
  import { api, ask, type Schemas } from "../api/client";
  import CribTabs from "../crib/CribTabs.svelte";
  import HeavyPicture from "../crib/HeavyPicture.svelte";
  import HeavyTable from "../crib/HeavyTable.svelte";
  import { HeavyBuild, type Section } from "../crib/heavy.svelte";
  import EntryField from "../lib/EntryField.svelte";
  import Panel from "../lib/Panel.svelte";
  import Rail from "../lib/Rail.svelte";
  import Scroll from "../lib/Scroll.svelte";
  import Sheet from "../lib/Sheet.svelte";
  import { capital } from "../lib/names";
  import WorkingSteps from "../lib/WorkingSteps.svelte";
  import { page } from "../page.svelte";
  import { session, shown } from "../session.svelte";

  let { params = {} }: { params?: { id?: string } } = $props();
  page.open("Heavy tools", [{ label: "Tools", href: "#/crib" }, { label: "Heavy tools" }]);
  const queries = useQueryClient();
  const list = createQuery(() => ({
    queryKey: ["heavy-tools"],
    queryFn: () => ask(api.GET("/api/crib/heavy-tools")),
  }));
  const choices = createQuery(() => ({
    queryKey: ["heavy-choices"],
    queryFn: () => ask(api.GET("/api/crib/heavy-tools/choices")),
  }));
  const machines = createQuery(() => ({
    queryKey: ["machines"],
    queryFn: () => ask(api.GET("/api/floor/machines")),
  }));
  const build = new HeavyBuild();
  const id = $derived(Number(params.id ?? list.data?.[0]?.id ?? 0));
  $effect(() => {
    if (id) void build.open(id).catch(() => push("/crib/heavy-tools"));
  });
  $effect(() => {
    page.saved = build.saved;
    page.undo = build.canUndo ? () => void build.undo() : null;
    page.redo = build.canRedo ? () => void build.redo() : null;
    if (build.saved.startsWith("saved")) void queries.invalidateQueries({ queryKey: ["heavy-tools"] });
  });
  onDestroy(() => (page.saved = ""));
  const sheet = $derived(build.answer);
  const sheetOf = (paper: "a4" | "letter") =>
    `/api/crib/heavy-tools/${id}/setup-sheet?paper=${paper}&units=${session.units}`;
  const SECTIONS: [Section, string][] = [
    ["tool", "Tool"],
    ["settings", "The pass"],
    ["feature", "Drawing requirements"],
    ["holding", "Each link may be off by"],
  ];
  let opened = $state<{ title: string; why: string; steps: Schemas["StepOut"][] } | null>(null);
  const options = (name: string) =>
    name === "holder"
      ? (choices.data?.holders ?? [])
      : name === "coolant"
        ? ["flood", "through", "dry"]
        : name === "through"
          ? ["true", "false"]
          : [];
  const spindles = $derived((machines.data ?? []).map((m) => m.name));

  let filePicker: HTMLInputElement | undefined = $state();
  let unread = $state("");

  async function takeIn(input: HTMLInputElement) {
    const file = input.files?.[0];
    input.value = "";
    unread = "";
    if (!file) return;
    try {
      const form = JSON.parse(await file.text()) as Record<string, unknown>;
      const made = await ask(api.POST("/api/crib/heavy-tools", { body: { form, units: "mm" } }));
      await queries.invalidateQueries({ queryKey: ["heavy-tools"] });
      await push(`/crib/heavy-tools/${made.id}`);
    } catch (reason) {
      unread = reason instanceof Error ? `${file.name}: ${reason.message}` : file.name;
    }
  }

  async function copy() {
    const made = await build.copy();
    await queries.invalidateQueries({ queryKey: ["heavy-tools"] });
    await push(`/crib/heavy-tools/${made}`);
  }
  async function archive() {
    await build.archive();
    await queries.invalidateQueries({ queryKey: ["heavy-tools"] });
    await push("/crib/heavy-tools");
  }
</script>

<div class="mx-auto flex h-full max-w-[1500px] flex-col gap-2 p-2">
  <h1 class="sr-only">Heavy tools</h1>
  <CribTabs />
  <div
    class="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_352px] grid-rows-[250px_minmax(0,1fr)] gap-2 max-lg:block max-lg:overflow-auto"
  >
    <Panel title={build.form ? `${build.form.tool.name} on its gripper` : "Heavy tools"} stale={build.stale}>
      {#snippet aside()}
        <select
          class="control !h-7 !min-h-7 text-[13px]"
          aria-label="Heavy tool"
          value={String(id)}
          onchange={(event) => void push(`/crib/heavy-tools/${event.currentTarget.value}`)}
        >
          {#each list.data ?? [] as row (row.id)}<option value={String(row.id)}
              >{row.name} · {shown(row.mass)} · {row.sound ? "carried" : "not carried"}</option
            >{/each}
        </select>
        <span class="text-soft ml-2">on paper</span>
        <a class="plain-link ml-1" href={sheetOf("a4")} target="_blank" rel="noopener">A4</a>
        <a class="plain-link ml-1" href={sheetOf("letter")} target="_blank" rel="noopener">Letter</a>
        <a class="plain-link ml-2" href="/api/crib/heavy-tools/{id}/form.json">JSON</a>
        {#if session.mayEdit}<button class="plain-link ml-2" onclick={() => filePicker?.click()}
            >Import</button
          >
          <input
            bind:this={filePicker}
            type="file"
            accept=".json,application/json"
            class="hidden"
            aria-label="A heavy tool as JSON"
            onchange={(event) => void takeIn(event.currentTarget)}
          />
          <button class="plain-link ml-2" onclick={() => void copy()}>copy it</button>
          <button class="plain-link ml-2" onclick={() => void archive()}>archive it</button>{/if}
      {/snippet}
      {#if sheet}<HeavyPicture {sheet} stale={build.stale} />{:else}<p class="text-soft px-2.5">
          {list.data && !list.data.length ? "No heavy tool is kept." : "Weighing …"}
        </p>{/if}
    </Panel>
    <Panel title="Limits{sheet?.limits[0] ? ` · ${sheet.limits[0].label} first` : ''}" stale={build.stale}>
      <Scroll counts="li" label="Limits" role="region">
        <ul class="px-2.5">
          {#each sheet?.limits ?? [] as limit, k (limit.name)}
            <li>
              <button
                class="block w-full py-[3px] text-left {k === 0
                  ? 'text-signal font-semibold'
                  : limit.wanting
                    ? 'text-warn'
                    : ''}"
                title="{limit.why} Click for the calculation."
                onclick={() =>
                  (opened = {
                    title: limit.label,
                    why: `${limit.why} Source: ${limit.source}.`,
                    steps: limit.working,
                  })}><Rail {limit} first={k === 0} /></button
              >
            </li>
          {/each}
        </ul>
      </Scroll>
    </Panel>
    <Panel title="Tool build-up" stale={build.stale}>
      <Scroll label="How the tool is built" role="region">
        {#if unread}<p role="alert" class="text-signal px-2.5">{unread}</p>{/if}
        {#if build.conflict}
          <p role="alert" class="text-signal px-2.5">
            {build.conflict.message}
            <button class="plain-link" onclick={() => void build.settle(true)}>keep mine</button>
            <button class="plain-link" onclick={() => void build.settle(false)}>take theirs</button>
          </p>
        {/if}
        {#if build.problem && !build.problem.errors.some((one) => one.field.includes("."))}
          <p role="alert" class="text-signal px-2.5">{build.problem.message}</p>
        {/if}
        {#if build.form && choices.data}
          <div class="grid gap-2 px-2.5 pb-3">
            <div class="grid grid-cols-[auto_1fr_auto_1fr] items-center gap-x-2 gap-y-1 text-[13px]">
              <label for="h-machine" class="text-soft">machine</label>
              <EntryField
                id="h-machine"
                field="machine"
                value={build.form.machine}
                options={spindles}
                problem={build.problem}
                disabled={!session.mayEdit}
                commit={(text) => build.name("machine", text)}
              />
              <label for="h-material" class="text-soft">part of</label>
              <EntryField
                id="h-material"
                field="material"
                value={build.form.material}
                problem={build.problem}
                disabled={!session.mayEdit}
                commit={(text) => build.name("material", text)}
              />
            </div>
            <h3 class="font-semibold">Solids, from the gripper outward</h3>
            <HeavyTable
              {build}
              where="segments"
              fields={choices.data.sections.segments ?? []}
              materials={choices.data.materials}
            />
            <h3 class="font-semibold">Steps</h3>
            <HeavyTable {build} where="steps" fields={choices.data.sections.steps ?? []} />
            {#each SECTIONS as [section, title] (section)}
              <h3 class="font-semibold">{title}</h3>
              <div class="grid grid-cols-[repeat(auto-fill,minmax(170px,1fr))] gap-x-3 gap-y-1 text-[13px]">
                {#each choices.data.sections[section] ?? [] as field (field.name)}
                  <label
                    ><span class="text-soft">{field.label}</span>
                    <EntryField
                      field="{section}.{field.name}"
                      value={String(build.form[section][field.name] ?? "")}
                      placeholder={field.example}
                      options={options(field.name)}
                      problem={build.problem}
                      disabled={!session.mayEdit}
                      commit={(text) => build.set(section, null, field.name, text)}
                    /></label
                  >
                {/each}
              </div>
            {/each}
          </div>
        {/if}
      </Scroll>
    </Panel>
    <Panel title="Assessment" stale={build.stale}>
      <Scroll label="What the tool is worth" role="region">
        {#if sheet}
          <div class="grid grid-cols-[minmax(0,1fr)] gap-3 px-2.5 pb-3 text-[13px]">
            {#each sheet.warnings as one (one.name)}
              <p
                class={one.severity === "blocks" ? "text-signal" : one.severity === "care" ? "" : "text-soft"}
              >
                {#if one.harm}<b>{capital(one.harm)}:</b>{/if}
                {one.text}
              </p>
            {/each}
            <section aria-label="Lighter, shorter, stiffer">
              <h3 class="font-semibold">Lighter, shorter, stiffer</h3>
              <table class="w-full">
                <thead class="text-soft text-left"
                  ><tr
                    ><th scope="col" class="font-normal">change</th><th scope="col" class="font-normal"
                      >mass</th
                    ><th scope="col" class="font-normal">moment</th><th scope="col" class="font-normal">f₁</th
                    ></tr
                  ></thead
                >
                <tbody>
                  {#each sheet.remedies as one (one.text)}
                    <tr class="border-line border-t align-top" data-testid="heavy-remedy">
                      <td
                        ><button
                          class="text-left hover:underline"
                          disabled={!session.mayEdit}
                          title="coaxiality {shown(one.coaxiality)}"
                          onclick={() => void build.take(one.patch)}>{one.text}</button
                        >{#if one.broken.length}<span class="text-warn block"
                            >still over: {one.broken.join(", ")}</span
                          >{:else}<span class="text-safe block">within every hard limit</span>{/if}</td
                      >
                      <td class="figure pl-1 whitespace-nowrap">{shown(one.mass)}</td>
                      <td class="figure px-1 whitespace-nowrap">{shown(one.moment)}</td>
                      <td class="figure pl-1 whitespace-nowrap">{one.frequency.metric}</td>
                    </tr>
                  {/each}
                </tbody>
              </table>
            </section>
            <section aria-label="Who carries it">
              <h3 class="font-semibold">Who carries it</h3>
              <ul>
                {#each sheet.carriers as one (one.machine)}
                  <li class="border-line border-t py-0.5">
                    <b>{one.machine}</b>
                    <span class={one.carries ? "text-safe" : "text-signal"}
                      >{one.carries ? "carries it" : "does not"}</span
                    >
                    {one.why.join("; ")}
                  </li>
                {/each}
              </ul>
            </section>
            <section aria-label="Coaxiality by chain">
              <h3 class="font-semibold">Coaxiality by chain</h3>
              <table class="w-full">
                <thead class="text-soft text-left"
                  ><tr
                    ><th scope="col" class="font-normal">method</th><th scope="col" class="font-normal"
                      >zone Ø</th
                    ><th scope="col" class="font-normal">extra time</th><th scope="col" class="font-normal"
                      >places</th
                    ></tr
                  ></thead
                >
                <tbody>
                  {#each sheet.chains as one (one.name)}
                    <tr class="border-line border-t {one.fits ? '' : 'text-signal'}"
                      ><td>{one.name}{one.fits ? "" : ": too wide"}</td><td class="figure"
                        >{shown(one.coaxiality)}</td
                      ><td class="figure">{shown(one.more)}</td><td class="figure">{one.places}</td></tr
                    >
                  {/each}
                </tbody>
              </table>
            </section>
            <section aria-label="Step by step">
              <h3 class="font-semibold">Step by step</h3>
              <ul>
                {#each sheet.steps as one (one.name + one.at)}
                  <li class="border-line border-t py-0.5">
                    <b>{one.name}</b>
                    {one.grade}: set to <b class="figure">{shown(one.labels.set_to)}</b>
                    <span class="text-soft"
                      >warmth {shown(one.labels.growth)}, form {shown(one.labels.cylindricity)}, torque {shown(
                        one.labels.torque,
                      )}, coolant {shown(one.labels.flow)}</span
                    >
                  </li>
                {/each}
              </ul>
            </section>
            <section aria-label="Results">
              <h3 class="font-semibold">Result</h3>
              <dl class="grid grid-cols-[1fr_auto] gap-x-3">
                {#each sheet.results as one (one.name)}
                  <dt class="text-soft">
                    <button
                      class="text-left hover:underline"
                      onclick={() => (opened = { title: one.label, why: "", steps: one.working })}
                      >{one.label}</button
                    >
                  </dt>
                  <dd class="figure text-right">
                    {shown(one.display)}{#if one.low && one.high}<span class="text-soft">
                        {shown(one.low)} – {shown(one.high)}</span
                      >{/if}
                  </dd>
                {/each}
              </dl>
            </section>
          </div>
        {/if}
      </Scroll>
    </Panel>
  </div>
</div>
{#if opened}
  <Sheet title="Working · {opened.title}" close={() => (opened = null)} wide>
    <p>{opened.why}</p>
    <WorkingSteps steps={opened.steps} />
  </Sheet>
{/if}
