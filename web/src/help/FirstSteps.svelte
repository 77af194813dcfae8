<script lang="ts">
  import X from "@lucide/svelte/icons/x";
  import { session } from "../session.svelte";

  /** From nothing to a part whose limits are known, in three steps, each on the page where it is taken; put aside, the menu brings it back. */
  interface Props {
    step: 1 | 2 | 3;
    /** What the button says and does. */
    label: string;
    key?: string;
    go: () => void;
  }
  let { step, label, key = "", go }: Props = $props();
  const STEPS = [
    ["Material and blank", "A job is one part: its material, its machine and its blank."],
    ["The part in one line", "Type its sizes as on the drawing; operations and tools are planned from them."],
    [
      "What limits it",
      "Open an operation: the limit that governs stands first, with changes that have been tried.",
    ],
  ] as const;
  const aside = () => void session.prefer({ first_steps: false });
</script>

{#if session.mayEdit && session.person?.first_steps}
  <section
    aria-label="First steps"
    class="bg-wash border-line mb-2 flex flex-wrap items-center gap-x-4 gap-y-1 border px-2.5 py-1.5"
  >
    <h2 class="font-semibold">First steps</h2>
    <ol class="flex flex-wrap gap-x-4">
      {#each STEPS as [name], k (name)}
        <li
          class={k + 1 === step ? "font-semibold" : "text-soft"}
          aria-current={k + 1 === step ? "step" : undefined}
        >
          {k + 1 < step ? "✓" : `${k + 1}.`}
          {name}
        </li>
      {/each}
    </ol>
    <p class="min-w-0 flex-1 basis-60">{STEPS[step - 1]?.[1]}</p>
    <button class="control" data-testid="first-step" onclick={go}
      >{label}{#if key}&nbsp;<kbd>{key}</kbd>{/if}</button
    >
    <button class="min-h-6 min-w-6 p-1" aria-label="Put the first steps aside" onclick={aside}
      ><X size={15} /></button
    >
  </section>
{/if}
