<script lang="ts">
  import type { Schemas } from "../api/client";
  import Sight from "./Sight.svelte";

  interface Props {
    question: Schemas["QuestionOut"];
    done: (there: string[]) => void;
  }
  let { question, done }: Props = $props();
  let there = $state<string[]>([]);
  const cautions = $derived([...new Set(question.looks.map((one) => one.caution).filter(Boolean))]);
  $effect(() => {
    void question.round;
    there = [];
  });
</script>

<section aria-label="What to look at next" class="border-edge border p-2">
  <div class="flex items-center justify-between gap-2">
    <h3 class="flex items-center gap-2 font-semibold">
      <Sight picture="at {question.round}" />2 · {question.title}
    </h3>
    <span class="text-soft shrink-0">about {question.minutes.toFixed(0)} min</span>
  </div>
  {#each cautions as text (text)}<p class="text-warn mt-0.5">▲ <b>Caution.</b> {text}</p>{/each}
  <ul class="mt-1 grid gap-1">
    {#each question.looks as one (one.name)}
      <li>
        <label class="flex gap-2"
          ><input type="checkbox" class="mt-0.5 size-5 shrink-0" value={one.name} bind:group={there} /><span
            ><b>{one.question}</b><br /><span class="text-soft">{one.how}</span></span
          ></label
        >
      </li>
    {/each}
  </ul>
  <div class="mt-1.5 flex gap-2">
    <button class="control" onclick={() => done($state.snapshot(there))}
      >{there.length ? `found ${there.length}, the rest is right` : "looked: none of these"}</button
    >
  </div>
</section>
