<script lang="ts">
  import type { Schemas } from "../api/client";

  let { drawing, label }: { drawing: Schemas["DrillDrawingOut"]; label: string } = $props();
  const WIDE = 360;
  const TALL = 130;
  type Corners = [number, number][];
  const side = $derived(drawing.side as Corners);
  const shank = $derived(drawing.shank as Corners);
  const outline = $derived(drawing.outline as Corners);
  const far = $derived(Math.max(...shank.map(([x]) => x)));
  const thick = $derived(Math.max(...[...side, ...shank].map(([, y]) => y), 0.1));
  const radius = $derived(Math.max(...outline.map(([x]) => x), 0.1));
  const scale = $derived(Math.min((WIDE - 130) / far, (TALL - 16) / (2 * thick)));
  // onto the point it is drawn larger, so that lips and chisel edge are seen
  const close = $derived(46 / radius);
  const along = (corners: number[][]) =>
    corners.map(([x, y]) => `${(6 + x! * scale).toFixed(1)},${(TALL / 2 - y! * scale).toFixed(1)}`).join(" ");
  const onto = ([x, y]: number[]) =>
    `${(WIDE - 56 + x! * close).toFixed(1)},${(TALL / 2 - y! * close).toFixed(1)}`;
</script>

<svg viewBox="0 0 {WIDE} {TALL}" role="img" aria-label="{label}: side and point to scale" class="w-full">
  <polygon points={along(shank)} class="draw-steel" />
  <polygon points={along(side)} class="draw-insert" />
  {#each drawing.flutes as flute, k (k)}
    <polyline points={along(flute)} fill="none" stroke="var(--ink)" stroke-width="0.8" />
  {/each}
  <line x1="2" x2={WIDE - 116} y1={TALL / 2} y2={TALL / 2} class="draw-centre" />
  <polygon points={outline.map(onto).join(" ")} class="draw-insert" />
  {#each drawing.lips as [a, b], k (k)}
    <polyline points="{onto(a!)} {onto(b!)}" fill="none" stroke="var(--ink)" stroke-width="1.6" />
  {/each}
  {#each drawing.holes as [x, y, d], k (k)}
    <circle cx={WIDE - 56 + x! * close} cy={TALL / 2 - y! * close} r={(d! / 2) * close} class="draw-hole" />
  {/each}
</svg>
