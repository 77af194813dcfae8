<script lang="ts">
  /** Several ways against each other: what each sets otherwise than the plan. */
  export interface Way {
    name: string;
    settings: Record<string, string>;
    tool: string;
  }
  interface Props {
    ways: Way[];
    bars: string;
    /** Settings that may differ: name and label. */
    fields: { name: string; label: string }[];
    /** Tools that come close, by what their parts are called. */
    tools: { label: string; tool: Record<string, string> }[];
  }
  let { ways = $bindable(), bars = $bindable(), fields, tools }: Props = $props();
  const LETTERS = "ABCDEFGH";
  const add = () =>
    (ways = [...ways, { name: LETTERS[ways.length] ?? `${ways.length + 1}`, settings: {}, tool: "" }]);
</script>

<fieldset class="grid gap-2" data-testid="ways">
  <legend class="text-soft"
    >Blank is as planned. On each bar all ways are cut, in an order left to chance: what drifts falls on all
    alike.</legend
  >
  {#each ways as way, k (k)}
    <div class="border-line flex flex-wrap items-end gap-2 border-t pt-2">
      <label class="grid w-32"
        ><span class="text-soft text-[13px]">way</span><input
          class="control w-full"
          maxlength="60"
          bind:value={way.name}
        /></label
      >
      {#each fields as field (field.name)}
        <label class="grid w-28"
          ><span class="text-soft text-[13px]">{field.label}</span><input
            class="control w-full"
            placeholder="as planned"
            bind:value={way.settings[field.name]}
          /></label
        >
      {/each}
      <label class="grid min-w-48 flex-1"
        ><span class="text-soft text-[13px]">tool</span>
        <select class="control w-full" bind:value={way.tool}>
          <option value="">as planned</option>
          {#each tools as one (one.label)}<option value={one.label}>{one.label}</option>{/each}
        </select></label
      >
      {#if ways.length > 2}<button
          type="button"
          class="control"
          aria-label="leave out way {way.name}"
          onclick={() => (ways = ways.filter((_, at) => at !== k))}>−</button
        >{/if}
    </div>
  {/each}
  <div class="flex items-end gap-3">
    {#if ways.length < 8}<button type="button" class="control" onclick={add}>one more way</button>{/if}
    <label class="grid w-24"
      ><span class="text-soft text-[13px]">bars</span><input
        class="control w-full"
        inputmode="numeric"
        bind:value={bars}
      /></label
    >
  </div>
</fieldset>
