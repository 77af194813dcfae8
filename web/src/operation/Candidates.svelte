<script lang="ts">
  import { toolName } from "../lib/names";
  import { arrows } from "../lib/list";
  import ColumnChoice from "../lib/ColumnChoice.svelte";
  import { Columns } from "../lib/columns.svelte";
  import { Sorted } from "../lib/sorted.svelte";
  import Panel from "../lib/Panel.svelte";
  import Scroll from "../lib/Scroll.svelte";
  import { session, shown } from "../session.svelte";
  import { nameOf, type Candidate, type OperationBench } from "./bench.svelte";
  import ChainSheet from "./ChainSheet.svelte";

  interface Props {
    bench: OperationBench;
    compare: () => void;
    why: () => void;
    list?: HTMLElement | undefined;
  }
  let { bench, compare, why, list = $bindable() }: Props = $props();
  const advice = $derived(bench.follow?.advice);
  const heads = $derived(advice?.heads ?? []);
  /** Where a kind has many figures of its own the grade stands under the tool's name. */
  const crowded = $derived(heads.length > 3);
  const left = (head: string | undefined) => head === "way" || head === "cartridges" || head === "pecks";
  const nearest = $derived(advice?.nearly.slice(0, 3) ?? []);
  // svelte-ignore state_referenced_locally
  const order = $derived(new Sorted(`ranking ${bench.evaluation?.operation ?? ""}`));
  const FIGURES: readonly (readonly [string, (row: Candidate) => string])[] = [
    ["speed", (row) => shown(row.speed)],
    ["feed", (row) => shown(row.feed)],
    ["time", (row) => shown(row.seconds)],
    ["cost", (row) => shown(row.cost)],
    ["parts", (row) => shown(row.parts_per_edge)],
    ["reliable", (row) => row.secure],
  ];
  const texts = (row: Candidate, column: string): string => {
    const own = heads.indexOf(column);
    if (own >= 0) return shown(row.more[own]);
    const of: Record<string, (row: Candidate) => string> = {
      tool: (one) => one.designation,
      grade: (one) => `${one.geometry} ${one.grade}`,
      reason: (one) => one.reason,
      ...Object.fromEntries(FIGURES),
    };
    return of[column]?.(row) ?? "";
  };
  const rows = $derived(order.rows(advice?.candidates ?? [], texts));
  const columns = new Columns("ranking");
  const names = $derived([
    ...(crowded ? [] : [["grade", heads.length ? "grade" : "geometry · grade"] as const]),
    ...heads.map((one) => [one, one] as const),
    ...(heads.length ? [] : [["speed", "speed"] as const]),
    ["feed", "feed"] as const,
    ["time", "time"] as const,
    ["cost", "cost"] as const,
    ["parts", "pieces per edge"] as const,
    ["reliable", "reliable"] as const,
    ["reason", "reason for rank"] as const,
  ]);
  const before = $derived(
    names
      .slice(
        0,
        names.findIndex(([column]) => column === "time"),
      )
      .filter(([column]) => columns.shown(column)).length,
  );
  let opened = $state(""); // the chain whose steps are shown
  let played = $state<Candidate | null>(null); // and the one that is looked at in the scene
</script>

{#snippet head(column: string, words: string, extra: string, title = "")}
  {#if column === "tool" || columns.shown(column)}<th
      scope="col"
      class="font-normal {extra}"
      aria-sort={order.aria(column)}
      ><button class="hover:underline" title={title || `sort by ${words}`} onclick={() => order.by(column)}
        >{words}{order.mark(column)}</button
      ></th
    >{/if}
{/snippet}

<Panel
  title="Tool ranking{advice ? ` · ${advice.candidates.length} of ${advice.pairs} pairs` : ''}"
  stale={bench.following}
  class="area-candidates"
>
  {#snippet aside()}
    {#if bench.following}<span class="mr-2">following …</span>{/if}
    <span class="mr-2"><ColumnChoice {columns} {names} /></span>
    <button class="hover:underline" onclick={compare} disabled={!bench.pinned.length}
      >compare {bench.pinned.length || ""}</button
    > <kbd>p</kbd>
    <button class="ml-2 hover:underline" onclick={why}
      >rejected tools{advice?.note ? ", and a note" : ""} <kbd>y</kbd></button
    >
  {/snippet}
  {#if bench.followProblem}
    <p class="text-signal px-2.5" role="alert">{bench.followProblem.message}</p>
  {:else if advice && !advice.candidates.length}
    <div class="overflow-auto px-2.5 py-1" role="status" data-testid="nothing-fits">
      <p class="font-semibold">
        No tool stays within all limits: <span class="figure">{advice.fitting}</span> of
        <span class="figure">{advice.pairs}</span> pairs fit{advice.missed
          ? `, ${advice.missed} tools break a limit`
          : ""}.
      </p>
      {#each nearest as near, k (near.edge + near.on + near.way)}
        <p class="mt-0.5">
          {k ? "" : "Nearest: "}<b>{toolName(near.edge)}</b> on {near.on}:
          <span class="text-signal">{near.miss ? shown(near.miss) : near.reason}</span>.
        </p>
      {/each}
      {#each advice.refused.slice(0, 2) as refused (refused.reason)}<p class="text-soft">
          <span class="figure">{refused.pairs}</span> pairs: {refused.reason}
        </p>{/each}
      <p>
        <button class="plain-link" onclick={why}>All reasons <kbd>y</kbd></button>
        {#if advice.note}<span class="text-soft ml-2">{advice.note}</span>{/if}
      </p>
    </div>
  {:else if advice}
    <Scroll
      class={bench.following ? "opacity-70" : ""}
      role="region"
      label="Ranking"
      counts="tbody tr"
      bind:body={list}
    >
      <table class="w-full">
        <thead class="text-soft bg-sheet sticky top-0 z-10 text-right text-[13px]">
          <tr class="whitespace-nowrap">
            {@render head("tool", crowded ? "tool · grade" : "tool", "pl-2.5 text-left")}
            {#if !crowded}{@render head(
                "grade",
                heads.length ? "grade" : "geometry · grade",
                "text-left",
              )}{/if}
            {#each heads as one, k (k)}{@render head(one, one, `pl-2 ${left(one) ? "text-left" : ""}`)}{/each}
            {#if !heads.length}{@render head(
                "speed",
                session.units === "inch" ? "sfm" : "m/min",
                "pl-2",
              )}{/if}
            {@render head(
              "feed",
              session.units === "inch" ? advice.feed_unit.inch : advice.feed_unit.metric,
              "pl-2",
            )}
            {@render head("time", "s", "pl-2")}{@render head("cost", session.currency, "pl-2")}
            {@render head("parts", "pcs/edge", "pl-2", "pieces per edge")}{@render head(
              "reliable",
              "reliable",
              "pl-2",
            )}
            {@render head("reason", "reason for rank", "pl-3 text-left")}
          </tr>
        </thead>
        <!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
        <tbody onkeydown={arrows}>
          {#each rows as { row, k } (nameOf(row) + row.on + k)}
            <tr data-row={k} class="border-line border-t {row.chosen ? 'bg-ink text-sheet' : ''}">
              <td
                class="figure pl-2.5 leading-[15px] !whitespace-normal {crowded
                  ? 'max-w-[210px]'
                  : 'max-w-[170px]'}"
                ><button
                  class="text-left hover:underline"
                  title="Take {row.edge} on {row.on}"
                  disabled={!session.mayEdit}
                  data-stop={k === bench.candidate ? "current" : ""}
                  onfocus={() => (bench.candidate = k)}
                  onclick={() => {
                    bench.candidate = k;
                    void bench.take(row);
                  }}>{toolName(row.designation)}</button
                >{#if crowded}<span class="ml-1 font-sans text-[12px] {row.chosen ? '' : 'text-soft'}"
                    >{row.grade}</span
                  >{/if}{#if bench.pinned.includes(nameOf(row))}<span title="pinned">
                    ●</span
                  >{/if}{#if row.set_up}<span class="ml-1 text-[12px]" title="assembled: {row.set_up}"
                    >▣<span class="sr-only">assembled: {row.set_up}</span></span
                  >{/if}{#if row.in_place}<span
                    class="ml-1 text-[12px] whitespace-nowrap {row.chosen ? '' : 'text-soft'}"
                    title="has its place already, for operation {row.in_place}"
                    >used in op {row.in_place}</span
                  >{/if}{#if row.way && !heads.length}<span
                    class="ml-1 font-sans text-[12px] whitespace-nowrap {row.chosen ? '' : 'text-soft'}"
                    >{row.way}</span
                  >{/if}{#if row.steps.length}<button
                    class="plain-link ml-1 text-[12px] whitespace-nowrap"
                    aria-expanded={opened === nameOf(row)}
                    onclick={() => (opened = opened === nameOf(row) ? "" : nameOf(row))}
                    >{row.steps.length} steps {opened === nameOf(row) ? "▴" : "▾"}</button
                  >{/if}</td
              >
              {#if !crowded && columns.shown("grade")}<td
                  class="pl-2 leading-[14px] {heads.length ? '' : 'whitespace-nowrap'}"
                  >{heads.length ? row.grade : `${row.geometry} · ${row.grade}`}</td
                >{/if}
              {#each row.more.slice(0, heads.length) as value, j (j)}{#if columns.shown(heads[j]!)}<td
                    class="pl-2 {left(heads[j]) ? 'text-left leading-tight' : 'figure text-right'}"
                    >{shown(value)}</td
                  >{/if}{/each}
              {#each FIGURES as [column, text] (column)}{#if columns.shown(column) && (column !== "speed" || !heads.length)}<td
                    class="figure pl-2 text-right {column === 'feed' ? '!whitespace-normal' : ''}"
                    >{text(row)}</td
                  >{/if}{/each}
              {#if columns.shown("reason")}<td
                  class="pr-1 pl-3 text-[13px] leading-[14px] {row.chosen ? '' : 'text-soft'}"
                  >{row.chosen && k ? `chosen; ${row.reason}` : row.chosen ? "chosen, first" : row.reason}</td
                >{/if}
            </tr>
            {#if row.steps.length && opened === nameOf(row)}
              {#each row.steps as step, j (j)}
                <tr class="bg-wash" data-testid="chain-step">
                  <td class="pl-5" colspan={1 + before}
                    >{step.title === "then" ? "then with" : `${step.title} with`}
                    <b class="font-semibold">{toolName(step.edge)}</b> on {step.on}</td
                  >
                  {#if columns.shown("time")}<td class="figure pl-2 text-right">{shown(step.seconds)}</td
                    >{/if}
                  {#if columns.shown("cost")}<td class="figure pl-2 text-right">{shown(step.cost)}</td>{/if}
                  <td colspan="3" class="pl-3"
                    >{#if j === row.steps.length - 1}<button
                        class="plain-link"
                        data-testid="play-chain"
                        onclick={() => (played = row)}>look at them in the scene</button
                      >{/if}</td
                  >
                </tr>
              {/each}
            {/if}
          {/each}
        </tbody>
      </table>
    </Scroll>
  {:else}
    <p class="text-soft px-2.5">ranking the crib …</p>
  {/if}
</Panel>
{#if played}<ChainSheet {bench} row={played} close={() => (played = null)} />{/if}
