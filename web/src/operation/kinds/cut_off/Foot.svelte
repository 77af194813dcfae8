<script lang="ts">
  import type { OperationBench } from "../../bench.svelte";
  import Face from "./Face.svelte";
  import Kerf from "./Kerf.svelte";

  let { bench }: { bench: OperationBench } = $props();
</script>

<Face {bench} />
<Kerf {bench} />
