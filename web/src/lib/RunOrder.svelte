<script lang="ts">
  import type { Schemas } from "../api/client";
  import { shown } from "../session.svelte";

  interface Props {
    rows: Schemas["OperationRow"][];
    job: number;
    /** What was typed, in the units shown. */
    told: (text: string) => string;
    selected?: string;
  }
  let { rows, job, told, selected = "" }: Props = $props();
  const words = { holds: "holds", close: "close", over: "over", "no tool": "no tool yet" };
  const marks = { holds: "✓", close: "▲", over: "■", "no tool": "○" };
</script>

<ol class="border-line border-t" aria-label="Run order">
  {#each rows as row (row.id)}
    <li class="border-line border-b">
      <a
        href="#/jobs/{job}/operations/{row.id}"
        aria-current={row.id === selected ? "step" : undefined}
        title={row.problem ? shown(row.problem) : row.binding}
        class="grid min-h-[27px] grid-cols-[26px_1fr_auto_16px] items-center gap-1.5 px-2.5 {row.id ===
        selected
          ? 'bg-ink text-sheet'
          : 'hover:bg-[var(--paper)]'}"
      >
        <span class="figure">{row.number}</span><span class="py-0.5 leading-tight">{told(row.title)}</span
        ><span class="figure">{shown(row.seconds_display)}</span>
        <span
          class={row.id === selected
            ? ""
            : row.status === "holds"
              ? "text-safe"
              : row.status === "close"
                ? "text-warn"
                : "text-signal"}
          ><span aria-hidden="true">{marks[row.status]}</span><span class="sr-only">{words[row.status]}</span
          ></span
        >
      </a>
    </li>
  {:else}
    <li class="text-soft px-2.5 py-2">No operations yet.</li>
  {/each}
</ol>
