<script lang="ts">
  import type { Component } from "svelte";
  import type { OperationBench } from "../operation/bench.svelte";

  /** The sheet that is open; the menu and its keys come with the operation. A study's sheet is the file of its name: "thread size" is in ThreadSizeSheet. */
  interface Props {
    bench: OperationBench;
    open: string | null;
    close: () => void;
  }
  let { bench, open, close }: Props = $props();
  type Sheet = Component<{ bench: OperationBench; close: () => void }>;
  const SHEETS = import.meta.glob<Sheet>("./*Sheet.svelte", { eager: true, import: "default" });
  const file = (name: string): string =>
    `./${name.replace(/(^| )(\w)/g, (_, _blank, first: string) => first.toUpperCase())}Sheet.svelte`;
  const OpenSheet = $derived(open ? SHEETS[file(open)] : undefined);
</script>

{#if OpenSheet}<OpenSheet {bench} {close} />{/if}
