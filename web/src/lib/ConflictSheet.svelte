<script lang="ts">
  import type { JobEditor } from "../job/editor.svelte";
  import Sheet from "./Sheet.svelte";

  let { editor }: { editor: JobEditor } = $props();
  const conflict = $derived(editor.conflict);
</script>

{#if conflict}
  <Sheet title="Changed by someone else" close={() => void editor.settle(false)} wide>
    <p>
      <b>{conflict.author}</b> saved revision {conflict.revision}: {conflict.gesture}. Your change is here and
      not saved; closed without a choice, theirs stands.
    </p>
    <table class="mt-3 w-full" aria-label="Both versions">
      <thead class="text-soft text-left text-[13px]"
        ><tr class="border-line border-b"
          ><th scope="col" class="py-1 font-normal">where</th><th scope="col" class="font-normal">value</th
          ><th scope="col" class="font-normal">both started from</th><th scope="col" class="font-normal"
            >{conflict.author}</th
          ><th scope="col" class="font-normal">yours</th></tr
        ></thead
      >
      <tbody>
        {#each conflict.differences as row (row.where + row.what)}
          <tr class="border-line border-b"
            ><td class="py-1">{row.where}</td><td>{row.what}</td><td class="figure text-soft">{row.base}</td
            ><td class="figure {row.theirs !== row.base ? 'font-semibold' : ''}">{row.theirs}</td><td
              class="figure {row.yours !== row.base ? 'font-semibold' : ''}">{row.yours}</td
            ></tr
          >
        {/each}
      </tbody>
    </table>
    <div class="mt-4 flex gap-2">
      <button class="bg-ink text-sheet min-h-8 px-3" data-first onclick={() => void editor.settle(true)}
        >Keep mine</button
      >
      <button class="control" onclick={() => void editor.settle(false)}>Keep theirs</button>
    </div>
  </Sheet>
{/if}
