<script lang="ts">
  import { push } from "svelte-spa-router";
  import { api, ask } from "../api/client";
  import { page, type Action } from "../page.svelte";
  import { session } from "../session.svelte";
  import Sheet from "./Sheet.svelte";

  let { close }: { close: () => void } = $props();

  interface Hit {
    kind: string;
    label: string;
    more: string;
    href: string;
    run?: () => void;
  }
  let text = $state("");
  let hits = $state<Hit[]>([]);
  let place = $state(0);
  let latest = 0;

  async function find() {
    const turn = ++latest;
    const q = text.trim();
    const [jobs, materials, tools, thread, help] = await Promise.all([
      ask(api.GET("/api/jobs", { params: { query: { q, limit: 8 } } })),
      q ? ask(api.GET("/api/shelf/materials", { params: { query: { q, limit: 8 } } })) : null,
      q ? ask(api.GET("/api/crib/tools", { params: { query: { q, limit: 8 } } })) : null,
      q ? readThread(q) : [],
      q ? ask(api.GET("/api/help", { params: { query: { words: q } } })) : null,
    ]);
    if (turn !== latest) return;
    hits = [
      ...doable(q),
      ...thread,
      ...jobs.rows.map((job) => ({
        kind: "job",
        label: job.name,
        more: `${job.material} · ${job.machine}`,
        href: `/jobs/${job.id}`,
      })),
      ...(materials?.rows ?? []).map((m) => ({
        kind: "material",
        label: m.name,
        more: [m.number, ...m.aliases].join(", "),
        href: `/shelf/${encodeURIComponent(m.name)}`,
      })),
      ...(tools?.rows ?? []).map((tool) => ({
        kind: "tool",
        label: tool.name,
        more: tool.purpose || tool.kind,
        href: `/crib/tools/${tool.id}`,
      })),
      ...(help?.terms ?? []).slice(0, 6).map((term) => ({
        kind: "term",
        label: term.name,
        more: term.means,
        href: "",
        run: () => page.explain(term.name),
      })),
      ...(help?.pages ?? []).slice(0, 3).map((one) => ({
        kind: "document",
        label: one.title,
        more: "",
        href: `/help/${one.name}`,
      })),
    ];
    place = 0;
  }

  /** What can be done on this page and everywhere, by its words. */
  function doable(q: string): Hit[] {
    const units = session.units === "mm" ? "inch" : "mm";
    const theme = session.person?.theme === "dark" ? "light" : "dark";
    const everywhere: Action[] = [
      { label: `switch to ${units}`, key: "u", run: () => void session.prefer({ units }) },
      { label: `${theme} theme`, run: () => void session.prefer({ theme }) },
      { label: "help", key: "?", run: () => page.explain() },
      ...["Tools", "Materials", "Machines", "Import and export", "Your account"].map((label, k) => ({
        label: `go to ${label}`,
        run: () => void push(["/crib", "/shelf", "/floor", "/exchange", "/account"][k]!),
      })),
    ];
    return [...page.actions, ...everywhere]
      .filter((one) => q && one.label.toLowerCase().includes(q.toLowerCase()))
      .map((one) => ({
        kind: "action",
        label: one.label,
        more: one.key ? `key ${one.key}` : "",
        href: "",
        run: one.run,
      }));
  }

  /** A typed thread with its sheet; what is wrong with it, where it starts as one and does not exist. */
  async function readThread(q: string): Promise<Hit[]> {
    const found = await ask(api.GET("/api/shelf/thread/hit", { params: { query: { words: q } } }));
    if (!found.kind) return [];
    const words = found.name || (found.offered[0] ?? "");
    return [
      {
        kind: "thread",
        label: found.name || q,
        more: found.says,
        href: `/shelf/threads/${encodeURIComponent(words)}`,
      },
      ...found.offered.map((one) => ({
        kind: "thread",
        label: one,
        more: "exists",
        href: `/shelf/threads/${encodeURIComponent(one)}`,
      })),
    ];
  }

  function go(hit: Hit | undefined) {
    if (!hit) return;
    close();
    if (hit.run) hit.run();
    else void push(hit.href);
  }

  function walk(event: KeyboardEvent) {
    if (event.key === "ArrowDown") place = Math.min(place + 1, hits.length - 1);
    else if (event.key === "ArrowUp") place = Math.max(place - 1, 0);
    else if (event.key === "Enter") go(hits[place]);
    else return;
    event.preventDefault();
  }

  $effect(() => {
    void text;
    void find();
  });
</script>

<Sheet title="Search" {close}>
  <!-- svelte-ignore a11y_autofocus -->
  <input
    class="control w-full"
    aria-label="Search jobs, materials, tools, threads, terms and actions"
    placeholder="runner, 4140, CNMG 120408, M10x1.25 …"
    bind:value={text}
    onkeydown={walk}
    autofocus
  />
  <ul class="mt-2" aria-label="Found">
    {#each hits as hit, k (hit.kind + hit.href + hit.label)}
      <li>
        <button
          class="grid w-full grid-cols-[70px_1fr_1fr] gap-2 px-2 py-1.5 text-left {k === place
            ? 'bg-ink text-sheet'
            : ''}"
          onclick={() => go(hit)}
        >
          <span class={k === place ? "" : "text-soft"}>{hit.kind}</span><span class="font-semibold"
            >{hit.label}</span
          ><span class="truncate">{hit.more}</span>
        </button>
      </li>
    {:else}
      <li class="text-soft px-2 py-2">Nothing by that name.</li>
    {/each}
  </ul>
</Sheet>
