<script lang="ts">
  import Check from "@lucide/svelte/icons/check";
  import X from "@lucide/svelte/icons/x";
  import { createQuery, useQueryClient } from "@tanstack/svelte-query";
  import { api, ask, askOnce, Problem } from "../api/client";
  import DrillPicture from "../crib/DrillPicture.svelte";
  import PlanPicture from "../crib/PlanPicture.svelte";
  import CribTabs from "../crib/CribTabs.svelte";
  import FormField from "../lib/FormField.svelte";
  import { edgeOf, seatOf } from "../lib/names";
  import { page } from "../page.svelte";
  import { session, shown } from "../session.svelte";

  page.open("Assemblies", [{ label: "Tools", href: "#/crib" }, { label: "Assemblies" }]);
  const queries = useQueryClient();
  const assemblies = createQuery(() => ({
    queryKey: ["assemblies"],
    queryFn: () => ask(api.GET("/api/crib/assemblies")),
  }));
  const machines = createQuery(() => ({
    queryKey: ["machines"],
    queryFn: () => ask(api.GET("/api/floor/machines")),
  }));
  const blank = { name: "", edge: "", seat: "", overhang: "", machine: "", pocket: "", note: "" };
  const DRILLS = [
    "twist drill",
    "brazed drill",
    "head drill",
    "indexable drill",
    "gun drill",
    "step drill",
    "spot drill",
    "core drill",
    "reamer",
  ];
  const EDGES = ["turning insert", "grooving insert", ...DRILLS, "end mill"];
  const HOLDERS = ["turning holder", "boring bar"];
  const BLADES = ["cut-off blade", "inside groove bar", "face groove blade", "trepanning head"];
  let entry = $state({ ...blank });
  let refusal = $state<Problem | null>(null);
  const named = (kind: string[], words: string) =>
    ask(api.GET("/api/crib/tools", { params: { query: { q: words, kind, limit: 12 } } }));
  const inserts = createQuery(() => ({
    queryKey: ["offer", "edge", entry.edge],
    queryFn: () => named(EDGES, entry.edge),
    placeholderData: (before) => before,
  }));
  /** A grooving insert sits in a blade, bar or head, any other in a holder; a round tool in a chuck. */
  const roles = $derived.by((): [string, string, string[]] => {
    const kind = inserts.data?.rows.find((row) => row.name === entry.edge)?.kind ?? "";
    if (DRILLS.includes(kind)) return ["drill", "chuck", ["drill chuck"]];
    if (kind === "end mill") return ["mill", "chuck", ["drill chuck"]];
    return kind === "grooving insert" ? ["insert", "blade", BLADES] : ["insert", "holder", HOLDERS];
  });
  const tool = $derived({ [roles[0]]: entry.edge, [roles[1]]: entry.seat });
  const holders = createQuery(() => ({
    queryKey: ["offer", "seat", roles[1], entry.seat],
    queryFn: () => named(roles[2], entry.seat),
    placeholderData: (before) => before,
  }));
  const checks = createQuery(() => ({
    queryKey: ["fit", entry.edge, entry.seat, roles[1], entry.machine, entry.overhang, session.units],
    enabled: entry.edge.length > 6 && entry.seat.length > 6,
    queryFn: () =>
      ask(
        api.POST("/api/crib/fit", {
          body: { tool, machine: entry.machine, overhang: entry.overhang, units: session.units },
        }),
      ),
  }));

  async function keep() {
    refusal = null;
    const { name, overhang, machine, pocket, note } = entry;
    const words = { name, overhang, machine, pocket, note };
    try {
      await askOnce((once) =>
        api.POST("/api/crib/assemblies", { ...once, body: { ...words, tool, units: session.units } }),
      );
      entry = { ...blank };
      await queries.invalidateQueries({ queryKey: ["assemblies"] });
    } catch (reason) {
      if (!(reason instanceof Problem)) throw reason;
      refusal = reason;
    }
  }

  async function remove(id: number) {
    await ask(api.DELETE("/api/crib/assemblies/{assembly_id}", { params: { path: { assembly_id: id } } }));
    await queries.invalidateQueries({ queryKey: ["assemblies"] });
  }
</script>

{#snippet verdicts(list: { name: string; fits: boolean; reason: string }[])}
  <ul class="text-[13px]">
    {#each list as check (check.name)}
      <li class="flex items-start gap-1.5 py-px {check.fits ? 'text-soft' : 'text-signal'}">
        {#if check.fits}<Check size={15} aria-label="fits" />{:else}<X
            size={15}
            aria-label="does not fit"
          />{/if}
        <span><b>{check.name}</b>: {check.reason}</span>
      </li>
    {/each}
  </ul>
{/snippet}

<div class="mx-auto flex h-full max-w-[1500px] flex-col gap-2 p-2">
  <h1 class="sr-only">Assemblies</h1>
  <CribTabs />
  <div
    class="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_420px] gap-2 max-lg:grid-cols-1 max-lg:overflow-auto"
  >
    <section
      class="bg-sheet border-line min-h-0 overflow-auto border p-2.5"
      aria-label="Assemblies"
      tabindex="-1"
    >
      <h2 class="font-semibold">
        Set up <span class="text-soft font-normal">· the parts of a tool, on a machine</span>
      </h2>
      <ul>
        {#each assemblies.data ?? [] as row (row.id)}
          <li class="border-line grid grid-cols-[140px_1fr_1.2fr] gap-4 border-t py-2 max-sm:grid-cols-1">
            {#if row.drawing}<PlanPicture
                drawing={row.drawing}
                label="{edgeOf(row.tool)} in {seatOf(row.tool)}"
              />{:else if row.round}<DrillPicture drawing={row.round} label={edgeOf(row.tool)} />{:else}<span
              ></span>{/if}
            <div>
              <p>
                <b>{row.name}</b>
                <span class={row.fits ? "text-safe" : "text-signal"}
                  >{row.fits ? "fits" : "does not fit"}</span
                >
              </p>
              <p class="figure">{edgeOf(row.tool)}</p>
              <p class="figure">{seatOf(row.tool)}, overhang {shown(row.overhang)}</p>
              <p class="text-soft">
                {row.machine || "no machine"}{row.pocket ? `, pocket ${row.pocket}` : ""}{row.note
                  ? ` · ${row.note}`
                  : ""}
              </p>
              {#if session.mayEdit}<button class="plain-link" onclick={() => void remove(row.id)}
                  >Delete</button
                >{/if}
            </div>
            {@render verdicts(row.checks)}
          </li>
        {:else}<li class="text-soft py-2">
            {assemblies.isPending
              ? "Checking every assembly …"
              : "No assemblies yet: pick a cutting tool and its toolholder at the right."}
          </li>{/each}
      </ul>
    </section>
    <section
      class="bg-sheet border-line min-h-0 overflow-auto border p-2.5"
      aria-label="New assembly"
      tabindex="-1"
    >
      <h2 class="font-semibold">New assembly</h2>
      <div class="mt-1 grid grid-cols-[90px_1fr] items-center gap-x-2 gap-y-1.5">
        <label for="a-insert">edge</label>
        <FormField
          id="a-insert"
          field={roles[0]}
          problem={refusal}
          options={(inserts.data?.rows ?? []).map((row) => row.name)}
          bind:value={entry.edge}
        />
        <label for="a-holder">held in</label>
        <FormField
          id="a-holder"
          field={roles[1]}
          problem={refusal}
          options={(holders.data?.rows ?? []).map((row) => row.name)}
          bind:value={entry.seat}
        />
        <label for="a-machine">machine</label>
        <select id="a-machine" class="control" bind:value={entry.machine}
          ><option value="">none</option>{#each machines.data ?? [] as m (m.name)}<option>{m.name}</option
            >{/each}</select
        >
        <label for="a-overhang">overhang</label>
        <FormField
          id="a-overhang"
          field="overhang"
          problem={refusal}
          placeholder={session.units === "inch" ? "1 in" : "25 mm"}
          bind:value={entry.overhang}
        />
        <label for="a-pocket">pocket</label>
        <FormField id="a-pocket" field="pocket" problem={refusal} bind:value={entry.pocket} />
        <label for="a-name">name</label>
        <FormField id="a-name" field="name" problem={refusal} bind:value={entry.name} />
        <label for="a-note">note</label>
        <FormField id="a-note" field="note" problem={refusal} bind:value={entry.note} />
      </div>
      <div class="mt-2" aria-live="polite">
        {#if checks.data}{@render verdicts(checks.data)}
        {:else if checks.isError && entry.seat.length > 6}<p class="text-signal">
            {checks.error.message}
          </p>{/if}
      </div>
      {#if refusal && !refusal.errors.length}<p role="alert" class="text-signal mt-2">
          {refusal.message}
        </p>{/if}
      {#if session.mayEdit}<button class="bg-ink text-sheet mt-2 min-h-8 px-4" onclick={() => void keep()}
          >Keep it</button
        >{/if}
      <p class="text-soft mt-3 text-[13px]">
        Keep the overhang as short as the cut allows, seat the shank against its stop and tighten with the
        wrench made for it. Spindle stopped, and by the machine's own manual.
      </p>
    </section>
  </div>
</div>
