<script lang="ts">
  import { createQuery } from "@tanstack/svelte-query";
  import { push } from "svelte-spa-router";
  import { api, ask, askOnce, Problem } from "../api/client";
  import { Draft } from "../lib/draft.svelte";
  import FormField from "../lib/FormField.svelte";
  import Sheet from "../lib/Sheet.svelte";
  import Ways, { type Way } from "./Ways.svelte";
  import { session } from "../session.svelte";

  interface Props {
    job: number;
    operation: string;
    heading: string;
    /** Settings that ways may differ in, and tools that come close; blank where ways are not set up here. */
    fields?: { name: string; label: string }[];
    tools?: { label: string; tool: Record<string, string> }[];
    /** The one change that is tried, where it is known. */
    change?: string;
    close: () => void;
  }
  let { job, operation, heading, close, change: known = "", fields = [], tools = [] }: Props = $props();
  const WATCHED: Record<string, { label: string; unit: string; start: string }> = {
    edges: { label: "edges come to their end", unit: "edges", start: "3" },
    count: { label: "pieces on one edge", unit: "pieces", start: "30" },
    wear_land: { label: "wear land reaches", unit: "", start: "0.3 mm" },
    roughness: { label: "finish Ra reaches", unit: "", start: "1.6 µm" },
    burr: { label: "burr reaches", unit: "", start: "0.1 mm" },
  };
  const there = createQuery(() => ({
    queryKey: ["trials", job],
    queryFn: () => ask(api.GET("/api/trials", { params: { query: { job } } })),
  }));
  const next = createQuery(() => ({
    queryKey: ["next trial", job, operation],
    queryFn: () => ask(api.GET("/api/learning/next", { params: { query: { job, operation } } })),
  }));
  // svelte-ignore state_referenced_locally
  const draft = new Draft(`new trial ${job} ${operation}`, () => ({
    question: "",
    change: "",
    watched: "edges",
    bound: "3",
    against: "",
    several: false,
    bars: "3",
    ways: [
      { name: "A", settings: {}, tool: "" },
      { name: "B", settings: {}, tool: "" },
    ] as Way[],
  }));
  // svelte-ignore state_referenced_locally
  if (known)
    draft.value = {
      ...draft.value,
      change: known,
      question: draft.value.question || `Does it help: ${known}?`,
    };
  const mine = $derived((there.data?.items ?? []).filter((one) => one.operation === operation));
  let problem = $state<Problem | null>(null);
  let busy = $state(false);

  async function start(event: SubmitEvent) {
    event.preventDefault();
    busy = true;
    problem = null;
    const { question, change, watched, bound, against, several, bars, ways } = draft.value;
    const common = { job, operation, question, watched: watched as "edges", bound, units: session.units };
    try {
      if (several) {
        const body = {
          ...common,
          bars: Number(bars),
          ways: ways.map((way) => ({
            name: way.name,
            settings: Object.fromEntries(Object.entries(way.settings).filter(([, text]) => text.trim())),
            tool: tools.find((one) => one.label === way.tool)?.tool ?? {},
          })),
        };
        const first = await askOnce((once) => api.POST("/api/trials/series", { ...once, body }));
        draft.done();
        close();
        await push(`/trials/${first.id}`);
        return;
      }
      const made = await askOnce((once) =>
        api.POST("/api/trials", {
          ...once,
          body: { ...common, change, against: against ? Number(against) : null },
        }),
      );
      draft.done();
      close();
      await push(`/trials/${made.id}`);
    } catch (reason) {
      if (!(reason instanceof Problem)) throw reason;
      problem = reason;
    } finally {
      busy = false;
    }
  }
</script>

<Sheet title="Trials · {heading}" {close}>
  {#if mine.length}
    <h3 class="font-semibold">Trials of this operation</h3>
    <ul class="mb-3">
      {#each mine as one (one.id)}
        <li class="border-line flex flex-wrap justify-between gap-2 border-t py-1.5">
          <a class="plain-link" href="#/trials/{one.id}" onclick={close}>{one.id} · {one.question}</a>
          <span class="text-soft">{one.verdict === "open" ? one.progress : one.verdict}</span>
        </li>
      {/each}
    </ul>
  {/if}
  {#each next.data?.said ?? [] as line, k (k)}
    <p class="text-soft">
      {#if k === 0}<b class="text-ink">What to try next.</b>{/if}
      {line}
    </p>
  {/each}
  <h3 class="mt-3 font-semibold">A new trial</h3>
  <p class="text-soft">
    A question with an end. What is predicted now is kept beside it, whatever becomes of the plan.
  </p>
  <form class="mt-1 grid gap-2" onsubmit={start}>
    <label class="grid"
      >what do you want to know?
      <FormField field="question" {problem} bind:value={draft.value.question} /></label
    >
    {#if !draft.value.several}
      <label class="grid"
        ><span>the one thing that is changed, and why <span class="text-soft">(blank: nothing)</span></span>
        <FormField field="change" {problem} bind:value={draft.value.change} /></label
      >
    {/if}
    <div class="flex flex-wrap items-end gap-2">
      <label class="grid"
        >it has its answer when
        <select
          class="control"
          bind:value={draft.value.watched}
          onchange={() => (draft.value.bound = WATCHED[draft.value.watched]!.start)}
        >
          {#each Object.entries(WATCHED) as [name, one] (name)}<option value={name}>{one.label}</option
            >{/each}
        </select></label
      >
      <label class="grid w-28"
        ><span class="text-soft text-[13px]">{WATCHED[draft.value.watched]?.unit || "at"}</span>
        <FormField field="bound" {problem} bind:value={draft.value.bound} /></label
      >
      {#if !draft.value.several}
        <label class="grid"
          >compared with
          <select class="control" bind:value={draft.value.against}>
            <option value="">the prediction only</option>
            {#each mine as one (one.id)}<option value={String(one.id)}>trial {one.id}</option>{/each}
          </select></label
        >
      {/if}
      <button class="control font-semibold" disabled={busy || !session.mayNote}>Start the trial</button>
    </div>
    {#if fields.length}
      <label class="flex items-center gap-2"
        ><input type="checkbox" class="size-5" bind:checked={draft.value.several} /> several ways against each other,
        on the same bars</label
      >
      {#if draft.value.several}<Ways
          bind:ways={draft.value.ways}
          bind:bars={draft.value.bars}
          {fields}
          {tools}
        />{/if}
    {/if}
    {#if problem}{#each problem.errors.filter((one) => one.field.startsWith("ways")) as one (one.field)}<p
          role="alert"
          class="text-signal"
        >
          {one.message}
        </p>{/each}{/if}
    {#if problem && !problem.errors.length}<p role="alert" class="text-signal">{problem.message}</p>{/if}
  </form>
</Sheet>
