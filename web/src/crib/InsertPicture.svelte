<script lang="ts">
  import { shown } from "../session.svelte";
  import type { Schemas } from "../api/client";

  let { drawing, label }: { drawing: Schemas["InsertDrawingOut"]; label: string } = $props();
  const WIDTH = 360;
  const plan = $derived(drawing.plan as [number, number][]);
  const half = $derived(Math.max(...plan.map(([x]) => Math.abs(x)), 1));
  const tall = $derived(Math.max(...plan.map(([, y]) => Math.abs(y)), 1));
  const section = $derived(drawing.section as [number, number][][]);
  const deep = $derived(Math.max(...section.flat().map(([x]) => Math.abs(x)), 1));
  const scale = $derived(Math.min(118 / (2 * tall), (WIDTH - 60) / (2 * half + 2 * deep + 8)));
  const cx = $derived(22 + half * scale);
  const sx = $derived(WIDTH - 22 - deep * scale);
  const middle = 74;
  const foot = $derived(middle + (drawing.thickness * scale) / 2);
  const line = (points: [number, number][], x0: number, y0: number) =>
    points.map(([x, y]) => `${x0 + x * scale},${y0 - y * scale}`).join(" ");
</script>

<svg viewBox="0 0 {WIDTH} 152" role="img" aria-label="{label}: plan and section to scale" class="w-full">
  <polygon points={line(plan, cx, middle)} class="draw-insert" />
  <circle
    {cx}
    cy={middle}
    r={(drawing.inscribed_circle / 2) * scale}
    class="draw-size"
    stroke-dasharray="3 2"
  />
  {#if drawing.hole}<circle {cx} cy={middle} r={(drawing.hole / 2) * scale} class="draw-hole" />{/if}
  <path d="M{cx - half * scale - 8},{middle}H{cx + half * scale + 8}" class="draw-centre" />
  <path d="M{cx},{middle - tall * scale - 6}V{middle + tall * scale + 6}" class="draw-centre" />
  <text x={cx} y="148" text-anchor="middle" class="draw-figure">Ø {shown(drawing.circle_display)}</text>
  {#each section as piece, k (k)}<polygon points={line(piece, sx, foot)} class="draw-insert" />{/each}
  <path d="M{sx},{foot - drawing.thickness * scale - 8}V{foot + 8}" class="draw-centre" />
  <text x={sx} y="148" text-anchor="middle" class="draw-figure">s {shown(drawing.thickness_display)}</text>
  <text x={sx} y="14" text-anchor="middle" class="draw-text"
    >{drawing.clearance === null ? "" : `clearance ${drawing.clearance}°`}</text
  >
  <text x={cx + half * scale} y="14" text-anchor="middle" class="draw-figure"
    >r {shown(drawing.nose_display)}</text
  >
</svg>
