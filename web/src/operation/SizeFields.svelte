<script lang="ts">
  import FormField from "../lib/FormField.svelte";
  import type { Measuring } from "./measure.svelte";

  interface Props {
    measuring: Measuring;
    /** What the plan commands, written in the field until something else is. */
    planned?: string;
    width?: string;
  }
  let { measuring, planned = "", width = "w-32" }: Props = $props();
</script>

<label class="grid {width}"
  >commanded Ø <FormField
    field="commanded"
    problem={measuring.refusal}
    inputmode="decimal"
    bind:value={() => measuring.commanded(planned), (text) => (measuring.draft.value.commanded = text)}
  /></label
>
<label class="grid {width}"
  >measured Ø <FormField
    field="measured"
    problem={measuring.doubt ? null : measuring.refusal}
    inputmode="decimal"
    bind:value={measuring.draft.value.measured}
  /></label
>
