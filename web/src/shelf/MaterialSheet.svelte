<script lang="ts">
  import { createQuery, useQueryClient } from "@tanstack/svelte-query";
  import { api, ask } from "../api/client";
  import { setArchived } from "../records/form.svelte";
  import Trail from "../records/Trail.svelte";
  import { session, shown } from "../session.svelte";
  import MaterialEditor from "./MaterialEditor.svelte";

  interface Props {
    name: string;
    pick: (name: string) => void;
  }
  let { name, pick }: Props = $props();
  const queries = useQueryClient();
  let editing = $state(false);
  const sheet = createQuery(() => ({
    queryKey: ["material", name],
    queryFn: () => ask(api.GET("/api/shelf/materials/{name}", { params: { path: { name } } })),
  }));
  const record = createQuery(() => ({
    queryKey: ["record", "materials", sheet.data?.id],
    enabled: !!sheet.data,
    queryFn: () =>
      ask(
        api.GET("/api/records/{table}/{record_id}", {
          params: { path: { table: "materials", record_id: sheet.data!.id } },
        }),
      ),
  }));

  function again() {
    for (const key of ["material", "materials", "record"])
      void queries.invalidateQueries({ queryKey: [key] });
  }

  async function archive(archived: boolean) {
    await setArchived("materials", sheet.data!.id, archived);
    again();
  }
</script>

<section
  class="bg-sheet border-line min-h-0 overflow-auto border p-3"
  aria-label="Material sheet"
  tabindex="-1"
>
  {#if sheet.data}
    {@const m = sheet.data}
    <div class="flex items-baseline justify-between">
      <h2 class="text-[18px] font-semibold">{m.name}</h2>
      {#if session.mayEdit}<button class="plain-link" onclick={() => (editing = true)}>Change</button>{/if}
    </div>
    <p class="text-soft">{m.letter} {m.group}, {m.group_name} · {m.hardness}</p>
    {#if m.aliases.length}<p class="text-soft">also {m.aliases.join(", ")}</p>{/if}
    <h3 class="mt-2 font-semibold">Machinability</h3>
    <ul>
      {#each m.traits as trait (trait.name)}
        <li class="grid grid-cols-[112px_70px_1fr] items-center gap-2 py-0.5">
          <span>{trait.name}</span>
          <svg viewBox="0 0 70 8" class="h-2 w-[70px]" role="img" aria-label="{trait.share.toFixed(2)} of 1">
            <path d="M0,4H70" stroke="var(--rail)" stroke-width="3" />
            <path d="M0,4H{Math.max(2, 70 * trait.share)}" stroke="var(--ink)" stroke-width="6" />
          </svg>
          <span class="text-soft text-[13px]">{trait.says}</span>
        </li>
      {/each}
    </ul>
    <h3 class="mt-2 font-semibold">Starting speeds</h3>
    <dl class="grid grid-cols-[80px_100px_1fr] gap-x-2">
      {#each m.speeds as fact, k (k)}<dt>{fact.label}</dt>
        <dd class="figure">{shown(fact.display)}</dd>
        <dd class="text-soft text-[13px]">{fact.source}</dd>{:else}<dd class="text-soft col-span-3">
          none on record
        </dd>{/each}
    </dl>
    <h3 class="mt-2 font-semibold">Similar materials</h3>
    <ul>
      {#each m.neighbours as near (near.name)}<li>
          <button class="plain-link" onclick={() => pick(near.name)}>{near.name}</button>
          <span class="text-soft">{near.differs}</span>
        </li>{/each}
    </ul>
    <h3 class="mt-2 font-semibold">What the rules read</h3>
    <dl class="grid grid-cols-[1fr_130px] gap-x-2">
      {#each m.facts as fact, k (k)}<dt class="border-line border-t py-0.5">{fact.label}</dt>
        <dd class="figure border-line border-t py-0.5 text-right">{shown(fact.display)}</dd>{/each}
    </dl>
    <p class="text-soft mt-1 text-[13px]">
      Source: {m.source}{m.from_memory ? ", written from memory" : ""}.
    </p>
    {#if record.data}<Trail record={record.data} archive={(archived) => void archive(archived)} />{/if}
    {#if editing}<MaterialEditor
        id={m.id}
        close={() => (editing = false)}
        saved={() => {
          editing = false;
          again();
        }}
      />{/if}
  {:else if sheet.isError}<p role="alert" class="text-signal">{sheet.error.message}</p>
  {:else}<p class="text-soft">Reading the sheet …</p>{/if}
</section>
