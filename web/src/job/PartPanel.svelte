<script lang="ts">
  import { createQuery } from "@tanstack/svelte-query";
  import { api, ask } from "../api/client";
  import EntryField from "../lib/EntryField.svelte";
  import NamePicker from "../lib/NamePicker.svelte";
  import Panel from "../lib/Panel.svelte";
  import { session } from "../session.svelte";
  import type { JobEditor } from "./editor.svelte";
  import HouseRules from "./HouseRules.svelte";

  let { editor }: { editor: JobEditor } = $props();
  const document = $derived(editor.job!.document);
  const materials = createQuery(() => ({
    queryKey: ["materials"],
    queryFn: () => ask(api.GET("/api/shelf/materials", { params: { query: {} } })),
  }));
  const machines = createQuery(() => ({
    queryKey: ["machines", "turning"],
    queryFn: async () =>
      (await ask(api.GET("/api/floor/machines"))).filter((machine) =>
        ["turns", "tool changer"].some((can) => machine.abilities.includes(can)),
      ),
  }));
  const materialItems = $derived(
    (materials.data ?? []).map((m) => ({
      value: m.name,
      label: m.name,
      more: `${m.letter} ${m.group} · ${m.aliases.join(", ")}`,
      words: [m.name, m.number, ...m.aliases].join(" ; "),
    })),
  );
  let rules = $state(false);
  const locked = $derived(!session.mayEdit);

  function part(change: Record<string, unknown>) {
    void editor.save({ action: "set_part", operation: "", ...change } as Parameters<JobEditor["save"]>[0]);
  }

  function number(event: Event, save: (value: number) => void) {
    const field = event.currentTarget as HTMLInputElement;
    if (field.value.trim() !== "" && Number.isFinite(Number(field.value))) save(Number(field.value));
    else field.reportValidity();
  }
</script>

<Panel title="Part, machine, batch">
  {#snippet aside()}<button class="plain-link" onclick={() => (rules = true)}>house rules</button>{/snippet}
  <div class="grid grid-cols-[92px_1fr] items-center gap-x-2 gap-y-1.5 overflow-auto p-2.5 pt-1">
    <span>material</span>
    <NamePicker
      label="Material"
      value={document.material}
      items={materialItems}
      disabled={locked}
      choose={(material) => part({ material })}
    />
    <label for="hardness">hardness HB</label>
    <input
      id="hardness"
      class="control figure"
      placeholder="as delivered; or 30 HRC"
      value={document.hardness ?? ""}
      disabled={locked}
      onchange={(event) => {
        const typed = event.currentTarget.value.trim();
        if (typed) part({ hardness: typed });
      }}
    />
    <label for="machine">machine</label>
    <select
      id="machine"
      class="control"
      value={document.machine}
      disabled={locked}
      onchange={(event) => part({ machine: event.currentTarget.value })}
    >
      {#each machines.data ?? [{ name: document.machine }] as machine (machine.name)}<option
          >{machine.name}</option
        >{/each}
    </select>
    <label for="pieces">pieces</label>
    <input
      id="pieces"
      class="control figure"
      type="number"
      min="1"
      value={document.batch?.pieces}
      disabled={locked}
      onchange={(event) => number(event, (pieces) => part({ batch: { ...document.batch, pieces } }))}
    />
    <label for="alone">alone, hours</label>
    <input
      id="alone"
      class="control figure"
      type="number"
      min="0"
      step="0.5"
      value={document.batch?.unattended_hours}
      disabled={locked}
      onchange={(event) =>
        number(event, (unattended_hours) => part({ batch: { ...document.batch, unattended_hours } }))}
    />
    <label for="target">target €</label>
    <input
      id="target"
      class="control figure"
      type="number"
      min="0"
      step="0.1"
      value={document.money?.target ?? ""}
      disabled={locked}
      onchange={(event) => number(event, (target) => part({ money: { ...document.money, target } }))}
    />
    <label for="style">held by</label>
    <select
      id="style"
      class="control"
      value={String(document.holding?.style ?? "chuck")}
      disabled={locked}
      onchange={(event) =>
        void editor.save({
          action: "set_holding",
          operation: "",
          units: session.units,
          holding: { style: event.currentTarget.value },
        })}
    >
      <option>chuck</option><option>chuck and centre</option><option>between centres</option>
    </select>
    <label for="shape">blank's shape</label>
    <input
      id="shape"
      class="control figure"
      placeholder="a bar; or 0:60; 40:45"
      title="Of a forged or pre-shaped blank: place:diameter from the jaws, parted by semicolons"
      value={document.stock.shape ?? ""}
      disabled={locked}
      onchange={(event) => part({ shape: event.currentTarget.value.trim(), units: session.units })}
    />
    <label for="bar_length">bar, remnant</label>
    <span class="grid grid-cols-2 gap-1.5">
      <EntryField
        id="bar_length"
        value={document.stock.bar_length ?? ""}
        disabled={locked}
        commit={(text) => part({ bar_length: text || "3000 mm", units: session.units })}
      />
      <span
        ><label for="remnant" class="sr-only">remnant that the chuck keeps</label><EntryField
          id="remnant"
          value={document.stock.remnant ?? ""}
          disabled={locked}
          commit={(text) => part({ remnant: text || "0 mm", units: session.units })}
        /></span
      >
    </span>
    <label for="bar_price">price of a bar €</label>
    <input
      id="bar_price"
      class="control figure"
      type="number"
      min="0"
      step="0.1"
      placeholder="0: no kerf reckoned"
      value={document.stock.bar_price || ""}
      disabled={locked}
      onchange={(event) => number(event, (bar_price) => part({ bar_price }))}
    />
  </div>
</Panel>
{#if rules}<HouseRules {editor} close={() => (rules = false)} />{/if}
