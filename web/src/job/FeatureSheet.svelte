<script lang="ts">
  import { untrack } from "svelte";
  import { api, ask, Problem, type Schemas } from "../api/client";
  import AsLeft from "../lib/AsLeft.svelte";
  import { Draft } from "../lib/draft.svelte";
  import Sheet from "../lib/Sheet.svelte";
  import Silhouette from "../lib/Silhouette.svelte";
  import { session, shown } from "../session.svelte";
  import FeatureFields from "./FeatureFields.svelte";
  import type { JobEditor } from "./editor.svelte";
  import { told, operationKinds } from "./kinds.svelte";

  interface Props {
    editor: JobEditor;
    close: () => void;
    /** The operation whose drawing is changed; none adds an operation. */
    entry?: Schemas["Operation"];
    added?: (operation: string) => void;
  }
  let { editor, close, entry, added }: Props = $props();
  type Feature = Record<string, string | boolean>;

  const kinds = operationKinds();
  // svelte-ignore state_referenced_locally
  const known = entry;
  const kept = (): Feature => (known ? editor.sizes(known.id, told(editor.job!.document, known)) : {});
  // svelte-ignore state_referenced_locally
  const draft = new Draft(`feature ${editor.id} ${known?.id ?? "new"}`, () => ({
    kind: (known?.operation ?? "turn") as string,
    title: known?.title ?? "",
    skin: known?.skin ?? "clean",
    spindle: (known?.spindle ?? "") as string,
    turned_round: known?.turned_round ?? false,
    feature: kept(),
  }));
  const form = $derived(draft.value);
  const fields = $derived(kinds.data?.find((one) => one.name === form.kind)?.feature ?? []);
  /** Whether such an operation can find the part turned round: where it asks how far that stands out. */
  const turnsRound = $derived(
    kinds.data?.find((one) => one.name === form.kind)?.holding.some((field) => field.name === "free_length"),
  );
  const text = (name: string) => (typeof form.feature[name] === "string" ? form.feature[name] : "");
  let refusal = $state<Problem | null>(null);
  let saving = $state(false);
  let sketch = $state.raw<Schemas["SketchOut"] | null>(null);
  let width = $state(590);
  let turn = 0;

  const settled = $derived(Object.fromEntries((sketch?.settled ?? []).map((one) => [one.name, one])));
  /** What an empty field is taken as: from the part as it stands, else the kind's own default. */
  const taken = (field: Schemas["FieldOut"]) =>
    settled[field.name] && settled[field.name]!.flag === null
      ? `${shown(settled[field.name]!.display)}, from the part so far`
      : field.default && field.default !== "None"
        ? `${field.default}, default`
        : field.example;
  const ticked = (field: Schemas["FieldOut"]) =>
    form.feature[field.name] === undefined
      ? (settled[field.name]?.flag ?? field.default === "True")
      : form.feature[field.name] === true;

  /** The fields that hold something; a kept one that was emptied is taken back. */
  function given() {
    const found: Record<string, string | boolean | null> = {};
    for (const field of fields) {
      const value = form.feature[field.name];
      if (field.kind === "flag") found[field.name] = ticked(field);
      else if (typeof value === "string" && value.trim()) found[field.name] = value.trim();
      else if (known && field.name in kept()) found[field.name] = null;
    }
    return found;
  }

  async function draw() {
    const mine = ++turn;
    const feature = Object.fromEntries(
      fields
        .map((field) => [field.name, form.feature[field.name]] as const)
        .filter(([, value]) => value !== undefined && value !== ""),
    ) as Record<string, string | boolean>;
    const { spindle, turned_round } = form;
    const body = {
      kind: form.kind,
      feature,
      operation: known?.id ?? "",
      spindle: spindle as "" | "main" | "sub",
      turned_round,
      units: session.units,
    };
    const params = { path: { job_id: editor.id } };
    try {
      const found = await ask(api.POST("/api/jobs/{job_id}/sketch", { params, body }));
      if (mine === turn) sketch = found;
    } catch (reason) {
      if (!(reason instanceof Problem)) throw reason;
    }
  }

  $effect(() => {
    void [JSON.stringify(form.feature), form.kind, form.spindle, form.turned_round, fields.length];
    const wait = window.setTimeout(() => untrack(() => void draw()), 120);
    return () => window.clearTimeout(wait);
  });

  function usualTitle() {
    const name = kinds.data?.find((one) => one.name === form.kind)?.title ?? form.kind;
    if (text("thread")) return `Thread ${text("thread").trim()}`;
    const size = text("end_diameter") || text("outer_diameter") || text("diameter");
    return form.kind === "face" || !size ? name : `${name} Ø${size.replace(/^Ø/, "")}`;
  }

  const named = $derived(new Set(fields.map((field) => `feature.${field.name}`)));
  const said = $derived(
    refusal && refusal.status !== 409 && !refusal.errors.some((one) => named.has(one.field))
      ? refusal.message
      : "",
  );

  /** Only what the drawing says, for an operation that is planned later. */
  async function note() {
    const drawn = new Set(fields.filter((field) => field.drawn).map((field) => field.name));
    const asked = Object.entries(given()).filter(([name, value]) => drawn.has(name) && value !== null);
    saving = true;
    refusal = await editor.keep({
      action: "note_feature",
      operation: "",
      identity: "",
      kind: form.kind,
      title: form.title.trim(),
      feature: Object.fromEntries(asked),
      units: session.units,
    });
    saving = false;
    if (refusal) return;
    draft.done();
    close();
  }

  async function keep(event: SubmitEvent) {
    event.preventDefault();
    const title = form.title.trim() || usualTitle();
    const units = session.units;
    const { kind, skin, spindle, turned_round } = $state.snapshot(draft.value) as typeof draft.value;
    saving = true;
    refusal = known
      ? await editor.keep({
          action: "set_feature",
          operation: known.id,
          title,
          feature: given(),
          skin: skin as "clean",
          spindle: spindle as "" | "main" | "sub",
          turned_round,
          units,
        })
      : await editor.keep({
          action: "add_operation",
          operation: "",
          kind,
          title,
          feature: given(),
          spindle: spindle as "" | "main" | "sub",
          turned_round,
          units,
        });
    saving = false;
    if (refusal) return;
    draft.done();
    close();
    const last = editor.job?.document.operations.at(-1);
    if (!known && last) added?.(last.id);
  }
</script>

<Sheet
  title={known
    ? `${known.number} · ${known.prepares ? "size after this operation" : "what the drawing says"}`
    : "Add feature"}
  {close}
>
  {#if sketch}
    <div class="border-line mb-2 border-b pb-2" bind:clientWidth={width}>
      <Silhouette
        outline={sketch.outline}
        {width}
        height={150}
        labels
        marked={known?.id ?? "new"}
        name="Sketch of the part with this operation"
      />
    </div>
  {/if}
  <form class="grid grid-cols-[190px_1fr] items-center gap-2" onsubmit={keep}>
    <AsLeft {draft} />
    {#if !known}
      <label for="kind">kind</label>
      <select id="kind" class="control" bind:value={draft.value.kind}>
        {#each kinds.data ?? [] as one (one.name)}<option value={one.name}>{one.title}</option>{/each}
      </select>
    {/if}
    <FeatureFields {fields} bind:values={draft.value.feature} problem={refusal} {taken} {ticked} />
    <label for="title">title</label>
    <input id="title" class="control" placeholder={usualTitle()} bind:value={draft.value.title} />
    {#if known}
      <label for="skin">surface condition</label>
      <select id="skin" class="control" bind:value={draft.value.skin}>
        {#each ["clean", "bar", "forged", "cast", "weld", "hardened"] as one (one)}<option>{one}</option
          >{/each}
      </select>
    {/if}
    {#if (editor.job?.state.spindles.length ?? 0) > 1}
      <label for="spindle">runs on</label>
      <select id="spindle" class="control" bind:value={draft.value.spindle}>
        {#each editor.job!.state.spindles as one, k (one.name)}<option value={k ? one.name : ""}
            >{one.title}</option
          >{/each}
      </select>
    {/if}
    {#if turnsRound}
      <label for="turned-round">part reversed</label>
      <span class="flex items-center gap-2">
        <input
          id="turned-round"
          type="checkbox"
          disabled={form.spindle === "sub"}
          checked={form.turned_round || form.spindle === "sub"}
          onchange={(event) => (draft.value.turned_round = event.currentTarget.checked)}
        />
        <span class="text-soft"
          >lengths are told from the other chuck; the sub-spindle always holds it so</span
        >
      </span>
    {/if}
    {#if said}<p role="alert" class="text-signal col-span-2">{said}</p>{/if}
    <button class="bg-ink text-sheet col-start-2 min-h-9 font-semibold disabled:opacity-60" disabled={saving}
      >{saving
        ? known
          ? "Saving …"
          : "Ranking the crib for it …"
        : known
          ? "Keep"
          : "Add with its best tool"}</button
    >
    {#if !known}<button
        type="button"
        class="control col-start-2 min-h-9"
        disabled={saving}
        onclick={() => void note()}>Only note what the drawing asks</button
      >{/if}
  </form>
</Sheet>
