<script lang="ts">
  import { createQuery } from "@tanstack/svelte-query";
  import { api, ask } from "../api/client";
  import GroupFilter from "../lib/GroupFilter.svelte";
  import { page } from "../page.svelte";
  import { shown } from "../session.svelte";

  let { params }: { params?: { name?: string } } = $props();
  page.open("Shelf", [{ label: "Shelf" }]);
  let q = $state("");
  let letter = $state("");
  let picked = $state("");
  const name = $derived(picked || (params?.name ? decodeURIComponent(params.name) : "C45"));
  const list = createQuery(() => ({
    queryKey: ["materials", q, letter],
    queryFn: () => ask(api.GET("/api/shelf/materials", { params: { query: { q, letter } } })),
    placeholderData: (before) => before,
  }));
  const sheet = createQuery(() => ({
    queryKey: ["material", name],
    queryFn: () => ask(api.GET("/api/shelf/materials/{name}", { params: { path: { name } } })),
    placeholderData: (before) => before,
  }));
</script>

<div class="mx-auto grid h-full max-w-[1500px] grid-cols-[1fr_400px] gap-2 p-2 max-lg:grid-cols-1">
  <h1 class="sr-only">Shelf</h1>
  <section class="bg-sheet border-line flex min-h-0 flex-col border" aria-label="Materials">
    <div class="flex flex-wrap items-center gap-3 p-2.5">
      <h2 class="font-semibold">Materials</h2>
      <input
        class="control w-64"
        placeholder="4140, 1.4404, brass …"
        aria-label="Search materials"
        bind:value={q}
      />
      <GroupFilter label="group" bind:letter />
      <span class="text-soft figure" role="status">{list.data?.length ?? "…"} on the shelf</span>
    </div>
    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <div class="min-h-0 flex-1 overflow-auto" tabindex="0" role="region" aria-label="Materials on the shelf">
      <table class="w-full">
        <thead class="text-soft bg-sheet sticky top-0 text-left text-[13px]"
          ><tr
            ><th scope="col" class="px-2.5 font-normal">name</th><th scope="col" class="font-normal"
              >number</th
            ><th scope="col" class="font-normal">also called</th><th scope="col" class="font-normal">group</th
            ><th scope="col" class="font-normal">usual hardness</th><th scope="col" class="font-normal"
              >kc source</th
            ></tr
          ></thead
        >
        <tbody>
          {#each list.data ?? [] as row (row.name)}
            <tr class="border-line border-t {row.name === name ? 'bg-wash' : ''}"
              ><td class="px-2.5 py-0.5 whitespace-nowrap"
                ><button class="plain-link font-semibold" onclick={() => (picked = row.name)}
                  >{row.name}</button
                ></td
              ><td class="figure pr-3">{row.number}</td><td class="text-soft max-w-[210px] truncate"
                >{row.aliases.join(", ")}</td
              ><td title={row.group_name}
                ><span class="figure">{row.letter} {row.group}</span>
                <span class="text-soft">{row.group_name}</span></td
              ><td class="figure pr-3 whitespace-nowrap">{row.hardness}</td><td class="text-soft"
                >{row.source}{row.from_memory ? ", from memory" : ""}</td
              ></tr
            >
          {:else}<tr
              ><td colspan="6" class="p-2.5"
                >{list.isPending ? "Reading the shelf …" : "Nothing on the shelf by that name."}</td
              ></tr
            >{/each}
        </tbody>
      </table>
    </div>
  </section>
  <section
    class="bg-sheet border-line min-h-0 overflow-auto border p-3"
    aria-label="Material sheet"
    tabindex="-1"
  >
    {#if sheet.data}
      <h2 class="text-[18px] font-semibold">{sheet.data.name}</h2>
      <p class="text-soft">{sheet.data.group_name} · {sheet.data.hardness}</p>
      <h3 class="mt-3 font-semibold">Starting speeds</h3>
      <dl class="grid grid-cols-[100px_110px_1fr] gap-x-2">
        {#each sheet.data.speeds as fact (fact.label)}<dt>{fact.label}</dt>
          <dd class="figure">{shown(fact.display)}</dd>
          <dd class="text-soft text-[13px]">{fact.source}</dd>{/each}
      </dl>
      <h3 class="mt-3 font-semibold">What the rules read</h3>
      <dl class="grid grid-cols-[1fr_130px] gap-x-2">
        {#each sheet.data.facts as fact (fact.label)}<dt class="border-line border-t py-0.5">{fact.label}</dt>
          <dd class="figure border-line border-t py-0.5 text-right">{shown(fact.display)}</dd>{/each}
      </dl>
      <p class="text-soft mt-2">
        Source: {sheet.data.source}{sheet.data.from_memory ? ", written from memory" : ""}.
      </p>
    {:else if sheet.isError}<p role="alert" class="text-signal">{sheet.error.message}</p>
    {:else}<p class="text-soft">Reading the sheet …</p>{/if}
  </section>
</div>
