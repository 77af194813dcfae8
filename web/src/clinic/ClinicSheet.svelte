<script lang="ts">
  import Sheet from "../lib/Sheet.svelte";
  import type { OperationBench } from "../operation/bench.svelte";
  import { Clinic } from "./clinic.svelte";
  import ClinicPane from "./ClinicPane.svelte";

  interface Props {
    bench: OperationBench;
    limit?: string;
    trial: (change: string) => void;
    close: () => void;
  }
  let { bench, limit = "", trial, close }: Props = $props();
  // svelte-ignore state_referenced_locally
  const clinic = new Clinic(
    bench.evaluation?.operation ?? "",
    { job: bench.editor.id, operation: bench.operation },
    limit,
  );
</script>

<Sheet title="Clinic: {bench.heading}" wide {close}>
  <ClinicPane
    {clinic}
    {trial}
    apply={(remedy) => {
      void bench.apply(remedy);
      close();
    }}
  />
</Sheet>
