<script lang="ts">
  import { pieces } from "../lib/names";
  import { api, ask } from "../api/client";
  import Sheet from "../lib/Sheet.svelte";
  import type { OperationBench } from "../operation/bench.svelte";
  import { shown } from "../session.svelte";
  import Chart from "./Chart.svelte";
  import Offer from "./Offer.svelte";
  import { Study } from "./study.svelte";
  import Working from "./Working.svelte";

  let { bench, close }: { bench: OperationBench; close: () => void } = $props();
  // svelte-ignore state_referenced_locally
  const study = new Study(bench, () =>
    ask(api.POST("/api/jobs/{job_id}/operations/{operation}/edge-life", bench.question)),
  );
  const found = $derived(study.answer);
  const book = $derived.by((): [number, number] | null => {
    const limit = bench.limits.find((one) => one.name === "book_speed");
    return limit?.lower != null && limit.upper != null ? [limit.lower, limit.upper] : null;
  });
</script>

<Sheet title="Edge life · {bench.heading}" wide {close}>
  {#if study.problem}<p role="alert" class="text-signal">{study.problem}</p>{/if}
  {#if found}
    <div class="grid gap-x-6 md:grid-cols-2" aria-busy={study.stale}>
      <section>
        <h3 class="font-semibold">Cost per piece over speed</h3>
        <Chart chart={found.cost} label="Cost per piece over cutting speed" span={book} />
      </section>
      <section>
        <h3 class="font-semibold">Life over speed, half to double</h3>
        <Chart
          chart={found.life}
          label="Life over cutting speed with its band"
          thin={["low", "high"]}
          span={book}
        />
      </section>
    </div>
    <p>{found.says} The field is the recommended range, <span class="figure">{shown(found.book)}</span>.</p>
    <table class="mt-2 w-full" aria-label="Speeds">
      <thead class="text-soft text-left text-[13px]"
        ><tr class="border-line border-b"
          ><th scope="col" class="py-1 font-normal">speed</th><th scope="col" class="font-normal"
            ><span class="sr-only">value</span></th
          ><th scope="col" class="font-normal">life</th><th scope="col" class="font-normal">per piece</th><th
            scope="col"
            class="font-normal">cost</th
          ><th scope="col" class="font-normal">pieces per change</th><th
            ><span class="sr-only">use it</span></th
          ></tr
        ></thead
      >
      <tbody>
        {#each found.points as point (point.name)}
          <tr class="border-line border-b" data-testid="speed-{point.name}"
            ><th scope="row" class="py-1 text-left font-normal">{point.name}</th><td class="figure"
              >{shown(point.speed)}</td
            ><td class="figure">{shown(point.life)}</td><td class="figure">{shown(point.seconds)}</td><td
              class="figure">{shown(point.cost)}</td
            ><td class="figure">{point.parts}</td><td class="text-right"
              ><Offer
                {bench}
                remedy={point.remedy}
                label={point.remedy?.text.metric.startsWith("to the top") ? "to the top" : "use"}
              /></td
            ></tr
          >
        {/each}
      </tbody>
    </table>
    <div class="mt-4 grid gap-x-6 md:grid-cols-2">
      <section>
        <h3 class="font-semibold">How many edges last so many pieces</h3>
        <Chart chart={found.survival} label="Share of edges that last over pieces" height={170} />
      </section>
      <section>
        <h3 class="font-semibold">When to change</h3>
        <table class="mt-1 w-full" aria-label="Change intervals">
          <tbody>
            {#each found.changes as change (change.probability)}
              <tr class="border-line border-b"
                ><th scope="row" class="py-1 text-left font-normal">{change.probability} of edges last</th><td
                  class="figure text-right">{pieces(change.parts)}</td
                ></tr
              >
            {/each}
            <tr class="border-line border-b"
              ><th scope="row" class="py-1 text-left font-normal"
                >planned, {found.planned.probability} last</th
              ><td class="figure text-right">{pieces(found.planned.parts)}</td></tr
            >
          </tbody>
        </table>
        <p class="mt-2">
          A run is {pieces(found.run)}{found.sister_tools > 1
            ? `: ${found.sister_tools} sister tools at 95 %`
            : ""}.
        </p>
      </section>
    </div>
    <p class="text-soft mt-3">
      Model band: a factor of two either way until a trial has calibrated it. Process scatter: Weibull shape {found.shape}.
      Two things, shown apart. Sources: Taylor 1907, Gilbert 1950, Weibull 1951.
    </p>
    <Working lines={found.working} />
  {:else if !study.problem}<p class="text-soft" aria-busy="true">Sweeping the speed …</p>{/if}
</Sheet>
