<script lang="ts">
  let { lines }: { lines: string[] } = $props();
</script>

<details class="mt-3">
  <summary class="cursor-pointer font-semibold">Working</summary>
  <ol class="figure mt-1 grid gap-0.5">
    {#each lines as line, k (k)}<li>{line}</li>{/each}
  </ol>
</details>
