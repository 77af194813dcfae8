<script lang="ts">
  import type { Problem, Schemas } from "../api/client";
  import EntryField from "../lib/EntryField.svelte";

  interface Props {
    id: string;
    field: Schemas["FieldOut"];
    value: string | number | boolean | null | undefined;
    commit: (value: string | boolean) => void | Promise<Problem | null>;
    problem?: Problem | null;
    giveUp?: () => void;
    disabled?: boolean;
  }
  let { id, field, value, commit, problem = null, giveUp, disabled = false }: Props = $props();
  const text = $derived(value == null ? "" : String(value));
</script>

<label for={id}>{field.label}</label>
{#if field.kind === "flag"}
  <input
    {id}
    type="checkbox"
    class="size-5"
    {disabled}
    checked={value == null ? field.default === "True" : value === true}
    onchange={(event) => void commit(event.currentTarget.checked)}
  />
{:else if field.kind === "choice"}
  <select
    {id}
    class="control"
    {disabled}
    value={text || field.default}
    onchange={(event) => void commit(event.currentTarget.value)}
  >
    {#each field.options as option (option)}<option>{option}</option>{/each}
  </select>
{:else}
  <span
    ><EntryField
      {id}
      field={field.name}
      value={text}
      placeholder={field.example}
      options={field.options}
      {disabled}
      {problem}
      {giveUp}
      {commit}
    /></span
  >
{/if}
