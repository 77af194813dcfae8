<script lang="ts">
  import type { OperationBench } from "../operation/bench.svelte";
  import { numbersOf, viewOf } from "../operation/kinds/view";

  let { bench }: { bench: OperationBench } = $props();
  const view = $derived(viewOf(bench, "turned"));
  const num = numbersOf(() => view);
  const kappa = $derived(num("cutting_edge_angle"));
  const SCALE = 5.2;
  const TIP = { x: 110, y: 128 };
  const points = (corners: number[][] | undefined) =>
    (corners ?? []).map(([a, b]) => `${TIP.x + a! * SCALE},${TIP.y - b! * SCALE}`).join(" ");
  // κr lies between the feed, towards the chuck, and the major edge; positions on the picture, no results
  const turned = (degrees: number, radius: number) => {
    const angle = (degrees * Math.PI) / 180;
    return `${TIP.x - radius * Math.cos(angle)},${TIP.y - radius * Math.sin(angle)}`;
  };
  // the tip on the part seen along its axis, its height over the axis exaggerated
  const lift = $derived(Math.sign(num("centre_height")) * Math.min(Math.abs(num("centre_height")) * 24, 26));
  const END = { x: 360, y: 78, r: 62 };
</script>

{#if view}
  <svg
    viewBox="0 0 460 176"
    class="w-full max-w-[560px]"
    role="img"
    aria-label="The edge in plan, and the tip seen along the axis"
  >
    <rect x="8" y={TIP.y} width="212" height="40" class="draw-part" />
    <polygon points={points(view.holder_outline)} class="draw-steel" />
    <polygon points={points(view.insert_outline)} class="draw-insert" />
    <path d="M{TIP.x},{TIP.y}L{turned(kappa, 66)}" stroke="var(--mark)" stroke-width="1.6" />
    <path
      d="M{TIP.x},{TIP.y}L{turned(0, 84)}m7,-4l-7,4l7,4"
      stroke="var(--mark)"
      stroke-width="1.6"
      fill="none"
    />
    <path d="M{turned(0, 42)}A42,42 0 0 1 {turned(kappa, 42)}" stroke="var(--mark)" fill="none" />
    <text x={TIP.x - 84} y={TIP.y - 34} class="figure fill-mark draw-over">κr {kappa}°</text>
    <text x="12" y={TIP.y + 18} class="draw-text draw-on-part">feed, to the chuck</text>
    <circle cx={END.x} cy={END.y} r={END.r} class="draw-part" />
    <path d="M{END.x - 80},{END.y}h172" class="draw-centre" />
    <path d="M{END.x},{END.y - 74}v148" class="draw-centre" />
    <rect x={END.x + END.r - 2} y={END.y - lift} width="36" height="9" class="draw-insert" />
    <path d="M{END.x + END.r + 34},{END.y - lift}h-34" stroke="var(--mark)" stroke-width="1.4" />
    <text x={END.x} y="170" text-anchor="middle" class="draw-text"
      >{lift === 0
        ? "tip on centre"
        : lift > 0
          ? "tip above centre, drawn larger"
          : "tip below centre, drawn larger"}</text
    >
  </svg>
{/if}
