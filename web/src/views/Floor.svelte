<script lang="ts">
  import { createQuery, useQueryClient } from "@tanstack/svelte-query";
  import { api, ask } from "../api/client";
  import MachineEditor from "../floor/MachineEditor.svelte";
  import PowerCurve from "../floor/PowerCurve.svelte";
  import SpindleEditor from "../floor/SpindleEditor.svelte";
  import { page } from "../page.svelte";
  import { session, shown } from "../session.svelte";

  page.open("Machines", [{ label: "Machines" }]);
  const queries = useQueryClient();
  let archived = $state(false);
  let picked = $state("");
  let editing = $state<number | null | false>(false);
  let spindle = $state<number | null | false>(false);
  const again = () => {
    editing = spindle = false;
    void queries.invalidateQueries({ queryKey: ["machines"] });
  };
  const machines = createQuery(() => ({
    queryKey: ["machines", archived, session.units],
    queryFn: () =>
      ask(api.GET("/api/floor/machines", { params: { query: { archived, units: session.units } } })),
  }));
  const machine = $derived(machines.data?.find((m) => m.name === picked) ?? machines.data?.[0]);
  type Points = [number, number][];
</script>

<div class="mx-auto grid h-full max-w-[1264px] grid-cols-[300px_1fr] gap-2 p-2 max-md:grid-cols-1">
  <h1 class="sr-only">Machines</h1>
  <section class="bg-sheet border-line min-h-0 overflow-auto border p-2" aria-label="Machines" tabindex="-1">
    <div class="flex items-center justify-between">
      <h2 class="font-semibold">Machines</h2>
      <label class="flex items-center gap-1"><input type="checkbox" bind:checked={archived} /> archive</label>
    </div>
    {#if machines.isError}<p role="alert" class="text-signal">{machines.error.message}</p>{/if}
    <ul>
      {#each machines.data ?? [] as m (m.id)}
        <li class="border-line border-t">
          <button
            class="w-full px-1 py-1 text-left {m.id === machine?.id ? 'bg-ink text-sheet' : ''}"
            aria-pressed={m.id === machine?.id}
            onclick={() => (picked = m.name)}
          >
            <b class="block">{m.name}</b><span class="block text-[13px]">{m.steps_note} · {m.condition}</span>
          </button>
        </li>
      {/each}
    </ul>
    {#if session.mayEdit}<button class="control mt-2" onclick={() => (editing = null)}>Enter a machine</button
      >{/if}
  </section>
  <section
    class="bg-sheet border-line min-h-0 overflow-auto border p-3"
    aria-label="Machine sheet"
    tabindex="-1"
  >
    {#if machine}
      <div class="flex items-baseline justify-between">
        <h2 class="text-[18px] font-semibold">{machine.name}</h2>
        {#if session.mayEdit}<button class="plain-link" onclick={() => (editing = machine.id)}>Change</button
          >{/if}
      </div>
      <p class="text-soft">{machine.description} · {machine.abilities.join(", ") || "does not turn"}</p>
      <p class={machine.condition === "worn" ? "text-warn" : "text-soft"}>
        condition <b>{machine.condition}</b>: {machine.condition_note}
      </p>
      <div class="mt-2 grid grid-cols-[minmax(0,560px)_minmax(220px,1fr)] gap-6 max-lg:grid-cols-1">
        <div>
          <PowerCurve
            label="Power and torque of {machine.name} over spindle speed"
            power={machine.spindle_curve as Points}
            torque={machine.torque_curve as Points}
            axes={machine.axes}
          />
          <p class="text-soft text-[13px]">
            {machine.curve_at === "motor"
              ? "Curve given at the motor, drawn at the spindle with its efficiency."
              : "Curve given at the spindle."}
          </p>
          {#if machine.speeds.length}<p class="mt-2">
              <span class="text-soft">speeds</span> <span class="figure">{machine.speeds.join(" · ")}</span>
            </p>{/if}
          {#if machine.feeds.length}<p>
              <span class="text-soft">feeds</span>
              <span class="figure">{machine.feeds.map((f) => shown(f).replace(/ .*/, "")).join(" · ")}</span>
            </p>{/if}
          <table class="mt-3 w-full">
            <caption class="text-left font-semibold">Spindles</caption>
            <thead class="text-soft text-left text-[13px]"
              ><tr
                ><th scope="col" class="font-normal">spindle</th><th scope="col" class="font-normal">turns</th
                ><th scope="col" class="font-normal">takes</th><th scope="col" class="text-right font-normal"
                  >power, top speed</th
                ><th scope="col" class="pl-3 font-normal">coolant</th></tr
              ></thead
            >
            <tbody>
              {#each machine.spindles as one (one.name)}<tr class="border-line border-t align-top">
                  <td class="py-0.5 pr-3 whitespace-nowrap"
                    >{#if one.id !== null && session.mayEdit}<button
                        class="plain-link"
                        title={one.source}
                        onclick={() => (spindle = one.id)}>{one.title}</button
                      >{:else}{one.title}{/if}</td
                  >
                  <td class="pr-3 whitespace-nowrap">{one.turns}</td>
                  <td class="pr-3 whitespace-nowrap">{one.interface || "–"}</td>
                  <td class="figure text-right whitespace-nowrap"
                    >{one.facts.map((fact) => shown(fact)).join(", ")}</td
                  >
                  <td class="pl-3">{one.coolant.join(" · ")}</td>
                </tr>{/each}
            </tbody>
          </table>
          {#if session.mayEdit}<button class="control mt-1" onclick={() => (spindle = null)}
              >Enter a further spindle</button
            >{/if}
          {#if machine.places.length}<p class="mt-2">
              <span class="text-soft">tool positions</span>
              {machine.places.join(" · ")}
            </p>{/if}
          <p class="text-soft mt-1 text-[13px]">
            Source: {machine.source}. Chuck and tool makers' limits take precedence: see their makers'
            manuals.
          </p>
        </div>
        <dl class="grid grid-cols-[1fr_auto] gap-x-3 self-start">
          {#each machine.facts as fact, k (k)}<dt class="text-soft border-line border-t py-0.5">
              {fact.label}
            </dt>
            <dd class="figure border-line border-t py-0.5 text-right">{shown(fact.display)}</dd>{/each}
        </dl>
      </div>
    {:else}<p class="text-soft">
        {machines.isPending ? "Reading the machines …" : "No machines yet: enter one, or import a list."}
      </p>{/if}
  </section>
</div>

{#if editing !== false}<MachineEditor id={editing} close={() => (editing = false)} saved={again} />{/if}
{#if spindle !== false && machine}<SpindleEditor
    id={spindle}
    machine={machine.name}
    close={() => (spindle = false)}
    saved={again}
  />{/if}
