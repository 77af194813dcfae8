<script lang="ts">
  import type { Schemas } from "../api/client";
  import InsertPicture from "./InsertPicture.svelte";

  let { found }: { found: Schemas["Decoded"] } = $props();
</script>

{#if found.drawing}<InsertPicture drawing={found.drawing} label={found.designation} />{/if}
<p class="mt-1">
  <b class="figure">{found.designation}</b>
  {#if found.other && found.other !== found.designation}<span class="text-soft">inch practice</span>
    <b class="figure">{found.other}</b>{/if}
</p>
<table class="mt-1 w-full text-[13px]" aria-label="What each position says">
  <tbody>
    {#each found.parts as part (part.position + part.name)}
      <tr class="border-line border-t align-top">
        <td class="figure text-soft w-5">{part.position}</td>
        <th scope="row" class="figure w-14 text-left">{part.code}</th>
        <td><span class="text-soft">{part.name}:</span> {part.meaning}</td>
      </tr>
    {/each}
  </tbody>
</table>
{#if found.edges_why}
  <p class="mt-1"><b>{found.edges ?? "Edges"}{found.edges ? " edges" : ""}</b>: {found.edges_why}.</p>
{/if}
{#each found.remarks as remark (remark)}<p class="text-soft mt-1 text-[13px]">{remark}</p>{/each}
<p class="text-soft mt-1 text-[13px]">By {found.standard}, from memory of the standard.</p>
