<script lang="ts">
  import type { Problem, Schemas } from "../api/client";
  import FormField from "../lib/FormField.svelte";

  interface Props {
    fields: Schemas["FieldOut"][];
    values: Record<string, string | boolean>;
    problem: Problem | null;
    /** What an empty field is taken as, and whether a box is ticked. */
    taken?: (field: Schemas["FieldOut"]) => string;
    ticked?: (field: Schemas["FieldOut"]) => boolean;
  }
  let {
    fields,
    values = $bindable(),
    problem,
    taken = (field) =>
      field.default && field.default !== "None" ? `${field.default}, default` : field.example,
    ticked = (field) => (values[field.name] ?? field.default === "True") === true,
  }: Props = $props();
  const text = (name: string) => (typeof values[name] === "string" ? values[name] : "");
</script>

{#each fields as field (field.name)}
  <label for="drawing-{field.name}">{field.label}</label>
  {#if field.kind === "flag"}
    <input
      id="drawing-{field.name}"
      type="checkbox"
      class="size-5"
      checked={ticked(field)}
      onchange={(event) => (values[field.name] = event.currentTarget.checked)}
    />
  {:else if field.kind === "choice"}
    <select
      id="drawing-{field.name}"
      class="control"
      value={text(field.name) || field.default}
      onchange={(event) => (values[field.name] = event.currentTarget.value)}
    >
      {#if !field.default && !text(field.name)}<option value="">as its words say</option>{/if}
      {#each field.options as option (option)}<option>{option}</option>{/each}
    </select>
  {:else}
    <FormField
      id="drawing-{field.name}"
      field="feature.{field.name}"
      {problem}
      placeholder={taken(field)}
      options={field.options}
      bind:value={() => text(field.name), (typed) => (values[field.name] = typed)}
    />
  {/if}
{/each}
