<script lang="ts">
  import { onDestroy, type Snippet } from "svelte";
  import { Problem, type Schemas } from "../api/client";
  import { shown } from "../session.svelte";
  import BackPlot from "./BackPlot.svelte";

  /** A program as text and as what the text does, side by side: faults on their line and in the picture, played by block. */
  interface Props {
    text: string;
    label: string;
    /** What a text does; asked again when it is changed. */
    read: (text: string) => Promise<Schemas["ProgramReadOut"]>;
    change: (text: string) => void;
    height?: string;
    readonly?: boolean;
    foot?: Snippet;
  }
  let { text, label, read, change, height = "46vh", readonly = false, foot }: Props = $props();
  const QUIET = 250; // ms after the last key
  let found = $state.raw<Schemas["ProgramReadOut"] | null>(null);
  let problem = $state("");
  let stale = $state(true);
  let at = $state(0);
  let chosen = $state<number | null>(null);
  let across = $state(false);
  let playing = $state(false);
  let timer = 0;
  let turn = 0;
  let frame = 0;

  $effect(() => {
    const now = text;
    clearTimeout(timer);
    stale = true;
    timer = window.setTimeout(() => void ask(now), found ? QUIET : 0);
  });
  onDestroy(() => {
    clearTimeout(timer);
    cancelAnimationFrame(frame);
  });

  async function ask(now: string) {
    const mine = ++turn;
    try {
      const answer = await read(now);
      if (mine !== turn) return;
      const last = found ? found.plot.places.length - 1 : 0;
      const stood = !found || at >= last;
      found = answer;
      problem = "";
      at = stood ? answer.plot.places.length - 1 : Math.min(at, answer.plot.places.length - 1);
      stale = false;
    } catch (reason) {
      if (!(reason instanceof Problem)) throw reason;
      if (mine === turn) problem = reason.errors[0]?.message ?? reason.message;
    }
  }

  const last = $derived(Math.max((found?.plot.places.length ?? 1) - 1, 0));
  const line = $derived(chosen ?? found?.plot.lines[at] ?? null);
  const blocks = $derived(text.split("\n"));

  function toLine(one: number) {
    chosen = one;
    const k = found?.plot.lines.lastIndexOf(one) ?? -1;
    if (k >= 0) at = k;
  }
  function toIndex(k: number) {
    at = k;
    chosen = null;
  }
  function step(by: number) {
    const lines = found?.plot.lines ?? [];
    let k = at;
    const here = lines[k];
    while (k + by >= 0 && k + by <= last && lines[k + by] === here) k += by;
    toIndex(Math.min(Math.max(k + by, 0), last));
  }
  function play() {
    playing = !playing;
    if (!playing) return cancelAnimationFrame(frame);
    if (at >= last) toIndex(0);
    const speed = Math.max(last / 600, 0.25); // all of it in ten seconds
    let gone = at;
    const go = () => {
      gone += speed;
      toIndex(Math.min(Math.floor(gone), last));
      if (at >= last) playing = false;
      else if (playing) frame = requestAnimationFrame(go);
    };
    frame = requestAnimationFrame(go);
  }
  const stops = $derived(found?.findings.filter((one) => one.severity === "stop").length ?? 0);
</script>

{#if problem}<p role="alert" class="text-signal">{problem}</p>{/if}
<div class="grid gap-3 min-[900px]:grid-cols-2" aria-busy={stale}>
  <div style="height:{height}" class="min-h-[220px]">
    {#await import("./Editor.svelte")}
      <p class="text-soft">Opening the text …</p>
    {:then { default: Editor }}
      <Editor {text} {label} findings={found?.findings ?? []} {line} {change} go={toLine} {readonly} />
    {/await}
  </div>
  <div>
    {#if found}
      <BackPlot plot={found.plot} left={found.left} {at} {line} height={260} go={toIndex} {across} />
      <div class="mt-1 flex flex-wrap items-center gap-2">
        <button class="control" onclick={() => step(-1)} aria-label="block back">◂</button>
        <button class="control" onclick={play}>{playing ? "Stop" : "Play"}</button>
        <button class="control" onclick={() => step(1)} aria-label="block on">▸</button>
        <input
          type="range"
          min="0"
          max={last}
          value={at}
          class="grow"
          aria-label="Place in the program"
          aria-valuetext="line {line ?? 0}"
          oninput={(event) => toIndex(Number(event.currentTarget.value))}
        />
        {#if !found.plot.turned}<button class="plain-link" onclick={() => (across = !across)}
            >{across ? "from above" : "along the axis"}</button
          >{/if}
      </div>
      <p class="figure mt-1 min-h-5 truncate text-[13px]">
        {line ? `${line}: ${blocks[line - 1] ?? ""}` : ""}
      </p>
      <p class="text-soft text-[13px]">
        <span class="figure">{found.blocks}</span> blocks{#if found.seconds}, <span class="figure"
            >{shown(found.seconds)}</span
          > without tool changes{/if}; rapid dashed, feed full, threads dotted{found.plot.whole
          ? ""
          : "; only the first part is drawn"}.
      </p>
    {/if}
  </div>
</div>
{#if found}
  {#if found.findings.length}
    <p class="mt-2 font-semibold">
      <span class="figure">{stops}</span> to stop for,
      <span class="figure">{found.findings.length - stops}</span> to look at
    </p>
    <ul class="max-h-40 overflow-auto" aria-label="Findings">
      {#each found.findings.slice(0, 200) as one, k (k)}
        <li>
          <button class="plain-link figure" onclick={() => toLine(one.line)}>line {one.line}</button>:
          <span class={one.severity === "stop" ? "text-signal" : ""}
            >{one.severity === "stop" ? "▲ " : ""}{one.text}</span
          >{#if one.remedy}<span class="ml-1">→ {one.remedy}</span>{/if}
        </li>
      {/each}
    </ul>
  {:else}<p class="mt-2" role="status">Nothing found on any line.</p>{/if}
  {@render foot?.()}
  <p class="text-soft mt-1">Not checked: {found.not_checked.join("; ")}.</p>
{/if}
