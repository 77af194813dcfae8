<script lang="ts">
  import type { Scrub } from "../scrub.svelte";

  let { scrub, said }: { scrub: Scrub; said: string } = $props();
</script>

<label class="inline-flex items-center gap-1.5"
  ><span class="sr-only">moment in the cut</span>
  <input
    type="range"
    class="w-14 align-middle"
    min="0"
    max={scrub.total}
    step={scrub.total / 200 || 1}
    value={scrub.seconds}
    aria-valuetext={said}
    oninput={(event) => scrub.set(Number(event.currentTarget.value))}
  /></label
>
<kbd>,</kbd> <kbd>.</kbd>
<button class="hover:underline" onclick={() => scrub.toggle()} data-testid="play"
  >{scrub.playing ? "pause" : "play"} <kbd>space</kbd></button
>
