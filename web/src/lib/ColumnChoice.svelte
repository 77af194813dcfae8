<script lang="ts">
  import { DropdownMenu } from "bits-ui";
  import type { Columns } from "./columns.svelte";

  /** A menu of a table's columns: those that are ticked are shown. */
  let { columns, names }: { columns: Columns; names: readonly (readonly [string, string])[] } = $props();
</script>

<DropdownMenu.Root>
  <DropdownMenu.Trigger class="hover:underline">columns</DropdownMenu.Trigger>
  <DropdownMenu.Portal>
    <DropdownMenu.Content
      class="bg-sheet text-ink border-edge z-50 max-h-[60vh] min-w-40 overflow-auto border py-1"
      sideOffset={6}
      align="end"
    >
      {#each names as [column, words] (column)}
        <DropdownMenu.CheckboxItem
          checked={columns.shown(column)}
          closeOnSelect={false}
          onCheckedChange={() => columns.toggle(column)}
          class="data-highlighted:bg-ink data-highlighted:text-sheet flex min-h-8 cursor-pointer items-center gap-2 px-3 py-1"
        >
          {#snippet children({ checked })}<span aria-hidden="true" class="figure">{checked ? "✓" : " "}</span
            >{words}{/snippet}
        </DropdownMenu.CheckboxItem>
      {/each}
    </DropdownMenu.Content>
  </DropdownMenu.Portal>
</DropdownMenu.Root>
