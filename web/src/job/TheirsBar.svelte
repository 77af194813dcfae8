<script lang="ts">
  import type { Watch } from "./watch.svelte";

  let { watch }: { watch: Watch } = $props();
</script>

<div role="status" class="pointer-events-none fixed top-12 right-3 z-30 max-w-[min(560px,94vw)]">
  {#if watch.theirs}
    <p class="bg-sheet border-warn text-warn pointer-events-auto border-2 px-3 py-1.5" data-testid="theirs">
      <b>{watch.theirs.author}</b> changed this job: {watch.theirs.gesture}
      <span class="figure">rev {watch.theirs.number}</span>
      <button class="plain-link ml-2" onclick={() => (watch.theirs = null)}>seen</button>
    </p>
  {/if}
</div>
