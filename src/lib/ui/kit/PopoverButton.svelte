<!-- A button that opens a small panel of controls beside it; Escape or a press elsewhere closes it, and the focus comes back. -->
<script lang="ts">
  import { Popover } from 'bits-ui';
  import type { Snippet } from 'svelte';
  import { button, type ButtonLook } from './button';

  interface Props {
    /** What the button is called where its face does not say it. */
    label: string;
    /** What the panel is called; else as the button. */
    panelLabel?: string | undefined;
    hint: string;
    isOpen?: boolean;
    look?: ButtonLook & { isIcon?: boolean };
    /** Width and room of the panel. */
    class?: string;
    /** The element that the panel lies in, as a selector; else the page. */
    within?: string | undefined;
    face: Snippet;
    children: Snippet;
  }
  let {
    label,
    panelLabel = label,
    hint,
    isOpen = $bindable(false),
    look = {},
    class: own = 'w-72 gap-2 p-3 text-sm',
    within,
    face,
    children
  }: Props = $props();
</script>

<Popover.Root bind:open={isOpen}>
  <Popover.Trigger class={button(look)} aria-label={label} data-hint={hint}>{@render face()}</Popover.Trigger>
  <Popover.Portal to={within}>
    <Popover.Content
      class="z-50 flex max-h-[85dvh] max-w-[calc(100vw-16px)] flex-col overflow-y-auto card shadow-lg {own}"
      sideOffset={6}
      collisionPadding={8}
      aria-label={panelLabel}
      data-panel={panelLabel}
    >
      {@render children()}
    </Popover.Content>
  </Popover.Portal>
</Popover.Root>
