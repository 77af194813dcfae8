<script lang="ts">
  import type { Schemas } from "../api/client";

  let { drawing, label }: { drawing: Schemas["ToolPlanOut"]; label: string } = $props();
  type Corners = [number, number][];
  const WIDE = 130;
  const TALL = 120;
  const insert = $derived(drawing.insert as Corners);
  const holder = $derived(drawing.holder as Corners);
  const every = $derived([...insert, ...holder]);
  const left = $derived(Math.min(...every.map(([x]) => x)));
  const right = $derived(Math.max(...every.map(([x]) => x)));
  const top = $derived(Math.max(...every.map(([, y]) => y)));
  const scale = $derived(Math.min((WIDE - 12) / Math.max(right - left, 1), (TALL - 22) / Math.max(top, 1)));
  const at = (corners: Corners) =>
    corners.map(([x, y]) => `${6 + (x - left) * scale},${TALL - 14 - y * scale}`).join(" ");
</script>

<svg width={WIDE} height={TALL} role="img" aria-label="{label} in plan, to scale" class="block shrink-0">
  <rect x="0" y={TALL - 14} width={WIDE} height="14" class="draw-part" />
  <polygon points={at(holder)} class="draw-steel" />
  <polygon points={at(insert)} class="draw-insert" />
</svg>
