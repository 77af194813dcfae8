<script lang="ts">
  import { when } from "../lib/names";
  import { createQuery } from "@tanstack/svelte-query";
  import { api, ask } from "../api/client";
  import Sheet from "../lib/Sheet.svelte";
  import { session, shown } from "../session.svelte";
  import type { JobEditor } from "./editor.svelte";

  let { editor }: { editor: JobEditor } = $props();
  let open = $state(false);
  const job = $derived(editor.job!);
  const stale = createQuery(() => ({
    queryKey: ["stale", job.id, job.stale],
    enabled: open,
    queryFn: () => ask(api.GET("/api/jobs/{job_id}/stale", { params: { path: { job_id: job.id } } })),
  }));

  async function accept() {
    await ask(api.POST("/api/jobs/{job_id}/stale/accept", { params: { path: { job_id: job.id } } }));
    open = false;
    await editor.load();
  }
</script>

{#if job.stale}
  <p class="text-warn bg-sheet border-line area-stale border px-2.5 py-1" role="status">
    <b>Stale</b>: {job.stale === 1 ? "a tool, the material or the machine" : `${job.stale} things`} changed since
    somebody last looked. <button class="plain-link" onclick={() => (open = true)}>What would change</button>
  </p>
{/if}
{#if open}
  <Sheet title="What changed under this job" close={() => (open = false)} wide>
    {#if stale.data}
      <ul>
        {#each stale.data.reasons as reason (reason.at + reason.reason)}
          <li class="border-line border-b py-0.5">
            <span class="figure text-soft">{when(reason.at)}</span>
            {reason.author}: {reason.reason}
          </li>
        {/each}
      </ul>
      <h3 class="mt-3 font-semibold">What it changes here</h3>
      <table class="w-full">
        <thead class="text-soft text-left text-[13px]"
          ><tr
            ><th scope="col" class="font-normal">operation</th><th scope="col" class="font-normal">figure</th
            ><th scope="col" class="font-normal">before</th><th scope="col" class="font-normal">now</th></tr
          ></thead
        >
        <tbody>
          {#each stale.data.changes as change (change.where + change.what)}
            <tr class="border-line border-t"
              ><td>{change.where}</td><td>{change.what}</td><td class="figure">{shown(change.before)}</td><td
                class="figure"><b>{shown(change.now)}</b></td
              ></tr
            >
          {:else}<tr><td colspan="4">Nothing that is shown moves.</td></tr>{/each}
        </tbody>
      </table>
      {#if session.mayEdit}<button class="bg-ink text-sheet mt-3 min-h-8 px-4" onclick={() => void accept()}
          >Accept new figures</button
        >{/if}
    {:else if stale.isError}<p role="alert" class="text-signal">{stale.error.message}</p>
    {:else}<p class="text-soft">Reckoning again …</p>{/if}
  </Sheet>
{/if}
