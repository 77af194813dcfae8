<script lang="ts">
  import { spaced } from "../lib/names";
  import { createQuery } from "@tanstack/svelte-query";
  import { api, ask, type Schemas } from "../api/client";

  let { run }: { run: Schemas["RunOut"] } = $props();
  const kinds = ["refused", "changed", "new", "same"] as const;
  let fate = $state("");
  let offset = $state(0);
  const LIMIT = 100;
  const rows = createQuery(() => ({
    queryKey: ["fates", run.id, run.state, fate, offset],
    queryFn: () =>
      ask(
        api.GET("/api/exchange/runs/{run_id}/fates", {
          params: { path: { run_id: run.id }, query: { fate, offset, limit: LIMIT } },
        }),
      ),
    placeholderData: (before) => before,
  }));
  const tone: Record<string, string> = {
    refused: "text-signal",
    changed: "text-warn",
    new: "text-safe",
    same: "text-soft",
  };
  const pick = (next: string) => {
    fate = next;
    offset = 0;
  };
</script>

<div class="mt-2 flex flex-wrap gap-2" role="group" aria-label="Fates">
  <button
    class="control {fate === '' ? 'font-semibold' : ''}"
    aria-pressed={fate === ""}
    onclick={() => pick("")}>all rows</button
  >
  {#each kinds as kind (kind)}
    <button
      class="control {tone[kind]} {fate === kind ? 'font-semibold' : ''}"
      aria-pressed={fate === kind}
      onclick={() => pick(kind)}>{kind} <span class="figure">{spaced(run.counts[kind] ?? 0)}</span></button
    >
  {/each}
</div>
<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div class="mt-2 min-h-0 flex-1 overflow-auto" tabindex="0" role="region" aria-label="Fate of every row">
  <table class="w-full">
    <thead class="text-soft bg-sheet sticky top-0 text-left text-[13px]"
      ><tr
        ><th scope="col" class="pr-3 text-right font-normal">row</th><th scope="col" class="font-normal"
          >table</th
        ><th scope="col" class="font-normal">fate</th><th scope="col" class="font-normal">what</th><th
          scope="col"
          class="font-normal">why, or what changes</th
        ></tr
      ></thead
    >
    <tbody>
      {#each rows.data?.rows ?? [] as row (row.table + row.row)}
        <tr class="border-line border-t align-top"
          ><td class="figure pr-3 text-right">{row.row}</td><td class="text-soft pr-3">{row.table}</td><td
            class="pr-3 {tone[row.fate]}">{row.fate}</td
          ><td class="figure pr-3 whitespace-nowrap">{row.label}</td><td class="w-full">{row.why}</td></tr
        >
      {/each}
    </tbody>
  </table>
</div>
{#if (rows.data?.matched ?? 0) > LIMIT}
  <p class="mt-1 flex items-center gap-3">
    <button class="control" disabled={offset === 0} onclick={() => (offset = Math.max(0, offset - LIMIT))}
      >earlier</button
    >
    <span class="figure"
      >{spaced(offset + 1)} – {spaced(Math.min(offset + LIMIT, rows.data!.matched))} of {spaced(
        rows.data!.matched,
      )}</span
    >
    <button class="control" disabled={offset + LIMIT >= rows.data!.matched} onclick={() => (offset += LIMIT)}
      >later</button
    >
  </p>
{/if}
