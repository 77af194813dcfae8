<script lang="ts">
  import type { JobEditor } from "../job/editor.svelte";
  import Sheet from "./Sheet.svelte";

  let { editor }: { editor: JobEditor } = $props();
  const conflict = $derived(editor.conflict);
</script>

{#if conflict}
  <Sheet title="Somebody else saved first" close={() => void editor.settle(false)}>
    <p>
      <b>{conflict.author}</b> saved revision {conflict.revision}: {conflict.gesture}. Your change is still
      here and not saved.
    </p>
    <div class="mt-4 flex gap-2">
      <button class="bg-ink text-sheet min-h-8 px-3" onclick={() => void editor.settle(true)}
        >Put mine on top</button
      >
      <button class="control" onclick={() => void editor.settle(false)}>Take theirs, drop mine</button>
    </div>
  </Sheet>
{/if}
