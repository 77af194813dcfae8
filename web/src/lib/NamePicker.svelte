<script lang="ts">
  import { Combobox } from "bits-ui";

  interface Item {
    value: string;
    label: string;
    more: string;
    words: string;
  }
  interface Props {
    label: string;
    value: string;
    items: Item[];
    choose: (value: string) => void;
    disabled?: boolean;
    /** Where not all of them are at hand: what is typed, to look it up by. */
    search?: (text: string) => void;
  }
  let { label, value, items, choose, disabled = false, search }: Props = $props();

  let text = $state("");
  function forget() {
    text = "";
    search?.("");
  }
  const plain = (name: string) => name.toLowerCase().replace(/[\s\-_./]+/g, "");
  const found = $derived(text ? items.filter((item) => plain(item.words).includes(plain(text))) : items);
</script>

<Combobox.Root
  type="single"
  {value}
  {disabled}
  inputValue={text || value}
  onValueChange={(picked) => {
    if (picked) choose(picked);
    forget();
  }}
  onOpenChange={(open) => !open && forget()}
>
  <Combobox.Input
    class="control w-full"
    aria-label={label}
    oninput={(event) => {
      text = event.currentTarget.value;
      search?.(text);
    }}
  />
  <Combobox.Portal>
    <Combobox.Content
      class="bg-sheet border-edge z-50 max-h-72 w-[360px] overflow-auto border"
      sideOffset={2}
    >
      {#each found as item (item.value)}
        <Combobox.Item
          value={item.value}
          label={item.label}
          class="data-highlighted:bg-ink data-highlighted:text-sheet grid grid-cols-[170px_1fr] gap-2 px-2 py-1"
        >
          <span class="truncate font-semibold">{item.label}</span><span class="truncate">{item.more}</span>
        </Combobox.Item>
      {:else}
        <p class="text-soft px-2 py-2">No material by that name.</p>
      {/each}
    </Combobox.Content>
  </Combobox.Portal>
</Combobox.Root>
