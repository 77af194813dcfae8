<script lang="ts">
  import { api, ask, type Problem } from "../api/client";
  import Sheet from "../lib/Sheet.svelte";
  import type { OperationBench } from "../operation/bench.svelte";
  import { session, shown } from "../session.svelte";
  import Offer from "./Offer.svelte";
  import { Study } from "./study.svelte";

  let { bench, close }: { bench: OperationBench; close: () => void } = $props();
  // svelte-ignore state_referenced_locally
  const study = new Study(bench, () =>
    ask(api.POST("/api/jobs/{job_id}/operations/{operation}/acceptance", bench.question)),
  );
  let refusal = $state<Problem | null>(null);
  const found = $derived(study.answer);
  type Row = NonNullable<typeof found>["asked"][number];
  const same = (row: Row) => new Set(row.by_layer.map((one) => (one ? shown(one) : "–"))).size === 1;
  const STANDS = { holds: "✓ met", close: "~ not surely", over: "▲ not met", "": "" } as const;

  async function keep(row: Row, text: string) {
    if (text.trim() === (row.measured ? shown(row.measured) : "")) return;
    refusal = await bench.editor.keep({
      action: "set_measured",
      operation: bench.operation,
      name: row.name as "tolerance",
      value: text.trim() || null,
      units: session.units,
    });
    if (!refusal) await study.ask();
  }
</script>

<Sheet title="Acceptance by layer · {bench.heading}" wide {close}>
  {#if study.problem}<p role="alert" class="text-signal">{study.problem}</p>{/if}
  {#if refusal}<p role="alert" class="text-signal">{refusal.errors[0]?.message}</p>{/if}
  {#if found}
    <div class="overflow-x-auto">
      <table class="w-full" aria-label="What is asked and what each layer gets" aria-busy={study.stale}>
        <thead class="text-soft text-left text-[13px]"
          ><tr class="border-line border-b"
            ><th scope="col" class="py-1 pr-2 font-normal">what</th><th
              scope="col"
              class="pr-2 text-right font-normal">asked</th
            >{#each found.layers as layer, k (k)}<th scope="col" class="pr-2 text-right font-normal"
                >{found.layers.length > 1 ? `${k + 1} ` : ""}{layer}</th
              >{/each}<th scope="col" class="pr-2 font-normal">predicted</th><th
              scope="col"
              class="font-normal">measured</th
            ></tr
          ></thead
        >
        <tbody>
          {#each found.asked as row (row.name)}
            <tr class="border-line border-b">
              <th scope="row" class="py-1.5 pr-2 text-left font-normal">{row.label}</th>
              <td class="figure pr-2 text-right whitespace-nowrap">{row.asked ? shown(row.asked) : "–"}</td>
              {#if same(row)}
                <td class="figure pr-2 text-right" colspan={found.layers.length}
                  >{row.by_layer[0] ? shown(row.by_layer[0]) : "–"}</td
                >
              {:else}
                {#each row.by_layer as one, k (k)}<td class="figure pr-2 text-right"
                    >{one ? shown(one) : "–"}</td
                  >{/each}
              {/if}
              <td
                class="pr-2 whitespace-nowrap {row.standing === 'over'
                  ? 'text-signal'
                  : row.standing === 'close'
                    ? 'text-warn'
                    : ''}">{STANDS[row.standing]}{row.chance ? `, ${row.chance}` : ""}</td
              >
              <td class="whitespace-nowrap">
                {#if row.measurable}
                  <input
                    class="control figure w-24"
                    aria-label="{row.label}, measured"
                    value={row.measured ? shown(row.measured) : ""}
                    onchange={(event) => void keep(row, event.currentTarget.value)}
                  />
                  {#if row.met !== null}<span class={row.met ? "" : "text-signal"}
                      >{row.met ? "✓ met" : "▲ not met"}</span
                    >{/if}
                {/if}
              </td>
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
    {#if found.harms.length}<p class="text-signal mt-2">
        <b>Harms the part or the drill:</b>
        {found.harms.join("; ")}.
      </p>{/if}
    {#if found.tastes.length}<p class="mt-1">
        <b>Works, but is not ideal:</b>
        {found.tastes.join("; ")}.
      </p>{/if}
    <h3 class="mt-3 font-semibold">Drills of this size at this speed and feed</h3>
    <table class="mt-1 w-full" aria-label="Other drills of this size">
      <thead class="text-soft text-left text-[13px]"
        ><tr class="border-line border-b"
          ><th scope="col" class="py-1 font-normal">drill, point</th><th
            scope="col"
            class="text-right font-normal">thrust</th
          ><th scope="col" class="text-right font-normal">plies part at</th><th
            scope="col"
            class="text-right font-normal">burr</th
          ><th scope="col" class="text-right font-normal">holes</th><th
            scope="col"
            class="text-right font-normal">cost</th
          ><th><span class="sr-only">use it</span></th></tr
        ></thead
      >
      <tbody>
        {#each found.drills as one (one.name)}
          <tr class="border-line border-b {one.present ? 'bg-wash' : ''}">
            <td class="py-1.5 pr-2"
              ><b>{one.name}</b> <span class="text-soft">{one.point}</span>{#if one.harm}<span
                  class="text-signal ml-2"
                >
                  ▲ {one.harm}</span
                >{/if}</td
            ><td class="figure text-right">{shown(one.thrust)}</td><td class="figure text-right"
              >{one.parts || "–"}</td
            ><td class="figure text-right">{shown(one.burr)}</td><td class="figure text-right">{one.holes}</td
            ><td class="figure text-right">{shown(one.cost)}</td><td class="text-right"
              >{#if one.remedy}<Offer {bench} remedy={one.remedy} />{/if}</td
            >
          </tr>
        {/each}
      </tbody>
    </table>
    <p class="text-soft mt-3">
      Predicted from the entry on, for a worn drill. What is measured is kept with the operation and moves
      nothing by itself. Drills that are not run in one of the layers are left out.
    </p>
  {:else if !study.problem}<p class="text-soft" aria-busy="true">Looking at every layer …</p>{/if}
</Sheet>
