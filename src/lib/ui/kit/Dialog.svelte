<!-- What opens over the page: a title, what it says, and a way back. -->
<script lang="ts">
  import { Dialog } from 'bits-ui';
  import type { Snippet } from 'svelte';
  import { button } from './button';

  interface Props {
    open: boolean;
    title: string;
    /** A sentence under the title. */
    says?: string | undefined;
    size?: 'narrow' | 'normal' | 'wide';
    children: Snippet;
    /** Beside the button that closes. */
    actions?: Snippet | undefined;
    closing?: string;
    onOpenAutoFocus?: ((event: Event) => void) | undefined;
  }
  let {
    open = $bindable(),
    title,
    says,
    size = 'normal',
    children,
    actions,
    closing = 'Close',
    onOpenAutoFocus
  }: Props = $props();
  const WIDTHS = {
    narrow: 'w-[min(520px,94vw)]',
    normal: 'w-[min(720px,94vw)]',
    wide: 'w-[min(880px,94vw)]'
  } as const;
</script>

<Dialog.Root bind:open>
  <Dialog.Portal>
    <Dialog.Overlay class="fixed inset-0 z-40 bg-black/50 print:hidden" />
    <Dialog.Content
      class="fixed top-[6vh] left-1/2 z-50 flex max-h-[88vh] -translate-x-1/2 flex-col card p-5 max-sm:p-3 print:hidden {WIDTHS[
        size
      ]}"
      {...onOpenAutoFocus ? { onOpenAutoFocus } : {}}
    >
      <Dialog.Title class="font-display text-2xl">{title}</Dialog.Title>
      {#if says}<Dialog.Description class="mt-1 text-sm text-soft">{says}</Dialog.Description>{/if}
      <div class="mt-3 min-h-0 flex-1 overflow-y-auto">{@render children()}</div>
      <div class="mt-4 flex flex-wrap items-center justify-end gap-2">
        {@render actions?.()}
        <Dialog.Close class={button({ tone: 'strong' })}>{closing}</Dialog.Close>
      </div>
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>
