<script lang="ts">
  import type { Component } from "svelte";
  import type { OperationBench } from "../operation/bench.svelte";
  import CoolantSheet from "./CoolantSheet.svelte";
  import EdgeAnglesSheet from "./EdgeAnglesSheet.svelte";
  import EdgeLifeSheet from "./EdgeLifeSheet.svelte";
  import HardSheet from "./HardSheet.svelte";
  import PlanSheet from "./PlanSheet.svelte";
  import RigiditySheet from "./RigiditySheet.svelte";
  import SettingSheet from "./SettingSheet.svelte";
  import ThreadSizeSheet from "./ThreadSizeSheet.svelte";
  import TracesSheet from "./TracesSheet.svelte";
  import WaysSheet from "./WaysSheet.svelte";

  /** The sheet that is open; the menu and its keys come with the operation. */
  interface Props {
    bench: OperationBench;
    open: string | null;
    close: () => void;
  }
  let { bench, open, close }: Props = $props();
  const SHEETS: Record<string, Component<{ bench: OperationBench; close: () => void }>> = {
    plan: PlanSheet,
    rigidity: RigiditySheet,
    life: EdgeLifeSheet,
    ways: WaysSheet,
    edge: EdgeAnglesSheet,
    coolant: CoolantSheet,
    hard: HardSheet,
    setting: SettingSheet,
    "thread size": ThreadSizeSheet,
    traces: TracesSheet,
  };
  const OpenSheet = $derived(open ? SHEETS[open] : undefined);
</script>

{#if OpenSheet}<OpenSheet {bench} {close} />{/if}
