<script lang="ts">
  import type { Panes } from "./panes.svelte";

  /** The edge of a pane: dragged, moved by arrow keys, folded by Enter or a double click, as it came by Home. */
  interface Props {
    panes: Panes;
    name: string;
    label: string;
    /** On which side of its pane it lies. */
    side: "left" | "right" | "top" | "bottom";
    area: string;
    /** The pane itself, among its neighbours. */
    of: string;
  }
  let { panes, name, label, side, area, of }: Props = $props();
  let edge: HTMLElement | undefined = $state();
  const STEP = 16; // px for a press of a key
  const upright = $derived(side === "left" || side === "right");
  const sign = $derived(side === "right" || side === "bottom" ? 1 : -1);
  let from: { at: number; size: number } | null = null;

  /** What it measures now: as it came a pane follows the window. */
  function measured(): number {
    const box = edge?.parentElement?.querySelector(of)?.getBoundingClientRect();
    return panes.folded(name) || !box ? panes.size(name) : upright ? box.width : box.height;
  }
  function down(event: PointerEvent) {
    (event.currentTarget as HTMLElement).setPointerCapture(event.pointerId);
    from = { at: upright ? event.clientX : event.clientY, size: measured() };
  }
  function move(event: PointerEvent) {
    if (from) panes.to(name, from.size + sign * ((upright ? event.clientX : event.clientY) - from.at));
  }
  function key(event: KeyboardEvent) {
    const grows = upright ? ["ArrowLeft", "ArrowRight"] : ["ArrowUp", "ArrowDown"];
    const at = grows.indexOf(event.key);
    if (at >= 0) panes.to(name, measured() + sign * (at ? STEP : -STEP));
    else if (event.key === "Enter") panes.fold(name);
    else if (event.key === "Home") panes.reset(name);
    else return;
    event.preventDefault();
    event.stopPropagation();
  }
</script>

<!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
<div
  bind:this={edge}
  class="divider {side}"
  style:grid-area={area}
  role="separator"
  tabindex="0"
  aria-orientation={upright ? "vertical" : "horizontal"}
  aria-label={label}
  aria-valuenow={panes.size(name)}
  aria-valuemin={0}
  aria-valuemax={panes.panes[name]!.most}
  title="{label}: drag, or arrow keys; Enter folds, Home as it came"
  onpointerdown={down}
  onpointermove={move}
  onpointerup={() => (from = null)}
  onpointercancel={() => (from = null)}
  ondblclick={() => panes.fold(name)}
  onkeydown={key}
></div>

<style>
  .divider {
    z-index: 5;
    touch-action: none;
    background: transparent;
  }
  .divider:hover,
  .divider:focus-visible {
    background: var(--mark);
    opacity: 0.5;
  }
  .left,
  .right {
    width: 8px;
    cursor: col-resize;
  }
  .top,
  .bottom {
    height: 8px;
    cursor: row-resize;
  }
  .left {
    justify-self: start;
    margin-left: -8px;
  }
  .right {
    justify-self: end;
    margin-right: -8px;
  }
  .top {
    align-self: start;
    margin-top: -8px;
  }
  .bottom {
    align-self: end;
    margin-bottom: -8px;
  }
  @media (max-width: 1150px) {
    .divider {
      display: none;
    }
  }
</style>
