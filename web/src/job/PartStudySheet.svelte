<script lang="ts">
  import { untrack } from "svelte";
  import Choice from "../lib/Choice.svelte";
  import Sheet from "../lib/Sheet.svelte";
  import ChancesTable from "./ChancesTable.svelte";
  import type { JobEditor } from "./editor.svelte";
  import MachinesTable from "./MachinesTable.svelte";
  import { PartStudy } from "./partStudy.svelte";

  let { editor, close }: { editor: JobEditor; close: () => void } = $props();
  const ASKED = { robustness: "chances", "machine comparison": "machines" } as const;
  let asks = $state<keyof typeof ASKED>("robustness");
  let study = $state.raw<PartStudy | null>(null);
  const row = $derived(study?.row);

  $effect(() => {
    void editor.job?.revision;
    const kind = ASKED[asks];
    const made = untrack(() => new PartStudy(editor.id, kind));
    study = made;
    void made.begin();
    return made.leave;
  });
</script>

<Sheet title="Test of the plan" {close} wide>
  <div class="flex">
    <Choice
      label="What is asked"
      options={Object.keys(ASKED) as (keyof typeof ASKED)[]}
      value={asks}
      choose={(one) => (asks = one)}
      tone="sheet"
    />
  </div>
  {#if study?.busy}
    <p class="mt-3">
      {asks === "machine comparison"
        ? "Ranking the crib for every operation on every machine …"
        : "Running every operation with 1,000 random material and tool-life combinations …"}
    </p>
    <progress
      class="mt-2 h-3 w-full"
      max={Math.max(row?.total ?? 0, 1)}
      value={row?.done ?? 0}
      aria-label="How far"
    ></progress>
    <button class="control mt-2" disabled={!row} onclick={() => void study?.stop()}>Stop</button>
  {:else if row?.chances}<ChancesTable found={row.chances} {editor} />
  {:else if row?.machines}<MachinesTable found={row.machines} />
  {:else if row}
    <p role="alert" class="mt-3 {row.state === 'refused' ? 'text-signal' : ''}">{row.message}</p>
    <button class="control mt-2" onclick={() => void study?.begin()}>Try again</button>
  {/if}
  {#if study?.problem}<p role="alert" class="text-signal mt-3">{study.problem.message}</p>{/if}
</Sheet>
