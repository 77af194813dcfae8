<script lang="ts">
  import { createQuery, useQueryClient } from "@tanstack/svelte-query";
  import { api, ask, Problem } from "../api/client";
  import FormField from "../lib/FormField.svelte";
  import Sheet from "../lib/Sheet.svelte";
  import { session } from "../session.svelte";
  import { offered } from "../study/reading";

  /** A control's own way of writing, made from one that ships or changed, and tried on a sample at once. */
  interface Props {
    from: Record<string, unknown>;
    /** Whether `from` is one of the shop's own, or the one that a new one is made like. */
    own: boolean;
    kept: (name: string) => void;
    close: () => void;
  }
  let { from, own, kept, close }: Props = $props();
  const queries = useQueryClient();
  const WORDS = [
    ["name", "name", "shop lathe"],
    ["title", "title", "the shop's lathe"],
    ["per_turn", "feed per revolution", "G95"],
    ["per_minute", "feed per minute", "G94"],
    ["clamp", "max. spindle speed", "G50"],
    ["tool", "tool call", "T{number:02d}{number:02d}"],
    ["thread", "thread pass", "G33"],
    ["thread_lead", "its lead", "K"],
    ["dwell", "dwell", "P"],
    ["stop", "spindle stop", "M5"],
    ["end", "end", "M30"],
  ] as const;
  const NUMBERS = [
    ["dwell_in", "a second of dwell is"],
    ["numbered", "block numbers by, 0 for none"],
    ["decimals", "decimals of places"],
    ["feed_decimals", "decimals of feeds"],
  ] as const;
  const FLAGS = [
    ["turns", "for lathes"],
    ["diameter", "X is a diameter"],
    ["cycles", "holes by cycles"],
  ] as const;
  // svelte-ignore state_referenced_locally
  let entries = $state<Record<string, string>>(
    Object.fromEntries([
      ...[...WORDS, ...NUMBERS].map(([name]) => [name, String(from[name])]),
      ["name", own ? String(from.name) : ""],
      ["title", own ? String(from.title) : ""],
      ["start", (from.start as string[]).join(" ")],
      ["comment", (from.comment as string[])[0]!.trim()],
    ]),
  );
  // svelte-ignore state_referenced_locally
  let flags = $state<Record<string, boolean>>(
    Object.fromEntries(FLAGS.map(([name]) => [name, Boolean(from[name])])),
  );
  let problem = $state<Problem | null>(null);

  const data: Record<string, unknown> = $derived({
    ...Object.fromEntries(WORDS.map(([name]) => [name, entries[name]!.trim()])),
    ...Object.fromEntries(
      NUMBERS.map(([name]) => [
        name,
        /^\d+$/.test(entries[name]!.trim()) ? Number(entries[name]) : entries[name],
      ]),
    ),
    ...flags,
    start: entries.start!.split(/\s+/).filter(Boolean),
    comment: entries.comment === ";" ? ["; ", ""] : [entries.comment!, ")"],
    source: "the shop's own",
  });
  const tried = createQuery(() => ({
    queryKey: ["dialect", JSON.stringify(data)],
    queryFn: async () => {
      try {
        const found = await ask(
          api.POST("/api/programs/dialects/try", {
            body: { data: { ...data, name: data.name || "sample", title: data.title || "sample" } },
          }),
        );
        problem = null;
        return found;
      } catch (reason) {
        if (reason instanceof Problem) problem = reason;
        throw reason;
      }
    },
  }));

  async function keep(event: SubmitEvent) {
    event.preventDefault();
    try {
      const found = await ask(api.PUT("/api/programs/dialects", { body: { data } }));
      await queries.invalidateQueries({ queryKey: ["dialects"] });
      kept(found.name);
      close();
    } catch (reason) {
      if (!(reason instanceof Problem)) throw reason;
      problem = reason;
    }
  }
  async function drop() {
    await ask(api.DELETE("/api/programs/dialects", { params: { query: { name: String(from.name) } } }));
    await queries.invalidateQueries({ queryKey: ["dialects"] });
    kept("");
    close();
  }
  const out = () =>
    offered(
      `${String(data.name || "control")}.json`.replace(/\s+/g, "-"),
      new Blob([JSON.stringify(data, null, 2)], { type: "application/json" }),
    );
</script>

<Sheet title={own ? `Control · ${String(from.title)}` : "A control of your own"} wide {close}>
  <form onsubmit={keep} class="grid gap-4 min-[820px]:grid-cols-[1fr_1fr]">
    <div>
      <div class="grid grid-cols-2 gap-2">
        {#each WORDS as [name, label, example] (name)}
          <div>
            <label class="text-soft text-[13px]" for="dialect-{name}">{label}</label>
            <FormField
              id="dialect-{name}"
              field={name}
              placeholder={example}
              disabled={name === "name" && own}
              bind:value={entries[name]!}
              {problem}
            />
          </div>
        {/each}
        {#each NUMBERS as [name, label] (name)}
          <div>
            <label class="text-soft text-[13px]" for="dialect-{name}">{label}</label>
            <FormField
              id="dialect-{name}"
              field={name}
              inputmode="numeric"
              bind:value={entries[name]!}
              {problem}
            />
          </div>
        {/each}
        <div>
          <label class="text-soft text-[13px]" for="dialect-start">words at the start</label>
          <FormField id="dialect-start" field="start" bind:value={entries.start!} {problem} />
        </div>
        <div>
          <label class="text-soft text-[13px]" for="dialect-comment">comments begin with</label>
          <select id="dialect-comment" class="control w-full" bind:value={entries.comment}>
            <option value="(">(</option>
            <option value=";">;</option>
          </select>
        </div>
      </div>
      <div class="mt-2 flex flex-wrap gap-4">
        {#each FLAGS as [name, label] (name)}
          <label class="flex items-center gap-1"
            ><input type="checkbox" bind:checked={flags[name]} />{label}</label
          >
        {/each}
      </div>
      <div class="mt-3 flex flex-wrap gap-3">
        {#if session.mayEdit}<button class="control">Keep</button>{/if}
        <button type="button" class="control" onclick={out}>Export</button>
        {#if own && session.mayEdit}<button type="button" class="control" onclick={() => void drop()}
            >Delete</button
          >{/if}
      </div>
    </div>
    <div>
      <h3 class="font-semibold">A sample</h3>
      {#if tried.data}
        <pre
          class="figure border-line mt-1 max-h-[52vh] overflow-auto border p-2 text-[13px]"
          aria-label="Sample program">{session.units === "inch" ? tried.data.inch : tried.data.metric}</pre>
        {#if tried.data.findings.length}
          <ul class="text-signal mt-1">
            {#each tried.data.findings as one, k (k)}<li>line {one.line}: {one.text}</li>{/each}
          </ul>
        {:else}<p class="mt-1" role="status">Read back, nothing is found.</p>{/if}
      {:else}<p class="text-soft mt-1">The sample stands here once every entry can be read.</p>{/if}
    </div>
  </form>
</Sheet>
