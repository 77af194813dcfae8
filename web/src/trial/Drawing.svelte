<script lang="ts">
  /** The product's own line drawings: forms of chips, and how an edge wears. */
  let { of, word }: { of: "chip" | "wear"; word: string } = $props();
  const CHIPS: Record<string, string> = {
    ribbon: "M4 26C12 6 18 34 26 16S38 8 44 24M4 30C12 10 18 38 26 20S38 12 44 28M4 26v4M44 24v4",
    tubular:
      "M4 14l5-4h34M4 14v10l5 4h34M9 10v18M16 10l-4 9 4 9M24 10l-4 9 4 9M32 10l-4 9 4 9M40 10l-4 9 4 9M43 10q4 9 0 18",
    spiral: "M25 20c0-2 4-2 4 1s-8 4-8-2 12-7 12 2-16 8-16-3 20-11 20 4-8 11-14 11",
    "washer helix":
      "M6 20c0-12 7-12 7 0s-7 12-7 0m9 0c0-12 7-12 7 0s-7 12-7 0m9 0c0-12 7-12 7 0s-7 12-7 0m9 0c0-12 7-12 7 0s-7 12-7 0",
    "conical helix":
      "M5 20c0-4 4-4 4 0s-4 4-4 0m6 0c0-7 5-7 5 0s-5 7-5 0m8 0c0-10 7-10 7 0s-7 10-7 0m10 0c0-13 9-13 9 0s-9 13-9 0",
    arc: "M6 28C5 12 20 8 22 20M10 28c0-9 8-12 9-7M26 30c-1-16 14-20 16-8M30 30c0-9 8-12 9-7",
    elemental: "M8 28l4-6 4 6zM18 16l4-6 4 6zM26 30l4-6 4 6zM36 20l4-6 4 6zM14 34l3-5 3 5z",
    needle: "M6 30l14-16M12 32l12-14M20 32l16-20M28 32l12-16M36 32l8-11",
  };
  const EDGE = "M6 10H40V34";
  const WEARS: Record<string, string> = {
    flank: `${EDGE}M6 10v5l26-1v-4M12 15v-5M18 15v-5M24 15v-5M30 14v-4`,
    notch: `${EDGE}M10 10l4 12 4-12M12 14h4`,
    crater: `${EDGE}M12 6c6-4 18-4 22 0M14 6c4 5 14 5 18 0`,
    "built-up": `${EDGE}M8 10c-6 0-6 8 0 8 2 6 10 4 10-2 4-1 3-6 0-6`,
    chipped: `${EDGE}M8 10l3 4 3-4M18 10l2 6 4-6M28 10l2 3 2-3`,
    cracks: `${EDGE}M12 4v12M18 4v14M24 4v12M30 4v14`,
    sunk: "M6 16c4 0 6-6 12-6H40V34M6 16v6M6 10h8",
    broken: "M18 10H40V34M18 10l-4 6 5 4-3 8 6 6",
  };
  const path = $derived((of === "chip" ? CHIPS : WEARS)[word] ?? "");
</script>

<svg viewBox="0 0 48 40" class="h-10 w-12" aria-hidden="true"
  ><path d={path} fill="none" stroke="currentColor" stroke-width="1.5" stroke-linejoin="round" /></svg
>
