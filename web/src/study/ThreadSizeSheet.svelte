<script lang="ts">
  import { api, ask, askOnce, Problem, type Schemas } from "../api/client";
  import FormField from "../lib/FormField.svelte";
  import Sheet from "../lib/Sheet.svelte";
  import type { OperationBench } from "../operation/bench.svelte";
  import { session, shown } from "../session.svelte";

  let { bench, close }: { bench: OperationBench; close: () => void } = $props();
  const GAUGED = ["go goes, no-go does not", "go does not go", "no-go goes"] as const;
  let measured = $state("");
  let wire = $state("");
  let turns = $state("");
  let gauged = $state<"" | (typeof GAUGED)[number]>("");
  let found = $state.raw<Schemas["ThreadSizeOut"] | null>(null);
  let problem = $state<Problem | null>(null);
  let latest = 0;

  async function reckon() {
    const turn = ++latest;
    try {
      const answer = await ask(
        api.POST("/api/jobs/{job_id}/operations/{operation}/thread-size", {
          params: bench.question.params,
          body: { ...bench.question.body, measured, wire, gauged, turns },
        }),
      );
      if (turn !== latest) return;
      found = answer;
      problem = null;
    } catch (reason) {
      if (!(reason instanceof Problem)) throw reason;
      if (turn === latest) problem = reason;
    }
  }
  $effect(() => {
    void [measured, wire, turns, gauged, bench.evaluation];
    void reckon();
  });
  async function keep(event: SubmitEvent) {
    event.preventDefault();
    const target = found?.target;
    const piece = found?.next_piece;
    if (!target || !measured.trim()) return;
    try {
      await askOnce((once) =>
        api.POST("/api/jobs/{job_id}/measurements", {
          ...once,
          params: { path: { job_id: bench.editor.id } },
          body: {
            operation: bench.operation,
            pass_number: "1",
            commanded: session.units === "inch" ? target.middle.inch : target.middle.metric,
            measured,
            piece: String(piece),
            temperature: "20",
            uncertainty: null,
            units: session.units,
            sure: false,
          },
        }),
      );
      measured = "";
      problem = null;
      await reckon();
    } catch (reason) {
      if (!(reason instanceof Problem)) throw reason;
      problem = reason;
    }
  }
  const WORDS: Record<string, string> = {
    good: "inside its zone",
    "cut on": "material left: cut again",
    beyond: "out of limits: scrap",
  };
</script>

<Sheet title="Thread size · {bench.heading}" {close} wide>
  {#if found}
    <p>
      Pitch Ø wanted: <span class="figure">{shown(found.pitch_low)}</span> to
      <span class="figure">{shown(found.pitch_high)}</span>. Stop the spindle before you measure.
    </p>
    <div class="mt-3 grid gap-x-8 gap-y-3 md:grid-cols-[1.1fr_1fr]">
      <form class="grid content-start gap-3" onsubmit={keep}>
        {#if found.target}
          <section aria-label="Over wires">
            <h3 class="font-semibold">{found.target.where}</h3>
            <div class="mt-1 flex flex-wrap items-end gap-3">
              <label class="grid w-32"
                >Ø used <FormField
                  field="wire"
                  {problem}
                  inputmode="decimal"
                  placeholder={shown(found.target.wire)}
                  bind:value={wire}
                /></label
              >
              <label class="grid w-36"
                >measured <FormField
                  field="measured"
                  {problem}
                  inputmode="decimal"
                  placeholder={shown(found.target.middle)}
                  bind:value={measured}
                /></label
              >
              <button class="control" disabled={!measured.trim() || !session.mayNote}>Keep</button>
            </div>
            <p class="text-soft mt-1 text-[13px]">
              Best Ø {shown(found.target.wire)}, nearest of a usual set {shown(found.target.set_wire)}; from {shown(
                found.target.least,
              )} to {shown(found.target.largest)}, middle {shown(found.target.middle)}{found.target.lead
                ? `, ${found.target.lead}`
                : ""}.
            </p>
          </section>
        {:else}<p class="text-soft">{found.no_wires}</p>{/if}
        {#if found.tapers}
          <label class="grid w-52"
            >turns from the gauge's plane <FormField
              field="turns"
              {problem}
              inputmode="decimal"
              placeholder="0; + goes on too far"
              bind:value={turns}
            /></label
          >
        {:else}
          <fieldset>
            <legend class="font-semibold">by gauge</legend>
            {#each GAUGED as one (one)}
              <label class="flex items-center gap-2"
                ><input type="radio" name="gauged" value={one} bind:group={gauged} /> {one}</label
              >
            {/each}
            {#if gauged}<button type="button" class="plain-link" onclick={() => (gauged = "")}>neither</button
              >{/if}
          </fieldset>
        {/if}
        {#if problem && !problem.errors.length}<p role="alert" class="text-signal">{problem.message}</p>{/if}
      </form>
      <section aria-label="What to command" aria-live="polite">
        <h3 class="font-semibold">What it says</h3>
        {#if found.state}
          <p class="mt-1 text-lg {found.state === 'good' ? '' : 'text-signal'}">
            {#if found.pitch_diameter}pitch Ø <strong class="figure">{shown(found.pitch_diameter)}</strong>,
            {/if}{WORDS[found.state]}
          </p>
          {#if found.off && found.pitch_diameter}<p>
              from mid-tolerance <span class="figure">{shown(found.off)}</span>
            </p>{/if}
        {/if}
        <p class="text-soft">{found.says}</p>
        <dl class="mt-1">
          {#each found.commands as one (one.label)}
            <div class="border-line flex gap-3 border-t py-0.5">
              <dt class="flex-1">{one.label}</dt>
              <dd class="figure font-semibold">{shown(one.display)}</dd>
            </div>
          {/each}
        </dl>
      </section>
    </div>
    {#if found.kept.length}
      <table class="mt-4 w-full text-right">
        <caption class="text-soft text-left text-[13px]">Kept</caption>
        <thead class="text-soft text-[13px]"
          ><tr
            ><th scope="col" class="text-left font-normal">piece</th><th scope="col" class="font-normal"
              >measured</th
            ><th scope="col" class="font-normal">pitch Ø</th><th scope="col" class="font-normal"
              >from mid-tolerance</th
            ><th scope="col" class="font-normal">stands</th></tr
          ></thead
        >
        <tbody>
          {#each found.kept as row (row.id)}<tr class="border-line figure border-t"
              ><th scope="row" class="text-left font-normal">{row.piece}</th><td>{shown(row.measured)}</td><td
                >{shown(row.pitch_diameter)}</td
              ><td>{shown(row.off)}</td><td class="font-sans">{WORDS[row.state]}</td></tr
            >{/each}
        </tbody>
      </table>
    {/if}
  {:else if problem}<p role="alert" class="text-signal">{problem.message}</p>
  {:else}<p class="text-soft" aria-busy="true">Reckoning …</p>{/if}
</Sheet>
