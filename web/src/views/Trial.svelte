<script lang="ts">
  import { api, ask, askOnce, Problem, type Schemas } from "../api/client";
  import { Draft } from "../lib/draft.svelte";
  import { page } from "../page.svelte";
  import { session, shown } from "../session.svelte";
  import Chart from "../study/Chart.svelte";
  import EntryForm from "../trial/EntryForm.svelte";
  import { keepAtHand } from "../trial/offline";
  import SideBySide from "../trial/SideBySide.svelte";
  import { Outbox } from "../trial/outbox.svelte";

  let { params }: { params: { id: string } } = $props();
  const id = $derived(Number(params.id));
  let trial = $state.raw<Schemas["TrialOut"] | null>(null);
  let vocabulary = $state.raw<Schemas["VocabularyOut"] | null>(null);
  let missing = $state("");
  /** Shown as it was last seen: nobody answers now. */
  let old = $state(false);
  const outbox = new Outbox(() => void load());

  async function load() {
    const [where, words] = [`trial ${id} ${session.units}`, "trial words"];
    try {
      const query = { units: session.units };
      trial = await ask(api.GET("/api/trials/{trial_id}", { params: { path: { trial_id: id }, query } }));
      vocabulary ??= await ask(api.GET("/api/trials/words"));
      old = false;
      missing = "";
      void outbox.remember(where, trial);
      void outbox.remember(words, vocabulary);
    } catch (reason) {
      if (!(reason instanceof Problem)) throw reason;
      const left = reason.passing ? await outbox.recall<Schemas["TrialOut"]>(where) : undefined;
      if (!left) {
        missing = reason.message;
        return;
      }
      trial = left;
      vocabulary ??= (await outbox.recall<Schemas["VocabularyOut"]>(words)) ?? null;
      old = true;
    }
  }
  $effect(() => {
    void session.units;
    void load();
  });
  $effect(() => {
    void outbox.begin();
    void keepAtHand();
    const again = () => void outbox.send();
    window.addEventListener("online", again);
    return () => {
      window.removeEventListener("online", again);
      outbox.end();
    };
  });
  $effect(() =>
    page.open("Trial", [
      { label: "Trials", href: "#/trials" },
      { label: trial?.question ?? `trial ${params.id}` },
    ]),
  );
  const mine = $derived(outbox.waiting.filter((one) => one.trial === id));
  const refused = $derived(mine.filter((one) => one.refused));

  // svelte-ignore state_referenced_locally
  const verdict = new Draft(`verdict ${params.id}`, () => ({ verdict: "keep", words: "" }));
  let problem = $state("");
  async function act(deed: () => Promise<Schemas["TrialOut"]>) {
    problem = "";
    try {
      trial = await deed();
    } catch (reason) {
      if (!(reason instanceof Problem)) throw reason;
      problem = reason.message;
    }
  }
  const strike = (entry: number) =>
    act(() =>
      ask(
        api.POST("/api/trials/{trial_id}/entries/{entry_id}/strike", {
          params: { path: { trial_id: id, entry_id: entry }, query: { units: session.units } },
        }),
      ),
    );
  async function close(event: SubmitEvent) {
    event.preventDefault();
    await act(() =>
      askOnce((once) =>
        api.POST("/api/trials/{trial_id}/verdict", {
          ...once,
          params: { path: { trial_id: id }, query: { units: session.units } },
          body: { verdict: verdict.value.verdict as "keep", words: verdict.value.words },
        }),
      ),
    );
    if (!problem) verdict.done();
  }
  const CAUSES: Record<string, string> = { wear: "worn out", breakage: "broke" };
</script>

{#if missing}
  <p role="alert" class="text-signal p-6">{missing}</p>
{:else if trial && vocabulary}
  {@const now = trial}
  <div
    class="at-trial mx-auto grid max-w-[1500px] grid-cols-[minmax(0,1fr)] gap-3 p-3 lg:grid-cols-[minmax(0,1.15fr)_minmax(0,1fr)]"
  >
    <section class="bg-sheet border-edge border p-3" aria-label="Log">
      <h1 class="text-[20px] leading-tight font-semibold">{now.question}</h1>
      <p class="text-soft">
        <a class="plain-link" href="#/jobs/{now.job}/operations/{now.operation}"
          >{now.job_name}, {now.title}</a
        >
        · {now.tool} · {now.metal} · {now.machine}
      </p>
      {#if now.change}<p>Changed: {now.change}</p>{/if}
      <p>
        <a class="plain-link" href="#/jobs/{now.job}/operations/{now.operation}/clinic"
          >trouble? find the cause</a
        >
      </p>
      <p class="mt-1 flex flex-wrap gap-x-4 gap-y-1">
        <b class={now.met ? "text-safe" : ""}>{now.met ? "■ has its answer" : "□ runs"}: {now.progress}</b>
        <span data-testid="outbox" role="status">
          {#if mine.length > refused.length}<b class="text-warn"
              >▲ {mine.length - refused.length} kept on this tablet, not sent yet</b
            >{:else if old}<b class="text-warn">▲ as last seen: the server does not answer</b>{:else}<span
              class="text-soft">all sent</span
            >{/if}</span
        >
      </p>
      {#each refused as one (one.key)}
        <p role="alert" class="border-signal mt-1 flex flex-wrap items-center gap-2 border p-2">
          <span class="text-signal">Not taken: edge {one.entry.edge}, {one.entry.count}. {one.refused}</span>
          <button class="control" onclick={() => void outbox.drop(one.key)}>throw it away</button>
        </p>
      {/each}
      <div class="border-line mt-2 border-t pt-2">
        {#key id}<EntryForm trial={now} {vocabulary} {outbox} />{/key}
      </div>
    </section>
    <div class="grid grid-cols-[minmax(0,1fr)] content-start gap-3">
      <section class="bg-sheet border-line border p-3" aria-label="Predicted and seen">
        <h2 class="font-semibold">Predicted and seen</h2>
        <p class="text-soft">
          {#each now.settings as one, k (k)}{k ? " · " : ""}{one.label}
            <span class="figure">{shown(one.value)}</span>{/each}
        </p>
        <table class="mt-1 w-full">
          <thead class="text-soft text-left"
            ><tr
              ><th scope="col" class="font-normal">figure</th><th scope="col" class="text-right font-normal"
                >predicted</th
              ><th scope="col" class="text-right font-normal">band</th><th
                scope="col"
                class="text-right font-normal">seen</th
              ></tr
            ></thead
          >
          <tbody>
            {#each now.predicted as one (one.name)}
              <tr class="border-line border-t" title={one.says}>
                <td class="py-0.5">{one.label}</td>
                <td class="figure text-right">{shown(one.predicted)}</td>
                <td class="figure text-soft text-right"
                  >{#if one.low && one.high}{shown(one.low)} – {shown(one.high)}{/if}</td
                >
                <td class="figure text-right font-semibold">{one.seen ? shown(one.seen) : ""}</td>
              </tr>
            {/each}
          </tbody>
        </table>
      </section>
      <SideBySide trial={now} />
      {#if now.says.length || now.compared || now.teaches.length}
        <section class="bg-sheet border-line border p-3" aria-label="What it says">
          <h2 class="font-semibold">What it says</h2>
          <ul>
            {#each now.says as line, k (k)}<li class="border-line border-t py-1">{line}</li>{/each}
            {#each now.compared?.said ?? [] as line, k (k)}<li class="border-line border-t py-1">
                {#if k === 0}<b
                    >Against <a class="plain-link" href="#/trials/{now.compared?.against}"
                      >trial {now.compared?.against}</a
                    >.</b
                  >{/if}
                {line}
              </li>{/each}
            {#each now.teaches as line, k (k)}<li class="border-line text-soft border-t py-1">
                teaches: {line}
              </li>{/each}
          </ul>
          {#if now.teaches.length}<p class="mt-1">
              <a class="plain-link" href="#/trials">What all trials teach, to be accepted</a>
            </p>{/if}
        </section>
      {/if}
      {#each Object.entries(now.charts) as [name, chart] (name)}
        <section class="bg-sheet border-line border p-3" aria-label={name}>
          <h2 class="font-semibold">{name[0]!.toUpperCase()}{name.slice(1)}</h2>
          <Chart {chart} label={name} thin={["predicted", "bound", "least", "largest"]} />
        </section>
      {/each}
      <section class="bg-sheet border-line border p-3" aria-label="Edges">
        <h2 class="font-semibold">Edges</h2>
        <table class="w-full">
          <tbody>
            {#each now.edges as one, k (k)}
              <tr class="border-line border-t">
                <td class="py-1">edge {one.edge}</td>
                <td class="figure text-right">{one.count}</td>
                <td class="pl-3">{one.running ? "runs" : (CAUSES[one.cause] ?? "stopped before its end")}</td>
                <td class="text-soft text-right">{one.share}</td>
              </tr>
            {:else}<tr><td class="text-soft">No edge yet: keep the first entry.</td></tr>{/each}
          </tbody>
        </table>
      </section>
      <section class="bg-sheet border-line border p-3" aria-label="Entries">
        <h2 class="flex justify-between font-semibold">
          Entries{now.log.length < now.log_total ? `, the newest ${now.log.length} of ${now.log_total}` : ""}
          <span class="font-normal"
            ><a class="plain-link" href="/api/trials/export?form=csv&trial={now.id}">CSV</a>
            <a class="plain-link ml-2" href="/api/trials/export?form=xlsx&trial={now.id}">XLSX</a></span
          >
        </h2>
        <ul class="max-h-96 overflow-auto">
          {#each [...now.log].reverse() as one (one.id)}
            <li class="border-line border-t py-1 {one.struck ? 'text-soft line-through' : ''}">
              <b class="figure">edge {one.edge}, {one.count}</b>
              {Object.values(one.seen).join(", ")}
              {#each one.lines as line, k (k)}<span class="ml-2"
                  >{line.label} <span class="figure">{shown(line.value)}</span></span
                >{/each}
              {one.words}
              {#each one.photos as photo (photo)}<a
                  class="plain-link ml-2"
                  href="/api/trials/photos/{photo}"
                  target="_blank"
                  rel="noopener">photo</a
                >{/each}
              <span class="text-soft">· {one.author}, {one.happened}</span>
              {#if session.mayNote}<button class="plain-link ml-2" onclick={() => void strike(one.id)}
                  >{one.struck ? "let it stand" : "strike out"}</button
                >{/if}
            </li>
          {:else}<li class="text-soft">Nothing logged yet.</li>{/each}
        </ul>
      </section>
      {#if session.mayEdit}
        <section class="bg-sheet border-line border p-3" aria-label="Verdict">
          <h2 class="font-semibold">Verdict{now.verdict === "open" ? "" : `: ${now.verdict}`}</h2>
          {#if now.verdict_words}<p>{now.verdict_words}</p>{/if}
          <form class="mt-1 flex flex-wrap items-end gap-2" onsubmit={close}>
            <select class="control" aria-label="Verdict" bind:value={verdict.value.verdict}>
              {#each ["keep", "go back", "ask again"] as one (one)}<option>{one}</option>{/each}
            </select>
            <input
              class="control min-w-40 flex-1"
              aria-label="Why"
              placeholder="why"
              maxlength="400"
              bind:value={verdict.value.words}
            />
            <button class="control">End the trial</button>
          </form>
        </section>
      {/if}
      {#if problem}<p role="alert" class="text-signal">{problem}</p>{/if}
    </div>
  </div>
{:else}
  <p class="text-soft p-6">Opening the trial …</p>
{/if}
