<script lang="ts">
  import EnterTool from "../lib/EnterTool.svelte";
  import { toolName } from "../lib/names";
  import { shown } from "../session.svelte";
  import type { JobEditor } from "./editor.svelte";

  let { editor }: { editor: JobEditor } = $props();
  const state = $derived(editor.job!.state);
  const wanted = $derived(state.operations.filter((row) => row.status === "no tool" && row.problem));
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
{#if wanted.length}
  <h3 class="px-2.5 pt-2 font-semibold">To buy or to borrow</h3>
  <ul aria-label="Tools that are wanted">
    {#each wanted as row (row.id)}
      <li class="border-line border-t px-2.5 py-1">
        <span class="figure">{row.number}</span>
        {row.title}: {shown(row.problem!)}
        <EnterTool record={row.wanted} job={editor.id} />
      </li>
    {/each}
  </ul>
{/if}
