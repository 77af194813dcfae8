<script lang="ts">
  import { createQuery } from "@tanstack/svelte-query";
  import { api, ask } from "../api/client";
  import EntryField from "../lib/EntryField.svelte";
  import Panel from "../lib/Panel.svelte";
  import { session } from "../session.svelte";
  import MaterialPicker from "../shelf/MaterialPicker.svelte";
  import type { JobEditor } from "./editor.svelte";
  import HouseRules from "./HouseRules.svelte";

  let { editor }: { editor: JobEditor } = $props();
  const document = $derived(editor.job!.document);
  const machines = createQuery(() => ({
    queryKey: ["machines"],
    queryFn: () => ask(api.GET("/api/floor/machines")),
  }));
  let rules = $state(false);
  const locked = $derived(!session.mayEdit);

  type Change = Omit<Extract<Parameters<JobEditor["save"]>[0], { action: "set_part" }>, "action">;
  const part = (change: Partial<Change>) =>
    editor.keep({ action: "set_part", operation: "", units: session.units, ...change });
  const blank = (name: keyof typeof document.stock) => editor.told(String(document.stock[name] ?? ""));
  const plain = (value: number | string | null | undefined) => (value == null ? "" : String(value));
</script>

<Panel title="Part, machine, batch">
  {#snippet aside()}<button class="plain-link" onclick={() => (rules = true)}>house rules</button>{/snippet}
  <div class="grid grid-cols-[92px_1fr] items-center gap-x-2 gap-y-1 overflow-auto p-2.5 pt-1">
    <label for="part-name">part</label>
    <EntryField id="part-name" value={document.name} disabled={locked} commit={(name) => part({ name })} />
    <span>material</span>
    <MaterialPicker
      label="Material"
      value={document.material}
      disabled={locked}
      choose={(material) =>
        void editor.save({ action: "set_part", operation: "", units: session.units, material })}
    />
    <label for="hardness">hardness HB</label>
    <EntryField
      id="hardness"
      placeholder="as delivered; or 30 HRC"
      value={plain(document.hardness)}
      disabled={locked}
      commit={(hardness) => (hardness ? part({ hardness }) : undefined)}
    />
    <label for="machine">machine</label>
    <select
      id="machine"
      class="control"
      value={document.machine}
      disabled={locked}
      onchange={(event) =>
        void editor.save({
          action: "set_part",
          operation: "",
          units: session.units,
          machine: event.currentTarget.value,
        })}
    >
      {#each machines.data ?? [{ name: document.machine }] as machine (machine.name)}<option
          >{machine.name}</option
        >{/each}
    </select>
    <label for="pieces">batch, unattended h</label>
    <span class="grid grid-cols-2 gap-1.5">
      <span
        ><EntryField
          id="pieces"
          value={plain(document.batch?.pieces)}
          disabled={locked}
          commit={(pieces) => part({ batch: { pieces } })}
        /></span
      >
      <span
        ><label for="alone" class="sr-only">hours that the machine runs alone</label><EntryField
          id="alone"
          value={plain(document.batch?.unattended_hours)}
          disabled={locked}
          commit={(unattended_hours) => part({ batch: { unattended_hours } })}
        /></span
      >
    </span>
    <label for="target">target {session.currency}</label>
    <EntryField
      id="target"
      placeholder="none"
      value={plain(document.money?.target)}
      disabled={locked}
      commit={(target) => part({ money: { target } })}
    />
    <label for="style">workholding</label>
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
    <label for="blank-diameter">blank Ø, bore</label>
    <span class="grid grid-cols-2 gap-1.5">
      <EntryField
        id="blank-diameter"
        field="diameter"
        value={blank("diameter")}
        disabled={locked}
        commit={(diameter) => part({ diameter })}
      />
      <span
        ><label for="blank-bore" class="sr-only">bore in the blank</label><EntryField
          id="blank-bore"
          value={blank("bore") || "0"}
          disabled={locked}
          commit={(bore) => part({ bore: bore || "0" })}
        /></span
      >
    </span>
    <label for="blank-length">stick-out, length</label>
    <span class="grid grid-cols-2 gap-1.5">
      <EntryField
        id="blank-length"
        field="free_length"
        value={blank("free_length")}
        disabled={locked}
        commit={(free_length) => part({ free_length })}
      />
      <span
        ><label for="whole-length" class="sr-only">overall length of the blank</label><EntryField
          id="whole-length"
          field="length"
          placeholder="unknown"
          value={blank("length")}
          disabled={locked}
          commit={(length) => part({ length })}
        /></span
      >
    </span>
    <label for="shape">blank's shape</label>
    <EntryField
      id="shape"
      placeholder="a bar; or 0:60; 40:45"
      value={blank("shape")}
      disabled={locked}
      commit={(shape) => part({ shape })}
    />
    <label for="layers">layers</label>
    <EntryField
      id="layers"
      placeholder="C45: 6; 304: 4"
      value={blank("layers")}
      disabled={locked}
      commit={(layers) => part({ layers })}
    />
    <label for="bar_length">bar, remnant</label>
    <span class="grid grid-cols-2 gap-1.5">
      <EntryField
        id="bar_length"
        value={blank("bar_length")}
        disabled={locked}
        commit={(text) => part({ bar_length: text || "3000 mm" })}
      />
      <span
        ><label for="remnant" class="sr-only">remnant that the chuck keeps</label><EntryField
          id="remnant"
          value={blank("remnant")}
          disabled={locked}
          commit={(text) => part({ remnant: text || "0 mm" })}
        /></span
      >
    </span>
    <label for="bar_price">price of a bar {session.currency}</label>
    <EntryField
      id="bar_price"
      placeholder="0 = ignore kerf"
      value={document.stock.bar_price ? plain(document.stock.bar_price) : ""}
      disabled={locked}
      commit={(text) => part({ bar_price: text || "0" })}
    />
  </div>
</Panel>
{#if rules}<HouseRules {editor} close={() => (rules = false)} />{/if}
