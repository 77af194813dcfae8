<script lang="ts">
  import Sheet from "../lib/Sheet.svelte";
  import type { OperationBench } from "./bench.svelte";
  import Cautions from "./Cautions.svelte";

  let { bench, close }: { bench: OperationBench; close: () => void } = $props();
</script>

<Sheet title="Warnings and cautions · {bench.heading}" {close}>
  <Cautions {bench} all />
  <p class="text-soft mt-3">
    The machine's manual, local rules and trained people come first; the bench advises and does not say that a
    cut is safe.
  </p>
</Sheet>
