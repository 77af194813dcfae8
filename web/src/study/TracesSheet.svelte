<script lang="ts">
  import { api, ask, type Schemas } from "../api/client";
  import Sheet from "../lib/Sheet.svelte";
  import type { OperationBench } from "../operation/bench.svelte";
  import { session, shown } from "../session.svelte";
  import { recordHole, type Sample } from "./record";
  import TraceChart from "./TraceChart.svelte";
  import TraceFile from "./TraceFile.svelte";

  let { bench, close }: { bench: OperationBench; close: () => void } = $props();
  // svelte-ignore state_referenced_locally
  const path = { job_id: bench.editor.id, operation: bench.operation };
  let kept = $state.raw<Schemas["TracesOut"] | null>(null);
  let chosen = $state<number[]>([]);
  let fit = $state.raw<Schemas["FitOut"] | null>(null);
  let problem = $state("");
  let hole = $state("1");
  let live = $state.raw<Sample[]>([]);
  let recording = $state(false);

  const say = (reason: unknown) => (problem = (reason as Error).message);
  function take(found: Schemas["TracesOut"]) {
    kept = found;
    problem = "";
    const known = found.traces.map((one) => one.id);
    chosen = chosen.filter((id) => known.includes(id));
    if (!chosen.length) chosen = found.traces.filter((one) => !one.problem).map((one) => one.id);
    void refit();
  }
  const read = () =>
    ask(api.GET("/api/jobs/{job_id}/operations/{operation}/traces", { params: { path } })).then(take, say);
  void read();

  async function refit() {
    if (!chosen.length) {
      fit = null;
      return;
    }
    try {
      fit = await ask(
        api.POST("/api/jobs/{job_id}/operations/{operation}/traces/fit", {
          params: { path },
          body: { traces: chosen },
        }),
      );
      problem = "";
    } catch (reason) {
      fit = null;
      say(reason);
    }
  }
  function toggle(id: number) {
    chosen = chosen.includes(id) ? chosen.filter((one) => one !== id) : [...chosen, id];
    void refit();
  }
  async function record() {
    recording = true;
    live = [];
    problem = "";
    try {
      const number = Number(hole) || 1;
      await recordHole(path, number, (samples) => (live = samples));
      hole = String(number + 1);
      chosen = [];
      await read();
    } catch (reason) {
      say(reason);
    }
    recording = false;
  }
  async function accept() {
    try {
      take(
        await ask(
          api.POST("/api/jobs/{job_id}/operations/{operation}/lessons", {
            params: { path },
            body: { traces: chosen },
          }),
        ),
      );
      await bench.repaint();
    } catch (reason) {
      say(reason);
    }
  }
  async function undo(lesson: number) {
    try {
      take(
        await ask(
          api.POST("/api/jobs/{job_id}/operations/{operation}/lessons/{lesson}/undo", {
            params: { path: { ...path, lesson } },
          }),
        ),
      );
      await bench.repaint();
    } catch (reason) {
      say(reason);
    }
  }
  async function away(trace: number) {
    try {
      await ask(
        api.POST("/api/jobs/{job_id}/operations/{operation}/traces/{trace}/archive", {
          params: { path: { ...path, trace } },
        }),
      );
      await read();
    } catch (reason) {
      say(reason);
    }
  }
  // what is chosen lies over the bench's own map too
  $effect(() => {
    bench.overlay = first && fit ? { thrust: first.thrust, torque: first.torque } : null;
  });
  const first = $derived(kept?.traces.filter((one) => chosen.includes(one.id))[0]);
</script>

<Sheet title="Recorded traces · {bench.heading}" wide {close}>
  {#if problem}<p role="alert" class="text-signal">{problem}</p>{/if}
  <div class="grid grid-cols-[1fr_1fr] gap-5 max-md:grid-cols-1">
    <div>
      {#if recording || (live.length && !first)}
        <h3 class="font-semibold">Hole {hole} on the dynamometer</h3>
        <TraceChart
          thrust={live.map((s) => [s.depth, s.thrust])}
          torque={live.map((s) => [s.depth, s.torque])}
        />
      {:else if first && fit}
        <h3 class="font-semibold">Hole {first.hole}: recorded, and the prediction fitted to it</h3>
        <TraceChart
          thrust={first.thrust}
          torque={first.torque}
          fittedThrust={fit.fitted_thrust}
          fittedTorque={fit.fitted_torque}
        />
        <p class="text-soft text-[13px]">
          left over: {shown(fit.residual)}, {shown(fit.torque_residual)}; {fit.explained} of the thrust explained;
          first contact at {shown(fit.shift)} of the record
        </p>
      {:else}
        <p class="text-soft">
          Nothing is recorded yet. A recorded trace is laid over the prediction; what it teaches is shown with
          its interval and counts only once somebody accepts it.
        </p>
      {/if}
      {#if session.mayEdit}
        <div class="mt-2 flex flex-wrap items-center gap-2">
          <label class="flex items-center gap-1.5"
            >hole of this drill <input id="trace-hole" class="control figure w-16" bind:value={hole} /></label
          >
          {#if kept?.device}
            <button class="control" disabled={recording} onclick={() => void record()}
              >{recording ? "recording …" : "record on the dynamometer"}</button
            >
          {:else if kept}<span class="text-soft">no dynamometer is connected</span>{/if}
        </div>
        <TraceFile {path} hole={Number(hole) || 1} kept={take} />
      {/if}
    </div>
    <div>
      {#if kept?.traces.length}
        <table class="w-full text-[13px]" aria-label="Recorded traces">
          <thead class="text-soft text-left"
            ><tr
              ><th scope="col" class="font-normal">use</th><th scope="col" class="font-normal">hole</th><th
                scope="col"
                class="font-normal">from</th
              ><th scope="col" class="font-normal">at</th><th scope="col" class="text-right font-normal"
                >thrust</th
              ><th scope="col" class="text-right font-normal">torque</th><th scope="col"></th></tr
            ></thead
          >
          <tbody>
            {#each kept.traces as one (one.id)}
              <tr class="border-line border-t">
                <td
                  ><input
                    type="checkbox"
                    aria-label="use hole {one.hole}"
                    checked={chosen.includes(one.id)}
                    disabled={!!one.problem}
                    onchange={() => toggle(one.id)}
                  /></td
                >
                <td class="figure">{one.hole}</td>
                <td>{one.origin}</td>
                <td class="figure">{shown(one.speed)}, {shown(one.feed)}</td>
                <td class="figure text-right">{shown(one.peak_thrust)}</td>
                <td class="figure text-right">{shown(one.peak_torque)}</td>
                <td class="text-right"
                  >{#if session.mayEdit}<button class="plain-link" onclick={() => void away(one.id)}
                      >archive</button
                    >{/if}</td
                >
              </tr>
              {#if one.problem}<tr><td colspan="7" class="text-warn">{one.problem}</td></tr>{/if}
            {/each}
          </tbody>
        </table>
      {/if}
      {#if fit}
        <h3 class="mt-3 font-semibold">Fitted values</h3>
        <table class="w-full text-[13px]" aria-label="What the traces teach">
          <thead class="text-soft text-left"
            ><tr
              ><th scope="col" class="font-normal"></th><th scope="col" class="text-right font-normal"
                >found</th
              ><th scope="col" class="text-right font-normal">95 %</th><th
                scope="col"
                class="text-right font-normal">tables</th
              ></tr
            ></thead
          >
          <tbody>
            {#each fit.parameters as one, k (k)}
              <tr class="border-line border-t">
                <td>{one.label}</td><td class="figure text-right font-semibold">{one.value}</td><td
                  class="figure text-right">{one.interval}</td
                ><td class="figure text-soft text-right">{one.before}</td>
              </tr>
            {/each}
          </tbody>
        </table>
        {#if fit.growth}<p class="mt-1 text-[13px]">{fit.growth}</p>{/if}
        {#if session.mayEdit}
          <button class="bg-ink text-sheet mt-2 min-h-9 px-3 font-semibold" onclick={() => void accept()}
            >Accept for this drill in these materials</button
          >
        {/if}
      {/if}
      {#if kept?.lessons.length}
        <h3 class="mt-3 font-semibold">In use</h3>
        <ul>
          {#each kept.lessons as one (one.id)}
            <li class="border-line border-t py-1 text-[13px]">
              {one.said}
              {#if session.mayEdit}<button class="plain-link ml-1" onclick={() => void undo(one.id)}
                  >Remove</button
                >{/if}
            </li>
          {/each}
        </ul>
      {/if}
    </div>
  </div>
  <p class="text-soft mt-3 text-[13px]">
    Fitted: force of each material, chisel edge, margins, zero and drift of both channels, first contact.
    Least squares; intervals at 95 %.
  </p>
</Sheet>
