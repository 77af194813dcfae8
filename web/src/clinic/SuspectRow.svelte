<script lang="ts">
  import type { Schemas } from "../api/client";
  import { session, shown } from "../session.svelte";
  import type { Clinic, Suspect } from "./clinic.svelte";

  interface Props {
    one: Suspect;
    place: number;
    clinic: Clinic;
    open: boolean;
    choose: () => void;
    apply: ((remedy: Schemas["RemedyOut"]) => void) | null;
    trial: ((change: string) => void) | null;
  }
  let { one, place, clinic, open, choose, apply, trial }: Props = $props();
  let offer = $state.raw<Schemas["ClinicOfferOut"] | null>(null);
  let words = $state("");
  let kept = $state("");
  $effect(() => {
    if (!open || !clinic.at) return;
    const cause = one.name;
    void clinic.guard(async () => {
      const made = await clinic.offer(cause);
      if (cause === one.name) offer = made;
    });
  });
  const TURNED = [
    ["helped", "it helped"],
    ["no change", "no change"],
    ["worse", "it got worse"],
  ] as const;
  const log = (turned: (typeof TURNED)[number][0]) =>
    clinic.guard(async () => {
      await clinic.log(one.name, turned, words);
      kept = `Kept: ${turned}. It counts from now on.`;
      words = "";
    });
</script>

<li class="border-line border-t py-1.5" data-testid="suspect">
  <button class="flex w-full items-center gap-2 text-left" aria-expanded={open} onclick={choose}>
    <span class="text-soft w-4">{place}</span>
    <span class="grow"
      ><b>{one.title}</b>{#if one.try_first}<span class="text-safe pl-2 text-[13px]"
          >■ cheapest to undo: try first</span
        >{/if}</span
    >
    <span class="bg-line relative h-3 w-28 shrink-0" aria-hidden="true"
      ><span class="absolute inset-y-0 left-0" style="width: {one.chance}%; background: var(--mark)"
      ></span></span
    >
    <span class="w-12 text-right tabular-nums">{one.chance.toFixed(0)} %</span>
  </button>
  {#if open}
    <div class="grid gap-1.5 pt-1 pl-6">
      <ul>
        {#each one.reasons as reason (reason.speaks + reason.text.metric)}
          <li class={reason.speaks === "for" ? "" : "text-soft"}>
            <b>{reason.speaks === "for" ? "+" : "−"}</b>
            <span class="sr-only">{reason.speaks === "for" ? "speaks for it:" : "speaks against it:"}</span>
            {shown(reason.text)}
          </li>
        {/each}
      </ul>
      {#if one.seen}<p class="text-soft">
          ◆ learned: weight × {one.weight.toFixed(2)} ({one.low.toFixed(2)} to {one.high.toFixed(2)}) from {one.seen}
          that turned out here
        </p>{/if}
      <p><b>3 · Do:</b> {one.change}. <span class="text-soft">Touches the {one.undo}.</span></p>
      {#if offer}
        {#if offer.forbidden}<p class="text-warn">
            ▲ Not with this plan: {offer.forbidden}. Try the next.
          </p>
        {:else if offer.remedy}
          <p><b>{shown(offer.remedy.text)}</b>, run on this operation:</p>
          <table class="w-fit">
            <tbody
              >{#each offer.rows as row (row.label)}<tr
                  ><th scope="row" class="text-soft pr-4 text-left font-normal">{row.label}</th><td
                    class="pr-2 text-right">{shown(row.before)}</td
                  ><td>→</td><td class="pl-2 font-semibold">{shown(row.after)}</td></tr
                >{/each}</tbody
            >
          </table>
          {#if offer.side_effects}<p class="text-soft">With it: {offer.side_effects}.</p>{/if}
        {:else}<p class="text-soft">Put right at the machine; the plan has it right already.</p>{/if}
      {/if}
      {#if clinic.at}
        <div class="flex flex-wrap items-center gap-2">
          {#if offer?.remedy && apply && session.mayEdit}<button
              class="control"
              onclick={() => offer?.remedy && apply(offer.remedy)}>set it, see it on the bench</button
            >{/if}
          {#if trial}<button
              class="control"
              onclick={() => trial(offer?.remedy ? shown(offer.remedy.text) : one.change)}
              >try it as a trial</button
            >{/if}
        </div>
        {#if session.mayNote}
          <div class="flex flex-wrap items-center gap-2" role="group" aria-label="How it turned out">
            <span class="text-soft">How it turned out:</span>
            <input
              class="control w-44"
              maxlength="400"
              placeholder="in words, if you like"
              aria-label="in words"
              bind:value={words}
            />
            {#each TURNED as [turned, label] (turned)}<button class="control" onclick={() => void log(turned)}
                >{label}</button
              >{/each}
            {#if kept}<span role="status" class="text-safe font-semibold">{kept}</span>{/if}
          </div>
        {/if}
      {/if}
    </div>
  {/if}
</li>
