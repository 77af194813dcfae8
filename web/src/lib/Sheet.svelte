<script lang="ts">
  import X from "@lucide/svelte/icons/x";
  import { Dialog } from "bits-ui";
  import type { Snippet } from "svelte";

  interface Props {
    title: string;
    close: () => void;
    children: Snippet;
    wide?: boolean;
  }
  let { title, close, children, wide = false }: Props = $props();
  let body: HTMLElement | undefined = $state();

  /** The first field takes the focus, never the button that closes: what is typed at once goes where it belongs. */
  function begin(event: Event) {
    event.preventDefault();
    const fields = "input:not([type=file]):not(:disabled), select:not(:disabled), textarea:not(:disabled)";
    const first =
      body?.querySelector<HTMLElement>("[data-first]") ?? body?.querySelector<HTMLElement>(fields) ?? body;
    first?.focus();
  }
</script>

<Dialog.Root open onOpenChange={(open) => !open && close()}>
  <Dialog.Portal>
    <Dialog.Overlay class="fixed inset-0 z-40 bg-black/40" />
    <Dialog.Content
      onOpenAutoFocus={begin}
      class="bg-sheet text-ink border-edge fixed top-14 left-1/2 z-50 flex max-h-[82vh] -translate-x-1/2 flex-col border {wide
        ? 'w-[min(1000px,94vw)]'
        : 'w-[min(640px,94vw)]'}"
    >
      <div class="border-line flex items-center justify-between border-b px-4 py-2">
        <Dialog.Title class="text-[16px] font-semibold">{title}</Dialog.Title>
        <Dialog.Close class="min-h-8 min-w-8 p-1" aria-label="Close"><X size={18} /></Dialog.Close>
      </div>
      <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
      <div
        bind:this={body}
        class="min-h-0 overflow-auto px-4 py-3"
        tabindex="0"
        role="region"
        aria-label={title}
      >
        {@render children()}
      </div>
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>
