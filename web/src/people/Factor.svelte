<script lang="ts">
  import { createQuery, useQueryClient } from "@tanstack/svelte-query";
  import { api, ask, Problem, type Schemas } from "../api/client";

  let { done = () => {} }: { done?: () => void } = $props();
  const queries = useQueryClient();
  const mine = createQuery(() => ({
    queryKey: ["factor"],
    queryFn: () => ask(api.GET("/api/session/factor")),
  }));
  let begun = $state.raw<Schemas["FactorOut"] | null>(null);
  let codes = $state.raw<string[]>([]);
  let code = $state("");
  let problem = $state("");

  async function act(deed: () => Promise<void>) {
    problem = "";
    try {
      await deed();
      code = "";
      await queries.invalidateQueries({ queryKey: ["factor"] });
    } catch (reason) {
      if (!(reason instanceof Problem)) throw reason;
      problem = reason.message;
    }
  }
  const begin = () =>
    act(async () => {
      begun = await ask(api.POST("/api/session/factor", { body: { code } }));
    });
  const confirm = () =>
    act(async () => {
      codes = (await ask(api.POST("/api/session/factor/confirm", { body: { code } }))).codes;
      begun = null;
    });
  const drop = () =>
    act(async () => {
      await ask(api.POST("/api/session/factor/drop", { body: { code } }));
      codes = [];
    });
</script>

{#if codes.length}
  <p role="status" class="font-semibold">The second factor is on.</p>
  <p>Keep these on paper, away from the device: each opens once when it is lost.</p>
  <ul class="figure my-1 grid grid-cols-2 gap-x-4" data-testid="recovery">
    {#each codes as one (one)}<li>{one}</li>{/each}
  </ul>
  <button class="control" onclick={() => ((codes = []), done())}>I have them on paper</button>
{:else if begun}
  <p>Read this with the device’s own app for codes, or type the letters into it. Then enter what it shows.</p>
  <img alt="The secret as a square code" class="my-1 bg-white" src={begun.picture} />
  <p class="figure break-all">{begun.secret.match(/.{1,4}/g)?.join(" ")}</p>
  <form class="mt-1 flex gap-2" onsubmit={(event) => (event.preventDefault(), void confirm())}>
    <input
      class="control w-32"
      inputmode="numeric"
      autocomplete="one-time-code"
      aria-label="six digits"
      bind:value={code}
    />
    <button class="control" disabled={!code}>confirm</button>
  </form>
{:else if mine.data}
  <p>
    {mine.data.on
      ? `On; ${mine.data.left} recovery codes are left.`
      : "Off: a password alone opens the bench."}
  </p>
  <div class="mt-1 flex flex-wrap gap-2">
    {#if mine.data.on}
      <input
        class="control w-32"
        autocomplete="one-time-code"
        aria-label="code"
        placeholder="code"
        bind:value={code}
      />
      <button class="control" disabled={!code} onclick={() => void begin()}>another device</button>
      <button class="control" disabled={!code} onclick={() => void drop()}>do without</button>
    {:else}<button class="control" onclick={() => void begin()}>set it up</button>
    {/if}
  </div>
{/if}
{#if problem}<p role="alert" class="text-signal font-semibold">{problem}</p>{/if}
