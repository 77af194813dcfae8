<script lang="ts">
  import Panel from "../../../lib/Panel.svelte";
  import type { OperationBench } from "../../bench.svelte";
  import LimitMap from "../LimitMap.svelte";
  import { viewOf } from "../view";

  let { bench }: { bench: OperationBench } = $props();
  const view = $derived(viewOf(bench, "heavy bore"));
</script>

<Panel title="Feed over speed" stale={bench.stale} class="area-map">
  {#if view}
    <LimitMap
      {bench}
      map={view.map}
      across={view.speed_axis}
      up={view.feed_axis}
      sets={["cutting_speed", "feed_per_rev"]}
      write={[(speed) => `${speed.toFixed(0)} m/min`, (feed) => `${feed.toFixed(3)} mm/rev`]}
      label="Feed over speed; the field that no limit forbids is shaded. Arrow keys move speed and feed."
    />
  {/if}
</Panel>
