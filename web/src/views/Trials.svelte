<script lang="ts">
  import { createQuery } from "@tanstack/svelte-query";
  import { api, ask, Problem, type Schemas } from "../api/client";
  import { page } from "../page.svelte";
  import GaugeStudy from "../trial/GaugeStudy.svelte";
  import { session } from "../session.svelte";

  $effect(() => page.open("Trials", [{ label: "Trials" }]));
  let openOnly = $state(false);
  const trials = createQuery(() => ({
    queryKey: ["trials", openOnly],
    queryFn: () => ask(api.GET("/api/trials", { params: { query: { open_only: openOnly, limit: 200 } } })),
  }));
  const learning = createQuery(() => ({
    queryKey: ["learning"],
    queryFn: () => ask(api.GET("/api/learning")),
  }));
  let problem = $state("");
  let gauging = $state(false);
  /** What another shop, or this one before, has learned: a file as it goes out. */
  async function bringIn(event: Event & { currentTarget: HTMLInputElement }) {
    const field = event.currentTarget;
    const file = field.files?.[0];
    if (!file) return;
    await act(async () => {
      let told: Schemas["BeliefsIn"];
      try {
        told = JSON.parse(await file.text()) as Schemas["BeliefsIn"];
      } catch {
        problem = `${file.name}: not JSON. A file of what was learned is wanted, as it goes out here.`;
        return;
      }
      await ask(api.POST("/api/learning/import", { body: { beliefs: told.beliefs ?? [] } }));
    });
    field.value = "";
  }
  async function act(deed: () => Promise<unknown>) {
    problem = "";
    try {
      await deed();
      await learning.refetch();
    } catch (reason) {
      if (!(reason instanceof Problem)) throw reason;
      problem = reason.message;
    }
  }
  type Proposal = Schemas["ProposalOut"];
  const accept = ({ quantity, tool, metal, machine }: Proposal) =>
    act(() => ask(api.POST("/api/learning", { body: { quantity, tool, metal, machine } })));
  const undo = (id: number) =>
    act(() => ask(api.POST("/api/learning/{taught_id}/undo", { params: { path: { taught_id: id } } })));
  const where = (one: Proposal) =>
    [one.tool, one.metal, one.machine].filter(Boolean).join(", ") || "everything in the shop";
</script>

<div class="grid gap-3 p-3">
  <section class="bg-sheet border-edge border p-3" aria-label="Trials">
    <div class="flex flex-wrap items-baseline justify-between gap-3">
      <h1 class="text-lg font-semibold">Trials</h1>
      <span class="flex items-center gap-4">
        <label class="flex items-center gap-2"
          ><input type="checkbox" class="size-5" bind:checked={openOnly} /> only those that run</label
        >
        <button class="control" onclick={() => (gauging = true)}>what an instrument can see</button>
        <a class="plain-link" href="/api/trials/export?form=csv">CSV</a>
        <a class="plain-link" href="/api/trials/export?form=xlsx">XLSX</a>
      </span>
    </div>
    <div class="overflow-x-auto">
      <table class="mt-1 w-full">
        <thead class="text-soft text-left"
          ><tr>
            <th scope="col" class="font-normal">question</th><th scope="col" class="font-normal">operation</th
            >
            <th scope="col" class="font-normal">tool, metal, machine</th><th scope="col" class="font-normal"
              >how it stands</th
            ><th scope="col" class="font-normal">since</th>
          </tr></thead
        >
        <tbody>
          {#each trials.data?.items ?? [] as one (one.id)}
            <tr class="border-line border-t align-top">
              <td class="py-1.5 pr-3"
                ><a class="plain-link font-semibold" href="#/trials/{one.id}">{one.question}</a>
                {#if one.overdue}<br /><b class="text-warn"
                    >▲ waits for {one.met ? "its verdict" : "an entry"}</b
                  >{/if}</td
              >
              <td class="py-1.5 pr-3"
                ><a class="plain-link" href="#/jobs/{one.job}/operations/{one.operation}">{one.job_name}</a
                ><br />{one.title}</td
              >
              <td class="py-1.5 pr-3"
                >{one.tool}<br /><span class="text-soft">{one.metal} · {one.machine}</span></td
              >
              <td class="py-1.5 pr-3">{one.verdict === "open" ? one.progress : one.verdict}</td>
              <td class="py-1.5">{one.author}<br /><span class="text-soft">{one.at}</span></td>
            </tr>
          {:else}<tr
              ><td colspan="5" class="text-soft py-2"
                >{trials.isPending
                  ? "Looking …"
                  : "No trial yet. Open an operation and press “trials”: a question, and when it has its answer."}</td
              ></tr
            >{/each}
        </tbody>
      </table>
    </div>
  </section>
  <section class="bg-sheet border-edge border p-3" aria-label="What the trials teach">
    <h2 class="font-semibold">What the trials teach</h2>
    <p class="text-soft">
      Nothing acts before somebody accepts it. Then it moves the number and narrows its band wherever it
      holds; the jobs that it moves say so, with their old figures. <a
        class="plain-link"
        href="#/help/learning">How it learns</a
      >
    </p>
    <div class="overflow-x-auto">
      <table class="mt-1 w-full">
        <thead class="text-soft text-left"
          ><tr>
            <th scope="col" class="font-normal">quantity</th><th scope="col" class="font-normal">for</th>
            <th scope="col" class="text-right font-normal">factor</th><th
              scope="col"
              class="text-right font-normal">95 %</th
            >
            <th scope="col" class="text-right font-normal">as it ships</th><th
              scope="col"
              class="text-right font-normal">seen</th
            ><th scope="col" class="text-right font-normal">weight of the data</th>
            <th scope="col" class="font-normal"></th>
          </tr></thead
        >
        <tbody>
          {#each learning.data?.proposals ?? [] as one (one.quantity + one.tool + one.metal + one.machine)}
            <tr class="border-line border-t align-top">
              <td class="py-1.5 pr-3">{one.title}</td>
              <td class="py-1.5 pr-3" title={one.says}
                >{where(one)}<br /><span class="text-soft">{one.level}</span>
                {#each one.strange as line, k (k)}<br /><span class="text-warn">▲ {line}</span>{/each}</td
              >
              <td class="figure py-1.5 pl-3 text-right font-semibold">{one.factor}</td>
              <td class="figure py-1.5 pl-3 text-right">{one.interval}</td>
              <td class="figure text-soft py-1.5 pl-3 text-right">{one.shipped}</td>
              <td class="figure py-1.5 pl-3 text-right">{one.count}</td>
              <td class="figure py-1.5 pl-3 text-right">{one.weight}</td>
              <td class="py-1.5 pl-3 text-right">
                {#if one.holds && !one.newer}<span class="text-safe">accepted</span>
                {:else}<button class="control" disabled={!session.mayEdit} onclick={() => void accept(one)}
                    >{one.holds ? `accept anew (now ${one.holds})` : "accept"}</button
                  >{/if}
              </td>
            </tr>
          {:else}<tr
              ><td colspan="8" class="text-soft py-2"
                >{learning.isPending
                  ? "Reckoning …"
                  : "Nothing was measured yet that can be learned from."}</td
              ></tr
            >{/each}
        </tbody>
      </table>
    </div>
    {#if problem}<p role="alert" class="text-signal">{problem}</p>{/if}
    {#if session.mayEdit}<label class="mt-2 flex w-fit items-center gap-2"
        >bring in what was learned elsewhere <input
          class="control"
          type="file"
          accept="application/json,.json"
          onchange={(event) => void bringIn(event)}
        /></label
      >{/if}
    {#if learning.data?.taught.length}
      <h3 class="mt-3 flex justify-between font-semibold">
        What was accepted <a class="plain-link font-normal" href="/api/learning/export">as a file</a>
      </h3>
      <ul>
        {#each learning.data.taught as one (one.id)}
          <li class="border-line flex flex-wrap justify-between gap-3 border-t py-1.5">
            <span><b>{one.title}</b> <span class="figure">{one.factor}</span> · {one.where}</span>
            <span class="text-soft"
              >{one.count} seen, weight {one.weight} · {one.author}, {one.at}
              {#if session.mayEdit}<button class="plain-link ml-2" onclick={() => void undo(one.id)}
                  >take it back</button
                >{/if}</span
            >
          </li>
        {/each}
      </ul>
    {/if}
  </section>
</div>
{#if gauging}<GaugeStudy close={() => (gauging = false)} />{/if}
