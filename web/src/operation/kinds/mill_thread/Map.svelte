<script lang="ts">
  import Panel from "../../../lib/Panel.svelte";
  import { session, shown } from "../../../session.svelte";
  import type { OperationBench } from "../../bench.svelte";
  import { viewOf } from "../view";

  let { bench }: { bench: OperationBench } = $props();
  const view = $derived(viewOf(bench, "mill thread"));
  const widest = $derived(Math.max(...(view?.passes ?? []).map((one) => one.taper), 1e-9));
  function pick(passes: number, repeats: number) {
    bench.attempt({ passes: String(passes), repeats: String(repeats) });
  }
</script>

<Panel title="What passes give" stale={bench.stale} class="area-map">
  {#snippet aside()}radial + at size{/snippet}
  {#if view}
    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <div
      class="min-h-0 flex-1 overflow-auto px-2"
      id="operation-map"
      tabindex="0"
      role="region"
      aria-label="What passes give"
    >
      <table class="w-full text-right text-[13.5px]">
        <thead class="text-soft bg-sheet sticky top-0 text-[12.5px]">
          <tr
            ><th scope="col" class="text-left font-normal">passes</th><th scope="col" class="font-normal"
              >time</th
            ><th scope="col" class="font-normal">taper</th><th scope="col" class="w-[10%] font-normal"
              ><span class="sr-only">taper drawn</span></th
            ><th scope="col" class="font-normal">holds</th><th scope="col" class="pl-2 font-normal"
              >deflecting</th
            ></tr
          >
        </thead>
        <tbody>
          {#each view.passes as one (`${one.passes} ${one.repeats}`)}
            <tr
              class="border-line border-t {one.present ? 'bg-wash font-semibold' : ''} {one.sound
                ? ''
                : 'text-soft'}"
            >
              <th scope="row" class="text-left font-normal">
                <button
                  class="plain-link"
                  disabled={!session.mayEdit}
                  aria-pressed={one.present}
                  onclick={() => pick(one.passes, one.repeats)}
                  >{one.passes}{one.repeats ? ` + ${one.repeats}` : ""}</button
                >{#if !one.sound}<span class="text-signal text-[12px]"> breaks a limit</span>{/if}
              </th>
              <td class="figure">{shown(one.labels.seconds)}</td>
              <td class="figure pl-2">{shown(one.labels.taper)}</td>
              <td
                ><div
                  class="bg-mark ml-1 h-2"
                  style:width="{(100 * one.taper) / widest}%"
                  aria-hidden="true"
                ></div></td
              >
              <td class="figure">{shown(one.labels.width)}</td>
              <td class="figure pl-2">{shown(one.labels.push_off)}</td>
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
  {/if}
</Panel>
