<script lang="ts">
  /** What stands beside every program that leaves the bench. */
</script>

<p class="text-warn mt-2">
  <b>Warning:</b> prove it out: single block, dry, above the part, hand on feed hold. The machine's own manual and
  trained people come first.
</p>
