<script lang="ts" module>
  export type StudyName =
    | "plan"
    | "rigidity"
    | "life"
    | "ways"
    | "edge"
    | "coolant"
    | "hard"
    | "setting"
    | "traces"
    | "thread size";
  /** Studies of an operation with the key that opens each. */
  export const STUDIES: [StudyName, string, string][] = [
    ["plan", "passes, size", "z"],
    ["rigidity", "rigidity", "r"],
    ["life", "edge life", "l"],
    ["ways", "ways to turn", "t"],
    ["edge", "edge angles", "g"],
    ["coolant", "coolant", "c"],
    ["hard", "hard turning", "h"],
    ["setting", "set-up", "x"],
    ["traces", "traces", "d"],
    ["thread size", "thread size", "z"],
  ];
</script>

<script lang="ts">
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

  interface Props {
    bench: OperationBench;
    open: StudyName | null;
    close: () => void;
  }
  let { bench, open, close }: Props = $props();
</script>

{#if open === "plan"}<PlanSheet {bench} {close} />
{:else if open === "rigidity"}<RigiditySheet {bench} {close} />
{:else if open === "life"}<EdgeLifeSheet {bench} {close} />
{:else if open === "ways"}<WaysSheet {bench} {close} />
{:else if open === "edge"}<EdgeAnglesSheet {bench} {close} />
{:else if open === "coolant"}<CoolantSheet {bench} {close} />
{:else if open === "hard"}<HardSheet {bench} {close} />
{:else if open === "setting"}<SettingSheet {bench} {close} />
{:else if open === "thread size"}<ThreadSizeSheet {bench} {close} />
{:else if open === "traces"}<TracesSheet {bench} {close} />{/if}
