<script lang="ts">
  import { toolName } from "../lib/names";
  import { untrack } from "svelte";
  import { api, ask, Problem, type Schemas } from "../api/client";
  import Sheet from "../lib/Sheet.svelte";
  import EntryField from "../lib/EntryField.svelte";
  import { session, shown } from "../session.svelte";
  import type { JobEditor } from "./editor.svelte";

  let { editor, close }: { editor: JobEditor; close: () => void } = $props();
  let worth = $state("0.1");
  let found = $state.raw<Schemas["BestOut"] | null>(null);
  let problem = $state<Problem | null>(null);
  let busy = $state(true);
  const changed = $derived((found?.rows ?? []).filter((row) => row.changes && row.then));

  async function load(): Promise<Problem | null> {
    busy = true;
    try {
      const params = { path: { job_id: editor.id } };
      found = await ask(api.POST("/api/jobs/{job_id}/best", { params, body: { worth } }));
      return null;
    } catch (reason) {
      if (!(reason instanceof Problem)) throw reason;
      return reason;
    } finally {
      busy = false;
    }
  }

  $effect(() => {
    void editor.job?.revision;
    untrack(() => void load().then((refusal) => (problem = refusal)));
  });

  async function price(text: string) {
    const before = worth;
    worth = text || "0";
    const refusal = await load();
    if (refusal) worth = before;
    return refusal;
  }

  async function take() {
    const tools = changed.map((row) => ({
      operation: row.operation,
      tool: row.then!.tool,
      settings: row.settings,
      becomes: row.becomes,
      before: row.before,
    }));
    problem = await editor.keep({ action: "take_tools", operation: "", tools });
    if (!problem) close();
  }
  const name = (tool: Schemas["ToolWords"]) => toolName(tool.edge);
</script>

<Sheet title="The best tools for this part" {close} wide>
  <div class="flex items-end gap-4">
    <label class="grid w-44"
      >value of one tool fewer, {session.currency} per piece <EntryField
        value={worth}
        field="worth"
        disabled={!session.mayEdit}
        commit={price}
      /></label
    >
    <p class="text-soft pb-1.5">
      The same tool is taken for several operations where that costs less; 0 takes the best for each.
    </p>
  </div>
  {#if found}
    <p class="mt-2" data-testid="best-total">
      <span class="figure">{found.tools_now}</span>
      {found.tools_now === 1 ? "tool" : "tools"} at
      <span class="figure">{shown(found.cost_now)}</span> of operations per piece become
      <b
        ><span class="figure">{found.tools_then}</span> at
        <span class="figure">{shown(found.cost_then)}</span></b
      >{#if found.first}; <span class="figure">{found.first}</span>
        {found.first === 1 ? "operation gets its" : "operations get their"} first tool{/if}{#if found.pockets};
        the turret has <span class="figure">{found.pockets}</span> places{/if}.
    </p>
    <table class="mt-2 w-full" aria-label="What changes" aria-busy={busy}>
      <thead class="text-soft text-left text-[13px]"
        ><tr class="border-line border-b"
          ><th scope="col" class="py-1 font-normal">operation</th><th scope="col" class="font-normal">now</th
          ><th scope="col" class="font-normal">then</th><th scope="col" class="text-right font-normal"
            >time</th
          ><th scope="col" class="text-right font-normal">cost</th></tr
        ></thead
      >
      <tbody>
        {#each found.rows as row (row.operation)}
          <tr class="border-line border-b align-top {row.changes ? '' : 'text-soft'}"
            ><td class="py-1"><span class="figure">{row.number}</span> {row.title}</td><td>{name(row.now)}</td
            ><td
              >{#each row.before as step, k (k)}{`${step.title}, then `}{/each}{#if row.then}<b
                  >{name(row.then)}</b
                ><br />on {row.then.on}<br />{/if}<span class="text-soft">{shown(row.says)}</span></td
            ><td class="figure text-right"
              >{shown(row.seconds_now)}{#if row.seconds_then}<br /><b>{shown(row.seconds_then)}</b>{/if}</td
            ><td class="figure text-right"
              >{shown(row.cost_now)}{#if row.cost_then}<br /><b>{shown(row.cost_then)}</b>{/if}</td
            ></tr
          >
        {/each}
      </tbody>
    </table>
    {#if session.mayEdit}
      <button
        class="bg-ink text-sheet mt-3 min-h-9 px-4 font-semibold disabled:opacity-60"
        disabled={!changed.length || busy}
        onclick={() => void take()}
        >{changed.length
          ? `Take them for ${changed.length} of ${found.rows.length} operations`
          : "Nothing would change"}</button
      >
    {/if}
  {:else if !problem}<p class="text-soft mt-2">
      Ranking the crib for {editor.job?.document.operations.length} operations …
    </p>{/if}
  {#if problem && problem.status !== 409}<p role="alert" class="text-signal mt-2">{problem.message}</p>{/if}
</Sheet>
