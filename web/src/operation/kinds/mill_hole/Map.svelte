<script lang="ts">
  import Panel from "../../../lib/Panel.svelte";
  import type { OperationBench } from "../../bench.svelte";
  import LimitMap from "../LimitMap.svelte";
  import { viewOf } from "../view";

  let { bench }: { bench: OperationBench } = $props();
  const view = $derived(viewOf(bench, "mill hole"));
</script>

<Panel title="Pitch over feed" stale={bench.stale} class="area-map">
  {#if view && view.scene.path !== "helix"}
    <p class="text-soft px-2.5">Straight down there is no helix: the feed alone is set.</p>
  {:else if view}
    <LimitMap
      {bench}
      map={view.map}
      across={view.feed_axis}
      up={view.pitch_axis}
      sets={["feed_per_tooth", "pitch"]}
      write={[(feed) => `${feed.toFixed(3)} mm/tooth`, (pitch) => `${pitch.toFixed(2)} mm`]}
      label="Pitch over feed a tooth; the field that no limit forbids is shaded. Arrow keys move feed and pitch."
    />
  {/if}
</Panel>
