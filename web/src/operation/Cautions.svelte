<script lang="ts">
  import { api, ask } from "../api/client";
  import type { OperationBench } from "./bench.svelte";

  let { bench }: { bench: OperationBench } = $props();
  const all = $derived(bench.evaluation?.warnings ?? []);
  const open = $derived(all.filter((one) => !one.dismissed));
  const away = $derived(all.length - open.length);
  const params = $derived({ path: { job_id: bench.editor.id } });

  async function dismiss(name: string, risk: string) {
    await ask(api.POST("/api/jobs/{job_id}/cautions/dismiss", { params, body: { name, risk } }));
    await bench.repaint();
  }

  async function restore() {
    await ask(api.POST("/api/jobs/{job_id}/cautions/restore", { params }));
    await bench.repaint();
  }
</script>

<ul class="mt-1 text-[13px]" aria-label="Warnings and cautions">
  {#each open as warning (warning.name)}
    <li
      class="flex justify-between gap-2 {warning.severity === 'blocks'
        ? 'text-signal font-semibold'
        : warning.severity === 'care'
          ? 'text-warn'
          : 'text-soft'}"
      data-testid="caution-{warning.name}"
    >
      <span
        >{warning.severity === "blocks"
          ? "■ "
          : warning.severity === "care"
            ? "▲ "
            : ""}{#if warning.danger}<b>Danger.</b>{" "}{/if}{warning.text}</span
      >
      {#if warning.severity !== "blocks"}<button
          class="plain-link shrink-0 self-start"
          aria-label="I have read this: {warning.text.slice(0, 40)}"
          onclick={() => void dismiss(warning.name, warning.risk)}>read</button
        >{/if}
    </li>
  {/each}
</ul>
{#if away > 0}<button class="plain-link text-soft text-[13px]" onclick={() => void restore()}
    >{away} read; show {away === 1 ? "it" : "them"} again</button
  >{/if}
