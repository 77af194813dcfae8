<script lang="ts">
  import { createQueries } from "@tanstack/svelte-query";
  import { api, ask, type Schemas } from "../api/client";
  import { guarded, listen } from "../keys";
  import { editOf } from "../operation/remedy";
  import { session, shown } from "../session.svelte";
  import type { JobEditor } from "./editor.svelte";

  /** What breaks most often, each with the change that was run against it, and a key that takes it. */
  let { found, editor }: { found: Schemas["ChancesOut"]; editor: JobEditor } = $props();
  const MOST = 4;
  const causes = $derived(
    [...found.operations]
      .filter((row) => row.limit)
      .sort((a, b) => b.worst_share - a.worst_share)
      .slice(0, MOST),
  );
  const path = "/api/jobs/{job_id}/operations/{operation}/limits/{limit}/relax" as const;
  const asked = createQueries(() => ({
    queries: causes.map((row) => ({
      queryKey: ["relax", row.operation, row.limit, editor.job?.revision],
      queryFn: () =>
        ask(
          api.POST(path, {
            params: { path: { job_id: editor.id, operation: row.operation, limit: row.limit } },
            body: { settings: {} },
          }),
        ),
    })),
  }));
  let saving = $state(false);

  async function take(k: number) {
    const remedy = asked[k]?.data?.[0];
    if (!remedy || saving || !session.mayEdit) return;
    saving = true;
    await editor.save(editOf(causes[k]!.operation, remedy));
    saving = false;
  }

  $effect(() =>
    listen(guarded(Object.fromEntries(causes.map((_, k) => [String(k + 1), () => void take(k)])), true)),
  );
</script>

{#if causes.length}
  <h3 class="mt-4 font-semibold">What would hold more often</h3>
  <ul aria-label="Changes that hold more often">
    {#each causes as row, k (row.operation)}
      {@const answer = asked[k]}
      <li class="border-line flex items-baseline gap-3 border-t py-1">
        <span class="flex-1"
          ><span class="figure">{row.number}</span>
          {row.title}, {row.worst}:
          {#if answer?.isPending}<span class="text-soft">trying changes …</span>
          {:else if answer?.data?.[0]}{shown(answer.data[0].text)}
            <span class="text-soft">{shown(answer.data[0].effect)}</span>
          {:else}<span class="text-soft">no single change moves it by much</span>{/if}</span
        >
        {#if session.mayEdit && answer?.data?.[0]}<button
            class="plain-link"
            disabled={saving}
            onclick={() => void take(k)}>do it <kbd>{k + 1}</kbd></button
          >{/if}
      </li>
    {/each}
  </ul>
{/if}
