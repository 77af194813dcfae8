<script lang="ts">
  import { api, ask, Problem, type Schemas } from "../api/client";
  import { Draft } from "../lib/draft.svelte";
  import Sheet from "../lib/Sheet.svelte";
  import { session, shown } from "../session.svelte";

  let { close }: { close: () => void } = $props();
  const draft = new Draft("gauge study", () => ({
    people: 2,
    parts: 5,
    repeats: 2,
    zone: "",
    cells: {} as Record<string, string>,
  }));
  let found = $state.raw<Schemas["GaugeOut"] | null>(null);
  let problem = $state<Problem | null>(null);
  const upTo = (count: number) => Array.from({ length: Math.max(0, Math.min(count, 20)) }, (_, k) => k);
  const { people, parts, repeats } = $derived(draft.value);
  const key = (person: number, part: number, repeat: number) => `${person}.${part}.${repeat}`;
  const refused = $derived(new Map((problem?.errors ?? []).map((one) => [one.field, one.message])));

  function put(name: string, text: string) {
    draft.value = { ...draft.value, cells: { ...draft.value.cells, [name]: text } };
  }

  async function weigh(event: SubmitEvent) {
    event.preventDefault();
    problem = null;
    found = null;
    const readings = upTo(people).map((p) =>
      upTo(parts).map((k) => upTo(repeats).map((r) => draft.value.cells[key(p, k, r)] ?? "")),
    );
    try {
      found = await ask(
        api.POST("/api/learning/gauge", {
          body: { readings, zone: draft.value.zone || null, units: session.units },
        }),
      );
    } catch (reason) {
      if (!(reason instanceof Problem)) throw reason;
      problem = reason;
    }
  }
</script>

<Sheet title="What an instrument can see" wide {close}>
  <p class="text-soft max-w-[80ch]">
    Two or more people measure the same parts more than once, in an order left to chance, without seeing what
    was read before. What they differ by is the instrument and the hands on it, not the parts. Do it before a
    trial: an instrument that takes 30 % of the zone cannot see the fit.
  </p>
  <form class="mt-2 grid gap-3" onsubmit={weigh}>
    <div class="flex flex-wrap gap-4">
      {#each [["people", "people", 2, 4], ["parts", "parts", 2, 10], ["repeats", "readings each", 2, 4]] as const as [name, label, low, high] (name)}
        <label class="grid gap-1"
          >{label}
          <input
            class="control w-24"
            type="number"
            min={low}
            max={high}
            bind:value={draft.value[name]}
          /></label
        >
      {/each}
      <label class="grid gap-1"
        >zone of the size, {session.units === "inch" ? "in" : "mm"}
        <input class="control w-32" placeholder="0.016" bind:value={draft.value.zone} /></label
      >
    </div>
    <div class="overflow-x-auto">
      <table>
        <thead
          ><tr
            ><th scope="col" class="pr-3 text-left font-normal">part</th>{#each upTo(people) as p (p)}<th
                scope="colgroup"
                colspan={repeats}
                class="px-2 text-left font-normal">person {p + 1}</th
              >{/each}</tr
          ></thead
        >
        <tbody>
          {#each upTo(parts) as k (k)}
            <tr>
              <th scope="row" class="pr-3 text-left font-normal">{k + 1}</th>
              {#each upTo(people) as p (p)}{#each upTo(repeats) as r (r)}
                  <td class="p-0.5"
                    ><input
                      class="control w-24"
                      class:refused={refused.has(`readings.${p}.${k}.${r}`)}
                      inputmode="decimal"
                      aria-label="person {p + 1}, part {k + 1}, reading {r + 1}"
                      title={refused.get(`readings.${p}.${k}.${r}`) ?? ""}
                      value={draft.value.cells[key(p, k, r)] ?? ""}
                      oninput={(event) => put(key(p, k, r), event.currentTarget.value)}
                    /></td
                  >{/each}{/each}
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
    {#if problem}<p role="alert" class="text-signal">{problem.message}</p>{/if}
    <div class="flex gap-2">
      <button class="control">Evaluate</button>
      <button class="control" type="button" onclick={() => draft.done()}>clear</button>
    </div>
  </form>
  {#if found}
    <section class="border-edge mt-3 border p-2" aria-label="What it sees" role="status">
      <p class="font-semibold">{found.verdict}</p>
      <dl class="mt-1 grid w-fit grid-cols-[auto_auto] gap-x-6">
        <dt>repeatability (the instrument), s</dt>
        <dd class="figure text-right">{shown(found.repeatability)}</dd>
        <dt>reproducibility (the hands), s</dt>
        <dd class="figure text-right">{shown(found.reproducibility)}</dd>
        <dt>the parts themselves, s</dt>
        <dd class="figure text-right">{shown(found.parts)}</dd>
        {#if found.share}<dt>share of the zone</dt>
          <dd class="figure text-right">{found.share}</dd>{/if}
      </dl>
    </section>
  {/if}
</Sheet>
