<script lang="ts">
  import type { Schemas } from "../api/client";
  import type { OperationBench } from "../operation/bench.svelte";
  import { session } from "../session.svelte";

  interface Props {
    bench: OperationBench;
    remedy: Schemas["RemedyOut"] | null;
    label?: string;
  }
  let { bench, remedy, label = "use" }: Props = $props();
</script>

{#if remedy && session.mayEdit}<button
    class="control"
    aria-label="{label}: {remedy.text.metric}"
    onclick={() => void bench.apply(remedy)}>{label}</button
  >{/if}
