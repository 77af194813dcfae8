<script lang="ts">
  import type { Schemas } from "../api/client";
  import { session, shown } from "../session.svelte";

  interface Props {
    drawing: Schemas["DrawnOut"][];
    noted: string[];
    leave: (word: string) => void;
    open: (feature: string) => void;
    add: () => void;
  }
  let { drawing, noted, leave, open, add }: Props = $props();
  const marks = { open: "open", holds: "✓", close: "close", over: "✗", "no tool": "no tool" };
  const tones = {
    open: "text-warn",
    holds: "text-safe",
    close: "text-warn",
    over: "text-signal",
    "no tool": "text-signal",
  };
  const how = {
    open: "nothing makes it yet",
    holds: "made",
    close: "made, but close to a limit",
    over: "not made as planned",
    "no tool": "no tool makes it yet",
  };
</script>

<section
  class="bg-sheet border-line flex flex-wrap items-baseline gap-x-2 gap-y-1 border px-2.5 py-1.5"
  aria-label="What the drawing asks"
>
  <h2 class="mr-1 text-[14px] font-semibold">Drawing requirements</h2>
  {#each drawing as one (one.id)}
    <button
      class="border-line hover:border-ink flex items-baseline gap-1.5 border px-1.5 py-0.5 text-[13px]"
      onclick={() => open(one.id)}
    >
      <span class="figure">{shown(one.words)}</span>
      {#if one.makes.length || one.prepares.length}<span class="text-soft"
          >{[one.prepares.join(" "), one.makes.join(" ")].filter(Boolean).join(" → ")}</span
        >{/if}
      <b class={tones[one.status]} aria-hidden="true">{marks[one.status]}</b>
      <span class="sr-only">{how[one.status]}</span>
    </button>
  {:else}<span class="text-soft">nothing yet</span>{/each}
  {#each noted as word (word)}<span class="text-soft flex items-baseline gap-1.5 px-1.5 py-0.5 text-[13px]"
      ><span class="figure">{word}</span> not made here{#if session.mayEdit}<button
          class="plain-link"
          aria-label="No longer note {word}"
          onclick={() => leave(word)}>×</button
        >{/if}</span
    >{/each}
  {#if session.mayEdit}<button class="plain-link ml-auto" onclick={add}>add</button>{/if}
</section>
