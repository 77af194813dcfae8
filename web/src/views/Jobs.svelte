<script lang="ts">
  import { pieces, spaced } from "../lib/names";
  import { createInfiniteQuery, createQuery, keepPreviousData } from "@tanstack/svelte-query";
  import { push } from "svelte-spa-router";
  import { api, ask, type Problem } from "../api/client";
  import { arrows, step } from "../lib/list";
  import FirstSteps from "../help/FirstSteps.svelte";
  import Silhouette from "../lib/Silhouette.svelte";
  import { guarded, listen } from "../keys";
  import { page } from "../page.svelte";
  import { session, shown } from "../session.svelte";

  page.open("Jobs", [{ label: "Jobs" }]);
  let archived = $state(false);
  let wanted = $state("");
  let words = $state(""); // what is asked for: the list follows the typing once it pauses
  $effect(() => {
    const typed = wanted.trim();
    const waiting = setTimeout(() => (words = typed), 150);
    return () => clearTimeout(waiting);
  });
  const AT_ONCE = 50;
  const jobs = createInfiniteQuery(() => ({
    queryKey: ["jobs", archived, words],
    queryFn: ({ pageParam: offset }) =>
      ask(api.GET("/api/jobs", { params: { query: { q: words, archived, offset, limit: AT_ONCE } } })),
    initialPageParam: 0,
    getNextPageParam: (last, all) => {
      const shown = all.reduce((sum, one) => sum + one.rows.length, 0);
      return last.rows.length && shown < last.matched ? shown : undefined;
    },
    placeholderData: keepPreviousData,
  }));
  const trials = createQuery(() => ({
    queryKey: ["trials", true],
    queryFn: () => ask(api.GET("/api/trials", { params: { query: { open_only: true, limit: 200 } } })),
  }));
  const due = $derived((trials.data?.items ?? []).filter((one) => one.overdue));
  const marks = ["over", "over target", "close", "holds", "no operations yet"] as const;
  const tones = ["text-signal", "text-warn", "text-warn", "text-safe", "text-soft"] as const;
  let starting = $state(false);
  let list: HTMLElement | undefined = $state();
  const found = $derived([
    ...new Map(jobs.data?.pages.flatMap((one) => one.rows.map((job) => [job.id, job] as const))).values(),
  ]);
  const matched = $derived(jobs.data?.pages.at(-1)?.matched ?? 0);

  let picker = $state<HTMLInputElement>();
  let refused = $state("");

  /** A job from a file, with the tools, material and machine that are not here yet. */
  async function bring(files: FileList | null) {
    const file = files?.[0];
    if (!file) return;
    refused = "";
    const body = new FormData();
    body.append("file", file);
    try {
      const made = await ask(
        api.POST("/api/jobs/file", { body: body as never, bodySerializer: (sent) => sent as never }),
      );
      await push(`/jobs/${made.id}`);
    } catch (reason) {
      refused = (reason as Problem).message;
    }
  }

  $effect(() =>
    listen(
      guarded({
        j: () => step(list, 1),
        k: () => step(list, -1),
        n: () => session.mayEdit && (starting = true),
      }),
    ),
  );
</script>

<div class="mx-auto max-w-[1264px] p-2">
  <FirstSteps step={1} label="New job" key="n" go={() => (starting = true)} />
  <div class="flex items-center justify-between px-1 pb-2">
    <h1 class="text-[16px] font-semibold">
      Jobs <span class="text-soft font-normal">· what needs attention first</span>
    </h1>
    <span class="flex items-center gap-3">
      <input
        class="control w-60"
        placeholder="part, material, machine"
        aria-label="Find a job"
        bind:value={wanted}
      />
      <label class="flex items-center gap-1"><input type="checkbox" bind:checked={archived} /> archive</label>
      {#if session.mayEdit}<button class="control" onclick={() => picker?.click()}>Import job</button>
        <input
          type="file"
          accept=".json"
          class="hidden"
          aria-label="Job file"
          bind:this={picker}
          onchange={(event) => {
            void bring(event.currentTarget.files);
            event.currentTarget.value = "";
          }}
        />
        <button class="control" onclick={() => (starting = true)}>New job <kbd>n</kbd></button>{/if}
    </span>
  </div>
  {#if refused}<p class="text-signal px-1 pb-2" role="alert">{refused}</p>{/if}
  {#if due.length}<p class="px-1 pb-2">
      <a class="plain-link text-warn" href="#/trials"
        >▲ {due.length === 1 ? "A trial waits" : `${due.length} trials wait`} for somebody</a
      >: {due
        .slice(0, 3)
        .map((one) => one.question)
        .join(" · ")}
    </p>{/if}
  {#if jobs.isPending}
    <p class="text-soft p-4">Looking through the jobs …</p>
  {:else if jobs.isError}
    <p class="text-signal p-4" role="alert">{jobs.error.message}</p>
  {:else if found.length === 0 && words}
    <p class="p-4">No job by these words{archived ? " in the archive" : "; look into the archive too"}.</p>
  {:else if found.length === 0}
    <p class="p-4">
      {#if archived}The archive is empty.{:else}No jobs yet. A job is one part: its material, its machine, its
        blank.
        {#if session.mayEdit}<button class="control ml-2" onclick={() => (starting = true)}>New job</button
          >{/if}{/if}
    </p>
  {:else}
    <!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
    <ul
      class="bg-sheet border-line border"
      aria-label="Jobs, what needs attention first"
      bind:this={list}
      onkeydown={arrows}
    >
      {#each found as job, k (job.id)}
        <li class="border-line border-b last:border-0">
          <a
            href="#/jobs/{job.id}{session.mayEdit ? '' : '/at-machine'}"
            data-stop={k === 0 ? "current" : ""}
            class="grid grid-cols-[250px_1fr_150px_190px] items-center gap-4 p-2 hover:bg-[var(--paper)] max-md:grid-cols-[1fr_auto]"
          >
            <span class="max-md:hidden"
              ><Silhouette outline={job.state.outline} width={244} height={104} /></span
            >
            <span>
              <span class="block text-[18px] font-semibold">{job.name}</span>
              <span class="text-soft block"
                >{job.material} · {job.machine} · {pieces(job.pieces)} · {job.goal === "most secure"
                  ? "most reliable"
                  : job.goal}</span
              >
              <span class="mt-2 block {tones[job.state.attention as 0 | 1 | 2 | 3 | 4]}">
                <b
                  >{job.state.planned
                    ? marks[job.state.attention as 0 | 1 | 2 | 3 | 4]
                    : "not planned yet"}</b
                >{job.state.attention < 3 ? `: ${shown(job.state.why)}` : ""}
              </span>
              {#if job.stale}<span class="text-warn block"
                  ><b>stale</b>: tool, material or machine has changed since it was last reviewed</span
                >{/if}
            </span>
            <span class="figure text-right text-[15px] max-md:hidden"
              >{shown(job.state.tape.seconds_display)}<br /><span class="text-soft">per piece</span></span
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
    {#if jobs.hasNextPage}
      <p class="flex items-center justify-between p-2">
        <span class="text-soft">{found.length} of {spaced(matched)} jobs</span>
        <button class="control" disabled={jobs.isFetchingNextPage} onclick={() => void jobs.fetchNextPage()}
          >{jobs.isFetchingNextPage
            ? "Fetching …"
            : `${Math.min(AT_ONCE, matched - found.length)} more`}</button
        >
      </p>
    {/if}
  {/if}
</div>

{#if starting}
  {#await import("../job/NewJob.svelte") then { default: NewJob }}<NewJob
      close={() => (starting = false)}
    />{/await}
{/if}
