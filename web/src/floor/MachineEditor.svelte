<script lang="ts">
  import { api, ask, type Schemas } from "../api/client";
  import Sheet from "../lib/Sheet.svelte";
  import Fields from "../records/Fields.svelte";
  import { RecordForm } from "../records/form.svelte";
  import SaveBar from "../records/SaveBar.svelte";
  import Trail from "../records/Trail.svelte";
  import { session } from "../session.svelte";
  import PowerCurve from "./PowerCurve.svelte";

  interface Props {
    id: number | null;
    close: () => void;
    saved: () => void;
  }
  let { id, close, saved }: Props = $props();
  type Points = [number, number][];
  const form = new RecordForm("machines");
  const start = {
    power_curve: "0:0 1000:11 4000:11",
    speed_max: "4000",
    chuck_speed_max: "3500",
    swing: "300 mm",
    turning_length: "500 mm",
    rate: "55",
  };
  $effect(() => {
    void form
      .load(id, id === null ? start : {})
      .then(draw)
      .catch((reason: Error) => (form.problem = reason.message));
  });
  let points = $state<Points>([]);
  let curve = $state<Schemas["CurveOut"] | null>(null);
  let pasted = $state("");
  let pasteNote = $state("");
  let turn = 0;
  const lists = ["power_curve", "speeds", "feeds", "from_memory"];
  const columns = $derived(form.columns.filter((column) => !lists.includes(column.name)));

  const parse = (text: string): Points =>
    text
      .split(/[\s;]+/)
      .filter(Boolean)
      .map((word) => word.split(":").map(Number) as [number, number])
      .filter(([n, p]) => Number.isFinite(n) && Number.isFinite(p));

  function draw() {
    points = parse(form.value("power_curve"));
    const asked = ++turn;
    const curve_at = form.value("curve_at") === "motor" ? "motor" : "spindle";
    if (points.length < 2) return;
    ask(
      api.POST("/api/floor/curve", {
        body: { points, curve_at, efficiency: form.value("efficiency") || "0.8", units: session.units },
      }),
    )
      .then((found) => asked === turn && (curve = found))
      .catch(() => {});
  }

  function change(next: Points) {
    form.type("power_curve", next.map(([n, p]) => `${n}:${p}`).join(" "));
    draw();
  }

  async function paste(into: "speeds" | "feeds") {
    try {
      const found = await ask(api.POST("/api/floor/read-list", { body: { text: pasted } }));
      form.type(into, found.numbers.join(" "));
      pasteNote = `${into}: ${found.note}`;
      pasted = "";
    } catch (reason) {
      pasteNote = (reason as Error).message;
    }
  }
</script>

<Sheet title={id === null ? "Enter a machine" : "Change a machine"} {close} wide>
  <div class="grid grid-cols-2 gap-6 max-md:grid-cols-1">
    <div>
      <h3 class="font-semibold">Power and torque</h3>
      <PowerCurve
        label="Power curve: each point moves by dragging or by arrow keys"
        power={(curve?.spindle ?? []) as Points}
        torque={(curve?.torque ?? []) as Points}
        axes={curve?.axes}
        {points}
        {change}
      />
      <label class="text-soft text-[13px]"
        >points as rpm:kW<input
          class="control figure w-full"
          value={form.value("power_curve")}
          aria-invalid={!!form.errors["power_curve"]}
          onchange={(event) => {
            form.type("power_curve", event.currentTarget.value);
            draw();
          }}
        /></label
      >
      {#if form.errors["power_curve"]}<p class="text-signal">{form.errors["power_curve"]}</p>{/if}
      {#if curve}<p class="text-soft text-[13px]">{curve.note}</p>{/if}
      <h3 class="mt-3 font-semibold">Speeds and feeds in steps</h3>
      <p class="text-soft text-[13px]">
        Empty: continuous. A geared machine has a list; a fixed unit one number in each. Paste from the plate
        or a spreadsheet.
      </p>
      {#each ["speeds", "feeds"] as const as name (name)}
        <label class="text-soft block text-[13px]"
          >{name}, {name === "speeds" ? "rpm" : "mm/rev"}<input
            class="control figure w-full"
            value={form.value(name)}
            oninput={(event) => form.type(name, event.currentTarget.value)}
          /></label
        >
        {#if form.errors[name]}<p class="text-signal">{form.errors[name]}</p>{/if}
      {/each}
      <textarea
        class="control figure mt-2 h-16 w-full"
        aria-label="Pasted list"
        placeholder="30  45  63  90 …"
        bind:value={pasted}></textarea>
      <p class="flex gap-2">
        <button class="control" disabled={!pasted.trim()} onclick={() => void paste("speeds")}
          >take as speeds</button
        >
        <button class="control" disabled={!pasted.trim()} onclick={() => void paste("feeds")}
          >take as feeds</button
        >
      </p>
      <p role="status">{pasteNote}</p>
    </div>
    <div>
      <Fields {form} {columns} />
      <SaveBar {form} {close} save={() => void form.save().then((record) => record && saved())} />
      {#if form.record}<Trail
          record={form.record}
          archive={(archived) => void form.archive(archived).then(saved)}
        />{/if}
    </div>
  </div>
</Sheet>
