<script lang="ts">
  import Sheet from "../lib/Sheet.svelte";
  import Fields from "../records/Fields.svelte";
  import { RecordForm } from "../records/form.svelte";
  import SaveBar from "../records/SaveBar.svelte";
  import Trail from "../records/Trail.svelte";

  interface Props {
    /** A spindle that is kept, or null for a new one. */
    id: number | null;
    machine: string;
    close: () => void;
    saved: () => void;
  }
  let { id, machine, close, saved }: Props = $props();
  const form = new RecordForm("spindles");
  const start = {
    spindle: "driven",
    power_curve: "0:0 2000:4 6000:4",
    speed_max: "6000",
    chuck_speed_max: "6000",
  };
  $effect(() => {
    void form
      .load(id, id === null ? { machine, ...start } : {})
      .catch((reason: Error) => (form.problem = reason.message));
  });
  const columns = $derived(form.columns.filter((column) => column.name !== "machine"));
</script>

<Sheet title={id === null ? `A further spindle of ${machine}` : `Spindle of ${machine}`} {close}>
  <p class="text-soft mb-2">
    Main and sub-spindle turn the part, driven tools and a tool spindle turn the tool. The curve is points of
    rpm:kW; a chuck's figures stay 0 where there is none.
  </p>
  <Fields {form} {columns} />
  <SaveBar {form} {close} save={() => void form.save().then((record) => record && saved())} />
  {#if form.record}<Trail
      record={form.record}
      archive={(archived) => void form.archive(archived).then(saved)}
    />{/if}
</Sheet>
