<script lang="ts">
  import type { Problem } from "../api/client";

  interface Props {
    value: string;
    id?: string;
    /** The end of the path by which a refusal names this field. */
    field: string;
    /** The refusal of the form that this field stands in. */
    problem: Problem | null;
    placeholder?: string;
    disabled?: boolean;
    options?: string[];
    inputmode?: "decimal" | "numeric" | "text";
    class?: string;
    label?: string;
  }
  let {
    value = $bindable(),
    id,
    field,
    problem,
    placeholder,
    disabled = false,
    options = [],
    inputmode,
    class: extra = "",
    label,
  }: Props = $props();
  const uid = $props.id();
  let answered = $state<Problem | null>(null); // the refusal that was answered by typing on
  const error = $derived(
    problem && problem !== answered
      ? problem.errors.find((one) => one.field === field || one.field.endsWith(`.${field}`))
      : undefined,
  );
</script>

<span class="grid {extra}">
  <input
    id={id ?? uid}
    class="control figure w-full {error ? 'refused' : ''}"
    autocomplete="off"
    {placeholder}
    {disabled}
    {inputmode}
    aria-label={label}
    list={options.length ? `${id ?? uid}-options` : undefined}
    aria-invalid={error ? "true" : undefined}
    aria-describedby={error ? `${id ?? uid}-refused` : undefined}
    bind:value
    oninput={() => (answered = problem)}
  />
  {#if options.length}<datalist id="{id ?? uid}-options"
      >{#each options as option (option)}<option value={option}></option>{/each}</datalist
    >{/if}
  {#if error}
    <span id="{id ?? uid}-refused" role="alert" class="text-signal text-[13px]">
      {error.message}
      {#each error.readings ?? [] as reading (reading)}
        <button
          type="button"
          class="plain-link mr-2"
          onclick={() => {
            value = reading;
            answered = problem;
          }}>{reading}</button
        >
      {/each}
    </span>
  {/if}
</span>
