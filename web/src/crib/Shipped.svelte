<script lang="ts">
  import { api, ask, Problem } from "../api/client";
  import { spaced } from "../lib/names";
  import { session } from "../session.svelte";

  /** The demo's tools as one thing: archived together when the shop has its own, and restored. */
  let { changed }: { changed: () => void } = $props();
  type Where = { in_crib: number; archived: number; own: number };
  let where = $state<Where | null>(null);
  let sure = $state(false);
  let working = $state(false);
  let problem = $state<Problem | null>(null);

  async function look() {
    where = await ask(api.GET("/api/crib/shipped")).catch(() => null); // it is no part of looking for a tool
  }
  void look();

  async function move(archived: boolean) {
    sure = false;
    working = true;
    problem = null;
    try {
      where = await ask(api.POST("/api/crib/shipped", { body: { archived } }));
      changed();
    } catch (refused) {
      problem = refused instanceof Problem ? refused : new Problem(0, {});
    } finally {
      working = false;
    }
  }
</script>

{#if session.mayEdit && where && where.in_crib + where.archived > 0}
  <div class="text-soft border-line border-t p-2 text-[13px]" aria-label="Demo tools" role="group">
    {#if working}<p role="status">Moving the demo tools …</p>
    {:else if sure}
      <p>
        All <span class="figure">{spaced(where.in_crib)}</span> invented tools go into the archive; jobs that
        use them keep them. {where.own === 0 ? "No tool of your own is left: import some next." : ""}
      </p>
      <p class="mt-1 flex gap-2">
        <button class="control" onclick={() => void move(true)}>Archive them</button>
        <button class="control" onclick={() => (sure = false)}>Keep them</button>
      </p>
    {:else if where.in_crib > 0}
      <button class="underline" onclick={() => (sure = true)}
        >Archive the <span class="figure">{spaced(where.in_crib)}</span> demo tools</button
      >
    {:else}
      <p>The demo tools are in the archive.</p>
      <p class="mt-1 flex flex-wrap gap-2">
        <button class="control" onclick={() => void move(false)}>Restore them</button>
        {#if where.own === 0}<a class="control" href="#/exchange">Import your tools from a template</a>{/if}
      </p>
    {/if}
    {#if problem}<p role="alert" class="text-signal">{problem.message}</p>{/if}
  </div>
{/if}
