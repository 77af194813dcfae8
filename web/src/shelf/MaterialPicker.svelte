<script lang="ts">
  import { createQuery } from "@tanstack/svelte-query";
  import { api, ask } from "../api/client";
  import NamePicker from "../lib/NamePicker.svelte";

  interface Props {
    label: string;
    value: string;
    choose: (value: string) => void;
    disabled?: boolean;
  }
  let { label, value, choose, disabled = false }: Props = $props();
  let q = $state("");
  const found = createQuery(() => ({
    queryKey: ["materials", "names", q],
    queryFn: () => ask(api.GET("/api/shelf/materials", { params: { query: { q } } })),
    placeholderData: (before) => before,
  }));
  const items = $derived(
    (found.data?.rows ?? []).map((m) => ({
      value: m.name,
      label: m.name,
      more: `${m.letter} ${m.group} · ${m.aliases.join(", ")}`,
      words: [m.name, m.number, ...m.aliases].join(" ; "),
    })),
  );
</script>

<NamePicker {label} {value} {items} {choose} {disabled} search={(text) => (q = text)} />
