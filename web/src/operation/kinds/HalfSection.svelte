<script lang="ts">
  import { pathOf } from "./view";

  interface Props {
    /** Half section of the part: corners (from the chuck, radius), mm. */
    part: [number, number][];
    bore: number;
    grip: number;
    x: (place: number) => number;
    y: (radius: number) => number;
    /** The jaws' faces stand here, in pixels. */
    chuck: number;
  }
  let { part, bore, grip, x, y, chuck }: Props = $props();
  const outline = (side: 1 | -1) => pathOf(part.map(([a, r]) => [x(a), y(side * r)]));
  const end = $derived(part.at(-1)?.[0] ?? 0);
  const body = $derived(Math.max(grip / 2, ...part.map(([, r]) => r)));
</script>

<rect x="8" y={y(body) - 12} width="44" height={y(-body) - y(body) + 24} class="draw-jaw" />
<rect x="52" y={y(grip / 2) - 12} width={chuck - 52} height="14" class="draw-steel" />
<rect x="52" y={y(-grip / 2) - 2} width={chuck - 52} height="14" class="draw-steel" />
{#if part.length}
  <path d="{outline(1)}L{x(end)},{y(0)}L{x(0)},{y(0)}Z" class="draw-part" />
  <path d="{outline(-1)}L{x(end)},{y(0)}L{x(0)},{y(0)}Z" class="draw-part" />
{/if}
{#if bore > 0}
  <rect
    x={x(0)}
    y={y(bore / 2)}
    width={x(end) - x(0)}
    height={y(-bore / 2) - y(bore / 2)}
    fill="var(--sheet)"
  />
  <path d="M{x(0)},{y(bore / 2)}H{x(end)}M{x(0)},{y(-bore / 2)}H{x(end)}" stroke="var(--ink)" fill="none" />
{/if}
