<script lang="ts">
  import type { Schemas } from "../api/client";
  import { shown } from "../session.svelte";

  let { found }: { found: Schemas["MachinesOut"] } = $props();
  const whole = $derived(found.rows.filter((row) => row.of && row.sound === row.of));
  const others = $derived(found.rows.filter((row) => row.sound < row.of));
</script>

<p class="mt-3" data-testid="machines">
  Now on {found.now.machine}: <span class="figure">{shown(found.now.cost)}</span> in
  <span class="figure">{shown(found.now.seconds)}</span>.
  {#if whole[0]}With the best tools for each operation it would cost least on <b>{whole[0].machine}</b>:
    <b class="figure">{shown(whole[0].cost)}</b> in <span class="figure">{shown(whole[0].seconds)}</span>.
  {:else}No machine can make the whole part as planned.{/if}
</p>
<table class="mt-3 w-full" aria-label="The part on every machine">
  <thead class="text-soft text-left text-[13px]"
    ><tr class="border-line border-b"
      ><th scope="col" class="py-1 font-normal">machine</th><th scope="col" class="text-right font-normal"
        >operations</th
      ><th scope="col" class="text-right font-normal">per piece</th><th
        scope="col"
        class="text-right font-normal">time</th
      ><th scope="col" class="text-right font-normal">tools</th><th scope="col" class="pl-6 font-normal"
        >to know</th
      ></tr
    ></thead
  >
  <tbody>
    {#each [...whole, ...others] as row (row.machine)}
      {@const sound = row.sound === row.of}
      <tr class="border-line border-b align-baseline {sound ? '' : 'text-soft'}"
        ><td class="py-1">{row.machine}{row.machine === found.now.machine ? ", now" : ""}</td><td
          class="figure text-right">{row.sound} of {row.of}</td
        ><td class="figure text-right">{sound ? shown(row.cost) : "–"}</td><td class="figure text-right"
          >{sound ? shown(row.seconds) : "–"}</td
        ><td class="figure text-right {sound && row.pockets && row.tools > row.pockets ? 'text-signal' : ''}"
          >{sound ? row.tools + (row.pockets ? ` of ${row.pockets}` : "") : "–"}</td
        ><td class="pl-6"
          >{#if sound}{row.other_tools
              ? `${row.other_tools} with another tool than now`
              : "the tools as they are"}{:else}{shown(row.why)}{/if}</td
        ></tr
      >
    {/each}
  </tbody>
</table>
<p class="text-soft mt-3">
  {found.rankings} rankings of the whole crib, each with the two coolants that suit best. How the part is held,
  and its blank, stay as they are planned; another machine may need other jaws and another set-up time. Nothing
  of the job is changed.
</p>
