<script lang="ts">
  import type { Schemas } from "../api/client";
  import { session } from "../session.svelte";
  import type { RecordForm } from "./form.svelte";

  interface Props {
    form: RecordForm;
    columns: Schemas["ColumnOut"][];
    /** Known names to offer per column. */
    offers?: Record<string, string[]>;
  }
  let { form, columns, offers = {} }: Props = $props();
  const uid = $props.id();
  const unit = (column: Schemas["ColumnOut"]) =>
    session.units === "inch" ? column.unit.inch : column.unit.metric;
  const bound = (column: Schemas["ColumnOut"]) =>
    column.low !== null && column.high !== null
      ? `${column.low} to ${column.high} ${column.unit.metric}`.trim()
      : "";
</script>

<div class="grid grid-cols-2 gap-x-4 gap-y-2 max-sm:grid-cols-1">
  {#each columns as column (column.name)}
    {@const error = form.errors[column.name]}
    <div
      class={column.kind === "pairs" || column.kind === "words" || column.kind === "numbers"
        ? "col-span-full"
        : ""}
    >
      <label for="{uid}-{column.name}" class="text-soft text-[13px]"
        >{column.title}{column.title !== column.name && column.name.toUpperCase() === column.name
          ? ` (${column.name})`
          : ""}{column.required ? " *" : ""}{unit(column) ? `, ${unit(column)}` : ""}</label
      >
      {#if column.kind === "choice" || column.kind === "flag"}
        <select
          id="{uid}-{column.name}"
          class="control w-full"
          value={form.value(column.name)}
          aria-invalid={!!error}
          onchange={(event) => form.type(column.name, event.currentTarget.value)}
        >
          <option value=""></option>
          {#each column.kind === "flag" ? ["yes", "no"] : column.choices as option (option)}<option
              >{option}</option
            >{/each}
        </select>
      {:else}
        <input
          id="{uid}-{column.name}"
          class="control figure w-full {error ? 'refused' : ''}"
          value={form.value(column.name)}
          placeholder={bound(column)}
          list={offers[column.name] ? `${uid}-${column.name}-list` : undefined}
          aria-invalid={!!error}
          aria-describedby={error ? `${uid}-${column.name}-error` : undefined}
          oninput={(event) => form.type(column.name, event.currentTarget.value)}
        />
        {#if offers[column.name]}
          <datalist id="{uid}-{column.name}-list"
            >{#each offers[column.name]! as name (name)}<option value={name}></option>{/each}</datalist
          >
        {/if}
      {/if}
      {#if error}<p id="{uid}-{column.name}-error" class="text-signal text-[13px]">
          {error}
          {#each form.readings[column.name] ?? [] as reading (reading)}<button
              type="button"
              class="plain-link mr-2"
              onclick={() => form.type(column.name, reading)}>{reading}</button
            >{/each}
        </p>{/if}
    </div>
  {/each}
</div>
