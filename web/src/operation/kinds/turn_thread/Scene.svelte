<script lang="ts">
  import { scaleLinear } from "d3-scale";
  import { seatOf } from "../../../lib/names";
  import Panel from "../../../lib/Panel.svelte";
  import { shown } from "../../../session.svelte";
  import type { OperationBench } from "../../bench.svelte";
  import Arrow from "../Arrow.svelte";
  import ScrubBar from "../ScrubBar.svelte";
  import { ridges } from "../threads/ridges";
  import { numbersOf, pathOf, viewOf } from "../view";

  let { bench }: { bench: OperationBench } = $props();
  let width = $state(700);
  let height = $state(190);
  const WORDS = 225;

  const e = $derived(viewOf(bench, "turn thread"));
  const num = numbersOf(() => e);
  const inside = $derived(e?.scene.internal === "yes");
  // the chuck at the left, the free end at the right, half of the part above its axis
  const long = $derived(num("length") + num("relief") + num("pitch") * 2);
  const outer = $derived(inside ? (num("root") / 2) * 1.35 : num("there") / 2);
  const scale = $derived(
    Math.min((width - WORDS - 70) / (long * 1.12 + num("pitch") * 6), (height - 70) / (outer * 1.05 + 4)),
  );
  const x = $derived(scaleLinear([0, 1], [46, 46 + scale]));
  const y = $derived(scaleLinear([0, 1], [height - 34, height - 34 - scale]));
  $effect(() => {
    if (e && bench.scrub.seconds === 0 && !bench.scrub.playing)
      bench.scrub.goto(Math.round(e.passes.length * 0.5));
  });
  const now = $derived(e?.passes[bench.scrub.index]);
  const near = $derived(num("relief") + num("pitch"));
  const far = $derived(near + num("length"));
  const root = $derived(inside ? num("there") / 2 + (now?.depth ?? 0) : num("there") / 2 - (now?.depth ?? 0));
  const start = $derived(num("there") / 2);
  const line = $derived(
    ridges(
      near,
      num("length"),
      num("pitch"),
      inside ? root : start,
      inside ? start : root,
      num("slope_leading") || 0.577,
    ),
  );
  const part = $derived.by(() => {
    const thread = line.map(([a, b]) => [x(a), y(b)] as [number, number]);
    if (inside)
      return (
        pathOf([
          [x(0), y(outer)],
          [x(far), y(outer)],
          ...[...thread].reverse(),
          [x(near), y(start)],
          [x(0), y(start)],
        ]) + "Z"
      );
    const low = num("root") / 2 - num("pitch") * 0.05;
    const groove: [number, number][] = num("relief")
      ? [
          [x(0.5 * num("pitch")), y(start)],
          [x(0.5 * num("pitch")), y(low)],
          [x(near), y(low)],
        ]
      : [];
    return (
      pathOf([
        [x(0), y(0)],
        [x(0), y(start * 1.12)],
        [x(0.5 * num("pitch")), y(start * 1.12)],
        ...groove,
        ...thread,
        [x(far), y(0)],
      ]) + "Z"
    );
  });
  const towards = $derived(e?.scene.feeds === "towards");
  const tip = $derived(towards ? near + num("length") * 0.45 : near + num("length") * 0.55);
  const tool = $derived.by(() => {
    const s = Math.max(num("pitch") * 2.4 * scale, 16);
    const [cx, cy] = [x(tip), y(root)];
    const dir = inside ? 1 : -1;
    return `M${cx - 1.5},${cy}L${cx + 1.5},${cy}L${cx + s * 0.6},${cy + dir * s}H${cx - s * 0.6}Z`;
  });
  const forward = $derived(e?.scene.turns === "forward");
</script>

<Panel title="Scene · {seatOf(bench.entry?.tool)}" stale={bench.stale} class="area-scene">
  {#snippet aside()}
    {#if e && now}pass <span class="figure">{now.number}</span> of {e.passes.length}{now.spring
        ? ", spring"
        : ""}
      <ScrubBar scrub={bench.scrub} said="pass {now.number}" />{/if}
  {/snippet}
  <div class="relative min-h-0 flex-1" bind:clientWidth={width} bind:clientHeight={height}>
    {#if e && now}
      <svg
        {width}
        {height}
        class="block"
        role="img"
        aria-label="The part in half section with its thread, chuck at the left; spindle {shown(
          e.scene_labels.turns,
        )}, feed {shown(e.scene_labels.feeds)}"
      >
        <rect x="6" y={y(outer * 1.2)} width="40" height={y(0) - y(outer * 1.2)} class="draw-jaw" />
        <path d={part} class="draw-part" stroke="var(--ink)" stroke-width="1" />
        <line x1="2" x2={width - WORDS} y1={y(0)} y2={y(0)} class="draw-centre" />
        <path d={tool} class="draw-insert" />
        <circle cx={x(tip)} cy={y(root)} r="2.6" class="fill-mark" />
        <Arrow
          x={x(tip)}
          y={inside
            ? y(root) + Math.max(num("pitch") * 2.4 * scale, 16) + 10
            : y(root) - Math.max(num("pitch") * 2.4 * scale, 16) - 8}
          length={36}
          to={towards ? "left" : "right"}
        />
        <!-- how the spindle turns, seen on the near side of the part -->
        <path
          d="M16,{y(0) - 6}v{forward ? 16 : -16}m-4,{forward ? -6 : 6}l4,{forward ? 6 : -6}l4,{forward
            ? -6
            : 6}"
          fill="none"
          stroke="var(--mark)"
          stroke-width="1.8"
        />
        <path d="M{x(near)},{y(0) + 8}v5m0,-2.5H{x(far)}m0,-2.5v5" class="draw-size" />
        <text x={x(near) + 2} y={y(0) + 27} class="draw-text draw-over"
          >{shown(e.scene_labels.length)} full thread{num("relief") ? ", run-out groove" : ""}</text
        >
        <text x="6" y="12" class="draw-text draw-over"
          >{forward ? "forward" : "reverse"}, feed {towards ? "towards" : "away from"} the chuck: {e.scene
            .hand}-hand thread,
          {e.scene.tool_hand === "L" ? "left" : "right"}-hand tool</text
        >
      </svg>
      <dl class="absolute top-0 right-2.5 grid grid-cols-[auto_auto] gap-x-2 text-[13px] leading-[16px]">
        {#each [["thread", e.scene_labels.thread], ["pitch Ø", { metric: `${e.scene_labels.pitch_low?.metric} – ${e.scene_labels.pitch_high?.metric}`, inch: `${e.scene_labels.pitch_low?.inch} – ${e.scene_labels.pitch_high?.inch}` }], ["seat and lead", e.scene_labels.tilt], ["flanks clear", e.scene_labels.clear], ["run-in", e.scene_labels.run_in], ["run-out", e.scene_labels.run_out], ["spindle", e.scene_labels.spindle]] as const as [word, value] (word)}
          <dt class="text-soft">{word}</dt>
          <dd class="figure text-right">{shown(value)}</dd>
        {/each}
      </dl>
    {/if}
  </div>
</Panel>
