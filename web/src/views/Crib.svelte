<script lang="ts">
  import { spaced } from "../lib/names";
  import { push, router } from "svelte-spa-router";
  import { untrack } from "svelte";
  import CribTabs from "../crib/CribTabs.svelte";
  import Decoder from "../crib/Decoder.svelte";
  import Shipped from "../crib/Shipped.svelte";
  import FacetPanel from "../crib/FacetPanel.svelte";
  import { ToolSearch } from "../crib/search.svelte";
  import ToolEditor from "../crib/ToolEditor.svelte";
  import ToolList from "../crib/ToolList.svelte";
  import ToolSheet from "../crib/ToolSheet.svelte";
  import { guarded, listen } from "../keys";
  import GroupFilter from "../lib/GroupFilter.svelte";
  import { page } from "../page.svelte";
  import { session } from "../session.svelte";

  let { params }: { params?: { id?: string } } = $props();
  page.open("Tools", [{ label: "Tools" }]);
  const search = new ToolSearch();
  const asked = new URLSearchParams(untrack(() => router.querystring ?? ""));
  search.q = asked.get("q") ?? "";
  /** A tool that a job wants comes with its sizes, and the way back to the job. */
  const wanted = readRecord(asked.get("enter"));
  const job = Number(asked.get("job")) || 0;
  let place = $state(0);
  let walking = false;
  let entering = $state(wanted !== null && session.mayEdit);
  let opened = $state(untrack(() => (params?.id ? Number(params.id) : null)));

  function readRecord(text: string | null): Record<string, string> | null {
    try {
      const found: unknown = JSON.parse(text ?? "null");
      if (typeof found !== "object" || found === null) return null;
      return Object.fromEntries(Object.entries(found).map(([name, value]) => [name, String(value)]));
    } catch {
      return null; // an address that somebody broke opens the crib
    }
  }

  $effect(() => {
    void [search.q, search.chosen, search.letter, search.stocked, search.archived];
    const wait = setTimeout(() => {
      place = 0;
      void search.start();
    }, 60);
    return () => clearTimeout(wait);
  });

  // a link from one tool to another
  $effect(() => {
    const id = params?.id;
    if (id) untrack(() => (opened = Number(id)));
  });

  /** The address follows without a new page, so that search and scroll stay. */
  function open(id: number | null) {
    opened = id;
    history.replaceState(null, "", id === null ? "#/crib" : `#/crib/tools/${id}`);
  }

  $effect(() =>
    listen(
      guarded({
        j: () => walk(1),
        k: () => walk(-1),
        Escape: () => open(null),
      }),
    ),
  );

  /** Into the list, and along it: the row's own button has the focus and answers to Enter and Space. */
  function walk(by: 1 | -1) {
    const there = walking || (document.activeElement?.matches("[data-tool-row]") ?? false);
    if (there) place = Math.max(0, Math.min(place + by, search.matched - 1));
    walking = true; // a far row is drawn a moment later
    window.setTimeout(() => {
      document.querySelector<HTMLElement>(`[data-tool-row="${place}"]`)?.focus();
      walking = false;
    }, 30);
  }
</script>

<div class="mx-auto flex h-full max-w-[1500px] flex-col gap-2 p-2">
  <h1 class="sr-only">Crib</h1>
  <CribTabs />
  <div
    class="grid min-h-0 flex-1 grid-cols-[190px_minmax(0,1fr)_372px] gap-2 max-lg:grid-cols-[180px_minmax(0,1fr)] max-md:grid-cols-1 max-md:overflow-auto"
  >
    <FacetPanel {search} />
    <section class="bg-sheet border-line flex min-h-0 flex-col border max-md:min-h-96" aria-label="Tools">
      <div class="flex flex-wrap items-center gap-x-3 gap-y-1 p-2">
        <input
          class="control w-60"
          placeholder="cnmg 432, middle, P20, bin …"
          aria-label="Search tools"
          bind:value={search.q}
        />
        <GroupFilter label="for group" bind:letter={search.letter} />
        <label class="flex items-center gap-1"
          ><input type="checkbox" bind:checked={search.stocked} /> in stock</label
        >
        <label class="flex items-center gap-1"
          ><input type="checkbox" bind:checked={search.archived} /> archive</label
        >
        <span class="flex-1"></span>
        {#if session.mayEdit}<button class="control" onclick={() => (entering = true)}>Add tool</button>{/if}
      </div>
      <p class="text-soft px-2.5 pb-1" role="status">
        {#if search.problem}<span class="text-signal">{search.problem}</span>
        {:else if search.asked}<span class="figure">{spaced(search.matched)}</span> of
          <span class="figure">{spaced(search.total)}</span> tools
        {:else}searching …{/if}
      </p>
      <ToolList {search} bind:place {open} {opened} {walk} />
      <Shipped changed={() => void search.start()} />
    </section>
    <div class="grid min-h-0 max-lg:col-span-full">
      {#if opened !== null}
        {#key opened}<ToolSheet
            id={opened}
            close={() => open(null)}
            changed={() => void search.start()}
          />{/key}
      {:else}
        <Decoder take={(designation) => (search.q = designation)} />
      {/if}
    </div>
  </div>
</div>

{#if entering}<ToolEditor
    id={null}
    start={wanted ?? { kind: "turning insert" }}
    close={() => (entering = false)}
    saved={(record) => {
      entering = false;
      if (job) {
        void push(`/jobs/${job}`);
        return;
      }
      void search.start();
      open(record.id);
    }}
  />{/if}
