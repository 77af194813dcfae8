<script lang="ts">
  import { api, ask } from "../api/client";
  import { capital } from "../lib/names";
  import type { OperationBench } from "./bench.svelte";

  interface Props {
    bench: OperationBench;
    /** All of them, or only the gravest with a count of the rest. */
    all?: boolean;
    open?: () => void;
  }
  let { bench, all = false, open }: Props = $props();
  const every = $derived(bench.evaluation?.warnings ?? []);
  const waiting = $derived(every.filter((one) => !one.dismissed));
  const shownNow = $derived(all ? waiting : waiting.slice(0, 1));
  const away = $derived(every.length - waiting.length);
  const rest = $derived(waiting.length - shownNow.length);
  const params = $derived({ path: { job_id: bench.editor.id } });
  const tones = { blocks: "text-signal font-semibold", care: "text-warn", note: "text-soft" };
  const marks = { blocks: "■ ", care: "▲ ", note: "" };

  async function dismiss(name: string, risk: string) {
    await ask(api.POST("/api/jobs/{job_id}/cautions/dismiss", { params, body: { name, risk } }));
    await bench.repaint();
  }

  async function restore() {
    await ask(api.POST("/api/jobs/{job_id}/cautions/restore", { params }));
    await bench.repaint();
  }
</script>

<ul class="text-[13px] leading-[1.25]" aria-label="Warnings and cautions">
  {#each shownNow as warning (warning.name)}
    <li
      class="{tones[warning.severity]} {all ? 'border-line border-t py-1' : ''}"
      data-testid="caution-{warning.name}"
    >
      {marks[warning.severity]}{#if warning.harm}<b>{capital(warning.harm)}:</b>&nbsp;{/if}{warning.text}
      {#if warning.severity !== "blocks"}<button
          class="plain-link ml-1"
          aria-label="I have read this: {warning.text.slice(0, 40)}"
          onclick={() => void dismiss(warning.name, warning.risk)}>read</button
        >{/if}
      {#if !all && rest > 0}<button class="plain-link ml-1" data-testid="more-cautions" onclick={open}
          >{rest} more {rest === 1 ? "warning" : "warnings"} <kbd>v</kbd></button
        >{/if}
    </li>
  {/each}
</ul>
{#if !all && !waiting.length && away > 0}
  <button class="plain-link text-soft text-[13px]" onclick={open}>{away} warnings read <kbd>v</kbd></button>
{:else if all}
  {#if !every.length}<p class="text-soft">No warnings here.</p>{/if}
  {#if away > 0}<button class="plain-link text-soft mt-2 text-[13px]" onclick={() => void restore()}
      >{away} read; show {away === 1 ? "it" : "them"} again</button
    >{/if}
{/if}
