<script lang="ts">
  import type { Schemas } from "../api/client";
  import Sheet from "../lib/Sheet.svelte";
  import { shown } from "../session.svelte";

  interface Props {
    title: string;
    limit?: Schemas["LimitOut"];
    value?: Schemas["ValueOut"];
    close: () => void;
  }
  let { title, limit, value, close }: Props = $props();
  const steps = $derived(limit?.working ?? value?.working ?? []);
  const honest = {
    exact: "exact: geometry and arithmetic",
    model: "model, with the band shown",
    rule: "rule: common practice",
  };
  let copied = $state(false);

  async function copy() {
    const lines = steps.map(
      (s) => `${s.symbol} = ${s.formula} = ${s.substituted} = ${figure(s.value)} ${s.unit}   [${s.source}]`,
    );
    await navigator.clipboard.writeText([title, ...lines].join("\n"));
    copied = true;
  }
  const figure = (n: number | null) => (n === null ? "–" : Number(n.toPrecision(4)).toString());
</script>

<Sheet title="Working · {title}" {close} wide>
  {#if limit}
    <p>{limit.why}</p>
    <p class="figure mt-1">
      {shown(limit.value_display)} against {shown(limit.bound_display)}: {(limit.utilisation * 100).toFixed(
        0,
      )} % of the bound used ·
      <span class="font-sans"
        >source {limit.source} · {limit.severity === "hard" ? "hard limit" : "soft limit"}</span
      >
    </p>
  {/if}
  {#if value}
    <p class="figure">
      {shown(value.display)}{#if value.low && value.high}
        , between {shown(value.low)} and {shown(value.high)}{/if} ·
      <span class="font-sans">{honest[value.honesty as keyof typeof honest]}</span>
    </p>
  {/if}
  <ol class="mt-3 grid gap-3">
    {#each steps as step (step.key)}
      <li class="border-line border-t pt-2">
        <div class="text-soft flex justify-between gap-4">
          <span>{step.meaning}</span><span>{step.source} · {step.honesty}</span>
        </div>
        <div class="figure mt-0.5 text-[14px]">{step.symbol} = {step.formula}</div>
        <div class="figure mt-0.5 text-[14px]">
          {step.symbol} = {step.substituted} = <b>{figure(step.value)} {step.unit}</b>
        </div>
        {#if step.note}<div class="text-soft">{step.note}</div>{/if}
      </li>
    {:else}
      <li class="text-soft">
        The value and its bound are read from the machine, the tool or the drawing; nothing is derived.
      </li>
    {/each}
  </ol>
  <p class="mt-4 flex gap-2">
    <button class="control" onclick={() => void copy()}>{copied ? "copied" : "copy"}</button>
    <button class="control" onclick={() => window.print()}>print</button>
  </p>
</Sheet>
