<script lang="ts">
  import { createQuery } from "@tanstack/svelte-query";
  import { api, ask } from "../api/client";

  /** Hardness of the material on view, or of plain steel. */
  let { material }: { material: string } = $props();
  let text = $state("300 HB");
  let plainSteel = $state(true);
  const found = createQuery(() => ({
    queryKey: ["convert", text, plainSteel ? "" : material],
    enabled: text.trim().length > 0,
    queryFn: () =>
      ask(
        api.GET("/api/shelf/convert", {
          params: { query: { hardness: text, material: plainSteel ? "" : material } },
        }),
      ),
  }));
</script>

<section class="bg-sheet border-line border p-2.5" aria-label="Convert hardness">
  <div class="flex flex-wrap items-center gap-3">
    <h2 class="font-semibold">Hardness and strength</h2>
    <input
      class="control figure w-36"
      aria-label="Hardness"
      placeholder="58 HRC, 1000 MPa"
      bind:value={text}
    />
    <label class="flex items-center gap-1"
      ><input type="radio" name="of" checked={plainSteel} onchange={() => (plainSteel = true)} /> unalloyed and
      low-alloy steel</label
    >
    <label class="flex items-center gap-1"
      ><input type="radio" name="of" checked={!plainSteel} onchange={() => (plainSteel = false)} />
      {material}</label
    >
  </div>
  {#if found.isError}<p role="alert" class="text-signal mt-1">{found.error.message}</p>
  {:else if found.data}
    <dl class="mt-1 flex flex-wrap gap-x-6">
      {#each found.data.scales as scale (scale.scale)}
        <div title={scale.name}>
          <dt class="text-soft text-[13px]">{scale.scale}</dt>
          <dd class="figure {scale.value ? '' : 'text-soft'}">{scale.value || scale.missing}</dd>
        </div>
      {/each}
    </dl>
    <p class="text-soft text-[13px]">
      By {found.data.standard}, interpolated; not extrapolated.
    </p>
  {/if}
</section>
