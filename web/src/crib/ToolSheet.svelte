<script lang="ts">
  import { createQuery, useQueryClient } from "@tanstack/svelte-query";
  import { api, ask } from "../api/client";
  import { setArchived } from "../records/form.svelte";
  import Trail from "../records/Trail.svelte";
  import { session, shown } from "../session.svelte";
  import DrillPicture from "./DrillPicture.svelte";
  import Decoded from "./Decoded.svelte";
  import ToolEditor from "./ToolEditor.svelte";
  import WindowEditor from "./WindowEditor.svelte";

  interface Props {
    id: number;
    close: () => void;
    changed: () => void;
  }
  let { id, close, changed }: Props = $props();
  const queries = useQueryClient();
  let editing = $state(false);
  let recommending = $state<number | null | false>(false);
  const sheet = createQuery(() => ({
    queryKey: ["tool", id],
    queryFn: () => ask(api.GET("/api/crib/tools/{tool_id}", { params: { path: { tool_id: id } } })),
  }));
  const record = createQuery(() => ({
    queryKey: ["record", "tools", id],
    queryFn: () =>
      ask(
        api.GET("/api/records/{table}/{record_id}", { params: { path: { table: "tools", record_id: id } } }),
      ),
  }));

  function again() {
    void queries.invalidateQueries({ queryKey: ["tool", id] });
    void queries.invalidateQueries({ queryKey: ["record", "tools", id] });
    changed();
  }

  async function archive(archived: boolean) {
    await setArchived("tools", id, archived);
    again();
  }
</script>

<section class="bg-sheet border-line min-h-0 overflow-auto border p-2.5" aria-label="Tool" tabindex="-1">
  {#if sheet.data}
    {@const tool = sheet.data}
    <div class="flex items-start justify-between gap-2">
      <h2 class="text-[16px] font-semibold">{tool.name}</h2>
      <button class="plain-link shrink-0" onclick={close}>close</button>
    </div>
    <p class="text-soft">
      {tool.kind}{tool.archived ? " · in the archive" : ""}{tool.purpose
        ? ` · ${tool.purpose}`
        : ""}{tool.substrate ? ` · ${tool.substrate}` : ""}
    </p>
    <p class="mt-1">
      <span class="figure">{tool.quantity}</span> in bin <span class="figure">{tool.bin || "–"}</span>
      {#if tool.own_number}· number <span class="figure">{tool.own_number}</span>{/if} ·
      <span class="figure">{shown(tool.price)}</span> each{#if tool.edge_price}, <b class="figure"
          >{shown(tool.edge_price)}</b
        >
        {tool.round ? "per life" : "per edge"}{/if}
    </p>
    {#if session.mayEdit}
      <p class="mt-1 flex gap-3">
        <button class="plain-link" onclick={() => (editing = true)}>Change</button>
        {#if tool.kind === "turning insert"}<button class="plain-link" onclick={() => (recommending = null)}
            >Supplier's window</button
          >{/if}
      </p>
    {/if}
    {#if tool.round}
      <div class="mt-2"><DrillPicture drawing={tool.round.drawing} label={tool.name} /></div>
      <ul class="text-soft text-[13px]">
        {#each tool.round.facts as fact (fact)}<li>{fact}</li>{/each}
      </ul>
      <table class="mt-1 w-full text-[13px]" data-testid="metals">
        <caption class="text-soft text-left">Tool material and coating, by metal</caption>
        <tbody>
          {#each tool.round.advice as one (one.letter)}
            <tr class="border-line border-t align-top">
              <td class="figure w-5">{one.letter}</td>
              <td class="w-10 pt-1.5" title="{Math.round(one.rating * 100)} of 100"
                ><span class="sr-only">{Math.round(one.rating * 100)} of 100</span><span
                  class="bg-line block h-1.5 w-9"
                  aria-hidden="true"
                  ><span class="bg-safe block h-1.5" style:width="{one.rating * 100}%"></span></span
                ></td
              >
              <td><span class="sr-only">{one.metal}: </span>{one.why}</td>
            </tr>
          {/each}
        </tbody>
      </table>
      {#if tool.round.lives.length > 1}
        <p class="mt-1 text-[13px]">
          A life costs
          {#each tool.round.lives as life, k (life.regrinds)}<span class="figure"
              >{k ? " · " : ""}{shown(life.cost)}</span
            >{/each} with 0 to {tool.round.lives.length - 1} regrinds.
        </p>
      {/if}
    {/if}
    {#if tool.successor}
      <p class="mt-1">
        Discontinued: {#if tool.successor_id}<a class="plain-link" href="#/crib/tools/{tool.successor_id}"
            >{tool.successor}</a
          >{:else}{tool.successor}{/if} is taken in its place.
      </p>
    {/if}
    {#if tool.neighbours.length}
      <ul class="mt-2 text-[13px]" aria-label="The same edge in other grades">
        {#each tool.neighbours as near (near.word)}<li>
            <span class="text-soft">{near.word}:</span>
            <a class="plain-link" href="#/crib/tools/{near.id}">{near.name}</a>
          </li>{/each}
      </ul>
    {/if}
    {#if tool.windows.length}
      <h3 class="mt-2 font-semibold">Supplier recommends</h3>
      <table class="w-full text-[13px]">
        <thead class="text-soft text-left"
          ><tr
            ><th scope="col" class="font-normal">group</th><th scope="col" class="font-normal">speed</th><th
              scope="col"
              class="font-normal">feed</th
            ><th scope="col" class="font-normal">depth</th></tr
          ></thead
        >
        <tbody>
          {#each tool.windows as w (w.id)}
            <tr class="border-line border-t">
              <td
                ><button
                  class="plain-link figure"
                  disabled={!session.mayEdit}
                  onclick={() => (recommending = w.id)}>{w.group}</button
                ></td
              >
              {#each [w.speed, w.feed, w.depth] as span, k (k)}
                <td class="figure"
                  >{span.min || span.max ? `${shown(span.min)} – ${shown(span.max)}` : "–"}{span.start
                    ? `, start ${shown(span.start)}`
                    : ""}</td
                >
              {/each}
            </tr>
          {/each}
        </tbody>
      </table>
    {/if}
    {#if tool.properties.length}
      <dl class="mt-2 grid grid-cols-[1fr_auto] gap-x-3 text-[13px]">
        {#each tool.properties as property (property.symbol)}
          <dt class="text-soft">{property.name} ({property.symbol})</dt>
          <dd class="figure text-right">{shown(property.display)}</dd>
        {/each}
      </dl>
    {/if}
    {#if tool.decoded}<div class="mt-2"><Decoded found={tool.decoded} /></div>{/if}
    {#if tool.partners.length}
      <h3 class="mt-2 font-semibold">{tool.kind === "turning insert" || tool.round ? "Held by" : "Takes"}</h3>
      <p class="text-[13px]">
        {tool.partners.slice(0, 14).join(", ")}{tool.partners.length > 14 ? " …" : ""}
      </p>
    {/if}
    {#if record.data}<Trail record={record.data} archive={(archived) => void archive(archived)} />{/if}
    <p class="text-soft mt-2 text-[13px]">Source: {tool.source}.</p>
  {:else if sheet.isError}<p role="alert" class="text-signal">{sheet.error.message}</p>
  {:else}<p class="text-soft">Reading the tool …</p>{/if}
</section>

{#if editing}<ToolEditor
    {id}
    close={() => (editing = false)}
    saved={() => {
      editing = false;
      again();
    }}
  />{/if}
{#if recommending !== false && sheet.data}<WindowEditor
    id={recommending}
    tool={sheet.data.name}
    close={() => (recommending = false)}
    saved={() => {
      recommending = false;
      again();
    }}
  />{/if}
