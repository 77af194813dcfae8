<script lang="ts">
  import { api, ask, askOnce, Problem, type Schemas } from "../api/client";
  import type { Ward } from "../clinic/clinic.svelte";
  import { page } from "../page.svelte";

  let { params }: { params: { id: string } } = $props();
  const id = $derived(Number(params.id));
  let now = $state.raw<Schemas["ExerciseOut"] | null>(null);
  let ward = $state.raw<Ward | null>(null);
  let problem = $state("");
  let look = $state("");
  let cause = $state("");

  async function guard(deed: () => Promise<void>) {
    problem = "";
    try {
      await deed();
    } catch (reason) {
      if (!(reason instanceof Problem)) throw reason;
      problem = reason.message;
    }
  }
  $effect(() => {
    const exercise_id = id;
    void guard(async () => {
      now = await ask(api.GET("/api/exercises/{exercise_id}", { params: { path: { exercise_id } } }));
      ward = await ask(api.GET("/api/clinic/{kind}", { params: { path: { kind: now.kind } } }));
    });
  });
  $effect(() =>
    page.open("Exercise", [
      { label: "Clinic", href: "#/clinic" },
      { label: "Exercises", href: "#/exercises" },
      { label: now?.name ?? "" },
    ]),
  );
  const step = (did: Schemas["StepIn"]["did"], what = "") =>
    guard(async () => {
      now = await askOnce((once) =>
        api.POST("/api/exercises/{exercise_id}/steps", {
          ...once,
          params: { path: { exercise_id: id } },
          body: { did, what },
        }),
      );
    });
  const rounds = $derived(
    Object.entries(ward?.rounds ?? {}).map(([name, title]) => ({
      title,
      looks: (ward?.looks ?? []).filter((one) => one.round === name),
    })),
  );
</script>

{#if problem}<p role="alert" class="text-signal px-4 pt-3">{problem}</p>{/if}
{#if now && ward}
  <div class="mx-auto grid max-w-[1300px] gap-3 p-3 lg:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
    <section class="bg-sheet border-edge border p-3" aria-label="The case">
      <h1 class="text-lg font-semibold">{now.name}</h1>
      <p class="text-soft">{now.setup}. The plan is sound; something is not as planned.</p>
      <p class="mt-2">Whoever is at the machine says:</p>
      <ul class="list-disc pl-5">
        {#each now.told as one (one)}<li>{one}</li>{/each}
      </ul>
      <p class="mt-2 flex gap-6" role="status">
        <span><b class="tabular-nums">{now.minutes.toFixed(0)}</b> min</span>
        <span><b class="tabular-nums">{now.parts}</b> {now.parts === 1 ? "part" : "parts"} spoiled</span>
        {#if now.over}<b class={now.score ? "text-safe" : "text-warn"}
            >{now.healed || now.named ? "■ solved" : "▲ not solved"}: {now.score.toFixed(0)} points</b
          >{/if}
      </p>
      {#if now.over}
        <div class="border-edge mt-2 border p-2" data-testid="explained">
          {#each now.explained as line (line)}<p>{line}</p>{/each}
        </div>
        <p class="mt-2"><a class="plain-link" href="#/exercises">another exercise</a></p>
      {:else}
        <div class="mt-3 grid gap-3">
          <form
            class="flex flex-wrap items-end gap-2"
            onsubmit={(event) => {
              event.preventDefault();
              if (look) void step("look", look);
            }}
          >
            <label class="grid grow gap-1"
              >have it looked at
              <select class="control" bind:value={look}>
                <option value="">choose a look</option>
                {#each rounds as round (round.title)}<optgroup label={round.title}
                    >{#each round.looks as one (one.name)}<option value={one.name}
                        >{one.question} ({one.minutes} min)</option
                      >{/each}</optgroup
                  >{/each}
              </select></label
            >
            <button class="control" disabled={!look}>look</button>
          </form>
          <label class="grid gap-1"
            >what you take it for
            <select class="control" bind:value={cause}>
              <option value="">choose a cause</option>
              {#each ward.causes as one (one.name)}<option value={one.name}>{one.title}</option>{/each}
            </select></label
          >
          {#if cause}<p class="text-soft">
              Its change: {ward.causes.find((one) => one.name === cause)?.change}
            </p>{/if}
          <div class="flex flex-wrap gap-2">
            <button class="control" disabled={!cause} onclick={() => void step("change", cause)}
              >make its change, run a part</button
            >
            <button class="control" disabled={!cause} onclick={() => void step("name", cause)}>name it</button
            >
            <button class="control" onclick={() => void step("give up")}>give up, tell me</button>
          </div>
        </div>
      {/if}
    </section>
    <section class="bg-sheet border-edge border p-3" aria-label="What was done">
      <h2 class="font-semibold">What was done</h2>
      <ol>
        {#each now.events as one, k (k)}
          <li class="border-line border-t py-1">
            {one.did}<br /><b>{one.words}</b>
            <span class="text-soft"
              >{one.minutes ? `${one.minutes.toFixed(1)} min` : ""}{one.parts ? ", a part spoiled" : ""}</span
            >
          </li>
        {:else}<li class="text-soft">Nothing yet.</li>{/each}
      </ol>
    </section>
  </div>
{:else if !problem}<p class="text-soft p-6">Opening …</p>{/if}
