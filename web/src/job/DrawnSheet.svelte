<script lang="ts">
  import { Problem, type Schemas } from "../api/client";
  import Sheet from "../lib/Sheet.svelte";
  import { session, shown } from "../session.svelte";
  import type { JobEditor } from "./editor.svelte";
  import FeatureFields from "./FeatureFields.svelte";
  import { operationKinds } from "./kinds.svelte";

  interface Props {
    editor: JobEditor;
    /** The feature of the drawing that is looked at. */
    feature: string;
    close: () => void;
  }
  let { editor, feature, close }: Props = $props();
  const kinds = operationKinds();
  const drawn = $derived(editor.job?.document.features?.find((one) => one.id === feature));
  const stands = $derived(editor.job?.state.drawing.find((one) => one.id === feature));
  const ways = $derived((kinds.data ?? []).filter((kind) => kind.shape === drawn?.shape));
  const fields = $derived(ways[0]?.feature.filter((field) => field.drawn) ?? []);
  const cuts = $derived(
    editor.job?.document.operations.filter((operation) => operation.drawn === feature) ?? [],
  );
  // svelte-ignore state_referenced_locally
  const start = editor.job?.document.features?.find((one) => one.id === feature);
  // svelte-ignore state_referenced_locally
  let values = $state(editor.sizes(feature, start?.asked ?? {}));
  let title = $state(start?.title ?? "");
  let problem = $state<Problem | null>(null);
  let busy = $state("");

  async function did(what: string, edit: Parameters<JobEditor["keep"]>[0]) {
    busy = what;
    problem = await editor.keep(edit);
    busy = "";
    if (!problem) close();
  }

  const keep = (event: SubmitEvent) => {
    event.preventDefault();
    const asked = Object.fromEntries(
      fields.flatMap((field): [string, Schemas["Operation"]["feature"][string]][] => {
        const value = values[field.name];
        if (typeof value === "string") return [[field.name, value.trim()]];
        return value === undefined ? [] : [[field.name, value]];
      }),
    );
    void did("Saving …", {
      action: "note_feature",
      operation: "",
      identity: feature,
      kind: ways[0]!.name,
      title: title.trim(),
      feature: asked,
      units: session.units,
    });
  };
  const plan = (kind: Schemas["OperationKindOut"]) =>
    void did("Ranking the crib for it …", {
      action: "add_operation",
      operation: "",
      kind: kind.name,
      title: title.trim() || `${kind.title} ${shown(stands!.words).split(" × ")[0]}`.slice(0, 80),
      feature: {},
      drawn: feature,
      prepares: false,
      units: session.units,
    });
</script>

<Sheet title="Drawing requirements {stands ? shown(stands.words) : ''}" {close}>
  {#if cuts.length}
    <ul class="mb-2">
      {#each cuts as cut (cut.id)}<li>
          <span class="figure">{cut.number}</span>
          <a class="plain-link" href="#/jobs/{editor.id}/operations/{cut.id}">{cut.title}</a>
          <span class="text-soft">{cut.prepares ? "prepares it" : "makes it"}</span>
        </li>{/each}
    </ul>
  {:else}<p class="text-warn mb-2">Nothing makes it yet.</p>{/if}
  {#if session.mayEdit}
    {#if !cuts.some((cut) => !cut.prepares)}
      <p class="mb-3 flex flex-wrap gap-2">
        {#each ways as kind (kind.name)}<button
            class="bg-ink text-sheet min-h-9 px-3 font-semibold disabled:opacity-60"
            disabled={!!busy}
            onclick={() => plan(kind)}>{kind.title}: use best tool</button
          >{/each}
      </p>
    {/if}
    <form class="grid grid-cols-[190px_1fr] items-center gap-2" onsubmit={keep}>
      <FeatureFields {fields} bind:values {problem} />
      <label for="title">called</label>
      <input id="title" class="control" maxlength="80" bind:value={title} />
      {#if problem && problem.status !== 409 && !problem.errors.some( (one) => one.field.startsWith("feature.") )}<p
          role="alert"
          class="text-signal col-span-2"
        >
          {problem.message}
        </p>{/if}
      <p class="text-soft col-span-2">
        Changes go to all operations on this feature, except values set there.
      </p>
      <button class="control col-start-2 min-h-9 font-semibold" disabled={!!busy}>{busy || "Keep"}</button>
      <button
        type="button"
        class="plain-link text-signal col-start-2 justify-self-start"
        disabled={!!busy}
        onclick={() =>
          void did("Taking it off …", { action: "remove_feature", operation: "", identity: feature })}
        >Delete feature{cuts.length
          ? `, with ${cuts.length === 1 ? "its operation" : "its operations"}`
          : ""}</button
      >
    </form>
  {/if}
</Sheet>
