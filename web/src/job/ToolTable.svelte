<script lang="ts">
  import { toolName } from "../lib/names";
  import type { JobEditor } from "./editor.svelte";

  let { editor }: { editor: JobEditor } = $props();
  const state = $derived(editor.job!.state);
</script>

<table class="w-full" aria-label="Tools of the part">
  <thead class="text-soft text-left text-[13px]"
    ><tr class="border-line border-b"
      ><th scope="col" class="px-2.5 font-normal">place</th><th scope="col" class="font-normal">tool</th><th
        scope="col"
        class="font-normal">held in</th
      ><th scope="col" class="pr-2.5 text-right font-normal">operations</th></tr
    ></thead
  >
  <tbody>
    {#each state.tools as tool (tool.pocket)}
      <tr class="border-line border-b"
        ><td class="figure px-2.5 py-1">{tool.pocket}</td><td>{toolName(tool.edge)}</td><td class="text-soft"
          >{tool.on}</td
        ><td class="figure pr-2.5 text-right">{tool.operations.join(", ")}</td></tr
      >
    {:else}<tr><td class="text-soft px-2.5 py-1" colspan="4">No tools yet.</td></tr>{/each}
  </tbody>
</table>
{#if state.pockets && state.tools.length > state.pockets}
  <p class="text-signal px-2.5 py-1" role="alert">
    ■ {state.tools.length} tools, the turret has {state.pockets} places.
  </p>
{:else if state.tools.length}
  <p class="text-soft px-2.5 py-1">
    {state.tools.length}
    {state.tools.length === 1 ? "tool" : "tools"}{state.pockets
      ? ` of ${state.pockets} places in the turret`
      : ", changed by hand"}.
  </p>
{/if}
