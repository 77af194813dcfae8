<script lang="ts">
  import type { Schemas } from "../api/client";
  import { session, shown } from "../session.svelte";
  import type { JobEditor } from "./editor.svelte";
  import Histogram from "./Histogram.svelte";
  import SurerChanges from "./SurerChanges.svelte";

  let { found, editor }: { found: Schemas["ChancesOut"]; editor: JobEditor } = $props();
  /** One decimal near nothing and near everything, and neither is said where it is not so. */
  const share = (value: number) => {
    if (value <= 0 || value >= 1) return `${100 * value}%`;
    const near = value < 0.1 || value > 0.9;
    return `${Math.min(Math.max(100 * value, 0.1), 99.9).toFixed(near ? 1 : 0)}%`;
  };
  const marks = $derived(
    [
      { name: "planned", value: found.planned_money, display: found.planned },
      { name: "target", value: found.target_money, display: found.target },
    ].flatMap(({ name, value, display }) => (display && value != null ? [{ name, value, display }] : [])),
  );
  const moved = $derived(
    [...found.causes].filter((one) => one.share >= 0.01).sort((a, b) => b.share - a.share),
  );
</script>

<div class="mt-3 grid gap-x-8 gap-y-3 md:grid-cols-2">
  <div>
    <p data-testid="chances">
      All hard limits hold in <b class="figure">{share(found.all_hold)}</b> of {found.draws} runs. A piece costs
      <span class="figure">{shown(found.cost[1])}</span>; 90 % lie between
      <span class="figure">{shown(found.cost[0])}</span> and
      <span class="figure">{shown(found.cost[2])}</span>; planned are
      <span class="figure">{shown(found.planned)}</span>.
      {#if found.target && found.within_target !== null}
        Within the target of <span class="figure">{shown(found.target)}</span>:
        <b class="figure">{share(found.within_target)}</b>.{/if}
    </p>
    <p class="mt-2">
      {#if moved.length}The cost goes with {#each moved as one, k (one.name)}{k ? ", " : ""}{one.name}
          <span class="figure">{share(one.share)}</span>{/each}.{:else}Nothing that is drawn moves the cost.{/if}
    </p>
  </div>
  <Histogram
    edges={found.edges}
    counts={found.counts}
    label="Cost per piece by how often, {session.currency}"
    {marks}
  />
</div>
<table class="mt-3 w-full" aria-label="How surely each operation holds">
  <thead class="text-soft text-left text-[13px]"
    ><tr class="border-line border-b"
      ><th scope="col" class="py-1 font-normal">operation</th><th scope="col" class="text-right font-normal"
        >holds in</th
      ><th scope="col" class="pl-6 font-normal">limit exceeded most often</th><th
        scope="col"
        class="text-right font-normal">cost, nine of ten, {session.currency}</th
      ></tr
    ></thead
  >
  <tbody>
    {#each found.operations as row (row.operation)}
      <tr class="border-line border-b"
        ><td class="py-1"><span class="figure">{row.number}</span> {row.title}</td><td
          class="figure text-right {row.share < 0.95 ? 'text-signal font-semibold' : ''}"
          >{share(row.share)}</td
        ><td class="pl-6"
          >{#if row.worst}{row.worst}, <span class="figure">{share(row.worst_share)}</span>{:else}<span
              class="text-soft">nothing</span
            >{/if}</td
        ><td class="figure text-right">{shown(row.cost[0])} – {shown(row.cost[2])}</td></tr
      >
    {/each}
  </tbody>
</table>
<SurerChanges {found} {editor} />
<p class="text-soft mt-3">
  Drawn: the hardness within what the material is delivered in (where it was measured, within 4 %), the
  cutting force within its band of a quarter, how long the edges last within their band of a factor of two;
  each band as nineteen of twenty. Metal is drawn for the whole part, edges for each operation. Edges are
  changed as they last; what a book would say of another metal is not asked, and of several metals only the
  one that an operation is judged in is drawn.{#if found.left_out}
    Left out, for they cannot be run yet: <span class="figure">{found.left_out}</span>.{/if}
</p>
