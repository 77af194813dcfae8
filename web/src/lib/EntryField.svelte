<script lang="ts">
  interface Props {
    value: string;
    /** Called with what was typed when it is finished: Enter, or leaving the field. */
    commit: (text: string) => void;
    placeholder?: string;
    disabled?: boolean;
    invalid?: boolean;
    describedby?: string;
  }
  let { value, commit, placeholder, disabled = false, invalid = false, describedby }: Props = $props();
  // what is being typed stands until it is finished, whatever is saved or repainted meanwhile
  let typed = $state<string | null>(null);

  function finish() {
    const text = typed;
    typed = null;
    if (text !== null && text.trim() !== value) commit(text.trim());
  }
</script>

<input
  class="control figure w-full {invalid ? '!border-signal' : ''}"
  autocomplete="off"
  {placeholder}
  {disabled}
  value={typed ?? value}
  aria-invalid={invalid ? "true" : undefined}
  aria-describedby={describedby}
  oninput={(event) => (typed = event.currentTarget.value)}
  onchange={finish}
  onblur={finish}
/>
