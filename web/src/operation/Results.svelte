<script lang="ts">
  import type { Schemas } from "../api/client";
  import Panel from "../lib/Panel.svelte";
  import { shown } from "../session.svelte";
  import type { OperationBench } from "./bench.svelte";

  interface Props {
    bench: OperationBench;
    open: (value: Schemas["ValueOut"]) => void;
  }
  let { bench, open }: Props = $props();
  const rows = $derived(
    (bench.evaluation?.headline ?? [])
      .map((name) => bench.evaluation?.results[name])
      .filter((value) => value !== undefined),
  );

  const bandOf = (value: Schemas["ValueOut"]) => {
    if (!value.low || !value.high) return value.honesty === "rule" ? "rule of thumb" : "";
    const bare = (text: string) => text.replace(/\s\S*[^\d\s.]\S*$/, "");
    const [low, high] = [bare(shown(value.low)), bare(shown(value.high))];
    return low === high ? "" : `${low} – ${high}`; // narrower than a digit that is shown
  };
</script>

<Panel title="Result" stale={bench.stale} class="area-results">
  {#snippet aside()}{#if bench.evaluation?.learned.length}<a
        class="plain-link text-mark mr-2"
        href="#/trials"
        title={bench.evaluation.learned.join("; ")}>◆ learned</a
      >{/if}working <kbd>w</kbd>{/snippet}
  <table class="w-full table-fixed">
    <colgroup><col class="w-[104px]" /><col class="w-[88px]" /><col /></colgroup>
    <tbody>
      {#each rows as value (value.name)}
        {@const band = bandOf(value)}
        <tr class="border-line border-t first:border-0">
          <th scope="row" class="px-2.5 py-0 text-left font-normal whitespace-nowrap"
            ><button
              class="py-[1px] text-left hover:underline"
              title="{value.means} Click for the calculation."
              onclick={() => open(value)}>{value.label}</button
            ></th
          >
          <td class="figure text-right text-[14px] font-semibold whitespace-nowrap" data-testid={value.name}
            >{shown(value.display)}</td
          >
          <td
            class="figure text-soft pr-2 pl-1 text-right whitespace-nowrap {band.length > 15
              ? 'text-[11px]! tracking-tight'
              : 'text-[12px]!'}">{band}</td
          >
        </tr>
      {/each}
    </tbody>
  </table>
</Panel>
