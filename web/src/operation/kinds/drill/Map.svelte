<script lang="ts">
  import Panel from "../../../lib/Panel.svelte";
  import { shown } from "../../../session.svelte";
  import type { OperationBench } from "../../bench.svelte";
  import ScrubBar from "../ScrubBar.svelte";
  import { viewOf } from "../view";
  import OverDepth from "./OverDepth.svelte";
  import Window from "./Window.svelte";

  let { bench }: { bench: OperationBench } = $props();
  let second = $state(false);
  const view = $derived(viewOf(bench, "drill"));
  // the drawing begins inside the metal, where there is something to see
  $effect(() => {
    if (view && bench.scrub.seconds === 0 && !bench.scrub.playing)
      bench.scrub.goto(Math.round(view.moments.length * 0.6));
  });
  const now = $derived(view?.moments[bench.scrub.index]);
</script>

<Panel title={second ? "Speed and feed by layer" : "Depth"} stale={bench.stale} class="area-map">
  {#snippet aside()}
    {#if !second}<ScrubBar scrub={bench.scrub} said="{shown(now?.labels.depth)} deep" />{/if}
    <button class="ml-1 hover:underline" aria-pressed={second} onclick={() => (second = !second)}
      >{second ? "over depth" : "speed × feed"}</button
    >
  {/snippet}
  {#if second}<Window {bench} />{:else}<OverDepth {bench} />{/if}
</Panel>
