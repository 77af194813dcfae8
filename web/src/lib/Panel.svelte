<script lang="ts">
  import type { Snippet } from "svelte";

  interface Props {
    title: string;
    /** Small print or keys at the right of the title. */
    aside?: Snippet;
    children: Snippet;
    class?: string;
    stale?: boolean;
  }
  let { title, aside, children, class: extra = "", stale = false }: Props = $props();
</script>

<section
  class="bg-sheet border-line flex min-h-0 min-w-0 flex-col border {extra}"
  aria-label={title}
  aria-busy={stale}
>
  <div class="text-soft flex min-h-7 shrink-0 items-center justify-between gap-2 px-2.5 pt-1">
    <h2 class="truncate text-[13px] font-semibold">{title}</h2>
    <span class="shrink-0 text-[13px]">{@render aside?.()}</span>
  </div>
  {@render children()}
</section>
