<script lang="ts">
  import { createQuery } from "@tanstack/svelte-query";
  import { api, ask } from "../api/client";
  import { page } from "../page.svelte";

  /** A page of the documents, as the application ships it. */
  let { params }: { params: { page: string } } = $props();
  const read = createQuery(() => ({
    queryKey: ["help page", params.page],
    queryFn: () => ask(api.GET("/api/help/{page}", { params: { path: { page: params.page } } })),
  }));
  const others = createQuery(() => ({
    queryKey: ["help", "", ""],
    queryFn: () => ask(api.GET("/api/help")),
  }));
  $effect(() =>
    page.open(read.data?.title ?? "Help", [{ label: "Help" }, { label: read.data?.title ?? "…" }]),
  );
</script>

<article class="prose-page mx-auto max-w-[980px] p-4" aria-busy={read.isLoading}>
  {#if read.error}<p role="alert" class="text-signal">{read.error.message}</p>{/if}
  <nav aria-label="Documents" class="text-soft flex flex-wrap gap-x-3 pb-2 text-[13px]">
    {#each others.data?.pages ?? [] as one (one.name)}
      <a href="#/help/{one.name}" aria-current={one.name === params.page ? "page" : undefined}>{one.title}</a>
    {/each}
  </nav>
  {#if read.data}
    <h1 class="text-xl font-semibold">{read.data.title}</h1>
    <!-- eslint-disable-next-line svelte/no-at-html-tags -- the application's own documents, made without any HTML of theirs -->
    {@html read.data.html}
  {/if}
</article>
