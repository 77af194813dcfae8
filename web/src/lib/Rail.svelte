<script lang="ts">
  import type { Schemas } from "../api/client";
  import { shown } from "../session.svelte";

  /** A limit with its arrow: where the value stands against its bound. */
  let { limit, first = false }: { limit: Schemas["LimitOut"]; first?: boolean } = $props();
  const END = 0.87; // where the bound stands on the rail
  const over = $derived(limit.wanting);
  const broken = $derived(over && limit.severity === "hard" && limit.standing === "over");
  const tone = $derived(broken ? "fill-signal" : over ? "fill-warn" : "");
  const reach = $derived(limit.utilisation / Math.max(limit.kept, 1e-6)); // where a bad delivery may stand
  const place = (used: number) => Math.min(used * END, 0.985) * 100;
</script>

<span class="flex flex-wrap justify-between gap-x-2">
  <span
    >{broken ? "■ " : over ? "▲ " : ""}{limit.label}{#if over}<span class="sr-only"
        >, {limit.utilisation > 1 ? "over its bound" : limit.standing}</span
      >{/if}</span
  >
  <span class="figure ml-auto text-[12.5px] {first || over ? '' : 'text-soft'}"
    >{shown(limit.value_display)} · {shown(limit.bound_display)}</span
  >
</span>
<svg
  viewBox="0 0 100 8"
  preserveAspectRatio="none"
  class="block h-2 w-full overflow-visible"
  aria-hidden="true"
>
  <rect x="0" y="2.4" width="100" height="3.2" class="fill-[var(--rail)]" />
  {#if reach > limit.utilisation && limit.severity === "hard"}
    <rect
      x={place(limit.utilisation)}
      y="2.4"
      width={place(reach) - place(limit.utilisation)}
      height="3.2"
      class={over ? "fill-warn" : "fill-[var(--rail-used)]"}
      opacity="0.45"
    />
  {/if}
  <rect
    x="0"
    y="2.4"
    width={place(limit.utilisation)}
    height="3.2"
    class={tone || (first ? "fill-ink" : "fill-[var(--rail-used)]")}
  />
  <rect x={END * 100} y="-1" width="0.7" height="10" class="fill-ink" />
  <path
    d="M{place(limit.utilisation) - 1.2},-0.6L{place(limit.utilisation) + 1.8},4L{place(limit.utilisation) -
      1.2},8.6Z"
    class={tone || "fill-ink"}
  />
</svg>
