<script lang="ts">
  import { createQuery } from "@tanstack/svelte-query";
  import { api, ask } from "../api/client";
  import NamePicker from "../lib/NamePicker.svelte";
  import Panel from "../lib/Panel.svelte";
  import { session } from "../session.svelte";
  import type { JobEditor } from "./editor.svelte";

  let { editor }: { editor: JobEditor } = $props();
  const document = $derived(editor.job!.document);
  const materials = createQuery(() => ({
    queryKey: ["materials"],
    queryFn: () => ask(api.GET("/api/shelf/materials", { params: { query: {} } })),
  }));
  const machines = createQuery(() => ({
    queryKey: ["machines", "turning"],
    queryFn: async () =>
      (await ask(api.GET("/api/floor/machines"))).filter((machine) => machine.abilities.includes("turns")),
  }));
  const materialItems = $derived(
    (materials.data ?? []).map((m) => ({
      value: m.name,
      label: m.name,
      more: `${m.letter} ${m.group} · ${m.aliases.join(", ")}`,
      words: [m.name, m.number, ...m.aliases].join(" ; "),
    })),
  );
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
    <label for="book">above the book</label>
    <select
      id="book"
      class="control"
      title="House rule: may speed go above the book's window?"
      value={document.house?.never_above_book === false ? "may go above" : "never"}
      disabled={locked}
      onchange={(event) => part({ house: { never_above_book: event.currentTarget.value === "never" } })}
    >
      <option>never</option><option>may go above</option>
    </select>
    <label for="last-cut">last cut</label>
    <select
      id="last-cut"
      class="control"
      title="House rule: the last cut to a tolerance"
      value={document.house?.equal_cuts === false ? "light, with a sharp edge" : "like the others"}
      disabled={locked}
      onchange={(event) => part({ house: { equal_cuts: event.currentTarget.value === "like the others" } })}
    >
      <option>like the others</option><option>light, with a sharp edge</option>
    </select>
    <label for="height">tip height</label>
    <select
      id="height"
      class="control"
      title="House rule: where the tip stands; its effect on rake and clearance is shown on the bench"
      value={Number(document.house?.off_centre ?? 0) > 0 ? "a little below outside" : "on centre"}
      disabled={locked}
      onchange={(event) =>
        part({ house: { off_centre: event.currentTarget.value === "on centre" ? 0 : 0.01 } })}
    >
      <option>on centre</option><option>a little below outside</option>
    </select>
    <label for="polishing">polishing, mm on Ø</label>
    <input
      id="polishing"
      class="control figure"
      type="number"
      min="0"
      max="0.2"
      step="0.001"
      title="House rule: what is left where a surface is polished to size"
      value={document.house?.polishing_allowance ?? 0.01}
      disabled={locked}
      onchange={(event) => number(event, (polishing_allowance) => part({ house: { polishing_allowance } }))}
    />
    <label for="gauge">micrometer ±, mm</label>
    <input
      id="gauge"
      class="control figure"
      type="number"
      min="0.0001"
      max="1"
      step="any"
      title="House rule: expanded uncertainty of the usual instrument, k = 2"
      value={document.house?.measuring_uncertainty ?? 0.01}
      disabled={locked}
      onchange={(event) =>
        number(event, (measuring_uncertainty) => part({ house: { measuring_uncertainty } }))}
    />
  </div>
</Panel>
