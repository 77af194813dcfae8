<script lang="ts">
  import { createQuery } from "@tanstack/svelte-query";
  import { api, ask, Problem } from "../api/client";
  import CribTabs from "../crib/CribTabs.svelte";
  import EntryField from "../lib/EntryField.svelte";
  import { page } from "../page.svelte";
  import { session, shown } from "../session.svelte";
  import MaterialPicker from "../shelf/MaterialPicker.svelte";

  page.open("Tool material", [{ label: "Tools", href: "#/crib" }, { label: "Tool material" }]);
  let task = $state({
    material: "C45",
    machine: "two-axis lathe",
    diameter: "60 mm",
    length: "100 mm",
    feed_per_rev: "0.25 mm/rev",
    depth_of_cut: "2 mm",
    pieces: "200",
    interrupted: false,
  });
  let opened = $state("");
  const machines = createQuery(() => ({
    queryKey: ["machines"],
    queryFn: () => ask(api.GET("/api/floor/machines")),
  }));
  const offers = createQuery(() => ({
    queryKey: ["tool-materials", { ...task }, session.units],
    queryFn: () => ask(api.POST("/api/floor/tool-materials", { body: { ...task, units: session.units } })),
    placeholderData: (before) => before,
  }));
  const refusal = $derived(offers.error instanceof Problem ? offers.error : null);
  const dearest = $derived(Math.max(0, ...(offers.data ?? []).map((row) => row.cost_value ?? 0)));
  const fields = [
    ["diameter", "diameter"],
    ["length", "length"],
    ["feed_per_rev", "feed"],
    ["depth_of_cut", "depth"],
  ] as const;
</script>

<div class="mx-auto flex h-full max-w-[1500px] flex-col gap-2 p-2">
  <h1 class="sr-only">Tool material</h1>
  <CribTabs />
  <section class="bg-sheet border-line flex flex-wrap items-end gap-3 border p-2.5" aria-label="The cut">
    <div class="w-52">
      <span class="text-soft text-[13px]">material</span><MaterialPicker
        label="Material"
        value={task.material}
        choose={(material) => (task.material = material)}
      />
    </div>
    <label class="text-soft text-[13px]"
      >machine<select class="control block text-[14px]" bind:value={task.machine}
        >{#each machines.data ?? [] as m (m.name)}<option>{m.name}</option>{/each}</select
      ></label
    >
    {#each fields as [name, label] (name)}
      <label class="text-soft w-36 text-[13px]"
        >{label}<EntryField
          field={name}
          value={task[name]}
          problem={refusal}
          commit={(text) => void (task[name] = text)}
        /></label
      >
    {/each}
    <label class="text-soft w-28 text-[13px]"
      >pieces<EntryField
        field="pieces"
        value={task.pieces}
        problem={refusal}
        commit={(text) => void (task.pieces = text)}
      /></label
    >
    <label class="flex items-center gap-1.5 pb-1.5"
      ><input type="checkbox" bind:checked={task.interrupted} /> interrupted cut</label
    >
  </section>
  <section
    class="bg-sheet border-line min-h-0 flex-1 overflow-auto border p-2.5"
    aria-label="Tool materials for this cut"
    tabindex="-1"
  >
    {#if offers.isError && !refusal?.errors.length}<p role="alert" class="text-signal">
        {offers.error.message}
      </p>{/if}
    <table class="w-full [&_td:not(:first-child)]:pl-4 [&_th:not(:first-child)]:pl-4">
      <thead class="text-soft text-left text-[13px]">
        <tr>
          <th scope="col" class="font-normal">tool material</th><th scope="col" class="text-right font-normal"
            >speed</th
          >
          <th scope="col" class="text-right font-normal">life</th><th
            scope="col"
            class="text-right font-normal">cut</th
          >
          <th scope="col" class="text-right font-normal">pieces per edge</th><th
            scope="col"
            class="text-right font-normal">per edge</th
          ><th scope="col" class="text-right font-normal">change</th><th
            scope="col"
            class="text-right font-normal">edges for the batch</th
          ><th scope="col" class="pr-4 text-right font-normal">per piece</th><th
            scope="col"
            class="font-normal">why</th
          >
        </tr>
      </thead>
      <tbody>
        {#each offers.data ?? [] as row, k (row.name)}
          <tr class="border-line border-t align-top {row.suits ? '' : 'text-soft'}">
            <td class="py-1"
              ><button
                class="plain-link font-semibold"
                aria-expanded={opened === row.name}
                onclick={() => (opened = opened === row.name ? "" : row.name)}>{row.name}</button
              ></td
            >
            <td class="figure py-1 text-right">{shown(row.cutting_speed)}</td>
            <td class="figure py-1 text-right">{shown(row.life)}</td>
            <td class="figure py-1 text-right">{shown(row.seconds)}</td>
            <td class="figure py-1 text-right">{row.parts_per_edge}</td>
            <td class="figure py-1 text-right" title={row.edge_note}>{shown(row.edge_cost)}</td>
            <td class="figure py-1 text-right">{row.change_minutes} min</td>
            <td class="figure py-1 text-right">{row.edges_for_batch ?? "–"}</td>
            <td class="figure py-1 pr-4 text-right {k === 0 && row.suits ? 'font-semibold' : ''}"
              >{shown(row.cost)}
              {#if row.cost_value != null && dearest}<svg
                  viewBox="0 0 120 8"
                  width="120"
                  height="8"
                  class="ml-auto block"
                  aria-hidden="true"
                  ><rect x="0" y="1" width="120" height="6" class="fill-[var(--rail)]" /><rect
                    x="0"
                    y="1"
                    width={Math.max((120 * row.cost_value) / dearest, 1)}
                    height="6"
                    class={k === 0 && row.suits ? "fill-mark" : "fill-[var(--rail-used)]"}
                  /></svg
                >{/if}</td
            >
            <td class="py-1"
              >{#if row.suits}{k === 0 ? "cheapest: " : ""}{row.reason}{:else}<span class="text-signal"
                  >not suitable:</span
                >
                {row.reason}{/if}</td
            >
          </tr>
          {#if opened === row.name}
            <tr>
              <td colspan="10" class="pb-2 pl-4">
                <p>
                  {row.strengths}. <span class="text-soft">But: {row.limits}.</span> Hardness {row.hardness_guide}.
                </p>
                <p class="text-soft">Edge price: {row.edge_note}.</p>
                {#each row.working as line, k (k)}<p class="figure">{line}</p>{/each}
              </td>
            </tr>
          {/if}
        {/each}
      </tbody>
    </table>
    {#if offers.isPending}<p class="text-soft py-2">Reckoning …</p>{/if}
    <p class="text-soft mt-3 max-w-[80ch] text-[13px]">
      Speed is the cheapest one by Gilbert's life (Groover, ch. 24) with the starting speeds and exponents of
      common practice, held by what the spindle reaches at this diameter; one pass. Edge prices come from the
      crib where it stocks the tool material for this group, else usual prices stand in. Band of such a
      comparison: about a third.
    </p>
  </section>
</div>
