<script lang="ts">
  import { createVirtualizer } from "@tanstack/svelte-virtual";
  import { untrack } from "svelte";
  import { shown } from "../session.svelte";
  import type { ToolSearch } from "./search.svelte";

  interface Props {
    search: ToolSearch;
    /** Place of the row under the keyboard. */
    place: number;
    open: (id: number) => void;
    opened: number | null;
    walk: (by: 1 | -1) => void;
  }
  let { search, place = $bindable(), open, opened, walk }: Props = $props();
  const ROW = 28;
  let scroller: HTMLElement | undefined = $state();
  const virtual = createVirtualizer<HTMLElement, HTMLElement>({
    count: 0,
    getScrollElement: () => scroller ?? null,
    estimateSize: () => ROW,
    overscan: 12,
  });

  $effect(() => {
    const count = search.matched;
    void scroller;
    untrack(() => $virtual.setOptions({ count, getScrollElement: () => scroller ?? null }));
  });
  $effect(() => {
    const items = $virtual.getVirtualItems();
    if (items.length) void search.need(items[0]!.index, items.at(-1)!.index);
  });
  $effect(() => {
    const to = place;
    untrack(() => search.matched && $virtual.scrollToIndex(to, { align: "auto" }));
  });
  const columns = "grid grid-cols-[132px_minmax(0,1fr)_80px_60px_36px_70px_84px] gap-x-2 px-2.5";
</script>

<div class="flex min-h-0 flex-1 flex-col" role="table" aria-label="Tools" aria-rowcount={search.matched + 1}>
  <div class="text-soft border-line border-b text-[13px] {columns}" role="row" aria-rowindex={1}>
    {#each ["designation", "geometry", "grade", "corner", "edges", "per edge", "stock · bin"] as head, k (head)}
      <span role="columnheader" class={k > 2 ? "text-right" : ""}>{head}</span>
    {/each}
  </div>
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <div
    bind:this={scroller}
    class="min-h-0 flex-1 overflow-auto"
    tabindex="0"
    role="rowgroup"
    aria-label="Tools found"
  >
    <div class="relative w-full" style:height="{$virtual.getTotalSize()}px">
      {#each $virtual.getVirtualItems() as item (item.index)}
        {@const row = search.row(item.index)}
        <div
          role="row"
          aria-rowindex={item.index + 2}
          class="border-line absolute top-0 left-0 w-full items-center border-b {columns} {row &&
          row.id === opened
            ? 'bg-ink text-sheet'
            : ''} {item.index === place ? 'outline-edge outline-1 -outline-offset-1 outline-dashed' : ''}"
          style:height="{ROW}px"
          style:transform="translateY({item.start}px)"
        >
          {#if row}
            <span role="cell" class="figure truncate"
              ><button
                class="hover:underline"
                data-tool-row={item.index}
                onfocus={() => (place = item.index)}
                onkeydown={(event) => {
                  if (event.key !== "ArrowDown" && event.key !== "ArrowUp") return;
                  event.preventDefault();
                  walk(event.key === "ArrowDown" ? 1 : -1);
                }}
                onclick={() => {
                  place = item.index;
                  open(row.id);
                }}>{row.designation}</button
              ></span
            >
            <span role="cell" class="truncate" title={row.purpose}
              >{row.diameter
                ? `${row.kind}, Ø ${shown(row.diameter)}`
                : row.geometry ||
                  (row.section
                    ? `${row.kind}, ${shown(row.section)}, κr ${shown(row.angle)}`
                    : row.kind)}</span
            >
            <span role="cell" class="truncate" title={row.substrate}>{row.grade}</span>
            <span role="cell" class="figure truncate text-right"
              >{row.nose_radius ? shown(row.nose_radius) : row.width ? `b ${shown(row.width)}` : ""}</span
            >
            <span role="cell" class="figure truncate text-right">{row.edges ?? ""}</span>
            <span role="cell" class="figure truncate text-right"
              >{row.edge_price ? shown(row.edge_price) : shown(row.price)}</span
            >
            <span role="cell" class="figure truncate text-right">{row.quantity} · {row.bin || "–"}</span>
          {:else}<span role="cell" class="text-soft">…</span>{/if}
        </div>
      {/each}
    </div>
    {#if search.asked && !search.matched}
      <p class="p-3">
        No tools by these words and filters. <a class="plain-link" href="#/exchange">Import a list of tools</a
        >, or take the filters away.
      </p>
    {/if}
  </div>
</div>
