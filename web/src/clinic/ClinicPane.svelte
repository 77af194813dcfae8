<script lang="ts">
  import type { Schemas } from "../api/client";
  import { session } from "../session.svelte";
  import type { Clinic } from "./clinic.svelte";
  import Looks from "./Looks.svelte";
  import SuspectRow from "./SuspectRow.svelte";
  import Symptoms from "./Symptoms.svelte";

  interface Props {
    clinic: Clinic;
    apply?: ((remedy: Schemas["RemedyOut"]) => void) | null;
    trial?: ((change: string) => void) | null;
  }
  let { clinic, apply = null, trial = null }: Props = $props();
  let chosen = $state<string | null>(null);
  $effect(() => void clinic.open());
  const found = $derived(clinic.found);
  const first = $derived(found?.suspects[0]?.name ?? "");
  const open = $derived(chosen ?? first);
  const answered = $derived(
    Object.entries(clinic.answers).flatMap(([name, yes]) => {
      const look = clinic.ward?.looks.find((one) => one.name === name);
      return look ? [{ ...look, yes }] : [];
    }),
  );
</script>

{#if clinic.problem}<p role="alert" class="text-signal pb-2">{clinic.problem}</p>{/if}
{#if clinic.ward}
  <div class="grid gap-4 lg:grid-cols-[minmax(0,0.8fr)_minmax(0,1.2fr)]">
    <div>
      <Symptoms ward={clinic.ward} seen={clinic.seen} toggle={(name) => clinic.toggle(name)} />
    </div>
    <div class="grid content-start gap-3" aria-busy={clinic.busy}>
      {#if found}
        {#if found.question}
          <Looks
            question={found.question}
            done={(there) =>
              clinic.answerAll(
                found.question!.looks.map((one) => one.name),
                there,
              )}
          />
        {/if}
        {#if answered.length}
          <details>
            <summary class="text-soft cursor-pointer">{answered.length} looks taken</summary>
            <ul class="grid gap-0.5 pt-1">
              {#each answered as one (one.name)}<li class="flex justify-between gap-2">
                  <span>{one.yes ? "yes" : "no"}: {one.question}</span><button
                    class="plain-link shrink-0"
                    onclick={() => clinic.answer(one.name, null)}>Remove</button
                  >
                </li>{/each}
            </ul>
          </details>
        {/if}
        <section aria-label="What may be behind it">
          <h3 class="font-semibold">What may be behind it</h3>
          {#if found.none_fits}<p class="text-warn" role="status">
              ▲ <b>None of these fits</b> so far: what the first would show was looked for and is not there. Look
              further, or note what you see.
            </p>{/if}
          <ol>
            {#each found.suspects as one, k (one.name)}
              <SuspectRow
                {one}
                place={k + 1}
                {clinic}
                open={open === one.name}
                choose={() => (chosen = open === one.name ? "" : one.name)}
                {apply}
                {trial}
              />
            {/each}
          </ol>
          {#if clinic.at}<p class="border-line border-t pt-1.5">
              Paper for the machine: <a
                class="plain-link"
                target="_blank"
                rel="noopener"
                href="/api/jobs/{clinic.at.job}/operations/{clinic.at
                  .operation}/trouble-card?form=pdf&units={session.units}">trouble card, PDF</a
              >
            </p>{/if}
          <p class="text-soft border-line border-t py-1.5">
            {found.none.toFixed(0)} % that it is none that the table names.
            {clinic.at
              ? "Weighed with this operation’s own numbers."
              : "From the kind of operation alone; opened from an operation it knows its numbers."}
          </p>
        </section>
      {:else}
        <p class="text-soft">
          Choose what is seen; several at once where there are several. Then it says where to look first, and
          what may be behind it.
        </p>
      {/if}
    </div>
  </div>
{:else if !clinic.problem}<p class="text-soft">Opening …</p>{/if}
