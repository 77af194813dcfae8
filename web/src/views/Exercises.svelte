<script lang="ts">
  import { createQuery } from "@tanstack/svelte-query";
  import { push } from "svelte-spa-router";
  import { api, ask, askOnce, Problem, type Schemas } from "../api/client";
  import { page } from "../page.svelte";

  $effect(() => page.open("Exercises", [{ label: "Clinic", href: "#/clinic" }, { label: "Exercises" }]));
  const all = createQuery(() => ({
    queryKey: ["exercises"],
    queryFn: () => ask(api.GET("/api/exercises")),
  }));
  const LEVELS = ["", "plain", "middling", "hard"];
  let problem = $state("");
  async function begin(body: Schemas["ExerciseIn"]) {
    problem = "";
    try {
      const made = await askOnce((once) => api.POST("/api/exercises", { ...once, body }));
      await push(`/exercises/${made.id}`);
    } catch (reason) {
      if (!(reason instanceof Problem)) throw reason;
      problem = reason.message;
    }
  }
</script>

<div class="mx-auto max-w-[1100px] p-3">
  <section class="bg-sheet border-edge border p-3" aria-label="Exercises">
    <h1 class="text-lg font-semibold">Exercises</h1>
    <p class="text-soft max-w-[80ch]">
      Something is wrong with a sound operation. Ask to have things looked at (each look costs minutes),
      change one thing at a time (a wrong one spoils a part), name the cause. 100 points, less a point a
      minute and eight a part.
    </p>
    {#if problem}<p role="alert" class="text-signal">{problem}</p>{/if}
    {#if all.data}
      <p class="py-1.5">
        {#if all.data.done}<b>{all.data.solved} of {all.data.done}</b> solved, {all.data.mean_score.toFixed(
            0,
          )} points on average.{:else}None done yet.{/if}
        {#if all.data.open}<a class="plain-link" href="#/exercises/{all.data.open}">go on with the open one</a
          >{/if}
      </p>
      <button class="control" onclick={() => void begin({ kind: "" })}>draw a new one</button>
      <div class="mt-2 grid gap-3 md:grid-cols-3">
        {#each [1, 2, 3] as level (level)}
          <div>
            <h2 class="font-semibold">{LEVELS[level]}</h2>
            <ul>
              {#each all.data.shipped.filter((one) => one.level === level) as one (one.number)}
                <li class="border-line border-t">
                  <button
                    class="flex min-h-9 w-full items-center justify-between gap-2 py-1 text-left"
                    onclick={() => void begin({ number: one.number, kind: "" })}
                    ><span class="plain-link">{one.name}</span>
                    <span class="shrink-0 tabular-nums"
                      >{one.best === null ? "" : `${one.best.toFixed(0)} points`}</span
                    ></button
                  >
                </li>
              {/each}
            </ul>
          </div>
        {/each}
      </div>
    {:else}<p class="text-soft">Looking …</p>{/if}
  </section>
</div>
