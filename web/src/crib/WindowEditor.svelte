<script lang="ts">
  import { createQuery } from "@tanstack/svelte-query";
  import { api, ask } from "../api/client";
  import Sheet from "../lib/Sheet.svelte";
  import Fields from "../records/Fields.svelte";
  import { RecordForm } from "../records/form.svelte";
  import SaveBar from "../records/SaveBar.svelte";

  interface Props {
    /** A window that is kept, or null for a new one. */
    id: number | null;
    tool: string;
    close: () => void;
    saved: () => void;
  }
  let { id, tool, close, saved }: Props = $props();
  const form = new RecordForm("windows");
  $effect(() => {
    void form.load(id, id === null ? { tool } : {}).catch((reason: Error) => (form.problem = reason.message));
  });
  const groups = createQuery(() => ({
    queryKey: ["groups"],
    queryFn: () => ask(api.GET("/api/shelf/groups")),
  }));
  const chosen = $derived(groups.data?.find((g) => String(g.number) === form.value("group")));
  const columns = $derived(form.columns.filter((column) => column.name !== "tool"));
</script>

<Sheet title="What your supplier recommends for {tool}" {close}>
  <p class="text-soft mb-2">
    From your own supplier's page for this tool and one machinability group. Advice starts inside this window;
    the house rule "never above" holds to it.
  </p>
  <Fields {form} {columns} offers={{ group: (groups.data ?? []).map((g) => String(g.number)) }} />
  {#if chosen}<p class="mt-2">
      Group {chosen.number}: {chosen.letter}, {chosen.name}, {chosen.hardness}.
    </p>{/if}
  <SaveBar {form} {close} save={() => void form.save().then((record) => record && saved())} />
</Sheet>
