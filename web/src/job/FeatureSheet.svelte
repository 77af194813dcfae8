<script lang="ts">
  import type { Schemas } from "../api/client";
  import Sheet from "../lib/Sheet.svelte";
  import { session } from "../session.svelte";
  import type { JobEditor } from "./editor.svelte";

  interface Props {
    editor: JobEditor;
    close: () => void;
    /** The operation whose drawing is changed; none adds an operation. */
    entry?: Schemas["Operation"];
  }
  let { editor, close, entry }: Props = $props();

  type Kind = "turn" | "face";
  const LABELS: Record<Kind, [string, string, string][]> = {
    turn: [
      ["start_diameter", "from Ø", "60"],
      ["end_diameter", "to Ø, with its tolerance", "49 h9"],
      ["length", "length", "120"],
      ["distance_from_chuck", "ends from the jaws", "20"],
      ["roughness", "finish Ra, µm", "1.6"],
      ["fillet", "smallest fillet", "0.8"],
      ["grinding_allowance", "left for grinding, on Ø", "0.3"],
      ["skin_depth", "skin or build-up, depth", "0.75"],
      ["profile", "contour, place:Ø from the jaws", "20:40; 45:40; 60:49"],
    ],
    face: [
      ["start_diameter", "from Ø", "60"],
      ["end_diameter", "to Ø: bore, boss or 0", "0"],
      ["length", "stock on the face", "2"],
      ["roughness", "finish Ra, µm", "3.2"],
    ],
  };
  // svelte-ignore state_referenced_locally
  const known = entry;
  let kind = $state<Kind>(known?.operation ?? "turn");
  let title = $state(known?.title ?? "");
  let skin = $state(known?.skin ?? "clean");
  let shoulder = $state(known?.feature.shoulder === true);
  let polish = $state(known?.feature.polish === true);
  let feature = $state<Record<string, string>>(
    Object.fromEntries(
      LABELS.turn.map(([name]) => [name, known?.feature[name] != null ? String(known.feature[name]) : ""]),
    ),
  );

  async function keep(event: SubmitEvent) {
    event.preventDefault();
    const given: Record<string, string | boolean> = Object.fromEntries(
      LABELS[kind].map(([name]) => [name, (feature[name] ?? "").trim()]).filter(([, value]) => value !== ""),
    );
    if (kind === "turn") Object.assign(given, { shoulder, polish });
    const name = title.trim() || (kind === "turn" ? `Turn Ø${feature.end_diameter}` : "Face");
    const units = session.units;
    const saved = known
      ? await editor.save({
          action: "set_feature",
          operation: known.id,
          title: name,
          feature: given,
          skin,
          units,
        })
      : await editor.save({
          action: "add_operation",
          operation: "",
          kind,
          title: name,
          feature: given,
          units,
        });
    if (saved) close();
  }
</script>

<Sheet title={known ? `${known.number} · what the drawing says` : "Add an operation"} {close}>
  <form class="grid grid-cols-[180px_1fr] items-center gap-2" onsubmit={keep}>
    {#if !known}
      <label for="kind">kind</label>
      <select id="kind" class="control" bind:value={kind}>
        <option value="turn">Turn</option><option value="face">Face</option>
      </select>
    {/if}
    <label for="title">title</label>
    <input id="title" class="control" placeholder="Rough turn Ø49" bind:value={title} />
    {#each LABELS[kind] as [name, label, example] (name)}
      <label for="drawing-{name}">{label}</label>
      <input id="drawing-{name}" class="control figure" placeholder={example} bind:value={feature[name]} />
    {/each}
    {#if kind === "turn"}
      <label for="shoulder">square shoulder</label>
      <input id="shoulder" type="checkbox" class="size-5" bind:checked={shoulder} />
      <label for="polish">polished to size afterwards</label>
      <input id="polish" type="checkbox" class="size-5" bind:checked={polish} />
    {/if}
    {#if known}
      <label for="skin">skin of the stock here</label>
      <select id="skin" class="control" bind:value={skin}>
        {#each ["clean", "bar", "forged", "cast", "weld", "hardened"] as one (one)}<option>{one}</option
          >{/each}
      </select>
    {/if}
    {#if editor.problem}<p role="alert" class="text-signal col-span-2">{editor.problem.message}</p>{/if}
    <button class="bg-ink text-sheet col-start-2 min-h-9 font-semibold"
      >{known ? "Keep" : "Add to the run order"}</button
    >
  </form>
</Sheet>
