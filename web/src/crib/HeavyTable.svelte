<script lang="ts">
  import Trash from "@lucide/svelte/icons/trash-2";
  import type { Schemas } from "../api/client";
  import EntryField from "../lib/EntryField.svelte";
  import { session } from "../session.svelte";
  import type { HeavyBuild, Table } from "./heavy.svelte";

  interface Props {
    build: HeavyBuild;
    where: Table;
    fields: Schemas["HeavyFieldOut"][];
    materials?: string[];
  }
  let { build, where, fields, materials = [] }: Props = $props();
  const rows = $derived(build.form?.[where] ?? []);
  const wide = (field: Schemas["HeavyFieldOut"]) => (field.kind === "text" ? "min-w-[92px]" : "min-w-[62px]");
</script>

<table class="w-full text-[13px]">
  <thead class="text-soft text-left">
    <tr
      >{#each fields as field (field.name)}<th scope="col" class="px-0.5 font-normal">{field.label}</th
        >{/each}<th><span class="sr-only">take away</span></th></tr
    >
  </thead>
  <tbody>
    {#each rows as row, k (k)}
      <tr class="align-top">
        {#each fields as field (field.name)}
          <td class="px-0.5 py-0.5 {wide(field)}">
            <EntryField
              value={String(row[field.name] ?? "")}
              field="{where}.{k}.{field.name}"
              problem={build.problem}
              label="{field.label} of {row.name}"
              placeholder={field.example}
              disabled={!session.mayEdit}
              options={field.name === "material" ? materials : []}
              commit={(text) => build.set(where, k, field.name, text)}
            />
          </td>
        {/each}
        <td class="pt-1"
          >{#if session.mayEdit && rows.length > 1}<button
              class="icon"
              aria-label="Take {row.name} away"
              onclick={() => void build.remove(where, k)}><Trash size={15} /></button
            >{/if}</td
        >
      </tr>
    {/each}
  </tbody>
</table>
{#if session.mayEdit}<button class="plain-link justify-self-start" onclick={() => void build.add(where)}
    >{where === "segments" ? "add a solid" : "add a step"}</button
  >{/if}
