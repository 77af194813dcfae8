<script lang="ts">
  import { createQuery } from "@tanstack/svelte-query";
  import { api, ask } from "../api/client";
  import Scroll from "../lib/Scroll.svelte";
  import { when } from "../lib/names";

  interface Props {
    /** Whose; blank for everybody's. */
    name: string;
  }
  let { name }: Props = $props();
  const STEP = 50;
  const KINDS = [
    "signed in",
    "signed out",
    "refused",
    "throttled",
    "forbidden",
    "password changed",
    "password given",
    "sessions ended",
    "added",
    "renamed",
    "role changed",
    "locked",
    "unlocked",
    "exported",
    "backup taken",
    "backup failed",
  ];
  const GRAVE = new Set(["refused", "throttled", "forbidden", "backup failed"]);
  let what = $state("");
  let limit = $state(STEP);
  const rows = createQuery(() => ({
    queryKey: ["people", "happenings", name, what, limit],
    queryFn: () => ask(api.GET("/api/people/happenings", { params: { query: { what, name, limit } } })),
    placeholderData: (before) => before,
  }));
</script>

<div class="flex flex-wrap items-baseline gap-x-3">
  <h2 class="font-semibold">Access log{name ? `, ${name}` : ""}</h2>
  <span class="text-soft figure">{rows.data?.matched ?? 0}</span>
  <label class="ml-auto text-[13px]"
    >only <select class="control" bind:value={what}
      ><option value="">everything</option>{#each KINDS as kind (kind)}<option>{kind}</option>{/each}</select
    ></label
  >
</div>
<Scroll label="Access log" class="mt-1 min-h-0 flex-1">
  <table class="[&_td]:pr-3 [&_th]:pr-3 w-full text-left">
    <thead class="text-soft text-[13px]"
      ><tr
        ><th class="font-normal">when</th><th class="font-normal">what</th><th class="font-normal">who</th><th
          class="font-normal">about</th
        ><th class="font-normal">more</th><th class="font-normal">address</th></tr
      ></thead
    >
    <tbody>
      {#each rows.data?.rows ?? [] as row, k (k)}
        <tr class="border-line border-t">
          <td class="figure py-0.5 whitespace-nowrap">{when(row.at)}</td>
          <td class={GRAVE.has(row.what) ? "text-signal font-semibold" : ""}>{row.what}</td>
          <td>{row.who}</td><td>{row.about}</td><td>{row.more}</td><td class="figure">{row.address}</td>
        </tr>
      {:else}<tr><td class="text-soft" colspan="6">Nothing.</td></tr>{/each}
    </tbody>
  </table>
  {#if (rows.data?.matched ?? 0) > limit && limit < 200}<button
      class="control mt-2"
      onclick={() => (limit += STEP)}>Earlier ones</button
    >{/if}
</Scroll>
