<script lang="ts">
  import { createQuery } from "@tanstack/svelte-query";
  import { push } from "svelte-spa-router";
  import { api, ask, type Schemas } from "../api/client";
  import Sheet from "../lib/Sheet.svelte";
  import Silhouette from "../lib/Silhouette.svelte";
  import { edgeOf, toolName } from "../lib/names";
  import { STANDING } from "../lib/standing";
  import { session, shown } from "../session.svelte";

  /** The part explained operation by operation, from its own numbers: what is cut with what, how fast and why, what limits it, what it costs. */
  interface Props {
    job: number;
    name: string;
    state: Schemas["JobOut"]["state"];
    tools: Record<string, Record<string, string>>;
    metal: string;
    close: () => void;
  }
  let { job, name, state: now, tools, metal, close }: Props = $props();
  let place = $state(0);
  const row = $derived(now.operations[place]!);
  const asked = createQuery(() => ({
    queryKey: ["walk", job, row.id, session.units],
    queryFn: () =>
      ask(
        api.POST("/api/jobs/{job_id}/operations/{operation}/evaluate", {
          params: { path: { job_id: job, operation: row.id } },
          body: { units: session.units },
        }),
      ),
  }));
  const found = $derived(asked.data);
  const first = $derived(found?.limits[0]);
  const next = $derived(found?.limits[1]);
  const speed = $derived(found?.warnings.find((one) => one.name === "speed_off_row")?.text);
  const grave = $derived(found?.warnings.find((one) => one.harm === "danger" || one.harm === "warning"));
  const share = $derived(Math.round((100 * row.seconds) / Math.max(now.tape.seconds, 1e-9)));
  const dearest = $derived(now.operations.reduce((most, one) => (one.cost > most.cost ? one : most), row));
  const RESULTS = ["tool_life", "median_parts", "secure"] as const;
</script>

<Sheet title="Explained: {name}" wide {close}>
  <p class="text-soft">
    Operation <span class="figure">{place + 1}</span> of <span class="figure">{now.operations.length}</span>
  </p>
  <div class="mt-1 grid gap-4 min-[820px]:grid-cols-[1fr_320px]" aria-live="polite">
    <div>
      <h3 class="text-[17px] font-semibold">{row.number} {row.title}</h3>
      {#if row.problem}<p class="text-signal mt-2">{shown(row.problem)}</p>{/if}
      {#if found}
        <dl class="mt-2 grid gap-3">
          <div>
            <dt class="font-semibold">With what</dt>
            <dd>
              {toolName(edgeOf(tools[row.id] ?? {}))}, in {row.metal || metal}: {found.settings
                .slice(0, 3)
                .map((one) => `${one.label} ${shown(one.display)}`)
                .join(", ")}.
            </dd>
          </div>
          <div>
            <dt class="font-semibold">How fast, and why</dt>
            <dd>{speed ?? "At the starting value for this metal and tool material, or close to it."}</dd>
          </div>
          {#if first}<div>
              <dt class="font-semibold">What limits it</dt>
              <dd>
                <b>{first.label}</b>: <span class="figure">{shown(first.value_display)}</span>, limit
                <span class="figure">{shown(first.bound_display)}</span> ({first.wanting
                  ? STANDING[first.standing]
                  : STANDING.holds}). {first.why}
                {#if next}Next is {next.label} at
                  <span class="figure">{Math.round(100 * next.utilisation)} %</span> of its limit.{/if}
              </dd>
            </div>{/if}
          <div>
            <dt class="font-semibold">How long it lasts</dt>
            <dd>
              {#each RESULTS as one, k (one)}{#if found.results[one]}{k ? "; " : ""}{found.results[one]!
                    .label}
                  <span class="figure">{shown(found.results[one]!.display)}</span>{/if}{/each}.
            </dd>
          </div>
          <div>
            <dt class="font-semibold">What it costs</dt>
            <dd>
              <span class="figure">{shown(row.seconds_display)}</span> and
              <span class="figure">{shown(row.cost_display)}</span>: <span class="figure">{share} %</span> of
              the part's time{dearest.id === row.id
                ? ", the dearest operation of the part: begin here to save"
                : `; the dearest is ${dearest.number} ${dearest.title}`}.
            </dd>
          </div>
          {#if grave}<div>
              <dt class="text-warn font-semibold">▲ Mind</dt>
              <dd>{grave.text}</dd>
            </div>{/if}
        </dl>
      {:else if asked.error}<p role="alert" class="text-signal mt-2">{asked.error.message}</p>
      {:else}<p class="text-soft mt-2" aria-busy="true">Calculating …</p>{/if}
    </div>
    <Silhouette outline={now.outline} width={320} height={220} labels marked={row.id} />
  </div>
  <div class="mt-4 flex flex-wrap gap-3">
    <button class="control" disabled={place === 0} onclick={() => (place -= 1)}>Back</button>
    <button
      class="control"
      data-first
      disabled={place >= now.operations.length - 1}
      onclick={() => (place += 1)}>Next</button
    >
    <button class="control" onclick={() => void push(`/jobs/${job}/operations/${row.id}`)}
      >Open {row.number}</button
    >
  </div>
</Sheet>
