<script lang="ts">
  import { untrack } from "svelte";
  import { api, ask, Problem, type Schemas } from "../api/client";
  import AsLeft from "../lib/AsLeft.svelte";
  import { Draft } from "../lib/draft.svelte";
  import Sheet from "../lib/Sheet.svelte";
  import Silhouette from "../lib/Silhouette.svelte";
  import { session } from "../session.svelte";
  import type { JobEditor } from "./editor.svelte";
  import { operationKinds } from "./kinds.svelte";

  let { editor, close }: { editor: JobEditor; close: () => void } = $props();
  // svelte-ignore state_referenced_locally
  const draft = new Draft(`line ${editor.id}`, () => ({ line: "" }));
  let found = $state.raw<Schemas["ShaftLineOut"] | null>(null);
  let refused = $state("");
  let adding = $state(false);
  let width = $state(900);
  let turn = 0;

  async function read() {
    const mine = ++turn;
    const line = draft.value.line.trim();
    if (!line) {
      found = null;
      refused = "";
      return;
    }
    try {
      const params = { path: { job_id: editor.id } };
      const answer = await ask(
        api.POST("/api/jobs/{job_id}/shaft-line", { params, body: { line, units: session.units } }),
      );
      if (mine !== turn) return;
      found = answer;
      refused = "";
    } catch (reason) {
      if (!(reason instanceof Problem)) throw reason;
      if (mine === turn) refused = reason.errors[0]?.message ?? reason.message;
    }
  }

  $effect(() => {
    void draft.value.line;
    const wait = window.setTimeout(() => untrack(() => void read()), 150);
    return () => window.clearTimeout(wait);
  });

  async function add(event: SubmitEvent) {
    event.preventDefault();
    await read();
    if (!found || refused) return;
    adding = true;
    const operations = found.operations.map(({ kind, title, feature }) => ({ kind, title, feature }));
    const refusal = await editor.keep({ action: "add_operations", operation: "", operations });
    adding = false;
    if (refusal) {
      refused = refusal.status === 409 ? "" : refusal.message;
      return;
    }
    draft.done();
    close();
  }

  const kinds = operationKinds();
  /** A feature in the words of its form. */
  function words(one: Schemas["PlannedOut"]): string {
    const fields = kinds.data?.find((kind) => kind.name === one.kind)?.feature ?? [];
    const label = (name: string) => fields.find((field) => field.name === name)?.label.split(",")[0] ?? name;
    return Object.entries(one.feature)
      .filter(([name, value]) => name !== "where" && value !== false)
      .map(([name, value]) => (value === true ? label(name) : `${label(name)} ${value}`))
      .join(" · ");
  }
</script>

<Sheet title="A whole part in one line" {close} wide>
  <form onsubmit={add}>
    <AsLeft {draft} />
    <label for="shaft-line" class="text-soft"
      >Steps from the thick end or the thin one, each Ø × length, with tolerance, finish (Ra, Rz or N6),
      fillet R, thread M20x1.5 x 30 after its step; grooves, cut off; from the face inward: drill, bore,
      recess 5 x Ø66 at 12, tapped M10 x 15</label
    >
    <input
      id="shaft-line"
      class="control figure mt-1 w-full text-[15px] {refused ? 'refused' : ''}"
      autocomplete="off"
      placeholder="Ø45 x 120, Ø30 h6 x 50 Ra 0.8, thread M30x1.5 x 20, tapped M10 x 15, groove DIN 471, cut off"
      aria-invalid={refused ? "true" : undefined}
      aria-describedby={refused ? "shaft-line-refused" : undefined}
      bind:value={draft.value.line}
    />
    {#if refused}<p id="shaft-line-refused" role="alert" class="text-signal mt-1">{refused}</p>{/if}
    {#if found}
      <div class="mt-2" bind:clientWidth={width}>
        <Silhouette
          outline={found.outline}
          {width}
          height={190}
          labels
          lengths
          name="The shaft that the line says"
        />
      </div>
      <table class="mt-2 w-full" aria-label="Operations of this line">
        <thead class="text-soft text-left text-[13px]"
          ><tr class="border-line border-b"
            ><th scope="col" class="py-1 font-normal">operation</th><th scope="col" class="font-normal"
              >what it makes</th
            ></tr
          ></thead
        >
        <tbody>
          {#each found.operations as one, k (k)}
            <tr class="border-line border-b align-top"
              ><td class="py-1 font-semibold whitespace-nowrap">{one.title}</td><td
                class="figure !whitespace-normal"
                >{words(one)}{#if one.note}<span class="text-warn block">▲ {one.note}</span>{/if}</td
              ></tr
            >
          {/each}
        </tbody>
      </table>
      <button
        class="bg-ink text-sheet mt-3 min-h-9 px-4 font-semibold disabled:opacity-60"
        disabled={adding || !!refused}
        >{adding
          ? `Ranking the crib for ${found.operations.length} operations …`
          : `Add these ${found.operations.length} with their best tools`}</button
      >
    {/if}
  </form>
</Sheet>
