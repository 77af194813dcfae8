<script lang="ts">
  import { createQuery } from "@tanstack/svelte-query";
  import { api, ask } from "../api/client";
  import Decoded from "./Decoded.svelte";

  interface Props {
    take?: (designation: string) => void;
  }
  let { take }: Props = $props();
  let code = $state("");
  const reading = createQuery(() => ({
    queryKey: ["read", code],
    enabled: code.trim().length > 2,
    queryFn: () => ask(api.GET("/api/crib/read", { params: { query: { designation: code } } })),
    placeholderData: (before) => before,
  }));
</script>

<section
  class="bg-sheet border-line min-h-0 overflow-auto border p-2.5"
  aria-label="Decode a designation"
  tabindex="-1"
>
  <h2 class="font-semibold">Decode a designation</h2>
  <input
    class="control figure mt-1 w-full"
    placeholder="cnmg 432 · PCLNR 2525 M12 · 16 ER 1.5 ISO"
    aria-label="Designation"
    bind:value={code}
  />
  {#if code.trim().length > 2 && reading.isError}<p class="text-signal mt-1" role="alert">
      {reading.error.message}
    </p>
  {:else if code.trim().length > 2 && reading.data}
    <div class="mt-1" aria-live="polite"><Decoded found={reading.data} /></div>
    {#if reading.data.partners.length}
      <p class="mt-1">
        <span class="text-soft">{reading.data.kind === "insert" ? "Held by" : "Takes"}</span>
        {reading.data.partners.slice(0, 8).join(", ")}{reading.data.partners.length > 8 ? " …" : ""}
      </p>
    {/if}
    <p class="mt-1">
      {reading.data.in_crib
        ? `${reading.data.in_crib} in the crib under this code.`
        : "None in the crib under this code."}
      {#if take && reading.data.in_crib}<button
          class="plain-link"
          onclick={() => take(reading.data!.designation)}>show them</button
        >{/if}
    </p>
  {:else}
    <p class="text-soft mt-1">
      Inserts in metric and inch practice, holders, bars and laydown threading codes, in any spelling: each
      position is explained, drawn, and refused by name where it is wrong.
    </p>
  {/if}
</section>
