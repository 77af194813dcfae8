<script lang="ts">
  import type { Schemas } from "../api/client";
  import Sheet from "../lib/Sheet.svelte";
  import { session } from "../session.svelte";
  import type { JobEditor } from "./editor.svelte";
  import { operationKinds } from "./kinds.svelte";

  interface Props {
    editor: JobEditor;
    close: () => void;
    /** The operation whose drawing is changed; none adds an operation. */
    entry?: Schemas["Operation"];
  }
  let { editor, close, entry }: Props = $props();

  const kinds = operationKinds();
  // svelte-ignore state_referenced_locally
  const known = entry;
  let kind = $state<string>(known?.operation ?? "turn");
  let title = $state(known?.title ?? "");
  let skin = $state(known?.skin ?? "clean");
  let feature = $state<Record<string, string | boolean>>(
    Object.fromEntries(
      Object.entries(known?.feature ?? {}).map(([name, value]) => [
        name,
        typeof value === "boolean" ? value : String(value ?? ""),
      ]),
    ),
  );
  const fields = $derived(kinds.data?.find((one) => one.name === kind)?.feature ?? []);
  const text = (name: string) => (typeof feature[name] === "string" ? feature[name] : "");

  /** The fields that hold something; a kept one that was emptied is taken back. */
  function given() {
    const found: Record<string, string | boolean | null> = {};
    for (const field of fields) {
      const value = feature[field.name];
      if (field.kind === "flag")
        found[field.name] = value === undefined ? field.default === "True" : value === true;
      else if (typeof value === "string" && value.trim()) found[field.name] = value.trim();
      else if (known?.feature[field.name] != null) found[field.name] = null;
    }
    return found;
  }

  function usualTitle() {
    const name = kinds.data?.find((one) => one.name === kind)?.title ?? kind;
    const size = text("end_diameter") || text("outer_diameter") || text("diameter");
    return kind === "face" || !size ? name : `${name} Ø${size}`;
  }

  // a refusal is said in the words of its field, and the field is marked
  const error = $derived(editor.problem?.errors[0]);
  const wrong = $derived(fields.find((field) => error?.field === `feature.${field.name}`));
  const said = $derived(wrong ? `${wrong.label}: ${error?.message}` : editor.problem?.message);

  async function keep(event: SubmitEvent) {
    event.preventDefault();
    const name = title.trim() || usualTitle();
    const units = session.units;
    const saved = known
      ? await editor.save({
          action: "set_feature",
          operation: known.id,
          title: name,
          feature: given(),
          skin,
          units,
        })
      : await editor.save({
          action: "add_operation",
          operation: "",
          kind,
          title: name,
          feature: given(),
          units,
        });
    if (saved) close();
  }
</script>

<Sheet title={known ? `${known.number} · what the drawing says` : "Add an operation"} {close}>
  <form class="grid grid-cols-[210px_1fr] items-center gap-2" onsubmit={keep}>
    {#if !known}
      <label for="kind">kind</label>
      <select id="kind" class="control" bind:value={kind}>
        {#each kinds.data ?? [] as one (one.name)}<option value={one.name}>{one.title}</option>{/each}
      </select>
    {/if}
    <label for="title">title</label>
    <input id="title" class="control" placeholder={usualTitle()} bind:value={title} />
    {#each fields as field (field.name)}
      <label for="drawing-{field.name}">{field.label}</label>
      {#if field.kind === "flag"}
        <input
          id="drawing-{field.name}"
          type="checkbox"
          class="size-5"
          checked={feature[field.name] === undefined
            ? field.default === "True"
            : feature[field.name] === true}
          onchange={(event) => (feature[field.name] = event.currentTarget.checked)}
        />
      {:else if field.kind === "choice"}
        <select
          id="drawing-{field.name}"
          class="control"
          value={text(field.name) || field.default}
          onchange={(event) => (feature[field.name] = event.currentTarget.value)}
        >
          {#each field.options as option (option)}<option>{option}</option>{/each}
        </select>
      {:else}
        <input
          id="drawing-{field.name}"
          class="control figure {wrong === field ? '!border-signal' : ''}"
          aria-invalid={wrong === field}
          aria-describedby={wrong === field ? "drawing-refused" : undefined}
          placeholder={field.example}
          autocomplete="off"
          list={field.options.length ? `drawing-${field.name}-options` : undefined}
          value={text(field.name)}
          oninput={(event) => (feature[field.name] = event.currentTarget.value)}
        />
        {#if field.options.length}<datalist id="drawing-{field.name}-options"
            >{#each field.options as option (option)}<option value={option}></option>{/each}</datalist
          >{/if}
      {/if}
    {/each}
    {#if known}
      <label for="skin">skin of the stock here</label>
      <select id="skin" class="control" bind:value={skin}>
        {#each ["clean", "bar", "forged", "cast", "weld", "hardened"] as one (one)}<option>{one}</option
          >{/each}
      </select>
    {/if}
    {#if said}<p id="drawing-refused" role="alert" class="text-signal col-span-2">{said}</p>{/if}
    <button class="bg-ink text-sheet col-start-2 min-h-9 font-semibold"
      >{known ? "Keep" : "Add to the run order"}</button
    >
  </form>
</Sheet>
