<script lang="ts">
  import { onMount, tick, untrack } from "svelte";
  import { api, ask, Problem, type Schemas } from "../api/client";
  import { toolName } from "../lib/names";
  import Sheet from "../lib/Sheet.svelte";
  import { session, shown } from "../session.svelte";
  import { OperationBench, type Candidate } from "./bench.svelte";
  import { partsOf } from "./kinds/registry";
  import ScrubBar from "./kinds/ScrubBar.svelte";

  interface Props {
    bench: OperationBench;
    /** The row of the ranking whose steps are looked at. */
    row: Candidate;
    close: () => void;
  }
  let { bench, row, close }: Props = $props();
  let steps = $state.raw<Schemas["PlayedStepOut"][]>([]);
  let at = $state(0);
  let problem = $state<Problem | null>(null);

  /** Each step on a bench of its own, which only shows. */
  const benches = $derived(
    untrack(() => bench.editor) &&
      steps.map((step) => {
        const one = new OperationBench(bench.editor, bench.operation);
        one.evaluation = step.evaluation;
        return one;
      }),
  );
  const now = $derived(benches[at]);
  const Scene = $derived(partsOf(steps[at]?.evaluation.view.kind ?? "")?.Scene);
  const standing = $derived.by(() => {
    const limits = steps[at]?.evaluation.limits ?? [];
    const named = (how: string) => limits.filter((one) => one.standing === how).map((one) => one.label);
    const [over, close] = [named("over"), named("close")];
    if (over.length) return `over: ${over.join(", ")}`;
    return close.length ? `close: ${close.join(", ")}` : "all its limits hold";
  });
  let first: HTMLElement | undefined = $state();

  onMount(() => {
    const { tool, settings, becomes, before } = row;
    const path = "/api/jobs/{job_id}/operations/{operation}/chain" as const;
    const params = { path: { job_id: bench.editor.id, operation: bench.operation } };
    const edit = {
      action: "take_tool" as const,
      operation: bench.operation,
      tool,
      settings,
      becomes,
      before,
    };
    ask(api.POST(path, { params, body: { edit, units: session.units } })).then(
      async (found) => {
        steps = found;
        await tick();
        first?.querySelector<HTMLElement>("button")?.focus(); // so that its keys are heard
      },
      (reason: unknown) => (problem = reason as Problem),
    );
    return () => benches.forEach((one) => one.scrub.pause());
  });

  function go(by: number) {
    now?.scrub.pause();
    at = Math.max(0, Math.min(at + by, steps.length - 1));
  }

  /** The keys of the bench, for the step that is shown. */
  function keys(event: KeyboardEvent) {
    const did: Record<string, () => void> = {
      "[": () => go(-1),
      "]": () => go(1),
      ",": () => now?.scrub.step(-1),
      ".": () => now?.scrub.step(1),
      " ": () => now?.scrub.toggle(),
    };
    const own = event.target instanceof HTMLButtonElement && event.target.ariaPressed === null;
    if (!did[event.key] || (event.key === " " && own)) return; // a button that is no step is pressed by it
    did[event.key]!();
    event.preventDefault();
    event.stopPropagation();
  }
</script>

<Sheet title="Its steps, before it is taken" {close} wide>
  {#if problem}<p role="alert" class="text-signal">{problem.message}</p>
  {:else if !steps.length}<p class="text-soft">running its steps …</p>
  {:else}
    <!-- svelte-ignore a11y_no_static_element_interactions -->
    <div onkeydown={keys} bind:this={first}>
      <div class="mb-2 flex flex-wrap items-center gap-2" role="group" aria-label="Steps">
        {#each steps as step, k (k)}<button
            class="min-h-8 border px-3 {k === at ? 'bg-ink text-sheet border-ink' : 'border-edge'}"
            aria-pressed={k === at}
            onclick={() => go(k - at)}>{k + 1} {shown(step.title)}</button
          >{/each}
        <kbd>[</kbd> <kbd>]</kbd>
        <span class="ml-auto"
          >{#if now}<ScrubBar scrub={now.scrub} said="{now.scrub.seconds.toFixed(1)} s" />{/if}</span
        >
      </div>
      <p class="mb-2">
        <b>{toolName(steps[at]!.tool)}</b>,
        <span class={standing.startsWith("over") ? "text-signal" : ""}>{standing}</span>
      </p>
      {#if Scene && now}{#key at}<div class="chain-scene border-line border">
            <Scene bench={now} />
          </div>{/key}{/if}
      {#if session.mayEdit}<button
          class="bg-ink text-sheet mt-3 min-h-9 px-4 font-semibold"
          onclick={() => {
            close();
            void bench.take(row);
          }}>Take it</button
        >{/if}
    </div>
  {/if}
</Sheet>

<style>
  .chain-scene {
    display: grid;
    height: 260px;
    grid-template: 1fr / 1fr;
  }
  .chain-scene > :global(*) {
    grid-area: 1 / 1;
    min-height: 0;
  }
</style>
