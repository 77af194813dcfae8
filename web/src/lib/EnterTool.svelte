<script lang="ts">
  import { session } from "../session.svelte";

  /** The way from a tool that is wanted to the crib, its sizes filled in, and back to the job. */
  let { record, job }: { record: Record<string, string>; job: number } = $props();
  const href = $derived(`#/crib?enter=${encodeURIComponent(JSON.stringify(record))}&job=${job}`);
</script>

{#if record.kind && session.mayEdit}<a class="plain-link whitespace-nowrap" {href}>enter it in the crib</a
  >{/if}
