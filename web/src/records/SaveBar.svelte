<script lang="ts">
  import type { RecordForm } from "./form.svelte";

  interface Props {
    form: RecordForm;
    save: () => void;
    close: () => void;
    label?: string;
  }
  let { form, save, close, label = "Save" }: Props = $props();
</script>

{#if form.problem}<p role="alert" class="text-signal mt-3">{form.problem}</p>{/if}
<div class="mt-3 flex gap-2">
  <button class="bg-ink text-sheet min-h-8 px-4 disabled:opacity-60" disabled={form.busy} onclick={save}
    >{label}</button
  >
  <button class="control" onclick={close}>Close</button>
</div>
