<script lang="ts">
  import { createQuery } from "@tanstack/svelte-query";
  import { api, ask } from "../api/client";
  import Sheet from "../lib/Sheet.svelte";
  import Fields from "../records/Fields.svelte";
  import { RecordForm } from "../records/form.svelte";
  import SaveBar from "../records/SaveBar.svelte";

  interface Props {
    id: number | null;
    close: () => void;
    saved: (name: string) => void;
  }
  let { id, close, saved }: Props = $props();
  const form = new RecordForm("materials");
  $effect(() => {
    void form.load(id).catch((reason: Error) => (form.problem = reason.message));
  });
  const groups = createQuery(() => ({
    queryKey: ["groups"],
    queryFn: () => ask(api.GET("/api/shelf/groups")),
  }));
  const need = ["name", "number", "aliases", "group", "hardness_low", "hardness_high", "source"];
  const group = $derived(groups.data?.find((g) => String(g.number) === form.value("group")));
  const low = $derived(form.value("hardness_low"));
  const high = $derived(form.value("hardness_high"));
  const derived_ = createQuery(() => ({
    queryKey: ["derive", form.value("group"), low, high],
    enabled: !!group && low.length > 1 && high.length > 1,
    queryFn: () =>
      ask(
        api.GET("/api/shelf/derive", {
          params: { query: { group: group!.number, hardness_low: low, hardness_high: high } },
        }),
      ),
    placeholderData: (before) => before,
  }));
  const first = $derived(form.columns.filter((column) => need.includes(column.name)));
  const rest = $derived(
    form.columns.filter((column) => !need.includes(column.name) && column.name !== "from_memory"),
  );
</script>

<Sheet title={id === null ? "Enter a material" : "Change a material"} {close} wide>
  <p class="text-soft mb-2">
    Name, group and hardness are enough; every other number is taken from the group with the correction shown,
    until you know a better one. Aliases are separated by a semicolon.
  </p>
  <div class="grid grid-cols-[1fr_380px] gap-6 max-md:grid-cols-1">
    <div>
      <Fields {form} columns={first} offers={{ group: (groups.data ?? []).map((g) => String(g.number)) }} />
      <details class="mt-3" open={id !== null}>
        <summary class="cursor-pointer font-semibold">Numbers of its own</summary>
        <div class="mt-2"><Fields {form} columns={rest} /></div>
      </details>
      <SaveBar {form} {close} save={() => void form.save().then((record) => record && saved(record.label))} />
    </div>
    <div>
      {#if group}<p>
          <b>Group {group.number}</b>: {group.letter}, {group.name}, guide hardness {group.hardness}.
        </p>{/if}
      {#if derived_.isError}<p role="alert" class="text-signal">{derived_.error.message}</p>
      {:else if derived_.data}
        <table class="mt-1 w-full text-[13px]" aria-label="Taken from the group">
          <tbody
            >{#each derived_.data as row (row.name)}<tr class="border-line border-t"
                ><td>{row.name.replaceAll("_", " ")}</td><td class="figure text-right">{row.value}</td><td
                  class="text-soft pl-3">{row.reason}</td
                ></tr
              >{/each}</tbody
          >
        </table>
      {/if}
    </div>
  </div>
</Sheet>
