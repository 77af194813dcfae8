<script lang="ts" generics="T extends string">
  import { ToggleGroup } from "bits-ui";

  interface Props {
    label: string;
    options: T[];
    value: T;
    choose: (value: T) => void;
    disabled?: boolean;
    /** How an option is told, where it is not as it is kept. */
    told?: Partial<Record<T, string>>;
    /** On the dark head or on a sheet. */
    tone?: "head" | "sheet";
  }
  let { label, options, value, choose, disabled = false, told = {}, tone = "head" }: Props = $props();
</script>

<ToggleGroup.Root
  type="single"
  aria-label={label}
  {value}
  {disabled}
  onValueChange={(picked) => picked && choose(picked as T)}
  class="flex min-h-[26px] border {tone === 'head' ? 'border-bar-soft/60' : 'border-edge'} rounded-[2px]"
>
  {#each options as option (option)}
    <ToggleGroup.Item
      value={option}
      class="px-2.5 leading-none {tone === 'head'
        ? 'data-[state=on]:bg-bar-ink data-[state=on]:text-bar text-bar-ink'
        : 'data-[state=on]:bg-ink data-[state=on]:text-sheet'} data-[state=on]:font-semibold"
    >
      {told[option] ?? option}
    </ToggleGroup.Item>
  {/each}
</ToggleGroup.Root>
