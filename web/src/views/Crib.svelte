<script lang="ts">
  import { createQuery } from "@tanstack/svelte-query";
  import { router } from "svelte-spa-router";
  import { api, ask } from "../api/client";
  import GroupFilter from "../lib/GroupFilter.svelte";
  import { page } from "../page.svelte";
  import { shown } from "../session.svelte";

  page.open("Crib", [{ label: "Crib" }]);
  let q = $state(new URLSearchParams(router.querystring ?? "").get("q") ?? "");
  let shape = $state("");
  let letter = $state("");
  let code = $state("");
  const inserts = createQuery(() => ({
    queryKey: ["inserts", q, shape, letter],
    queryFn: () => ask(api.GET("/api/crib/inserts", { params: { query: { q, shape, letter } } })),
    placeholderData: (before) => before,
  }));
  const holders = createQuery(() => ({
    queryKey: ["holders"],
    queryFn: () => ask(api.GET("/api/crib/holders", { params: { query: {} } })),
  }));
  const reading = createQuery(() => ({
    queryKey: ["read", code],
    enabled: code.trim().length > 3,
    queryFn: () => ask(api.GET("/api/crib/read", { params: { query: { designation: code } } })),
  }));
  const shapes = ["C", "W", "D", "S", "T", "V", "R"];
</script>

<div class="mx-auto grid h-full max-w-[1500px] grid-cols-[1fr_340px] gap-2 p-2 max-lg:grid-cols-1">
  <h1 class="sr-only">Crib</h1>
  <section class="bg-sheet border-line flex min-h-0 flex-col border" aria-label="Inserts">
    <div class="flex flex-wrap items-center gap-3 p-2.5">
      <h2 class="font-semibold">Inserts</h2>
      <input
        class="control w-64"
        placeholder="CNMG 1204, middle, P20 …"
        aria-label="Search inserts"
        bind:value={q}
      />
      <label
        >shape <select class="control" bind:value={shape}
          ><option value="">any</option>{#each shapes as s (s)}<option>{s}</option>{/each}</select
        ></label
      >
      <GroupFilter label="for group" bind:letter />
      <span class="text-soft figure" role="status">{inserts.data?.length ?? "…"} in the crib</span>
    </div>
    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <div class="min-h-0 flex-1 overflow-auto" tabindex="0" role="region" aria-label="Inserts in stock">
      <table class="w-full">
        <thead class="text-soft bg-sheet sticky top-0 text-left text-[13px]"
          ><tr
            ><th scope="col" class="px-2.5 font-normal">designation</th><th scope="col" class="font-normal"
              >geometry</th
            ><th scope="col" class="font-normal">grade</th><th scope="col" class="pl-3 text-right font-normal"
              >corner</th
            ><th scope="col" class="pl-3 text-right font-normal">edges</th><th
              scope="col"
              class="pl-3 text-right font-normal">€ each</th
            ><th scope="col" class="pl-3 text-right font-normal">€ an edge</th><th
              scope="col"
              class="pl-3 text-right font-normal">stock</th
            ><th scope="col" class="pl-4 font-normal">holders</th><th scope="col" class="font-normal"
              >source</th
            ></tr
          ></thead
        >
        <tbody>
          {#each inserts.data ?? [] as row (row.name)}
            <tr class="border-line border-t"
              ><td class="figure px-2.5 py-0.5 whitespace-nowrap">{row.designation}</td><td
                title={row.purpose}>{row.geometry}</td
              ><td title={row.substrate}>{row.grade}</td><td class="figure pl-3 text-right"
                >{shown(row.nose_radius)}</td
              ><td class="figure pl-3 text-right">{row.edges}</td><td class="figure pl-3 text-right"
                >{shown(row.price)}</td
              ><td class="figure pl-3 text-right">{shown(row.edge_price)}</td><td
                class="figure pl-3 text-right whitespace-nowrap">{row.quantity} · {row.bin}</td
              ><td class="text-soft max-w-[210px] truncate pl-4" title={row.holders.join(", ")}
                >{row.holders.join(", ")}</td
              ><td class="text-soft">{row.source}</td></tr
            >
          {:else}<tr
              ><td colspan="10" class="p-2.5"
                >{inserts.isPending ? "Reading the crib …" : "Nothing in the crib by these words."}</td
              ></tr
            >{/each}
        </tbody>
      </table>
    </div>
  </section>
  <div class="grid min-h-0 grid-rows-[auto_1fr] gap-2">
    <section class="bg-sheet border-line border p-2.5" aria-label="Read a designation">
      <h2 class="font-semibold">Read a designation</h2>
      <input
        class="control figure mt-1 w-full"
        placeholder="CNMG 120408 or PCLNR 2525 M12"
        aria-label="Designation"
        bind:value={code}
      />
      {#if reading.isError}<p class="text-signal mt-1" role="alert">{reading.error.message}</p>
      {:else if reading.data && code}
        <dl class="mt-1 grid grid-cols-[130px_1fr]">
          {#each reading.data.facts as fact (fact.label)}<dt class="text-soft">{fact.label}</dt>
            <dd class="figure">{shown(fact.display)}</dd>{/each}
        </dl>
      {:else}<p class="text-soft mt-1">
          Metric codes to ISO 1832 and ISO 5608; blanks, dashes and lower case are understood.
        </p>{/if}
    </section>
    <section class="bg-sheet border-line flex min-h-0 flex-col border" aria-label="Holders">
      <h2 class="p-2.5 pb-1 font-semibold">Holders</h2>
      <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
      <div class="min-h-0 flex-1 overflow-auto" tabindex="0" role="region" aria-label="Holders in stock">
        <table class="w-full">
          <thead class="text-soft bg-sheet sticky top-0 text-left text-[13px]"
            ><tr
              ><th scope="col" class="px-2.5 font-normal">designation</th><th scope="col" class="font-normal"
                >κr</th
              ><th scope="col" class="font-normal">does</th><th scope="col" class="font-normal">overhang</th
              ></tr
            ></thead
          >
          <tbody>
            {#each holders.data ?? [] as row (row.designation)}
              <tr class="border-line border-t"
                ><td class="figure px-2.5 py-0.5 whitespace-nowrap">{row.designation}</td><td class="figure"
                  >{row.cutting_edge_angle}</td
                ><td>{row.operations.join(", ")}</td><td class="figure">{shown(row.overhang)}</td></tr
              >
            {/each}
          </tbody>
        </table>
      </div>
    </section>
  </div>
</div>
