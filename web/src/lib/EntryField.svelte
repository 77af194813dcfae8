<script lang="ts">
  interface Props {
    value: string;
    /** Called with what was typed when it is finished: Enter, or leaving the field. */
    commit: (text: string) => void;
    id?: string;
    placeholder?: string;
    disabled?: boolean;
    invalid?: boolean;
    describedby?: string;
    /** Words that may be picked instead of typed. */
    options?: string[];
  }
  let {
    value,
    commit,
    id,
    placeholder,
    disabled = false,
    invalid = false,
    describedby,
    options = [],
  }: Props = $props();
  // what is being typed stands until it is finished, whatever is saved or repainted meanwhile
  let typed = $state<string | null>(null);
  const list = $derived(options.length && id ? `${id}-options` : undefined);

  function finish() {
    const text = typed;
    typed = null;
    if (text !== null && text.trim() !== value) commit(text.trim());
  }
</script>

<input
  {id}
  class="control figure w-full {invalid ? '!border-signal' : ''}"
  autocomplete="off"
  {placeholder}
  {disabled}
  {list}
  value={typed ?? value}
  aria-invalid={invalid ? "true" : undefined}
  aria-describedby={describedby}
  oninput={(event) => (typed = event.currentTarget.value)}
  onchange={finish}
  onblur={finish}
/>
{#if list}<datalist id={list}
    >{#each options as option (option)}<option value={option}></option>{/each}</datalist
  >{/if}
