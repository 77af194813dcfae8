<script lang="ts">
  import { createQuery } from "@tanstack/svelte-query";
  import type { Schemas } from "../api/client";
  import EnterTool from "../lib/EnterTool.svelte";
  import Sheet from "../lib/Sheet.svelte";
  import WorkingSteps from "../lib/WorkingSteps.svelte";
  import { session, shown } from "../session.svelte";
  import type { OperationBench } from "./bench.svelte";

  interface Props {
    title: string;
    limit?: Schemas["LimitOut"];
    value?: Schemas["ValueOut"];
    close: () => void;
    bench: OperationBench;
    /** To the clinic, with what this limit speaks of. */
    trouble?: () => void;
  }
  let { title, limit, value, close, bench, trouble }: Props = $props();
  const moves = createQuery(() => ({
    queryKey: ["relax", bench.operation, limit?.name, bench.editor.job?.revision],
    enabled: limit !== undefined,
    queryFn: () => bench.relax(limit!.name),
  }));
  const steps = $derived(limit?.working ?? value?.working ?? []);
  const honest = {
    exact: "exact: geometry and arithmetic",
    model: "model, with the band shown",
    rule: "rule: common practice",
  };
  let copied = $state(false);
  const whole = (chance: number) => (chance >= 0.995 && chance < 1 ? ">99" : (chance * 100).toFixed(0));

  async function copy() {
    const lines = [...steps, ...(limit?.bound_working ?? [])].map(
      (s) => `${s.symbol} = ${s.formula} = ${s.substituted} = ${figure(s.value)} ${s.unit}   [${s.source}]`,
    );
    await navigator.clipboard.writeText([title, ...lines].join("\n"));
    copied = true;
  }
  const figure = (n: number | null) => (n === null ? "–" : Number(n.toPrecision(4)).toString());
</script>

<Sheet title="Working · {title}" {close} wide>
  {#if value?.means}<p data-testid="means">{value.means}</p>{/if}
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
    <p data-testid="chance">
      {#if limit.severity === "hard"}<b>{limit.standing}</b>:{/if}
      {whole(limit.holds)} of 100 runs are within it{#if limit.severity === "hard"}, {whole(limit.asked)} are required{/if}{#if limit.moved_by.length},
        with the uncertainty of
        {#each limit.moved_by as one, k (one.title)}{k ? "; " : ""}{one.title}
          <span class="figure">{one.band}</span>, {(one.share * 100).toFixed(0)} % of it{/each}{:else}:
        nothing in it is uncertain{/if}.
      {#if limit.severity === "hard" && limit.kept < 0.995}{((1 - limit.kept) * 100).toFixed(0)} % of the bound
        is kept for that: it holds up to {(limit.kept * 100).toFixed(0)} %.{/if}
    </p>
  {/if}
  {#if value}
    <p class="figure">
      {shown(value.display)}{#if value.low && value.high}
        , between {shown(value.low)} and {shown(value.high)}{/if} ·
      <span class="font-sans">{honest[value.honesty as keyof typeof honest]}</span>
    </p>
  {/if}
  {#if limit}
    <h3 class="mt-3 font-semibold">Where it stands: {shown(limit.value_display)}</h3>
    <WorkingSteps {steps} none="Read from the settings, the drawing or the tool: nothing is reckoned." />
    <h3 class="mt-4 font-semibold">What it may be: {shown(limit.bound_display)}</h3>
    <WorkingSteps
      steps={limit.bound_working}
      none="By {limit.source}, or as drawing, machine and house rules have it."
    />
  {:else}<WorkingSteps
      {steps}
      none="Read from the settings, the drawing or the tool: nothing is reckoned."
    />{/if}
  {#if limit}
    <h3 class="mt-4 font-semibold">What would change it</h3>
    {#if moves.isPending}
      <p class="text-soft">trying changes …</p>
    {:else if moves.isError}
      <p class="text-signal" role="alert">{moves.error.message}</p>
    {:else}
      <ul>
        {#each moves.data ?? [] as remedy (remedy.text.metric)}
          <li class="border-line flex items-baseline gap-3 border-t py-1">
            <span class="flex-1"
              >{shown(remedy.text)} <span class="text-soft">{shown(remedy.effect)}</span></span
            >
            {#if session.mayEdit}
              <button
                class="plain-link"
                onclick={() => {
                  void bench.apply(remedy);
                  close();
                }}>do it</button
              >
            {/if}
          </li>
        {:else}
          <li class="text-soft">
            No single change of setting or holding moves it by much{limit.wants
              ? "."
              : "; another tool or machine may."}
          </li>
        {/each}
      </ul>
    {/if}
  {/if}
  {#if limit?.wants}<p class="mt-2" data-testid="wants">
      It asks for another tool: {shown(limit.wants)}.
      <EnterTool record={limit.wanted ?? {}} job={bench.editor.id} />
    </p>{/if}
  <p class="mt-4 flex gap-2">
    <button class="control" onclick={() => void copy()}>{copied ? "copied" : "copy"}</button>
    <button class="control" onclick={() => window.print()}>print</button>
    {#if limit && trouble}<button class="control" onclick={trouble}
        >it happens at the machine: find the cause</button
      >{/if}
  </p>
</Sheet>
