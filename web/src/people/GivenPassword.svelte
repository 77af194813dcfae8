<script lang="ts">
  import type { Schemas } from "../api/client";
  import Sheet from "../lib/Sheet.svelte";

  interface Props {
    given: Schemas["GivenPassword"];
    close: () => void;
  }
  let { given, close }: Props = $props();
</script>

<Sheet title="A password for {given.person.name}" {close}>
  <p>Hand it over in person. It is shown this once, and must be changed at first sign-in.</p>
  <p class="figure bg-wash border-line my-3 border px-3 py-2 text-[18px]" data-testid="given">
    {given.password}
  </p>
  <button class="bg-ink text-sheet min-h-8 px-4" data-first onclick={close}>Done</button>
</Sheet>
