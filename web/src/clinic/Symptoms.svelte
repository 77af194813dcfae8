<script lang="ts">
  import Sight from "./Sight.svelte";
  import type { Ward } from "./clinic.svelte";

  interface Props {
    ward: Ward;
    seen: string[];
    toggle: (name: string) => void;
  }
  let { ward, seen, toggle }: Props = $props();
  let words = $state("");
  /** What people call it finds it, too: every word that is typed must stand in its title or its other names. */
  const found = $derived(
    ward.symptoms.filter((one) => {
      const text = [one.title, ...one.said].join("; ").toLowerCase();
      return words
        .toLowerCase()
        .split(/\s+/)
        .every((word) => text.includes(word));
    }),
  );
  const shown = $derived([
    ...ward.symptoms.filter((one) => seen.includes(one.name)),
    ...found.filter((one) => !seen.includes(one.name)),
  ]);
</script>

<label class="grid gap-1"
  ><span class="font-semibold">1 · What is seen, heard or measured?</span>
  <input
    class="control"
    type="search"
    data-first
    placeholder="as you would say it: bird’s nest, it sings, dish …"
    bind:value={words}
  /></label
>
<div role="group" aria-label="What is seen" class="mt-1.5 grid grid-cols-2 gap-1.5">
  {#each shown as one (one.name)}
    <button
      type="button"
      class="sight"
      aria-pressed={seen.includes(one.name)}
      title={one.said.join(", ")}
      onclick={() => toggle(one.name)}><Sight picture={one.picture} /><span>{one.title}</span></button
    >
  {:else}
    <p class="text-soft col-span-2">Nothing is called that here. Try another word.</p>
  {/each}
</div>

<style>
  .sight {
    display: flex;
    min-height: 46px;
    align-items: center;
    gap: 6px;
    padding: 2px 6px;
    border: 1px solid var(--edge);
    border-radius: 2px;
    background: var(--sheet);
    text-align: left;
    line-height: 1.15;
    font-size: 13px;
  }
  .sight[aria-pressed="true"] {
    border-width: 2px;
    border-color: var(--mark);
    background: var(--mark-wash);
    font-weight: 600;
  }
</style>
