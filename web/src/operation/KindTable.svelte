<script lang="ts">
  import type { Schemas } from "../api/client";
  import { shown } from "../session.svelte";

  let { table }: { table: Schemas["TableOut"] } = $props();
</script>

<table class="mt-1 w-full" aria-label={table.caption}>
  <thead class="text-soft text-right text-[13px]"
    ><tr class="border-line border-b"
      >{#each table.head as head, k (k)}<th scope="col" class="font-normal {k ? 'pl-2' : 'text-left'}"
          >{shown(head)}</th
        >{/each}</tr
    ></thead
  >
  <tbody class="text-right">
    {#each table.rows as row, k (k)}
      <tr class="border-line border-b"
        >{#each row.cells as cell, j (j)}<td class={j ? "figure pl-2" : "text-left"}>{shown(cell)}</td
          >{/each}</tr
      >
    {/each}
  </tbody>
</table>
