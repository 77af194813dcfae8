<script lang="ts">
  import { createQuery } from "@tanstack/svelte-query";
  import { push } from "svelte-spa-router";
  import { api, ask } from "../api/client";
  import NewJob from "../job/NewJob.svelte";
  import Silhouette from "../lib/Silhouette.svelte";
  import { guarded, listen } from "../keys";
  import { page } from "../page.svelte";
  import { session, shown } from "../session.svelte";

  page.open("Jobs", [{ label: "Jobs" }]);
  const jobs = createQuery(() => ({ queryKey: ["jobs"], queryFn: () => ask(api.GET("/api/jobs")) }));
  const marks = ["over a limit", "over target", "with care", "in order"] as const;
  let place = $state(0);
  let starting = $state(false);

  $effect(() => {
    const rows = jobs.data ?? [];
    return listen(
      guarded({
        j: () => (place = Math.min(place + 1, rows.length - 1)),
        k: () => (place = Math.max(place - 1, 0)),
        Enter: () => rows[place] && void push(`/jobs/${rows[place]!.id}`),
      }),
    );
  });
</script>

<div class="mx-auto max-w-[1264px] p-2">
  <div class="flex items-center justify-between px-1 pb-2">
    <h1 class="text-[16px] font-semibold">
      Jobs <span class="text-soft font-normal">· what needs attention first</span>
    </h1>
    {#if session.mayEdit}<button class="control" onclick={() => (starting = true)}>New job</button>{/if}
  </div>
  {#if jobs.isPending}
    <p class="text-soft p-4">Evaluating every job …</p>
  {:else if jobs.isError}
    <p class="text-signal p-4" role="alert">{jobs.error.message}</p>
  {:else if jobs.data.length === 0}
    <p class="p-4">No jobs yet. The start command fills in a demo scenario where the database is empty.</p>
  {:else}
    <ul class="bg-sheet border-line border" aria-label="Jobs, what needs attention first">
      {#each jobs.data as job, k (job.id)}
        <li class="border-line border-b last:border-0">
          <a
            href="#/jobs/{job.id}"
            class="grid grid-cols-[250px_1fr_150px_190px] items-center gap-4 p-2 hover:bg-[var(--paper)] max-md:grid-cols-[1fr_auto] {k ===
            place
              ? 'outline-edge outline-1 -outline-offset-1 outline-dashed'
              : ''}"
          >
            <span class="max-md:hidden"
              ><Silhouette outline={job.state.outline} width={244} height={104} /></span
            >
            <span>
              <span class="block text-[18px] font-semibold">{job.name}</span>
              <span class="text-soft block"
                >{job.material} · {job.machine} · {job.pieces} pieces · {job.goal}</span
              >
              <span
                class="mt-2 block {job.state.attention === 0
                  ? 'text-signal'
                  : job.state.attention < 3
                    ? 'text-warn'
                    : 'text-safe'}"
              >
                <b>{marks[job.state.attention as 0 | 1 | 2 | 3]}</b>{job.state.attention < 3
                  ? `: ${job.state.why}`
                  : ""}
              </span>
              {#if job.stale}<span class="text-warn block"
                  ><b>stale</b>: tool, material or machine changed since somebody last looked</span
                >{/if}
            </span>
            <span class="figure text-right text-[15px] max-md:hidden"
              >{shown(job.state.tape.seconds_display)}<br /><span class="text-soft">a piece</span></span
            >
            <span class="text-right">
              <span class="figure block text-[17px] font-semibold">{shown(job.state.tape.money_display)}</span
              >
              {#if job.state.target_display}
                <span class="figure block {job.state.over_target ? 'text-signal' : 'text-safe'}"
                  >{job.state.over_target ? "over" : "within"} target {shown(job.state.target_display)}</span
                >
              {/if}
              {#if job.state.baseline}
                <span class="text-soft block">saves {shown(job.state.baseline.saving)} against present</span>
              {/if}
            </span>
          </a>
        </li>
      {/each}
    </ul>
  {/if}
</div>

{#if starting}<NewJob close={() => (starting = false)} />{/if}
