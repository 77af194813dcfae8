<script lang="ts">
  import { scaleLinear } from "d3-scale";
  import type { Schemas } from "../api/client";
  import { shown } from "../session.svelte";
  import Choice from "./Choice.svelte";

  interface Props {
    state: Schemas["StateOut"];
    selected?: string;
    open?: (operation: string) => void;
    stale?: boolean;
  }
  let { state: job, selected = "", open, stale = false }: Props = $props();

  let by = $state<"seconds" | "money">("seconds");
  let width = $state(1000);
  const total = $derived(job.tape.segments.reduce((sum, segment) => sum + segment[by], 0));
  const x = $derived(scaleLinear([0, Math.max(total, 0.001)], [0, width]));
  const placed = $derived.by(() => {
    let at = 0;
    return job.tape.segments.map((segment) => {
      const start = at;
      at += segment[by];
      return { ...segment, start };
    });
  });
  const numbers = $derived(Object.fromEntries(job.operations.map((row) => [row.id, row])));
  const ticks = $derived(x.ticks(8));
</script>

<section
  class="bg-sheet border-line flex min-h-0 items-stretch gap-4 border px-2.5 py-1"
  aria-label="Cycle time"
  aria-busy={stale}
>
  <div class="min-w-0 flex-1">
    <div class="text-soft flex items-center gap-3 text-[13px]">
      <h2 class="font-semibold">Cycle time</h2>
      <Choice
        label="Tape by"
        options={["seconds", "money"]}
        value={by}
        choose={(value) => (by = value)}
        tone="sheet"
      />
      {#if stale}<span>following …</span>{/if}
    </div>
    <div class="mt-1" bind:clientWidth={width}>
      <svg
        {width}
        height="40"
        viewBox="0 0 {width} 40"
        class="block overflow-visible"
        role="group"
        aria-label="Segments in order"
      >
        {#each placed as segment, k (k)}
          {@const w = Math.max(x(segment[by]) - 1, 0.5)}
          {#if segment.kind === "cut" && segment.operation}
            {@const row = numbers[segment.operation]}
            {@const chosen = segment.operation === selected}
            <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
            <g
              role={open ? "link" : undefined}
              tabindex={open ? 0 : undefined}
              aria-label="{row?.number} {segment.label}, {segment.seconds.toFixed(
                1,
              )} s, {segment.money.toFixed(2)} €"
              onclick={() => open?.(segment.operation!)}
              onkeydown={(event) => event.key === "Enter" && open?.(segment.operation!)}
              class={open ? "cursor-pointer" : ""}
            >
              <rect
                x={x(segment.start)}
                y="0"
                width={w}
                height="22"
                class={chosen ? "fill-mark" : "fill-[var(--steel)]"}
              />
              {#if w > 22}
                <text
                  x={x(segment.start) + w / 2}
                  y="16"
                  text-anchor="middle"
                  class="figure {chosen ? 'fill-[var(--sheet)]' : 'fill-[#14171b]'} font-semibold"
                  >{row?.number}</text
                >
              {/if}
            </g>
          {:else}
            <rect
              x={x(segment.start)}
              y="0"
              width={w}
              height="22"
              class={segment.kind === "handling" ? "fill-none stroke-[var(--edge)]" : "fill-[var(--rail)]"}
              stroke-dasharray="3 2"
            >
              <title>{segment.label}: {segment.seconds.toFixed(1)} s, {segment.money.toFixed(2)} €</title>
            </rect>
            {#if segment.kind === "handling" && w > 90}
              <text x={x(segment.start) + w / 2} y="16" text-anchor="middle" class="draw-text"
                >load, unload</text
              >
            {/if}
          {/if}
        {/each}
        {#each ticks as tick (tick)}
          <text x={x(tick)} y="38" class="draw-text figure" text-anchor={tick === 0 ? "start" : "middle"}
            >{tick}</text
          >
        {/each}
      </svg>
    </div>
  </div>
  <div class="figure shrink-0 self-center text-right leading-tight">
    <div class="text-[16px] font-semibold">{shown(job.tape.seconds_display)}</div>
    <div class="text-[16px] font-semibold" title={job.tape.working.join("\n")}>
      {shown(job.tape.money_display)} per piece
    </div>
    {#if job.target_display}
      <div class={job.over_target ? "text-signal" : "text-safe"}>
        {job.over_target ? "▲ over" : "✓ within"} target {shown(job.target_display)}
      </div>
    {/if}
  </div>
</section>
