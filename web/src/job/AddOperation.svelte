<script lang="ts">
  import Sheet from "../lib/Sheet.svelte";
  import { session } from "../session.svelte";
  import type { JobEditor } from "./editor.svelte";

  let { editor, close }: { editor: JobEditor; close: () => void } = $props();
  type Kind = "turn" | "face";
  let kind = $state<Kind>("turn");
  let title = $state("");
  let feature = $state<Record<string, string>>({
    start_diameter: "",
    end_diameter: "",
    length: "",
    distance_from_chuck: "",
    roughness: "",
    fillet: "",
    grinding_allowance: "",
  });
  let shoulder = $state(false);
  const labels: Record<Kind, [string, string, string][]> = {
    turn: [
      ["start_diameter", "from Ø", "60"],
      ["end_diameter", "to Ø, with its tolerance", "49 h9"],
      ["length", "length", "120"],
      ["distance_from_chuck", "ends from the jaws", "20"],
      ["roughness", "finish Ra, µm", "1.6"],
      ["fillet", "smallest fillet", "0.8"],
      ["grinding_allowance", "left for grinding, on Ø", "0.3"],
    ],
    face: [
      ["start_diameter", "from Ø", "60"],
      ["end_diameter", "to Ø: bore, boss or 0", "0"],
      ["length", "stock on the face", "2"],
      ["roughness", "finish Ra, µm", "3.2"],
    ],
  };

  async function add(event: SubmitEvent) {
    event.preventDefault();
    const given: Record<string, string | boolean> = Object.fromEntries(
      labels[kind].map(([name]) => [name, (feature[name] ?? "").trim()]).filter(([, value]) => value !== ""),
    );
    if (kind === "turn") given.shoulder = shoulder;
    const saved = await editor.save({
      action: "add_operation",
      operation: "",
      kind,
      title: title.trim() || (kind === "turn" ? `Turn Ø${feature.end_diameter}` : "Face"),
      feature: given,
      units: session.units,
    });
    if (saved) close();
  }
</script>

<Sheet title="Add an operation" {close}>
  <form class="grid grid-cols-[180px_1fr] items-center gap-2" onsubmit={add}>
    <label for="kind">kind</label>
    <select id="kind" class="control" bind:value={kind}
      ><option value="turn">Turn</option><option value="face">Face</option></select
    >
    <label for="title">title</label>
    <input id="title" class="control" placeholder="Rough turn Ø49" bind:value={title} />
    {#each labels[kind] as [name, label, example] (name)}
      <label for={name}>{label}</label>
      <input id={name} class="control figure" placeholder={example} bind:value={feature[name]} />
    {/each}
    {#if kind === "turn"}
      <label for="shoulder">square shoulder</label>
      <input id="shoulder" type="checkbox" class="size-5" bind:checked={shoulder} />
    {/if}
    {#if editor.problem}<p role="alert" class="text-signal col-span-2">{editor.problem.message}</p>{/if}
    <button class="bg-ink text-sheet col-start-2 min-h-9 font-semibold">Add to the run order</button>
  </form>
</Sheet>
