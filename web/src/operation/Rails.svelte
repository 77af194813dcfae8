<script lang="ts">
  import type { Schemas } from "../api/client";
  import Panel from "../lib/Panel.svelte";
  import Rail from "../lib/Rail.svelte";
  import Scroll from "../lib/Scroll.svelte";
  import { shown } from "../session.svelte";
  import type { OperationBench } from "./bench.svelte";

  interface Props {
    bench: OperationBench;
    open: (limit: Schemas["LimitOut"]) => void;
  }
  let { bench, open }: Props = $props();

  const binding = $derived(bench.limits[0]);
  const remedies = $derived(binding ? bench.remediesOf(binding.name) : []);
  const faster = $derived(bench.follow && !bench.following ? bench.follow.faster : []);
  const held = $derived(!!binding && broken(binding));
  const offers = $derived(held ? remedies : faster);
  function broken(limit: Schemas["LimitOut"]) {
    return limit.wanting;
  }
</script>

<Panel
  title="Limits{binding ? ` · ${binding.label.split(',')[0]} governs` : ''}"
  stale={bench.stale}
  class="area-rails"
>
  <Scroll counts="li" label="Limits" role="region">
    <ul class="px-2.5" aria-label="Limits, the closest first">
      {#each bench.limits as limit, k (limit.name)}
        {@const over = broken(limit)}
        <li>
          <button
            class="block w-full py-[3px] text-left {k === 0 ? 'font-semibold' : ''} {over
              ? limit.severity === 'hard' && limit.standing === 'over'
                ? 'text-signal'
                : 'text-warn'
              : ''}"
            onclick={() => open(limit)}
            title="{limit.why} Click for the calculation."
          >
            <Rail {limit} first={k === 0} />
          </button>
        </li>
      {/each}
    </ul>
  </Scroll>
  <div class="border-line mx-2.5 min-h-[92px] shrink-0 border-t py-1.5" aria-live="polite">
    {#if bench.following}
      <p class="text-soft">trying remedies …</p>
    {:else if offers.length}
      <h3 class="font-semibold {held ? 'text-signal' : ''}">
        {held ? "To meet this limit:" : "To go faster:"}
      </h3>
      <ol>
        {#each offers as remedy, k (k)}
          <li>
            <button
              class="w-full text-left hover:underline"
              onclick={() => void bench.apply(remedy)}
              data-testid="remedy"
            >
              <kbd>{k + 1}</kbd>
              {shown(remedy.text)} <span class="text-soft">{shown(remedy.effect)}</span>
            </button>
          </li>
        {/each}
      </ol>
    {:else if binding}
      <p class="text-soft">
        {held
          ? "No single change is enough. Try another tool."
          : "Nothing faster within limits. Try another tool."}
      </p>
    {/if}
  </div>
</Panel>
