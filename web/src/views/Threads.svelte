<script lang="ts">
  import { createQuery } from "@tanstack/svelte-query";
  import { replace } from "svelte-spa-router";
  import { api, ask, type Schemas } from "../api/client";
  import { page } from "../page.svelte";
  import { session } from "../session.svelte";
  import ShelfTabs from "../shelf/ShelfTabs.svelte";
  import ThreadPicture from "../shelf/ThreadPicture.svelte";

  let { params }: { params?: { words?: string } } = $props();
  page.open("Threads", [{ label: "Materials", href: "#/shelf" }, { label: "Threads" }]);
  const asked = $derived(params?.words ? decodeURIComponent(params.words) : "M10");
  let typed = $state("");
  let outside = $state("");
  let inside = $state("");
  $effect(() => {
    typed = asked;
    outside = inside = "";
  });
  const found = createQuery(() => ({
    queryKey: ["thread", typed, outside, inside],
    enabled: typed.trim().length > 1,
    queryFn: () =>
      ask(api.GET("/api/shelf/thread", { params: { query: { words: typed.trim(), outside, inside } } })),
    placeholderData: (before) => before,
  }));
  const say = (shown: Schemas["DisplayOut"] | null | undefined) =>
    shown ? (session.units === "inch" ? shown.inch : shown.metric) : "–";
  function keep(words: string) {
    outside = inside = "";
    void replace(`/shelf/threads/${encodeURIComponent(words)}`);
  }
  const EXAMPLES = [
    "M10x1.25-6H",
    "1/2-13 UNC-2B",
    "G1/2",
    "R3/4",
    "1/2-14 NPT",
    "Tr 40x14 P7",
    "1-1/2-4 Acme",
    "30x4 45°",
  ];
</script>

<div class="mx-auto grid max-w-[1500px] gap-2 p-2">
  <h1 class="sr-only">Threads</h1>
  <ShelfTabs here="threads" />
  <section class="bg-sheet border-line grid gap-2 border p-2.5" aria-label="A thread">
    <div class="flex flex-wrap items-center gap-3">
      <h2 class="font-semibold">Thread designation</h2>
      <input
        class="control figure w-56"
        aria-label="Thread"
        bind:value={typed}
        onchange={() => keep(typed.trim())}
        aria-invalid={found.isError}
      />
      <span class="text-soft flex flex-wrap gap-x-3 text-[13px]"
        >{#each EXAMPLES as one (one)}<button class="plain-link" onclick={() => keep(one)}>{one}</button
          >{/each}</span
      >
    </div>
    {#if found.isError}<p role="alert" class="text-signal">{found.error.message}</p>{/if}
    {#if found.data && !found.isError}
      {@const sheet = found.data}
      <div class="grid gap-3 min-[1000px]:grid-cols-[minmax(0,1fr)_330px]">
        <div class="grid content-start gap-2">
          <p>
            <strong class="text-lg">{sheet.name}</strong>
            <span class="text-soft">{sheet.title}</span>
          </p>
          <ThreadPicture sides={sheet.sides} pitch={sheet.pitch} />
          <p class="text-soft text-[13px]">
            To scale: outside thread below, inside thread above, dashed with the most metal; between the lines
            the tolerance zone.
          </p>
          <div class="grid gap-3 min-[1000px]:grid-cols-2">
            {#each sheet.sides as side (side.title)}
              <section aria-label="Limits {side.title}">
                <div class="flex items-center gap-2">
                  <h3 class="font-semibold">{side.title}</h3>
                  {#if side.classes.length}
                    <select
                      class="control"
                      aria-label="Class {side.title}"
                      value={side.class_name}
                      onchange={(event) => {
                        if (side.internal) inside = event.currentTarget.value;
                        else outside = event.currentTarget.value;
                      }}
                    >
                      {#if !side.classes.includes(side.class_name)}<option>{side.class_name}</option>{/if}
                      {#each side.classes as one (one)}<option>{one}</option>{/each}
                    </select>
                  {/if}
                  <span class="text-soft text-[13px]">{side.source}</span>
                </div>
                <table class="figure w-full text-right">
                  <thead class="text-soft font-sans text-[13px]"
                    ><tr
                      ><th scope="col" class="text-left font-normal">Ø</th><th scope="col" class="font-normal"
                        >least</th
                      ><th scope="col" class="font-normal">largest</th><th scope="col" class="font-normal"
                        >zone</th
                      ></tr
                    ></thead
                  >
                  <tbody
                    >{#each side.zones as zone (zone.diameter)}<tr class="border-line border-t"
                        ><th scope="row" class="text-left font-sans font-normal">{zone.diameter}</th><td
                          >{say(zone.low)}</td
                        ><td>{say(zone.high)}</td><td>{say(zone.width)}</td></tr
                      >{/each}</tbody
                  >
                </table>
                <table class="mt-2 w-full text-[14px]">
                  <caption class="text-soft text-left text-[13px]">Measured and gauged</caption>
                  <tbody
                    >{#each side.measuring as one (one.label)}<tr class="border-line border-t"
                        ><th scope="row" class="text-left font-normal">{one.label}</th><td
                          class="figure pl-2 text-right whitespace-nowrap">{say(one.display)}</td
                        ><td class="text-soft pl-2 text-[13px]">{one.source}</td></tr
                      >{/each}</tbody
                  >
                </table>
              </section>
            {/each}
          </div>
        </div>
        <div class="grid content-start gap-3">
          <section aria-label="Sizes">
            <h3 class="font-semibold">Sizes</h3>
            <dl>
              {#each sheet.facts as fact (fact.label)}
                <div class="border-line flex gap-2 border-t" title={fact.source}>
                  <dt class="flex-1">{fact.label}</dt>
                  <dd class="figure">{say(fact.display)}</dd>
                </div>
              {/each}
            </dl>
          </section>
          <section aria-label="Tap drills">
            <h3 class="font-semibold">Tap drills</h3>
            <table class="figure w-full text-right">
              <thead class="text-soft font-sans text-[13px]"
                ><tr
                  ><th scope="col" class="text-left font-normal">drill</th><th scope="col" class="font-normal"
                    >of engagement</th
                  ><th scope="col" class="font-normal">of full height</th></tr
                ></thead
              >
              <tbody
                >{#each sheet.drills as one (one.diameter.metric)}<tr
                    class="border-line border-t {one.usual ? 'font-semibold' : ''}"
                    ><th scope="row" class="text-left font-normal {one.usual ? 'font-semibold' : ''}"
                      >{say(one.diameter)}
                      {one.name}{#if !one.within}<span class="text-signal"> outside the limits</span>{/if}</th
                    ><td>{one.engagement}</td><td>{one.full}</td></tr
                  >{/each}</tbody
              >
            </table>
            <p class="text-soft mt-1 text-[13px]">{sheet.drill_note}</p>
          </section>
        </div>
      </div>
    {/if}
  </section>
</div>
