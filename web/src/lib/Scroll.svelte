<script lang="ts">
  import type { Snippet } from "svelte";

  interface Props {
    children: Snippet;
    class?: string;
    label?: string;
    /** What lies below, counted by this selector; without one it is only said that there is more. */
    counts?: string;
    role?: "region" | "list" | undefined;
    body?: HTMLElement | undefined;
  }
  let { children, class: extra = "", label, counts = "", role, body = $bindable() }: Props = $props();
  let below = $state(0);

  /** How much is cut off at the lower edge: things that are counted, else one. */
  function look() {
    if (!body) return;
    const edge = body.getBoundingClientRect().bottom;
    const hidden = body.scrollHeight - body.clientHeight - body.scrollTop > 4;
    const rows = counts ? [...body.querySelectorAll(counts)] : [];
    below = !hidden
      ? 0
      : Math.max(rows.filter((row) => row.getBoundingClientRect().bottom > edge + 3).length, 1);
  }

  $effect(() => {
    if (!body) return;
    const box = body;
    const resized = new ResizeObserver(look);
    const changed = new MutationObserver(look);
    resized.observe(box);
    for (const child of box.children) resized.observe(child);
    changed.observe(box, { childList: true, subtree: true, characterData: true });
    box.addEventListener("scroll", look, { passive: true });
    look();
    return () => {
      resized.disconnect();
      changed.disconnect();
      box.removeEventListener("scroll", look);
    };
  });
</script>

<div class="relative flex min-h-0 flex-1 flex-col">
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <div
    bind:this={body}
    class="relative min-h-0 flex-1 overflow-auto {extra}"
    tabindex="0"
    {role}
    aria-label={label}
  >
    {@render children()}
  </div>
  {#if below}
    <button
      type="button"
      class="bg-sheet border-line text-soft block w-full shrink-0 border-t text-center text-[13px] leading-[18px]"
      tabindex="-1"
      data-testid="more-below"
      onclick={() => body?.scrollBy({ top: body.clientHeight * 0.8, behavior: "smooth" })}
      >▾ {counts ? `${below} more` : "more"} below</button
    >
  {/if}
</div>
