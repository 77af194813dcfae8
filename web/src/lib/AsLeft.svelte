<script lang="ts" generics="T extends object">
  import type { Draft } from "./draft.svelte";

  let { draft }: { draft: Draft<T> } = $props();
</script>

{#if draft.reopened}
  <p class="text-soft col-span-full text-[13px]" role="status">
    As you left it. <button type="button" class="plain-link" onclick={() => draft.done()}>Start afresh</button
    >
  </p>
{/if}
