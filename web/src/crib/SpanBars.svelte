<script lang="ts">
  /** ISO 513 spans of a grade on the standard's scale from 01 to 50. */
  let { bars, main }: { bars: unknown[][]; main: string } = $props();
  const rows = $derived(bars as [string, number, number][]);
</script>

<svg viewBox="0 0 190 {rows.length * 12 + 2}" class="h-auto w-[190px]" aria-hidden="true">
  {#each rows as [letter, low, high], k (letter)}
    <text x="2" y={k * 12 + 10} class="draw-text" font-size="11" font-weight={letter === main ? 700 : 400}
      >{letter}</text
    >
    <path d="M16,{k * 12 + 6}H188" stroke="var(--line)" />
    <path
      d="M{16 + low * 3.4},{k * 12 + 6}H{16 + high * 3.4}"
      stroke="var(--ink)"
      stroke-width={letter === main ? 6 : 3.5}
    />
  {/each}
</svg>
