<script lang="ts">
  import Panel from "../lib/Panel.svelte";
  import { session, shown } from "../session.svelte";
  import { nameOf, type OperationBench } from "./bench.svelte";

  interface Props {
    bench: OperationBench;
    compare: () => void;
    why: () => void;
  }
  let { bench, compare, why }: Props = $props();
  const advice = $derived(bench.follow?.advice);
  const heads = $derived(advice?.heads ?? []);
  let body: HTMLElement | undefined = $state();

  $effect(() => {
    body?.querySelector(`[data-row="${bench.candidate}"]`)?.scrollIntoView({ block: "nearest" });
  });
</script>

<Panel
  title="Tools that can do it{advice ? ` · ${advice.candidates.length} of ${advice.pairs} pairs` : ''}"
  stale={bench.following}
  class="area-candidates"
>
  {#snippet aside()}
    {#if bench.following}<span class="mr-2">following …</span>{/if}
    <button class="hover:underline" onclick={compare} disabled={!bench.pinned.length}
      >compare {bench.pinned.length || ""}</button
    > <kbd>p</kbd>
    <button class="ml-2 hover:underline" onclick={why}>why not the others</button>
  {/snippet}
  {#if advice?.note}<p class="text-soft truncate px-2.5 text-[13px]" title={advice.note}>
      {advice.note}
    </p>{/if}
  {#if bench.followProblem}
    <p class="text-signal px-2.5" role="alert">{bench.followProblem.message}</p>
  {:else if advice}
    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <div
      class="min-h-0 flex-1 overflow-auto {bench.following ? 'opacity-70' : ''}"
      bind:this={body}
      tabindex="0"
      role="region"
      aria-label="Ranking"
    >
      <table class="w-full">
        <thead class="text-soft bg-sheet sticky top-0 text-right text-[13px]">
          <tr class="whitespace-nowrap">
            <th scope="col" class="pl-2.5 text-left font-normal">tool</th><th
              scope="col"
              class="text-left font-normal">{heads.length ? "grade" : "geometry · grade"}</th
            >
            {#each heads as head (head)}<th
                scope="col"
                class="pl-2 font-normal {head === 'way' || head === 'cartridges' ? 'text-left' : ''}"
                >{head}</th
              >{/each}
            {#if !heads.length}<th scope="col" class="pl-2 font-normal"
                >{session.units === "inch" ? "sfm" : "m/min"}</th
              >{/if}
            <th scope="col" class="pl-2 font-normal">{session.units === "inch" ? "ipr" : "mm/rev"}</th>
            <th scope="col" class="pl-2 font-normal">s</th><th scope="col" class="pl-2 font-normal"
              >€/piece</th
            >
            <th scope="col" class="pl-2 font-normal">pcs/edge</th><th scope="col" class="pl-2 font-normal"
              >secure</th
            >
            <th scope="col" class="min-w-[120px] pl-3 text-left font-normal">why not first</th>
          </tr>
        </thead>
        <tbody>
          {#each advice.candidates as row, k (row.insert + row.holder + row.way)}
            <tr
              data-row={k}
              class="border-line border-t {row.chosen ? 'bg-ink text-sheet' : ''} {k === bench.candidate
                ? 'outline-signal outline-1 -outline-offset-1 outline-dashed'
                : ''}"
            >
              <td class="figure {heads.length ? 'max-w-[152px]' : ''} truncate pl-2.5 whitespace-nowrap"
                ><button
                  class="hover:underline"
                  title="Take {row.insert} on {row.holder}"
                  disabled={!session.mayEdit}
                  onclick={() => {
                    bench.candidate = k;
                    void bench.take(row);
                  }}>{row.designation}</button
                >{#if bench.pinned.includes(nameOf(row))}<span title="pinned">
                    ●</span
                  >{/if}{#if row.set_up}<span class="ml-1 text-[12px]" title="set up: {row.set_up}"
                    >▣<span class="sr-only">set up: {row.set_up}</span></span
                  >{/if}</td
              >
              <td class="truncate pl-2 whitespace-nowrap"
                >{heads.length ? row.grade : `${row.geometry} · ${row.grade}`}</td
              >
              {#each row.more as value, j (j)}<td
                  class="pl-2 whitespace-nowrap {heads[j] === 'way' || heads[j] === 'cartridges'
                    ? 'text-left'
                    : 'figure text-right'}">{shown(value)}</td
                >{/each}
              {#if !heads.length}<td class="figure pl-2 text-right">{shown(row.speed)}</td>{/if}<td
                class="figure pl-2 text-right">{shown(row.feed)}</td
              >
              <td class="figure pl-2 text-right">{shown(row.seconds)}</td><td class="figure pl-2 text-right"
                >{shown(row.cost)}</td
              >
              <td class="figure pl-2 text-right">{shown(row.parts_per_edge)}</td><td
                class="figure pl-2 text-right">{row.secure}</td
              >
              <td class="w-full max-w-0 truncate pl-3 {row.chosen ? '' : 'text-soft'}" title={row.reason}
                >{row.chosen ? `chosen${k ? `; ${row.reason}` : ""}` : row.reason}</td
              >
            </tr>
          {:else}
            <tr
              ><td colspan={9 + heads.length} class="px-2.5 py-2"
                >No tool in the crib can do it within its limits. See why not the others.</td
              ></tr
            >
          {/each}
        </tbody>
      </table>
    </div>
  {:else}
    <p class="text-soft px-2.5">ranking the crib …</p>
  {/if}
</Panel>
