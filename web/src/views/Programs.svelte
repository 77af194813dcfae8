<script lang="ts">
  import { createQuery } from "@tanstack/svelte-query";
  import { api, ask, Problem } from "../api/client";
  import { Draft } from "../lib/draft.svelte";
  import FormField from "../lib/FormField.svelte";
  import { page } from "../page.svelte";
  import DialectSheet from "../program/DialectSheet.svelte";
  import ProgramView from "../program/ProgramView.svelte";
  import ProveOut from "../program/ProveOut.svelte";
  import { session } from "../session.svelte";

  /** A program from anywhere, read and checked without a job. */
  const machines = createQuery(() => ({
    queryKey: ["machines", false, session.units],
    queryFn: () =>
      ask(api.GET("/api/floor/machines", { params: { query: { archived: false, units: session.units } } })),
  }));
  const dialects = createQuery(() => ({
    queryKey: ["dialects"],
    queryFn: () => ask(api.GET("/api/programs/dialects")),
  }));
  const draft = new Draft("pasted program", () => ({
    text: "",
    dialect: "lathe",
    machine: "",
    diameter: "",
    length: "",
    bore: "",
    edge: "",
    zero: "face",
  }));
  let problem = $state<Problem | null>(null);
  $effect(() => page.open("Programs", [{ label: "Programs" }]));
  const turns = $derived(dialects.data?.find((one) => one.name === draft.value.dialect)?.turns ?? true);
  const fitting = $derived((machines.data ?? []).filter((one) => one.turns === turns).map((one) => one.name));
  const machine = $derived(fitting.includes(draft.value.machine) ? draft.value.machine : (fitting[0] ?? ""));

  async function read(text: string) {
    const { diameter, length, bore, edge, zero, dialect } = draft.value;
    try {
      const answer = await ask(
        api.POST("/api/programs/check", {
          body: {
            text,
            dialect,
            machine,
            diameter: turns ? diameter || null : null,
            length: turns ? length || null : null,
            bore: turns ? bore || null : null,
            edge: turns ? edge || null : null,
            zero: zero as "face" | "jaws",
            units: session.units,
          },
        }),
      );
      problem = null;
      return answer;
    } catch (reason) {
      if (reason instanceof Problem) problem = reason;
      throw reason;
    }
  }
  const spoken = $derived(dialects.data?.find((one) => one.name === draft.value.dialect));
  let sheet = $state<{ from: Record<string, unknown>; own: boolean } | null>(null);
  let refused = $state("");
  async function takeIn(event: Event & { currentTarget: HTMLInputElement }) {
    const file = event.currentTarget.files?.[0];
    event.currentTarget.value = "";
    if (!file) return;
    refused = "";
    try {
      const kept = await ask(
        api.PUT("/api/programs/dialects", {
          body: { data: JSON.parse(await file.text()) as Record<string, unknown> },
        }),
      );
      await dialects.refetch();
      draft.value.dialect = kept.name;
    } catch (reason) {
      if (reason instanceof Problem)
        refused = reason.errors.map((one) => `${one.field}: ${one.message}`).join(" ");
      else if (reason instanceof SyntaxError) refused = "The file is no JSON.";
      else throw reason;
    }
  }
  async function open(event: Event & { currentTarget: HTMLInputElement }) {
    const file = event.currentTarget.files?.[0];
    if (file) draft.value.text = (await file.text()).slice(0, 2_400_000);
  }
  const SIZES = [
    ["diameter", "blank Ø", "50"],
    ["length", "stick-out from jaws", "80"],
    ["bore", "bore", "0"],
    ["edge", "width of a blade", "0"],
  ] as const;
  const told = $derived(
    JSON.stringify([
      machine,
      ...SIZES.map(([name]) => draft.value[name]),
      draft.value.zero,
      draft.value.dialect,
    ]),
  );
</script>

<div class="p-3">
  <section class="bg-sheet border-edge border p-3">
    <h1 class="text-lg font-semibold">Check a program</h1>
    <p class="text-soft">
      Paste or open a program: every line is read, what it does is drawn, what is wrong stands on its line.
      With the blank told, rapid moves into the metal and into the jaws are found too.
    </p>
    <div class="mt-2 flex flex-wrap items-end gap-3">
      <label class="flex flex-col"
        ><span class="text-soft text-[13px]">control</span>
        <select class="control" bind:value={draft.value.dialect}>
          {#each dialects.data ?? [] as one (one.name)}<option value={one.name}>{one.title}</option>{/each}
        </select></label
      >
      {#if spoken}<button
          class="plain-link"
          onclick={() => (sheet = { from: spoken!.data, own: spoken!.own })}
          >{spoken.own ? "change it" : "make one like it"}</button
        >{/if}
      <label class="plain-link cursor-pointer"
        >import one<input type="file" accept=".json" class="sr-only" onchange={takeIn} /></label
      >
      <label class="flex flex-col"
        ><span class="text-soft text-[13px]">machine</span>
        <select
          class="control"
          value={machine}
          onchange={(event) => (draft.value.machine = event.currentTarget.value)}
        >
          {#each fitting as one (one)}<option>{one}</option>{/each}
        </select></label
      >
      {#if turns}
        {#each SIZES as [name, label, example] (name)}
          <div class="flex w-32 flex-col">
            <label class="text-soft text-[13px]" for="program-{name}">{label}</label>
            <FormField
              id="program-{name}"
              field={name}
              placeholder={example}
              bind:value={draft.value[name]}
              {problem}
            />
          </div>
        {/each}
        <label class="flex flex-col"
          ><span class="text-soft text-[13px]">zero at</span>
          <select class="control" bind:value={draft.value.zero}>
            <option value="face">the face</option>
            <option value="jaws">the jaws</option>
          </select></label
        >
      {/if}
      <label class="control cursor-pointer"
        >Open a file<input
          type="file"
          accept=".nc,.txt,.tap,.mpf,.cnc"
          class="sr-only"
          onchange={open}
        /></label
      >
    </div>
    {#if refused}<p role="alert" class="text-signal mt-1">{refused}</p>{/if}
    <ProveOut />
    <div class="mt-2">
      {#if machine && dialects.data}
        {#key told}
          <ProgramView
            text={draft.value.text}
            label="Program text"
            {read}
            change={(text) => (draft.value.text = text)}
            height="52vh"
          />
        {/key}
      {/if}
    </div>
  </section>
</div>
{#if sheet}<DialectSheet
    {...sheet}
    kept={(name) => (draft.value.dialect = name || "lathe")}
    close={() => (sheet = null)}
  />{/if}
