<script lang="ts">
  import type { Measuring } from "./measure.svelte";

  let { measuring, kept }: { measuring: Measuring; kept: () => Promise<unknown> } = $props();

  async function insist() {
    if (await measuring.insist()) await kept();
  }
</script>

{#if measuring.doubt}
  <p role="alert" class="text-warn mt-1" data-testid="doubt">
    ▲ {measuring.doubt}
    <button type="button" class="plain-link" onclick={() => void insist()}>Keep it, not counted</button>
  </p>
{:else if measuring.said}<p role="alert" class="text-signal mt-1">{measuring.said}</p>{/if}
