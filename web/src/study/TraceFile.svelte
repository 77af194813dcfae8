<script lang="ts">
  import { api, ask, type Schemas } from "../api/client";

  interface Props {
    path: { job_id: number; operation: string };
    hole: number;
    kept: (found: Schemas["TracesOut"]) => void;
  }
  let { path, hole, kept }: Props = $props();
  let text = $state("");
  let name = $state("");
  let found = $state.raw<Schemas["TraceReadOut"] | null>(null);
  let columns = $state<Record<string, string>>({});
  let problem = $state("");
  const roles = $derived([found?.along ?? "depth", "thrust", "torque"]);
  const UNITS: Record<string, string[]> = {
    depth: ["mm", "in"],
    time: ["s", "min"],
    thrust: ["N", "kN", "lbf"],
    torque: ["N·m", "N·cm", "in-lb"],
  };

  async function look(file: File | undefined) {
    if (!file) return;
    text = await file.text();
    name = file.name;
    problem = "";
    try {
      found = await ask(
        api.POST("/api/jobs/{job_id}/operations/{operation}/traces/read", {
          params: { path },
          body: { text },
        }),
      );
      columns = { along: found.along };
      for (const role of [found.along, "thrust", "torque"]) {
        const column = found.columns.find((one) => one.role === role);
        columns[role] = column?.heading ?? "";
        columns[`${role}_unit`] = column?.unit || UNITS[role]![0]!;
      }
    } catch (reason) {
      found = null;
      problem = (reason as Error).message;
    }
  }
  async function keep() {
    try {
      kept(
        await ask(
          api.POST("/api/jobs/{job_id}/operations/{operation}/traces", {
            params: { path },
            body: { text, name, hole, columns: $state.snapshot(columns) },
          }),
        ),
      );
      found = null;
      text = "";
      problem = "";
    } catch (reason) {
      problem = (reason as Error).message;
    }
  }
</script>

<div class="mt-2">
  <label class="text-soft text-[13px]"
    >or a recorded file, CSV: depth or time, thrust, torque
    <input
      id="trace-file"
      type="file"
      accept=".csv,.txt,text/csv"
      class="mt-0.5 block"
      onchange={(event) => void look(event.currentTarget.files?.[0])}
    /></label
  >
  {#if problem}<p role="alert" class="text-signal">{problem}</p>{/if}
  {#if found}
    <div class="border-line mt-1 border p-2" data-testid="trace-preview">
      <p class="text-[13px]">{name}: {found.lines} lines. What is what?</p>
      {#each roles as role (role)}
        <p class="mt-1 flex items-center gap-2 text-[13px]">
          <label for="column-{role}" class="w-14">{role}</label>
          <select id="column-{role}" class="control" bind:value={columns[role]}>
            {#each found.columns as one (one.heading)}<option>{one.heading}</option>{/each}
          </select>
          <select class="control" aria-label="unit of {role}" bind:value={columns[`${role}_unit`]}>
            {#each [...new Set( [...(UNITS[role] ?? []), columns[`${role}_unit`] ?? ""] )].filter(Boolean) as unit (unit)}<option
                >{unit}</option
              >{/each}
          </select>
        </p>
      {/each}
      <table class="figure mt-1 w-full text-[12px]" aria-label="The first lines">
        <thead
          ><tr class="text-soft"
            >{#each found.columns as one (one.heading)}<th scope="col" class="text-right font-normal"
                >{one.heading}</th
              >{/each}</tr
          ></thead
        >
        <tbody
          >{#each found.sample as row, k (k)}<tr
              >{#each row as value, j (j)}<td class="text-right">{value}</td>{/each}</tr
            >{/each}</tbody
        >
      </table>
      <button class="control mt-1.5" onclick={() => void keep()}>keep as hole {hole}</button>
    </div>
  {/if}
</div>
