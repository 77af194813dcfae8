<script lang="ts">
  import { createQuery, useQueryClient } from "@tanstack/svelte-query";
  import { api, ask } from "../api/client";
  import GroupFilter from "../lib/GroupFilter.svelte";
  import { page } from "../page.svelte";
  import { session } from "../session.svelte";
  import Converter from "../shelf/Converter.svelte";
  import MaterialEditor from "../shelf/MaterialEditor.svelte";
  import MaterialSheet from "../shelf/MaterialSheet.svelte";
  import ShelfTabs from "../shelf/ShelfTabs.svelte";

  let { params }: { params?: { name?: string } } = $props();
  page.open("Materials", [{ label: "Materials" }]);
  const queries = useQueryClient();
  let q = $state("");
  let letter = $state("");
  let limit = $state(100);
  let archived = $state(false);
  let picked = $state("");
  let entering = $state(false);
  const name = $derived(picked || (params?.name ? decodeURIComponent(params.name) : "C45"));
  const list = createQuery(() => ({
    queryKey: ["materials", q, letter, archived, limit],
    queryFn: () =>
      ask(api.GET("/api/shelf/materials", { params: { query: { q, letter, archived, limit } } })),
    placeholderData: (before) => before,
  }));
</script>

<div
  class="mx-auto grid h-full max-w-[1500px] grid-cols-[minmax(0,1fr)_430px] grid-rows-[auto_minmax(0,1fr)] gap-2 p-2 max-lg:grid-cols-1"
>
  <h1 class="sr-only">Materials</h1>
  <div class="col-span-full"><ShelfTabs here="materials" /></div>
  <div class="grid min-h-0 grid-rows-[1fr_auto] gap-2">
    <section class="bg-sheet border-line flex min-h-0 flex-col border" aria-label="Materials">
      <div class="flex flex-wrap items-center gap-3 p-2.5">
        <h2 class="font-semibold">Materials</h2>
        <input
          class="control w-52"
          placeholder="4140, 1.4404, brass …"
          aria-label="Search materials"
          bind:value={q}
        />
        <GroupFilter label="group" bind:letter />
        <label class="flex items-center gap-1"
          ><input type="checkbox" bind:checked={archived} /> archive</label
        >
        <span class="text-soft figure" role="status">{list.data?.matched ?? "…"} on the shelf</span>
        <span class="flex-1"></span>
        {#if session.mayEdit}<button class="control" onclick={() => (entering = true)}
            >Enter a material</button
          >{/if}
      </div>
      <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
      <div
        class="min-h-0 flex-1 overflow-auto"
        tabindex="0"
        role="region"
        aria-label="Materials on the shelf"
      >
        <table class="w-full">
          <thead class="text-soft bg-sheet sticky top-0 text-left text-[13px]"
            ><tr
              ><th scope="col" class="px-2.5 font-normal">name</th><th scope="col" class="font-normal"
                >number</th
              ><th scope="col" class="font-normal">also called</th><th scope="col" class="font-normal"
                >group</th
              ><th scope="col" class="font-normal">usual hardness</th></tr
            ></thead
          >
          <tbody>
            {#each list.data?.rows ?? [] as row (row.id)}
              <tr class="border-line border-t {row.name === name ? 'bg-wash' : ''}"
                ><td class="px-2.5 py-0.5 whitespace-nowrap"
                  ><button class="plain-link font-semibold" onclick={() => (picked = row.name)}
                    >{row.name}</button
                  ></td
                ><td class="figure pr-3 whitespace-nowrap">{row.number}</td><td
                  class="text-soft max-w-[190px] truncate">{row.aliases.join(", ")}</td
                ><td title={row.group_name} class="max-w-[220px] truncate"
                  ><span class="figure">{row.letter} {row.group}</span>
                  <span class="text-soft">{row.group_name}</span></td
                ><td class="figure pr-3 whitespace-nowrap">{row.hardness}</td></tr
              >
            {:else}<tr
                ><td colspan="5" class="p-2.5"
                  >{list.isPending
                    ? "Reading the materials …"
                    : "No material by that name: try its number, or enter your own."}</td
                ></tr
              >{/each}
          </tbody>
        </table>
        {#if (list.data?.matched ?? 0) > limit && limit < 500}<button
            class="control m-2.5"
            onclick={() => (limit += 100)}>More</button
          >{:else if (list.data?.matched ?? 0) > limit}<p class="text-soft m-2.5">
            Only 500 are shown: search by a part of the name.
          </p>{/if}
      </div>
    </section>
    <Converter material={name} />
  </div>
  {#key name}<MaterialSheet {name} pick={(next) => (picked = next)} />{/key}
</div>

{#if entering}<MaterialEditor
    id={null}
    close={() => (entering = false)}
    saved={(label) => {
      entering = false;
      picked = label;
      void queries.invalidateQueries({ queryKey: ["materials"] });
    }}
  />{/if}
