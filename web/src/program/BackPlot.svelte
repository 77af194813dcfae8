<script lang="ts">
  import type { Schemas } from "../api/client";

  /** What the text does, drawn: rapid moves dashed, feed full, threads dotted; up to the place that is shown strong. */
  interface Props {
    plot: Schemas["PlotOut"];
    /** Place, outer and inner radius of the metal that stays. */
    left: readonly (readonly number[])[];
    /** How far it has gone: the index of the last place shown. */
    at: number;
    line: number | null;
    height: number;
    go: (index: number) => void;
    across?: boolean;
  }
  let { plot, left, at, line, height, go, across = false }: Props = $props();
  let canvas: HTMLCanvasElement | undefined = $state();
  let width = $state(400);
  const ROOM = 18;

  /** Of a turned part z to the right and the radius upward; else x and y, or x and z. */
  const flat = $derived(
    plot.places.map(
      ([x, y, z]) => (plot.turned ? [z!, x!] : across ? [x!, z!] : [x!, y!]) as [number, number],
    ),
  );
  const frame = $derived.by(() => {
    const own = left.flatMap(([z, outer]) => [
      [z!, outer!],
      [z!, 0],
    ]) as [number, number][];
    const every = [...flat, ...own];
    let [low, high, bottom, top] = [Infinity, -Infinity, Infinity, -Infinity];
    for (const [a, b] of every) {
      low = Math.min(low, a);
      high = Math.max(high, a);
      bottom = Math.min(bottom, b);
      top = Math.max(top, b);
    }
    if (!every.length) [low, high, bottom, top] = [0, 1, 0, 1];
    const scale = Math.min(
      (width - 2 * ROOM) / Math.max(high - low, 1e-3),
      (height - 2 * ROOM) / Math.max(top - bottom, 1e-3),
    );
    const x = (a: number) => ROOM + (a - low) * scale + (width - 2 * ROOM - (high - low) * scale) / 2;
    const y = (b: number) =>
      height - ROOM - (b - bottom) * scale - (height - 2 * ROOM - (top - bottom) * scale) / 2;
    return { x, y };
  });

  $effect(() => {
    if (!canvas) return;
    const ratio = window.devicePixelRatio || 1;
    canvas.width = width * ratio;
    canvas.height = height * ratio;
    const pen = canvas.getContext("2d")!;
    pen.scale(ratio, ratio);
    const style = getComputedStyle(canvas);
    const [ink, soft, mark, part] = ["--ink", "--soft", "--mark", "--part"].map((name) =>
      style.getPropertyValue(name),
    );
    pen.clearRect(0, 0, width, height);
    const { x, y } = frame;
    if (left.length) {
      pen.fillStyle = part!;
      pen.beginPath();
      left.forEach(([z, outer], k) => (k ? pen.lineTo(x(z!), y(outer!)) : pen.moveTo(x(z!), y(outer!))));
      [...left].reverse().forEach(([z, , inner]) => pen.lineTo(x(z!), y(inner!)));
      pen.closePath();
      pen.fill();
    }
    const DASH = [[5, 4], [], [1, 3]];
    const trace = (kind: number, colour: string, wide: number, upTo: (k: number) => boolean) => {
      pen.strokeStyle = colour;
      pen.lineWidth = wide;
      pen.setLineDash(DASH[kind]!);
      pen.beginPath();
      for (let k = 1; k < flat.length; k++) {
        if (plot.drawn[k] !== kind || !upTo(k)) continue;
        pen.moveTo(x(flat[k - 1]![0]), y(flat[k - 1]![1]));
        pen.lineTo(x(flat[k]![0]), y(flat[k]![1]));
      }
      pen.stroke();
    };
    for (const kind of [0, 1, 2]) {
      trace(kind, soft!, 1, (k) => k > at);
      trace(kind, ink!, kind === 0 ? 1 : 1.6, (k) => k <= at);
      if (line !== null) trace(kind, mark!, 3, (k) => plot.lines[k] === line);
    }
    pen.setLineDash([]);
    const now = flat[Math.min(at, flat.length - 1)];
    if (now) {
      pen.fillStyle = mark!;
      pen.beginPath();
      pen.arc(x(now[0]), y(now[1]), 5, 0, 2 * Math.PI);
      pen.fill();
    }
  });

  function nearest(event: MouseEvent) {
    const box = canvas!.getBoundingClientRect();
    const [a, b] = [event.clientX - box.left, event.clientY - box.top];
    let best = -1;
    let close = 30 ** 2;
    flat.forEach(([p, q], k) => {
      const far = (frame.x(p) - a) ** 2 + (frame.y(q) - b) ** 2;
      if (far < close) [best, close] = [k, far];
    });
    if (best >= 0) go(best);
  }
</script>

<div bind:clientWidth={width}>
  <!-- svelte-ignore a11y_no_interactive_element_to_noninteractive_role -->
  <canvas
    bind:this={canvas}
    style="width:{width}px;height:{height}px"
    class="border-line block border"
    role="img"
    aria-label="What the text does: {plot.places.length} places; rapid dashed, feed full, threads dotted"
    onclick={nearest}
  ></canvas>
</div>
