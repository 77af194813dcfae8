<script lang="ts">
  import type { Schemas } from "../api/client";
  import Drawing from "./Drawing.svelte";

  /** One word of a list, taken with one touch and given back with another. */
  interface Props {
    label: string;
    words: Schemas["LoggedWordOut"][];
    value: string;
    drawn?: "chip" | "wear" | null;
    choose: (word: string) => void;
  }
  let { label, words, value, drawn = null, choose }: Props = $props();
</script>

<div role="group" aria-label={label} class="flex flex-wrap gap-1.5">
  <span class="text-soft w-full text-[13px]">{label}</span>
  {#each words as one (one.word)}
    <button
      type="button"
      aria-pressed={value === one.word}
      title={one.meaning}
      class="pick {drawn ? 'flex-col' : ''}"
      onclick={() => choose(value === one.word ? "" : one.word)}
    >
      {#if drawn}<Drawing of={drawn} word={one.word} />{/if}
      <span>{one.word}</span>
    </button>
  {/each}
</div>

<style>
  .pick {
    display: inline-flex;
    align-items: center;
    justify-content: center;
    min-height: 44px;
    min-width: 44px;
    padding: 2px 12px;
    border: 1px solid var(--edge);
    border-radius: 2px;
    background: var(--sheet);
    line-height: 1.1;
  }
  .pick[aria-pressed="true"] {
    border-width: 2px;
    border-color: var(--mark);
    background: var(--mark-wash);
    font-weight: 600;
  }
</style>
