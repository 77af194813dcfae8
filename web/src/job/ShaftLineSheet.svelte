<script lang="ts">
  import { untrack } from "svelte";
  import { api, ask, Problem, type Schemas } from "../api/client";
  import AsLeft from "../lib/AsLeft.svelte";
  import { Draft } from "../lib/draft.svelte";
  import Sheet from "../lib/Sheet.svelte";
  import Silhouette from "../lib/Silhouette.svelte";
  import { toolName } from "../lib/names";
  import { STANDING, TONES } from "../lib/standing";
  import { session, shown } from "../session.svelte";
  import type { JobEditor } from "./editor.svelte";
  import { operationKinds } from "./kinds.svelte";

  let { editor, close }: { editor: JobEditor; close: () => void } = $props();
  // svelte-ignore state_referenced_locally
  const draft = new Draft(`line ${editor.id}`, () => ({ line: "" }));
  let found = $state.raw<Schemas["ShaftLineOut"] | null>(null);
  let refused = $state("");
  let where = $state<[number, number] | null>(null); // the words that the refusal is about
  const IDLE = 500; // ms without a key after which a line is tried
  let trying = $state(false);
  let adding = $state(false);
  let width = $state(900);
  let turn = 0;

  const asked = (line: string, tried: boolean) =>
    ask(
      api.POST("/api/jobs/{job_id}/shaft-line", {
        params: { path: { job_id: editor.id } },
        body: { line, units: session.units, tried },
      }),
    );

  async function read() {
    const mine = ++turn;
    const line = draft.value.line.trim();
    where = null;
    trying = false;
    if (!line) {
      found = null;
      refused = "";
      return;
    }
    try {
      const answer = await asked(line, false);
      if (mine !== turn) return;
      found = answer;
      refused = "";
    } catch (reason) {
      if (!(reason instanceof Problem)) throw reason;
      if (mine !== turn) return;
      found = null; // nothing old stays beside a refusal
      refused = reason.errors[0]?.message ?? reason.message;
      where = spotted(reason.errors[0]?.where ?? null);
    }
  }

  /** Once nobody types any more the line is tried with the crib, by the plan's own rules. */
  async function attempt() {
    await read();
    const mine = turn;
    await new Promise((done) => window.setTimeout(done, IDLE));
    if (mine !== turn || adding || !found) return;
    trying = true;
    try {
      const answer = await asked(draft.value.line.trim(), true);
      if (mine === turn) found = answer;
    } catch (reason) {
      if (!(reason instanceof Problem)) throw reason;
    } finally {
      if (mine === turn) trying = false;
    }
  }

  /** The place in what stands in the field: a line is sent without the blanks around it. */
  function spotted(place: [number, number] | null): [number, number] | null {
    const lead = draft.value.line.length - draft.value.line.trimStart().length;
    return place && [place[0] + lead, place[1] + lead];
  }

  $effect(() => {
    void draft.value.line;
    const wait = window.setTimeout(() => untrack(() => void attempt()), 150);
    return () => window.clearTimeout(wait);
  });

  async function add(event: SubmitEvent) {
    event.preventDefault();
    if (!found) await read();
    if (!found || refused) return;
    adding = true;
    turn += 1;
    const operations = found.operations.map(({ kind, title, feature, turned_round }) => ({
      kind,
      title,
      feature,
      turned_round,
    }));
    const refusal = await editor.keep({
      action: "add_operations",
      operation: "",
      operations,
      noted: found.noted,
    });
    adding = false;
    if (refusal) {
      refused = refusal.status === 409 ? "" : refusal.message;
      return;
    }
    draft.done();
    close();
  }

  const HELP = [
    ["step", "Ø30 h6 x 50 Ra 0.8 R0.4 1x45°"],
    ["tapered", "Ø30 h7 x 50 taper 1:10, Ø30 x 50 taper 7° per side"],
    ["ending at", "Ø30 to 50"],
    ["thread on its step", "thread M20x1.5 x 30"],
    ["thread in the face", "tapped M10 x 15, tapped M10 through"],
    ["from the face inward", "drill Ø18 x 60, bore Ø20 H7 x 40, ream Ø12 H7 x 30"],
    ["recess", "recess 5 x Ø26 at 12"],
    ["groove on its step", "groove 3 x Ø26 at 10, groove DIN 471"],
    ["at the shoulder", "relief DIN 509 F, relief DIN 76"],
    ["off the bar", "cut off"],
    ["the other end", "… cut off | Ø35 x 20"],
  ];
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
    <label for="shaft-line" class="text-soft">Steps from the thick end or the thin one</label>
    <div class="relative mt-1">
      <input
        id="shaft-line"
        class="control figure w-full text-[15px] {refused ? 'refused' : ''}"
        autocomplete="off"
        placeholder="Ø45 x 120, Ø30 h6 x 50 Ra 0.8 1x45°, thread M30x1.5 x 20, tapped M10 x 15, cut off"
        aria-invalid={refused ? "true" : undefined}
        aria-describedby="shaft-line-help{refused ? ' shaft-line-refused' : ''}"
        bind:value={draft.value.line}
      />
    </div>
    {#if refused && where}<p
        class="figure mt-1 text-[15px] break-all"
        data-testid="misread"
        aria-hidden="true"
      >
        {draft.value.line.slice(0, where[0])}<span
          class="text-signal decoration-signal underline decoration-wavy underline-offset-4"
          >{draft.value.line.slice(...where)}</span
        >{draft.value.line.slice(where[1])}
      </p>{/if}
    {#if refused}<p id="shaft-line-refused" role="alert" class="text-signal mt-1">{refused}</p>{/if}
    <dl
      id="shaft-line-help"
      class="text-soft mt-1 grid grid-cols-[auto_1fr] gap-x-3 text-[13px] sm:grid-cols-[auto_1fr_auto_1fr]"
    >
      {#each HELP as [what, example] (what)}<dt>{what}</dt>
        <dd class="figure">{example}</dd>{/each}
    </dl>
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
              ><td class="py-1 font-semibold whitespace-nowrap"
                >{one.title}{#if one.turned_round}<span class="text-soft ml-1.5 font-normal"
                    >turned round</span
                  >{/if}</td
              ><td class="figure !whitespace-normal"
                >{words(one)}{#if one.note}<span class="text-warn block">▲ {one.note}</span>{/if}</td
              ></tr
            >
          {/each}
        </tbody>
      </table>
      {#if found.noted.length}<p class="text-warn mt-2">
          ▲ Not made here, kept with the job and on its sheet: {found.noted.join(", ")}.
        </p>{/if}
      {#if found.tried}
        <h3 class="mt-3 font-semibold">
          With the best tools of the crib: <span class="figure">{shown(found.seconds)}</span> per piece
        </h3>
        <table class="w-full" aria-label="The operations with their best tools">
          <tbody>
            {#each found.tried as one, k (k)}
              <tr class="border-line border-b align-top"
                ><td class="py-0.5 whitespace-nowrap">{one.title}</td><td class="text-soft"
                  >{toolName(one.edge)}</td
                ><td class="figure text-right">{shown(one.seconds)}</td><td class="figure pr-3 text-right"
                  >{shown(one.cost)}</td
                ><td class="whitespace-nowrap {TONES[one.status]}">{STANDING[one.status]}</td><td
                  class="text-soft">{one.status === "holds" ? "" : shown(one.why)}</td
                ></tr
              >
            {/each}
          </tbody>
        </table>
      {:else if trying}<p class="text-soft mt-3" role="status">trying it with the crib …</p>{/if}
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
