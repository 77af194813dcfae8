<script lang="ts">
  import type { Schemas } from "../api/client";
  import { Draft } from "../lib/draft.svelte";
  import { session, shown } from "../session.svelte";
  import { ownKey, type EntryIn, type Outbox } from "./outbox.svelte";
  import { madeSmall } from "./photo";
  import Instruments from "./Instruments.svelte";
  import Pick from "./Pick.svelte";

  interface Props {
    trial: Schemas["TrialOut"];
    vocabulary: Schemas["VocabularyOut"];
    outbox: Outbox;
  }
  let { trial, vocabulary, outbox }: Props = $props();

  const nothing = () => ({
    edge: "",
    count: "",
    seen: {} as Record<string, string>,
    read: {} as Record<string, string>,
    size: "",
    at: "",
    instrument: "",
    temperature: "",
    words: "",
    photo: "",
  });
  // svelte-ignore state_referenced_locally
  const draft = new Draft(`trial entry ${trial.id}`, nothing);
  const edge = $derived(draft.value.edge || trial.next_edge);
  const last = $derived(
    Math.max(
      0,
      ...trial.edges.filter((one) => one.edge === edge && one.running).map((one) => one.count),
      ...outbox.waiting
        .filter((one) => one.trial === trial.id && one.entry.edge === edge)
        .map((one) => one.entry.count),
    ),
  );
  const count = $derived(draft.value.count === "" ? last : Number(draft.value.count));
  const lists = $derived(vocabulary.lists);
  const steel = $derived(!["Al", "EN AW"].some((start) => trial.metal.startsWith(start)));

  // what was predicted for this operation is read first; the rest is one touch away
  const FIRST = ["wear_land", "roughness", "load", "burr", "torque"];
  let more = $state(false);
  // svelte-ignore state_referenced_locally
  let ends = $state(!!draft.value.seen.stop);
  const predicted = $derived(new Set(trial.predicted.map((one) => one.name)));
  const fields = $derived(
    vocabulary.fields.filter(
      (one) =>
        more ||
        draft.value.read[one.name] ||
        (FIRST.includes(one.name) && (one.name === "wear_land" || predicted.has(one.name))),
    ),
  );
  let kept = $state("");
  let refused = $state("");

  let instruments: Instruments | undefined = $state();
  function takeReading(name: string, text: string, instrument: string) {
    if (name === "size") {
      draft.value.size = text;
      draft.value.instrument = instrument;
    } else draft.value.read[name] = text;
  }
  function key(event: KeyboardEvent) {
    if (event.key !== "F2") return;
    event.preventDefault();
    void instruments?.read();
  }
  function step(by: number) {
    draft.value.count = String(Math.max(0, count + by));
  }
  async function take(event: Event & { currentTarget: HTMLInputElement }) {
    const file = event.currentTarget.files?.[0];
    event.currentTarget.value = "";
    if (!file) return;
    try {
      draft.value.photo = await madeSmall(file);
    } catch {
      refused = "The picture could not be read; take it again.";
    }
  }
  async function keep(event: SubmitEvent) {
    event.preventDefault();
    refused = "";
    const { seen, read, size, at, instrument, temperature, words, photo } = draft.value;
    if (!Number.isInteger(count) || count < 0) {
      refused = "Count: a whole number from 0.";
      return;
    }
    const entry: EntryIn = {
      key: ownKey(),
      happened: new Date().toISOString(),
      edge,
      count,
      seen: $state.snapshot(seen),
      read: Object.fromEntries(Object.entries(read).filter(([, text]) => text.trim())),
      sizes: size.trim() ? [{ value: size, at, instrument, temperature: temperature || null }] : [],
      words,
      photo,
      units: session.units,
    };
    if (
      !count &&
      !words &&
      !photo &&
      !size &&
      !Object.keys(entry.seen!).length &&
      !Object.keys(entry.read!).length
    ) {
      refused = "Tell the count, a reading, what was seen, or a word.";
      return;
    }
    await outbox.keep(trial.id, entry);
    const ended = !!seen.stop;
    const which = edge;
    const made = count;
    draft.done();
    draft.value.count = ended ? "" : String(made);
    ends = false;
    kept = ended ? `Edge ${which} ended at ${made}.` : `Kept: edge ${which}, ${made}.`;
  }
</script>

<svelte:window onkeydown={key} />

<form class="grid gap-3" onsubmit={keep}>
  <div class="flex flex-wrap items-end gap-3">
    <label class="grid w-24"
      ><span class="text-soft text-[13px]">edge</span>
      <input
        class="control big w-full"
        value={edge}
        oninput={(event) => (draft.value.edge = event.currentTarget.value)}
      /></label
    >
    <div class="grid">
      <span class="text-soft text-[13px]">pieces on this edge</span>
      <div class="flex gap-1.5">
        <button type="button" class="control big step" aria-label="one piece fewer" onclick={() => step(-1)}
          >−</button
        >
        <input
          class="control big w-24 text-center"
          inputmode="numeric"
          aria-label="pieces on this edge"
          value={draft.value.count === "" ? last : draft.value.count}
          oninput={(event) => (draft.value.count = event.currentTarget.value)}
        />
        <button type="button" class="control big step" aria-label="+ 1, next piece" onclick={() => step(1)}
          >+ 1</button
        >
        <button type="button" class="control big step" aria-label="+ 10 pieces" onclick={() => step(10)}
          >+ 10</button
        >
      </div>
    </div>
    <p class="text-soft min-w-40 flex-1">
      {#if trial.planned_change >= 1}planned change after {trial.planned_change}{#if count > trial.planned_change}:
          <b class="text-warn">overrunning by {count - trial.planned_change}</b>{/if}{/if}
    </p>
  </div>
  <div class="flex flex-wrap items-end gap-2">
    <label class="grid min-w-60 flex-1"
      ><span class="text-soft text-[13px]">in words</span>
      <input class="control big w-full" maxlength="2000" bind:value={draft.value.words} /></label
    >
    <label class="control big inline-flex cursor-pointer items-center"
      >{draft.value.photo ? "photo taken ✓" : "photo"}
      <input type="file" accept="image/*" capture="environment" class="sr-only" onchange={take} /></label
    >
    <button class="control big keep font-semibold" disabled={!session.mayNote}>Keep this entry</button>
  </div>
  <p role="status" class="min-h-5" data-testid="kept">
    {#if refused}<span class="text-signal">{refused}</span>{:else}{kept}{/if}
  </p>
  <Pick
    label="chip"
    words={lists.chip ?? []}
    value={draft.value.seen.chip ?? ""}
    drawn="chip"
    choose={(word) => (draft.value.seen.chip = word)}
  />
  <div class="flex flex-wrap gap-x-6 gap-y-3">
    <Pick
      label="length"
      words={lists.length ?? []}
      value={draft.value.seen.length ?? ""}
      choose={(word) => (draft.value.seen.length = word)}
    />
    <Pick
      label="where it went"
      words={lists.went ?? []}
      value={draft.value.seen.went ?? ""}
      choose={(word) => (draft.value.seen.went = word)}
    />
    {#if steel}<Pick
        label="colour"
        words={lists.colour ?? []}
        value={draft.value.seen.colour ?? ""}
        choose={(word) => (draft.value.seen.colour = word)}
      />{/if}
    <Pick
      label="sound"
      words={lists.sound ?? []}
      value={draft.value.seen.sound ?? ""}
      choose={(word) => (draft.value.seen.sound = word)}
    />
    <Pick
      label="marks"
      words={lists.marks ?? []}
      value={draft.value.seen.marks ?? ""}
      choose={(word) => (draft.value.seen.marks = word)}
    />
  </div>
  <div class="grid gap-1.5">
    <div class="flex flex-wrap items-end gap-2">
      {#each fields as one (one.name)}
        <label class="grid w-32"
          ><span class="text-soft text-[13px]">{one.label}, {shown(one.unit)}</span>
          <input
            class="control big w-full"
            inputmode="decimal"
            bind:value={draft.value.read[one.name]}
            data-reading={one.name}
          /></label
        >
      {/each}
      <label class="grid w-32"
        ><span class="text-soft text-[13px]">size, {session.units}</span>
        <input
          class="control big w-full"
          inputmode="decimal"
          bind:value={draft.value.size}
          data-reading="size"
        /></label
      >
      {#if draft.value.size}
        <label class="grid w-28"
          ><span class="text-soft text-[13px]">where along</span><input
            class="control big w-full"
            bind:value={draft.value.at}
          /></label
        >
        <label class="grid w-32"
          ><span class="text-soft text-[13px]">instrument</span><input
            class="control big w-full"
            bind:value={draft.value.instrument}
          /></label
        >
        <label class="grid w-24"
          ><span class="text-soft text-[13px]">part, °C</span><input
            class="control big w-full"
            inputmode="decimal"
            placeholder="20"
            bind:value={draft.value.temperature}
          /></label
        >
      {/if}
      <button type="button" class="control big" onclick={() => (more = !more)}
        >{more ? "fewer readings" : "more readings"}</button
      >
    </div>
    <p class="text-soft text-[13px]">
      Stop the spindle before you measure, look at the edge or clear chips; chips have hooks.
    </p>
  </div>
  <Instruments bind:this={instruments} trial={trial.id} take={takeReading} />
  <details bind:open={ends}>
    <summary class="control big inline-flex cursor-pointer items-center">this edge ends here …</summary>
    <div class="mt-2 grid gap-3">
      <Pick
        label="because"
        words={lists.stop ?? []}
        value={draft.value.seen.stop ?? ""}
        choose={(word) => (draft.value.seen.stop = word)}
      />
      <Pick
        label="how it is worn"
        words={lists.wear ?? []}
        value={draft.value.seen.wear ?? ""}
        drawn="wear"
        choose={(word) => (draft.value.seen.wear = word)}
      />
    </div>
  </details>
</form>

<style>
  .big {
    min-height: 44px;
    font-size: 16px;
  }
  .step {
    min-width: 52px;
  }
  .keep {
    background: var(--ink);
    color: var(--sheet);
    padding-inline: 18px;
  }
</style>
