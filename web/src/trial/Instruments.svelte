<script lang="ts">
  import { createQuery } from "@tanstack/svelte-query";
  import { api, ask, Problem } from "../api/client";
  import { session, shown } from "../session.svelte";
  import Chart from "../study/Chart.svelte";

  /** What stands beside the machine: a reading with one key, the machine's own values as they are now, a strip of its load. */
  interface Props {
    trial: number;
    /** Where a reading goes: the name of the field, what to type there, and with what it was read. */
    take: (field: string, text: string, instrument: string) => void;
  }
  let { trial, take }: Props = $props();
  const LOOK = 2000; // ms between two looks at the machine

  const list = createQuery(() => ({
    queryKey: ["instruments"],
    queryFn: () => ask(api.GET("/api/instruments")),
  }));
  const gauges = $derived((list.data ?? []).filter((one) => one.protocol === "line"));
  const agents = $derived((list.data ?? []).filter((one) => one.protocol === "agent"));
  let gauge = $state("");
  const chosen = $derived(gauges.find((one) => one.id === gauge) ?? gauges[0]);
  let watching = $state("");
  let strip = $state(false);
  let said = $state("");
  let problem = $state("");

  const machine = createQuery(() => ({
    queryKey: ["machine now", watching],
    enabled: !!watching,
    refetchInterval: LOOK,
    queryFn: () =>
      ask(api.GET("/api/instruments/{identity}/state", { params: { path: { identity: watching } } })),
  }));
  const record = createQuery(() => ({
    queryKey: ["strip", watching, trial],
    enabled: !!watching && strip,
    refetchInterval: LOOK,
    queryFn: () =>
      ask(
        api.GET("/api/instruments/{identity}/strip", {
          params: { path: { identity: watching }, query: { trial, units: session.units } },
        }),
      ),
  }));

  export async function read() {
    if (!chosen) return;
    problem = said = "";
    try {
      const reading = await ask(
        api.GET("/api/instruments/{identity}/reading", {
          params: { path: { identity: chosen.id }, query: { units: session.units } },
        }),
      );
      said = `${chosen.name}: ${reading.text}`;
      take("size", reading.entry, chosen.name);
    } catch (reason) {
      if (!(reason instanceof Problem)) throw reason;
      problem = reason.message;
    }
  }
  const load = $derived(machine.data?.values.find((one) => one.name === "load"));
</script>

{#if gauges.length || agents.length}
  <section aria-label="Instruments" class="border-line grid gap-2 border-t pt-2">
    <div class="flex flex-wrap items-center gap-2">
      {#if chosen}
        <button type="button" class="control min-h-11" onclick={() => void read()}
          >take the size <kbd>F2</kbd></button
        >
        {#if gauges.length > 1}<select class="control min-h-11" aria-label="instrument" bind:value={gauge}>
            {#each gauges as one (one.id)}<option value={one.id}>{one.name}</option>{/each}
          </select>{:else}<span class="text-soft">{chosen.name}</span>{/if}
      {/if}
      {#each agents as one (one.id)}
        <button
          type="button"
          class="control min-h-11"
          aria-pressed={watching === one.id}
          onclick={() => (watching = watching === one.id ? "" : one.id)}
          >{watching === one.id ? "stop watching" : "watch"} {one.name}</button
        >
      {/each}
      {#if watching}<button
          type="button"
          class="control min-h-11"
          aria-pressed={strip}
          onclick={() => (strip = !strip)}>strip of the load</button
        >{/if}
      {#if load && !load.missing}<button
          type="button"
          class="control min-h-11"
          onclick={() => take("load", load.text, machine.data?.name ?? "")}>take the load</button
        >{/if}
    </div>
    {#if said}<p class="figure text-[20px]" data-testid="gauge">{said}</p>{/if}
    {#if problem}<p role="alert" class="text-signal">{problem}</p>{/if}
    {#if watching}
      {#if machine.isError}<p role="alert" class="text-signal">{machine.error.message}</p>
      {:else}
        <dl class="flex flex-wrap gap-x-5 gap-y-1" data-testid="machine">
          {#each machine.data?.values ?? [] as one (one.name)}
            <div>
              <dt class="text-soft text-[13px]">{one.label}</dt>
              <dd class="figure {one.missing || one.stale ? 'text-soft italic' : ''}">
                {shown(one.value)}{#if one.missing || one.stale}
                  <span class="text-[12px]">for {one.age}</span>{/if}
              </dd>
            </div>
          {/each}
        </dl>
      {/if}
    {/if}
    {#if strip && record.data}
      <Chart chart={record.data.chart} label="spindle load" thin={["predicted"]} height={150} />
      {#if record.data.gaps}<p class="text-soft">
          {record.data.gaps}
          {record.data.gaps === 1 ? "gap" : "gaps"}: the machine told nothing there, and nothing is drawn.
        </p>{/if}
      {#if record.data.lost}<p class="text-warn">▲ {record.data.lost}.</p>{/if}
    {/if}
  </section>
{/if}
