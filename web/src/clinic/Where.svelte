<script lang="ts">
  /** Where a round of looks is taken: own line drawings, with the place of the glass, the dial or the eye. */
  let { round }: { round: string } = $props();
  const PLACES: Record<string, string> = {
    control:
      "M6 6H42V30H6zM10 10H30V20H10zM12 17l5-4 4 3 6-5M34 11h5M34 15h5M34 19h5M14 25a2 2 0 1 0 .1 0M24 25a2 2 0 1 0 .1 0M34 25h5",
    edge: "M4 30V20H20L24 26V30zM30 13a9 9 0 1 0 .1 0M24 20l-3 4M36 28l7 8",
    tool: "M4 14H26V22H4zM26 15h6l2 3-2 3h-6M38 6a6 6 0 1 0 .1 0M38 9v3l2 1M38 18v5l-4-2",
    piece: "M4 12H34V28H4zM34 14h4v12h-4M40 4v12l-3-4M40 16l3-4M10 12V28",
    coolant: "M6 6H16L20 12M20 12l6 4M20 12l8 1M20 12l4 7M28 22H44V32H28zM8 30c3-4 6 4 9 0s6 4 8 0",
    holding: "M4 6H14V14H4zM4 26H14V34H4zM14 14H42V26H14M8 14v3M8 26v-3M36 6a5 5 0 1 0 .1 0M36 16v-2",
    machine: "M4 30H44V34H4zM8 30V16H18V30M18 20H40M30 20v-6a4 4 0 1 1 4-4M34 10l2 2",
    marks: "M4 16H32V30H4zM8 16V30M12 16V30M16 16V30M20 16V30M34 8a8 8 0 1 0 .1 0M39 22l5 7",
    again: "M10 20a12 12 0 1 1 4 9M14 29l-5 1 1-6M24 12v8l6 3",
    hole: "M4 8H18V32H4zM30 8H44V32H30zM20 4H28V22H20zM20 12h8M20 17h8",
  };
</script>

<svg viewBox="0 0 48 38" class="h-10 w-12 shrink-0" aria-hidden="true"
  ><path
    d={PLACES[round] ?? ""}
    fill="none"
    stroke="currentColor"
    stroke-width="1.4"
    stroke-linejoin="round"
  /></svg
>
