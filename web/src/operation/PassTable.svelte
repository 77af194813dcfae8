<script lang="ts">
  import type { Schemas } from "../api/client";
  import { shown } from "../session.svelte";

  let { passes }: { passes: Schemas["PassOut"][] } = $props();
</script>

<table class="mt-1 w-full" aria-label="Passes">
  <thead class="text-soft text-right text-[13px]"
    ><tr class="border-line border-b"
      ><th scope="col" class="text-left font-normal">pass</th><th scope="col" class="font-normal">from Ø</th
      ><th scope="col" class="font-normal">to Ø</th><th scope="col" class="font-normal">rpm</th><th
        scope="col"
        class="font-normal">chip</th
      ><th scope="col" class="font-normal">s</th></tr
    ></thead
  >
  <tbody class="figure text-right">
    {#each passes as pass (pass.number)}
      <tr class="border-line border-b"
        ><td class="text-left">{pass.number}</td><td>{shown(pass.from_diameter)}</td><td
          >{shown(pass.to_diameter)}</td
        ><td>{shown(pass.spindle_speed)}</td><td class={pass.chip.index >= 70 ? "text-safe" : "text-warn"}
          >{pass.chip.index >= 70 ? "✓" : "▲"}<span class="sr-only">index {pass.chip.index.toFixed(0)}</span
          ></td
        ><td>{shown(pass.seconds)}</td></tr
      >
    {/each}
  </tbody>
</table>
