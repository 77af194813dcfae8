<script lang="ts">
  import type { FieldError, Problem } from "../api/client";
  import { session } from "../session.svelte";
  import { drops } from "./draft.svelte";

  interface Props {
    value: string;
    /** Called with what was typed when it is finished: Enter, or leaving the field. A refusal is said beside the field. */
    commit: (text: string) => void | Promise<Problem | null>;
    id?: string;
    /** The end of the path by which a refusal names this field; none takes every refusal of its own commit. */
    field?: string;
    /** A refusal that came another way, such as by trying values on the bench. */
    problem?: Problem | null;
    label?: string;
    placeholder?: string;
    disabled?: boolean;
    /** Words that may be picked instead of typed. */
    options?: string[];
    inputmode?: "decimal" | "numeric" | "text";
    /** Escape gives up what is being tried elsewhere too. */
    giveUp?: () => void;
  }
  let {
    value,
    commit,
    id,
    field = "",
    problem = null,
    label,
    placeholder,
    disabled = false,
    options = [],
    inputmode,
    giveUp,
  }: Props = $props();
  const uid = $props.id();
  // what is being typed stands until it is taken, whatever is saved or repainted meanwhile; refused, it stands too
  let typed = $state<string | null>(null);
  let own = $state<Problem | null>(null);
  let sent: string | null = null; // what is with the server, or was refused there
  let waiting = $state(false);
  // what stood here when typing began; saved by somebody else meanwhile, both stand until the person says which
  let began = $state({ value: "", units: "" });
  const other = $derived(
    typed !== null &&
      !waiting &&
      began.units === session.units &&
      began.value !== value &&
      typed.trim() !== value,
  );
  const list = $derived(options.length ? `${id ?? uid}-options` : undefined);
  const error = $derived.by((): FieldError | null => {
    const from = own ?? problem;
    if (!from || from.status === 409) return null;
    const named = from.errors.find((one) => !field || one.field.endsWith(field));
    return named ?? (own ? { field, message: own.message } : null);
  });

  // a person who took somebody else's version sees that version
  $effect(() => {
    void drops.count;
    typed = own = sent = null;
  });

  async function finish() {
    const text = typed?.trim();
    if (text === undefined) return;
    if (text === value) {
      typed = own = sent = null;
      return;
    }
    if (other) return; // nothing is overwritten unseen
    if (text === sent) return; // Enter, then leaving the field: one gesture
    sent = text;
    const answer = commit(text);
    waiting = answer instanceof Promise;
    if (answer instanceof Promise) own = await answer.finally(() => (waiting = false));
    if (own) return;
    sent = null;
    if (typed?.trim() === text) typed = null;
  }

  function type(text: string) {
    if (typed === null) began = { value, units: session.units };
    typed = text;
  }

  function take(reading: string) {
    typed = reading;
    void finish();
  }

  function keepMine() {
    began.value = value;
    sent = null;
    void finish();
  }

  function escape(event: KeyboardEvent) {
    if (event.key !== "Escape" || (typed === null && !error)) return;
    event.stopPropagation();
    event.preventDefault();
    typed = own = sent = null;
    giveUp?.();
  }
</script>

<input
  id={id ?? uid}
  class="control figure w-full {error ? 'refused' : ''}"
  autocomplete="off"
  {placeholder}
  {disabled}
  {list}
  {inputmode}
  aria-label={label}
  value={typed ?? value}
  aria-invalid={error ? "true" : undefined}
  aria-describedby={[error && `${id ?? uid}-refused`, other && `${id ?? uid}-other`]
    .filter(Boolean)
    .join(" ") || undefined}
  oninput={(event) => type(event.currentTarget.value)}
  onchange={finish}
  onblur={finish}
  onkeydown={escape}
/>
{#if list}<datalist id={list}
    >{#each options as option (option)}<option value={option}></option>{/each}</datalist
  >{/if}
{#if other}
  <p id="{id ?? uid}-other" role="alert" class="text-warn col-span-full text-[13px]">
    Changed meanwhile to <b class="figure">{value || "nothing"}</b>.
    <button type="button" class="plain-link mr-2" onclick={keepMine}>keep {typed?.trim() || "nothing"}</button
    >
    <button type="button" class="plain-link" onclick={() => (typed = own = sent = null)}
      >take {value || "nothing"}</button
    >
  </p>
{/if}
{#if error}
  <p id="{id ?? uid}-refused" role="alert" class="text-signal col-span-full text-[13px]">
    {error.message}{error.bound && !error.message.includes(error.bound) ? ` Bound: ${error.bound}.` : ""}
    {#if own?.passing}<button
        type="button"
        class="plain-link mr-2"
        onclick={() => {
          sent = null;
          void finish();
        }}>Try again</button
      >{/if}
    {#each error.readings ?? [] as reading (reading)}
      <button type="button" class="plain-link mr-2" onclick={() => take(reading)}>{reading}</button>
    {/each}
  </p>
{/if}
