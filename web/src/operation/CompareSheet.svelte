<script lang="ts">
  import Sheet from "../lib/Sheet.svelte";
  import { session, shown } from "../session.svelte";
  import { nameOf, type Candidate, type OperationBench } from "./bench.svelte";

  let { bench, close }: { bench: OperationBench; close: () => void } = $props();
  const rows = $derived(
    (bench.follow?.advice.candidates ?? []).filter((one) => bench.pinned.includes(nameOf(one))),
  );
  const inch = $derived(session.units === "inch");
  const every: [string, (c: Candidate) => string][] = $derived([
    ["held in", (c) => c.on],
    ["geometry · grade", (c) => [c.geometry, c.grade].filter(Boolean).join(" · ")],
    [`cutting speed, ${inch ? "sfm" : "m/min"}`, (c) => shown(c.speed)],
    [`feed, ${shown(bench.follow?.advice.feed_unit)}`, (c) => shown(c.feed)],
    ["passes × depth", (c) => (c.depth ? `${c.passes} × ${shown(c.depth)}` : `${c.passes}`)],
    ["seconds", (c) => shown(c.seconds)],
    [`cost of this operation, ${session.currency}`, (c) => shown(c.cost)],
    [`cost per edge, ${session.currency}`, (c) => shown(c.edge_price)],
    ["pieces per edge", (c) => shown(c.parts_per_edge)],
    ["runs without a stop", (c) => c.secure],
    ["chip index", (c) => c.chip_index.toFixed(0)],
    ...(bench.follow?.advice.heads.includes("Ra")
      ? []
      : [["finish Ra", (c: Candidate) => shown(c.roughness)] as [string, (c: Candidate) => string]]),
    ...[...(bench.follow?.advice.heads ?? []), ...(bench.follow?.advice.further ?? [])].map(
      (head, k): [string, (c: Candidate) => string] => [head, (c) => shown(c.more[k])],
    ),
    ["reason for rank", (c) => c.reason],
  ]);
  // what no candidate of this kind has is left out
  const drivers = $derived(every.filter(([, read]) => rows.some((row) => read(row) !== "–")));
</script>

<Sheet title="Compare" {close} wide>
  <table class="w-full">
    <thead
      ><tr
        ><th scope="col" class="text-soft text-left font-normal">figure</th
        >{#each rows as row (nameOf(row))}<th scope="col" class="figure text-left">{row.designation}</th
          >{/each}</tr
      ></thead
    >
    <tbody>
      {#each drivers as [label, read], k (k)}
        <tr class="border-line border-t"
          ><th scope="row" class="py-1 text-left font-normal">{label}</th>{#each rows as row (nameOf(row))}<td
              class="figure py-1">{read(row)}</td
            >{/each}</tr
        >
      {/each}
      <tr
        ><td></td>{#each rows as row (nameOf(row))}<td class="py-2"
            ><button
              class="control"
              onclick={() => {
                void bench.take(row);
                close();
              }}>Use</button
            ></td
          >{/each}</tr
      >
    </tbody>
  </table>
</Sheet>
