<script lang="ts">
  import type { Schemas } from "../api/client";
  import { when } from "../lib/names";

  interface Props {
    sessions: Schemas["SessionOut"][];
    end?: (name: string) => void;
  }
  let { sessions, end }: Props = $props();
  /** What a person would call it, from what the browser calls itself. */
  const called = (agent: string) =>
    [
      /Firefox|Edge?|Chrome|Safari/.exec(agent)?.[0] ?? "a program",
      /Windows|Android|Mac|Linux/.exec(agent)?.[0],
    ]
      .filter(Boolean)
      .join(", ");
</script>

<table class="w-full text-left">
  <thead class="text-soft text-[13px]"
    ><tr
      ><th class="font-normal">last at it</th><th class="font-normal">since</th><th class="font-normal"
        >address</th
      ><th class="font-normal">with</th>{#if end}<th></th>{/if}</tr
    ></thead
  >
  <tbody>
    {#each sessions as one (one.name)}
      <tr class="border-line border-t">
        <td class="figure py-1">{when(one.seen_at)}</td>
        <td class="figure">{when(one.opened_at)}</td>
        <td class="figure">{one.address}</td>
        <td
          >{called(one.agent)}{#if one.here}, <b>here</b>{/if}</td
        >
        {#if end}<td class="text-right"
            >{#if !one.here}<button class="plain-link" onclick={() => end(one.name)}>Sign out there</button
              >{/if}</td
          >{/if}
      </tr>
    {:else}<tr><td class="text-soft py-1" colspan="5">Nowhere.</td></tr>{/each}
  </tbody>
</table>
