<script lang="ts">
  import FieldInput from "../job/FieldInput.svelte";
  import { operationKinds } from "../job/kinds.svelte";
  import Sheet from "../lib/Sheet.svelte";
  import type { OperationBench } from "../operation/bench.svelte";
  import { session } from "../session.svelte";

  let { bench, close }: { bench: OperationBench; close: () => void } = $props();
  const kinds = operationKinds();
  const kind = $derived(kinds.data?.find((one) => one.name === bench.entry?.operation));
  const document = $derived(bench.editor.job!.document);
  const held = $derived({ ...document.holding, ...bench.entry?.holding } as Record<
    string,
    string | boolean | null
  >);
  const stock: Record<string, string> = $derived({
    free_length: document.stock.free_length,
    grip_diameter: document.stock.diameter,
    bore: document.stock.bore ?? "0",
  });
  const HIDDEN = ["steps", "face", "cutting_speed", "feed_per_rev", "feed_per_tooth", "coolant"];
  const settings = $derived((kind?.settings ?? []).filter((one) => !HIDDEN.includes(one.name)));
  const holding = $derived((kind?.holding ?? []).filter((one) => !HIDDEN.includes(one.name)));

  function set(name: string, value: string | boolean) {
    bench.attempt({ [name]: value === "" ? null : value });
  }

  const hold = (name: string, value: string | boolean) =>
    bench.editor.keep({
      action: "set_holding",
      operation: bench.operation,
      holding: { [name]: value === "" ? null : value },
      units: session.units,
    });
</script>

<Sheet title="Set-up · {bench.heading}" {close} wide>
  <div class="grid grid-cols-1 gap-x-8 gap-y-1.5 sm:grid-cols-2">
    <section aria-label="Tool in the cut">
      <h3 class="mb-1 font-semibold">Tool in the cut</h3>
      <div class="grid grid-cols-[170px_1fr] items-center gap-1.5">
        {#each settings as field (field.name)}
          <FieldInput
            id="set-{field.name}"
            {field}
            value={field.name in bench.tried ? bench.tried[field.name] : bench.entry?.settings[field.name]}
            disabled={!session.mayEdit}
            problem={bench.problem}
            giveUp={() => bench.drop(field.name)}
            commit={(value) => set(field.name, value)}
          />
        {/each}
      </div>
    </section>
    <section aria-label="How it is held">
      <h3 class="mb-1 font-semibold">How it is held</h3>
      <div class="grid grid-cols-[170px_1fr] items-center gap-1.5">
        {#each holding as field (field.name)}
          <FieldInput
            id="hold-{field.name}"
            {field}
            value={held[field.name] ?? stock[field.name]}
            disabled={!session.mayEdit}
            commit={(value) => hold(field.name, value)}
          />
        {/each}
      </div>
    </section>
  </div>
  <p class="text-soft mt-3 text-[13px]">
    Where the cut stands, flatness and pip are what the drawing says: key <kbd>e</kbd>. A change is saved when
    you leave its field.
  </p>
</Sheet>
