<script lang="ts">
  import { createQuery } from "@tanstack/svelte-query";
  import { api, ask, type Schemas } from "../api/client";
  import Sheet from "../lib/Sheet.svelte";
  import Fields from "../records/Fields.svelte";
  import { RecordForm } from "../records/form.svelte";
  import SaveBar from "../records/SaveBar.svelte";
  import Decoded from "./Decoded.svelte";

  interface Props {
    id: number | null;
    start?: Record<string, string>;
    close: () => void;
    saved: (record: Schemas["RecordOut"]) => void;
  }
  let { id, start = {}, close, saved }: Props = $props();
  const form = new RecordForm("tools");
  $effect(() => {
    void form.load(id, start).catch((reason: Error) => (form.problem = reason.message));
  });
  const kinds = createQuery(() => ({ queryKey: ["kinds"], queryFn: () => ask(api.GET("/api/crib/kinds")) }));
  const geometries = createQuery(() => ({
    queryKey: ["geometries"],
    queryFn: () => ask(api.GET("/api/crib/geometries")),
  }));
  const grades = createQuery(() => ({
    queryKey: ["grades"],
    queryFn: () => ask(api.GET("/api/crib/grades")),
  }));
  const kind = $derived(kinds.data?.find((k) => k.name === form.value("kind")));
  const columns = $derived(
    form.columns.filter((column) => {
      if (column.name === "from_memory") return false;
      if (column.name === "geometry" || column.name === "grade")
        return kind?.carries.includes(column.name) ?? true;
      return column.name !== column.name.toUpperCase() || (kind?.properties.includes(column.name) ?? false);
    }),
  );
  const code = $derived(form.value("designation"));
  const coded = $derived(!!kind && /turning|laydown|bar/.test(kind.name));
  const reading = createQuery(() => ({
    queryKey: ["read", code],
    enabled: coded && code.trim().length > 4,
    queryFn: () => ask(api.GET("/api/crib/read", { params: { query: { designation: code } } })),
    placeholderData: (before) => before,
  }));

  async function save() {
    const record = await form.save();
    if (record) saved(record);
  }
</script>

<Sheet title={id === null ? "Add tool" : "Change a tool"} {close} wide>
  <p class="text-soft mb-2">
    The data on the box is enough: kind, designation, geometry and grade. Properties are needed only where the
    designation does not say them.
  </p>
  <div class="grid grid-cols-[1fr_340px] gap-6 max-md:grid-cols-1">
    <div>
      <Fields
        {form}
        {columns}
        offers={{
          geometry: (geometries.data ?? []).map((g) => g.name),
          grade: (grades.data ?? []).map((g) => g.name),
        }}
      />
      <SaveBar {form} {close} save={() => void save()} />
    </div>
    <div>
      {#if coded && reading.isError}<p class="text-signal" role="alert">{reading.error.message}</p>
      {:else if coded && reading.data}<Decoded found={reading.data} />{/if}
    </div>
  </div>
</Sheet>
