<script lang="ts">
  import Sheet from "../lib/Sheet.svelte";
  import { shown } from "../session.svelte";
  import type { Candidate, OperationBench } from "./bench.svelte";

  let { bench, close }: { bench: OperationBench; close: () => void } = $props();
  const rows = $derived(
    (bench.follow?.advice.candidates ?? []).filter((one) => bench.pinned.includes(one.insert)),
  );
  const drivers: [string, (c: Candidate) => string][] = [
    ["holder", (c) => c.holder],
    ["geometry · grade", (c) => `${c.geometry} · ${c.grade}`],
    ["cutting speed", (c) => shown(c.speed)],
    ["feed", (c) => shown(c.feed)],
    ["passes × depth", (c) => `${c.passes} × ${shown(c.depth)}`],
    ["seconds", (c) => shown(c.seconds)],
    ["cost of this operation", (c) => shown(c.cost)],
    ["cost of an edge", (c) => shown(c.edge_price)],
    ["pieces per edge", (c) => shown(c.parts_per_edge)],
    ["runs without a stop", (c) => c.secure],
    ["chip index", (c) => c.chip_index.toFixed(0)],
    ["finish Ra", (c) => shown(c.roughness)],
    ["why not first", (c) => c.reason],
  ];
</script>

<Sheet title="Compare" {close} wide>
  <table class="w-full">
    <thead
      ><tr
        ><th scope="col" class="text-soft text-left font-normal">driver</th
        >{#each rows as row (row.insert)}<th scope="col" class="figure text-left">{row.designation}</th
          >{/each}</tr
      ></thead
    >
    <tbody>
      {#each drivers as [label, read] (label)}
        <tr class="border-line border-t"
          ><th scope="row" class="py-1 text-left font-normal">{label}</th>{#each rows as row (row.insert)}<td
              class="figure py-1">{read(row)}</td
            >{/each}</tr
        >
      {/each}
      <tr
        ><td></td>{#each rows as row (row.insert)}<td class="py-2"
            ><button
              class="control"
              onclick={() => {
                void bench.take(row);
                close();
              }}>take it</button
            ></td
          >{/each}</tr
      >
    </tbody>
  </table>
</Sheet>
