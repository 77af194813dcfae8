<script lang="ts">
  import { page } from "../page.svelte";

  page.open("Nothing here", [{ label: "Nothing here" }]);
</script>

<div class="p-6">
  <h1 class="text-xl font-semibold">There is nothing here by that name</h1>
  <p class="mt-2"><a class="plain-link" href="#/">Back to the jobs</a></p>
</div>
