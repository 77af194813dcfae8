<script lang="ts">
  let { code }: { code: string } = $props();
  // the product's own line drawings of the form classes
  const drawings: Record<string, string> = {
    "1": "M1,12C5,2 9,18 13,8S21,3 27,11",
    "2": "M2,9c0-6 5-6 5 0s-5 6-5 0m6 0c0-6 5-6 5 0s-5 6-5 0m6 0c0-6 5-6 5 0s-5 6-5 0m6 0c0-6 5-6 5 0s-5 6-5 0",
    "3": "M15,9c0-1 2-1 2 1s-4 2-4-1 6-4 6 1-8 4-8-1 10-6 10 2-12 5-12-2S19,1 21,7l5,-3",
    "5": "M2,9c0-3 3-3 3 0s-3 3-3 0m4 0c0-4 4-4 4 0s-4 4-4 0m6 0c0-6 6-6 6 0s-6 6-6 0m8 0c0-8 7-8 7 0s-7 8-7 0",
    "6": "M2,13c0-9 8-9 9-1m2 3c0-9 8-9 9-1m1-6c0-6 5-6 5-1",
    "7": "M3,12l2-3l2 3zM10,8l2-3l2 3zM15,14l2-3l2 3zM21,9l2-3l2 3z",
  };
  const path = $derived(drawings[code.charAt(0)] ?? drawings["6"]);
</script>

<svg viewBox="0 0 30 18" class="h-[18px] w-[30px]" aria-hidden="true"
  ><path d={path} fill="none" stroke="currentColor" stroke-width="1.3" /></svg
>
