<script lang="ts">
  import { spaced, when } from "../lib/names";
  import type { Schemas } from "../api/client";
  import { session } from "../session.svelte";

  interface Props {
    record: Schemas["RecordOut"];
    archive?: (archived: boolean) => void;
  }
  let { record, archive }: Props = $props();
</script>

<h3 class="mt-3 font-semibold">Used in</h3>
<p>
  {#each record.used_in as job (job.id)}<a class="plain-link mr-2" href="#/jobs/{job.id}">{job.name}</a
    >{:else}<span class="text-soft">no job</span>{/each}
  {#if record.used_in_all > record.used_in.length}<span class="text-soft"
      >and {spaced(record.used_in_all - record.used_in.length)} more</span
    >{/if}
</p>
<h3 class="mt-3 font-semibold">History</h3>
<ul class="text-[13px]">
  {#each record.history as change (change.at + change.action)}
    <li class="border-line border-t py-0.5">
      <span class="figure text-soft">{when(change.at)}</span>
      {change.author}
      {change.action}
      {#each Object.entries(change.fields) as [name, pair] (name)}
        <span class="block pl-3"
          >{name.replaceAll("_", " ")}:
          <span class="figure">{pair[0] || "nothing"} → {pair[1] || "nothing"}</span></span
        >
      {/each}
    </li>
  {/each}
  <li class="border-line text-soft border-t py-0.5">
    entered {record.entered || "before records were kept"}
  </li>
</ul>
{#if archive && session.mayEdit}
  <button class="control mt-3" onclick={() => archive(!record.archived)}
    >{record.archived ? "Take out of the archive" : "Put into the archive"}</button
  >
{/if}
