<script lang="ts">
  import EntryField from "../lib/EntryField.svelte";
  import type { OperationBench } from "../operation/bench.svelte";
  import { session } from "../session.svelte";

  let { bench }: { bench: OperationBench } = $props();
  const document = $derived(bench.editor.job!.document);
  const held = $derived({
    free_length: document.stock.free_length,
    style: "chuck",
    ...document.holding,
    ...bench.entry?.holding,
  } as Record<string, string | number | boolean | null>);
  const locked = $derived(!session.mayEdit);

  const hold = (holding: Record<string, string | boolean | null>) =>
    bench.editor.keep({ action: "set_holding", operation: bench.operation, holding, units: session.units });
</script>

<div class="flex flex-wrap items-end gap-3" role="group" aria-label="How the part is held in this operation">
  <label class="grid"
    >workholding <select
      class="control"
      disabled={locked}
      value={String(held.style)}
      onchange={(event) => void hold({ style: event.currentTarget.value })}
      ><option>chuck</option><option>chuck and centre</option><option>between centres</option></select
    ></label
  >
  <label class="grid w-32"
    >stick-out <EntryField
      value={bench.editor.told(String(held.free_length))}
      disabled={locked}
      commit={(text) => hold({ free_length: text })}
    /></label
  >
  <label class="grid w-36"
    >steady rest at <EntryField
      value={bench.editor.told(String(held.steady ?? ""))}
      placeholder="none"
      disabled={locked}
      commit={(text) => hold({ steady: text || null })}
    /></label
  >
  <label class="flex items-center gap-1.5 pb-1.5"
    ><input
      type="checkbox"
      class="size-5"
      disabled={locked}
      checked={held.interrupted === true}
      onchange={(event) => void hold({ interrupted: event.currentTarget.checked })}
    /> interrupted cut</label
  >
  <label class="flex items-center gap-1.5 pb-1.5"
    ><input
      type="checkbox"
      class="size-5"
      disabled={locked}
      checked={held.weak === true}
      onchange={(event) => void hold({ weak: event.currentTarget.checked })}
    /> held weakly</label
  >
</div>
