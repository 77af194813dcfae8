<script lang="ts">
  import type { Schemas } from "../api/client";

  /** The derivation as one reads it on paper: formula, numbers, value, source. */
  let { steps, none = "" }: { steps: Schemas["StepOut"][]; none?: string } = $props();
  const figure = (n: number | null) => (n === null ? "–" : Number(n.toPrecision(4)).toString());
</script>

<ol class="mt-3 grid gap-3">
  {#each steps as step (step.key)}
    <li class="border-line border-t pt-2">
      <div class="text-soft flex justify-between gap-4">
        <span>{step.meaning}</span><span
          >{step.source} · {step.honesty}{step.band ? ` ${step.band}` : ""}</span
        >
      </div>
      <div class="figure mt-0.5 text-[14px]">{step.symbol} = {step.formula}</div>
      <div class="figure mt-0.5 text-[14px]">
        {step.symbol} = {step.substituted} = <b>{figure(step.value)} {step.unit}</b>
      </div>
      {#if step.note}<div class="text-soft">{step.note}</div>{/if}
    </li>
  {:else}
    <li class="text-soft">{none}</li>
  {/each}
</ol>
