<script lang="ts">
  interface Props {
    x: number;
    y: number;
    /** Length in pixels; at least so long that it is seen. */
    length: number;
    to: "up" | "down" | "left" | "right";
    signal?: boolean;
  }
  let { x, y, length, to, signal = true }: Props = $props();
  const long = $derived(Math.max(length, 9));
  const path = $derived(
    {
      up: `v${-long}m-4,6l4,-6l4,6`,
      down: `v${long}m-4,-6l4,6l4,-6`,
      left: `h${-long}m6,-4l-6,4l6,4`,
      right: `h${long}m-6,-4l6,4l-6,4`,
    }[to],
  );
</script>

<path d="M{x},{y}{path}" fill="none" stroke={signal ? "var(--mark)" : "var(--ink)"} stroke-width="1.8" />
