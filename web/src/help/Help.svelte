<script lang="ts">
  import X from "@lucide/svelte/icons/x";
  import { createQuery } from "@tanstack/svelte-query";
  import { router } from "svelte-spa-router";
  import { api, ask } from "../api/client";
  import { page } from "../page.svelte";
  import { session } from "../session.svelte";
  import { KEYS } from "./keys";
  import { helpOf } from "./views";

  /** Help beside the work: it takes nothing from the page under it, whose keys go on. */
  let { close }: { close: () => void } = $props();
  // svelte-ignore state_referenced_locally
  let words = $state(page.asked);
  const view = $derived(helpOf(router.location));
  const kind = $derived(page.kind);
  const found = createQuery(() => ({
    queryKey: ["help", words.trim(), kind],
    queryFn: () => ask(api.GET("/api/help", { params: { query: { words: words.trim(), kind } } })),
    placeholderData: (kept: unknown) => kept as never,
  }));
  const keys = $derived(
    KEYS.map(
      ([where, rows]) =>
        [
          where,
          rows.filter(([key, what]) => `${key} ${what}`.toLowerCase().includes(words.trim().toLowerCase())),
        ] as const,
    ).filter(([, rows]) => rows.length),
  );

  // under the head of the page, however many rows that has
  const head = document.querySelector("header");
  let top = $state(head?.offsetHeight ?? 44);
  $effect(() => {
    if (!head) return;
    const watch = new ResizeObserver(() => (top = head.offsetHeight));
    watch.observe(head);
    return () => watch.disconnect();
  });

  function begin(field: HTMLElement) {
    field.focus();
  }

  function leave(event: KeyboardEvent) {
    if (event.key !== "Escape") return;
    event.stopPropagation();
    close();
  }
</script>

<!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
<aside
  aria-label="Help"
  class="bg-sheet text-ink border-edge fixed right-0 bottom-0 z-30 flex w-[min(400px,100vw)] flex-col border-l shadow-lg"
  style:top="{top}px"
  onkeydown={leave}
>
  <div class="border-line flex items-center justify-between border-b px-3 py-1.5">
    <h2 class="text-[16px] font-semibold">Help</h2>
    <button class="min-h-8 min-w-8 p-1" aria-label="Close help" onclick={close}><X size={18} /></button>
  </div>
  <div class="px-3 pt-2">
    <input
      class="control w-full"
      aria-label="Search the help"
      placeholder="binding, kerf, Ra, rail …"
      bind:value={words}
      use:begin
    />
  </div>
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <div class="min-h-0 flex-1 overflow-auto px-3 pb-4" tabindex="0" role="region" aria-label="What it says">
    {#if view && !words.trim()}
      <h3 class="mt-3 font-semibold">{view.title}</h3>
      <ul class="list-disc pl-4">
        {#each view.lines as line (line)}<li class="mt-1">{line}</li>{/each}
      </ul>
    {/if}
    {#if found.data?.limits.length}
      <h3 class="mt-3 font-semibold">Limits of this operation</h3>
      <dl data-testid="help-limits">
        {#each found.data.limits as one (one.name + one.means)}
          <dt class="mt-1 font-semibold">{one.name}</dt>
          <dd>{one.means}</dd>
        {/each}
      </dl>
    {/if}
    {#if found.data?.terms.length}
      <h3 class="mt-3 font-semibold">Terms</h3>
      <dl data-testid="help-terms">
        {#each found.data.terms as one (one.name)}
          <dt class="mt-1 font-semibold">{one.name}</dt>
          <dd>{one.means}</dd>
        {/each}
      </dl>
    {/if}
    {#if keys.length}
      <h3 class="mt-3 font-semibold">Keys</h3>
      {#each keys as [where, rows] (where)}
        <h4 class="text-soft mt-1.5">{where}</h4>
        <dl class="grid grid-cols-[86px_1fr] gap-y-0.5">
          {#each rows as [key, what] (key)}
            <dt><kbd>{key}</kbd></dt>
            <dd>{what}</dd>
          {/each}
        </dl>
      {/each}
      <label class="mt-2 flex items-center gap-2">
        <input
          type="checkbox"
          checked={session.letterKeys}
          onchange={(event) => void session.prefer({ letter_keys: event.currentTarget.checked })}
        />
        Single-letter keys on
      </label>
    {/if}
    {#if found.data?.pages.length}
      <h3 class="mt-3 font-semibold">Documents</h3>
      <ul>
        {#each found.data.pages as one (one.name)}
          <li><a class="plain-link" href="#/help/{one.name}">{one.title}</a></li>
        {/each}
      </ul>
    {/if}
    {#if words.trim() && found.data && !found.data.terms.length && !found.data.limits.length && !found.data.pages.length && !keys.length}
      <p class="text-soft mt-3">Nothing by that word.</p>
    {/if}
  </div>
</aside>
