<script lang="ts">
  let { label, letter = $bindable() }: { label: string; letter: string } = $props();
</script>

<label
  >{label}
  <select class="control" bind:value={letter}>
    <option value="">any</option>
    {#each "PMKNSH" as one (one)}<option>{one}</option>{/each}
  </select></label
>
