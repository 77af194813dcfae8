<script lang="ts">
  import { createQuery, useQueryClient } from "@tanstack/svelte-query";
  import { api, ask } from "../api/client";
  import CribTabs from "../crib/CribTabs.svelte";
  import SpanBars from "../crib/SpanBars.svelte";
  import WindowMap from "../crib/WindowMap.svelte";
  import Sheet from "../lib/Sheet.svelte";
  import Fields from "../records/Fields.svelte";
  import { RecordForm } from "../records/form.svelte";
  import SaveBar from "../records/SaveBar.svelte";
  import Trail from "../records/Trail.svelte";
  import { page } from "../page.svelte";
  import { session, shown } from "../session.svelte";

  page.open("Geometries and grades", [
    { label: "Tools", href: "#/crib" },
    { label: "Geometries and grades" },
  ]);
  const queries = useQueryClient();
  const geometries = createQuery(() => ({
    queryKey: ["geometries"],
    queryFn: () => ask(api.GET("/api/crib/geometries")),
  }));
  const grades = createQuery(() => ({
    queryKey: ["grades"],
    queryFn: () => ask(api.GET("/api/crib/grades")),
  }));
  let picked = $state("");
  const geometry = $derived(
    geometries.data?.find((g) => g.name === (picked || "middle")) ?? geometries.data?.[0],
  );
  let dragged = $state<[number, number][] | null>(null);
  const points = $derived(dragged ?? ((geometry?.window ?? []) as [number, number][]));
  let form = $state<RecordForm | null>(null);
  let sheet = $state<{ table: "geometries" | "grades"; title: string } | null>(null);
  let saved = $state("");

  async function open(table: "geometries" | "grades", id: number | null, title: string) {
    const made = new RecordForm(table);
    await made.load(
      id,
      id === null && table === "geometries" ? { window: "0.1:0.3 0.1:1.5 0.3:1.5 0.3:0.3" } : {},
    );
    form = made;
    sheet = { table, title };
  }

  const again = () =>
    Promise.all(["geometries", "grades"].map((key) => queries.invalidateQueries({ queryKey: [key] })));

  let timer: ReturnType<typeof setTimeout> | undefined;

  /** One change per gesture: a drag, or a run of nudges that ends with a rest or with leaving. */
  function keepSoon() {
    clearTimeout(timer);
    saved = "not saved yet";
    timer = setTimeout(() => void keepWindow(), 800);
  }

  function leave() {
    if (timer && dragged) void keepWindow();
  }

  $effect(() => leave);

  async function keepWindow() {
    clearTimeout(timer);
    timer = undefined;
    if (!geometry || !dragged) return;
    const made = new RecordForm("geometries");
    await made.load(geometry.id);
    made.type("window", dragged.map(([f, a]) => `${f}:${a}`).join(" "));
    saved = "saving …";
    const record = await made.save();
    saved = record ? `saved, version ${record.version}` : made.problem;
    if (record) {
      await again();
      dragged = null;
    }
  }
</script>

<div class="mx-auto flex h-full max-w-[1500px] flex-col gap-2 p-2">
  <h1 class="sr-only">Geometries and grades</h1>
  <CribTabs />
  <div
    class="grid min-h-0 flex-1 grid-cols-[210px_minmax(0,1fr)_470px] gap-2 max-lg:grid-cols-1 max-lg:overflow-auto"
  >
    <section
      class="bg-sheet border-line min-h-0 overflow-auto border p-2"
      aria-label="Geometries"
      tabindex="-1"
    >
      <h2 class="font-semibold">Geometries</h2>
      <ul>
        {#each geometries.data ?? [] as row (row.id)}
          <li>
            <button
              class="w-full px-1 py-0.5 text-left {row.name === geometry?.name ? 'bg-ink text-sheet' : ''}"
              aria-pressed={row.name === geometry?.name}
              onclick={() => {
                leave();
                picked = row.name;
                dragged = null;
                saved = "";
              }}>{row.name}</button
            >
          </li>
        {/each}
      </ul>
      {#if session.mayEdit}<button
          class="control mt-2"
          onclick={() => void open("geometries", null, "Enter a geometry")}>Enter a geometry</button
        >{/if}
    </section>
    <section
      class="bg-sheet border-line min-h-0 overflow-auto border p-2.5"
      aria-label="Chip window"
      tabindex="-1"
    >
      {#if geometry}
        <div class="flex items-baseline justify-between gap-3">
          <h2 class="text-[16px] font-semibold">{geometry.name}</h2>
          <span class="text-soft" role="status">{saved}</span>
        </div>
        <p class="text-soft">
          {geometry.purpose}, for {geometry.suits.split("").join(" ")}; drawn for the reference insert, circle
          12.7 mm (1/2 in) and corner 0.8 mm (1/32 in)
        </p>
        <WindowMap {points} change={(next) => (dragged = next)} done={keepSoon} locked={!session.mayEdit} />
        <dl class="mt-2 grid grid-cols-[auto_1fr_auto_1fr] gap-x-3">
          <dt class="text-soft">rake of the groove</dt>
          <dd class="figure">{shown(geometry.rake)}</dd>
          <dt class="text-soft">edge radius</dt>
          <dd class="figure">{shown(geometry.edge_radius)}</dd>
          <dt class="text-soft">chip curl radius</dt>
          <dd class="figure">{geometry.curl_radius ? `r ${shown(geometry.curl_radius)}` : "no groove"}</dd>
          <dt class="text-soft">wiper</dt>
          <dd>{geometry.wiper ? "yes" : "no"}</dd>
        </dl>
        <p class="text-soft mt-1 text-[13px]">
          Source: {geometry.source}. The curl radius is the groove's arc, W²/8h + h/2; inside the field chips
          break, to its left they string, to its right they pack.
        </p>
        {#if session.mayEdit}<button
            class="plain-link mt-1"
            onclick={() => void open("geometries", geometry.id, `Change ${geometry.name}`)}
            >Change its numbers</button
          >{/if}
      {/if}
    </section>
    <section
      class="bg-sheet border-line min-h-0 overflow-auto border p-2.5"
      aria-label="Grades"
      tabindex="-1"
    >
      <div class="flex items-baseline justify-between">
        <h2 class="font-semibold">
          Grades <span class="text-soft font-normal">· ISO 513 spans, 01 hard to 50 tough</span>
        </h2>
        {#if session.mayEdit}<button
            class="plain-link"
            onclick={() => void open("grades", null, "Enter a grade")}>enter a grade</button
          >{/if}
      </div>
      <table class="w-full">
        <thead class="text-soft text-left text-[13px]"
          ><tr
            ><th scope="col" class="font-normal">grade</th><th scope="col" class="font-normal">substrate</th
            ><th scope="col" class="font-normal">spans</th><th scope="col" class="text-right font-normal"
              >toughness</th
            ><th scope="col" class="text-right font-normal">stands</th></tr
          ></thead
        >
        <tbody>
          {#each grades.data ?? [] as row (row.id)}
            <tr class="border-line border-t align-middle">
              <td class="whitespace-nowrap"
                ><button class="plain-link" onclick={() => void open("grades", row.id, `Grade ${row.name}`)}
                  >{row.name}</button
                ></td
              >
              <td class="text-soft text-[13px]">{row.substrate}</td>
              <td title={row.spans.join(", ")}
                ><SpanBars bars={row.bars} main={row.main_letter} /><span class="sr-only"
                  >{row.spans.join(", ")}</span
                ></td
              >
              <td class="figure pl-2 text-right">{row.toughness.toFixed(2)}</td>
              <td class="figure pl-3 text-right whitespace-nowrap">{row.temperature_limit}</td>
            </tr>
          {/each}
        </tbody>
      </table>
    </section>
  </div>
</div>

{#if sheet && form}
  {@const open_ = form}
  <Sheet title={sheet.title} close={() => (sheet = null)} wide>
    <Fields form={open_} columns={open_.columns.filter((c) => c.name !== "from_memory")} />
    {#if session.mayEdit}
      <SaveBar
        form={open_}
        close={() => (sheet = null)}
        save={() =>
          void open_.save().then(async (record) => {
            if (!record) return;
            sheet = null;
            await again();
          })}
      />
    {/if}
    {#if open_.record}<Trail
        record={open_.record}
        archive={(archived) => void open_.archive(archived).then(again)}
      />{/if}
  </Sheet>
{/if}
