<script lang="ts">
  import { api, ask, type Problem } from "../api/client";
  import { Draft } from "../lib/draft.svelte";
  import FormField from "../lib/FormField.svelte";
  import Sheet from "../lib/Sheet.svelte";
  import type { OperationBench } from "../operation/bench.svelte";
  import { session, shown } from "../session.svelte";
  import { Study } from "./study.svelte";

  let { bench, close }: { bench: OperationBench; close: () => void } = $props();
  // svelte-ignore state_referenced_locally
  const study = new Study(bench, () =>
    ask(api.POST("/api/jobs/{job_id}/operations/{operation}/process", bench.question)),
  );
  const found = $derived(study.answer);
  const FIELDS = $derived([
    ["seconds", "seconds per piece, without edge changes"],
    ["price", `price of an insert or tool, ${session.currency}`],
    ["edges", "edges on it"],
    ["pieces", "pieces per edge"],
    ["change", "edge change, s"],
    ["rate", `machine rate, ${session.currency} per hour`],
  ] as const);
  type Drivers = Record<(typeof FIELDS)[number][0], string>;
  const SIDES = ["present", "proposed"] as const;
  // svelte-ignore state_referenced_locally
  const known = bench.entry?.process;
  const typed = (given: Record<string, number> | null | undefined): Drivers =>
    Object.fromEntries(FIELDS.map(([name]) => [name, given ? String(given[name]) : ""])) as Drivers;
  // svelte-ignore state_referenced_locally
  const draft = new Draft(`process ${bench.editor.id} ${bench.operation}`, () => ({
    present: typed(known?.present),
    proposed: typed(known?.proposed),
  }));
  let refusal = $state<Problem | null>(null);

  async function keep(event: SubmitEvent) {
    event.preventDefault();
    const { present, proposed } = $state.snapshot(draft.value);
    const other = Object.values(proposed).some((text) => text.trim()) ? proposed : null;
    refusal = await bench.editor.keep({
      action: "set_process",
      operation: bench.operation,
      present,
      proposed: other,
    });
    if (!refusal) await study.ask();
  }
</script>

<Sheet title="Current process · {bench.heading}" {close} wide>
  {#if study.problem}<p role="alert" class="text-signal">{study.problem}</p>{/if}
  {#if found}
    {#if found.saving}
      <table class="w-full" aria-label="Current process against the other" aria-busy={study.stale}>
        <thead class="text-soft text-left text-[13px]"
          ><tr class="border-line border-b"
            ><th scope="col" class="py-1 font-normal">driver</th><th
              scope="col"
              class="text-right font-normal">current</th
            ><th scope="col" class="text-right font-normal">{found.of_plan ? "this plan" : "other way"}</th
            ><th scope="col" class="text-right font-normal">saves per piece</th></tr
          ></thead
        >
        <tbody>
          {#each [...found.rows, ...found.shares] as row, k (row.label)}
            <tr class="border-line border-b {k === found.rows.length ? 'border-t-2' : ''}"
              ><th scope="row" class="py-0.5 text-left font-normal">{row.label}</th><td
                class="figure text-right">{shown(row.present)}</td
              ><td class="figure text-right">{shown(row.proposed)}</td><td class="figure text-right"
                >{shown(row.saves)}</td
              ></tr
            >
          {/each}
          <tr class="font-semibold"
            ><th scope="row" class="py-1 text-left">cost per piece</th><td
              class="figure text-right"
              data-testid="present-cost">{shown(found.present!)}</td
            ><td class="figure text-right" data-testid="proposed-cost">{shown(found.proposed!)}</td><td
              class="figure text-right"
              data-testid="saving">{shown(found.saving)}</td
            ></tr
          >
        </tbody>
      </table>
      {#each found.says as line, k (k)}<p class="mt-2">{line}</p>{/each}
      <p class="text-soft mt-1 text-[13px]">
        What two drivers save together is shared evenly between them; the column adds up to the whole saving.
      </p>
    {/if}
    {#if !found.saving}<p>
        What the cut costs as it is made now, by what drives its cost, against another way or this plan. The
        grey figures are this plan's: the price of one edge, and its planned change.
      </p>{/if}
    {#if session.mayEdit}
      <form class="mt-3" onsubmit={keep}>
        <table class="w-full">
          <thead class="text-soft text-left text-[13px]"
            ><tr
              ><th scope="col" class="font-normal">as it is known from the floor</th><th
                scope="col"
                class="font-normal">current</th
              ><th scope="col" class="font-normal">other way; blank: this plan</th></tr
            ></thead
          >
          <tbody>
            {#each FIELDS as [name, label] (name)}
              <tr
                ><th scope="row" class="py-0.5 pr-2 text-left font-normal">{label}</th>
                {#each SIDES as side (side)}<td class="py-0.5 pr-2"
                    ><FormField
                      field="{side}.{name}"
                      label="{label}, {side === 'present' ? 'current' : 'other way'}"
                      problem={refusal}
                      placeholder={side === "proposed" ? found.plan[name] : ""}
                      bind:value={draft.value[side][name]}
                    /></td
                  >{/each}</tr
              >
            {/each}
          </tbody>
        </table>
        <button class="control mt-2">Compare</button>
      </form>
    {/if}
  {:else if !study.problem}<p class="text-soft" aria-busy="true">Comparing …</p>{/if}
</Sheet>
