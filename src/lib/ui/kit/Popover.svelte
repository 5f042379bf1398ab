<!-- A few controls behind a button. -->
<script lang="ts">
  import { Popover } from 'bits-ui';
  import type { Snippet } from 'svelte';
  import { button, type ButtonLook } from './button';
  import { hint as hinted } from './hint';

  interface Props extends ButtonLook {
    label: string;
    hint?: string | undefined;
    /** What stands on the button. */
    trigger: Snippet;
    children: Snippet;
    open?: boolean;
    class?: string;
  }
  let {
    label,
    hint,
    trigger,
    children,
    open = $bindable(false),
    size,
    tone,
    isRound,
    class: extra = ''
  }: Props = $props();
</script>

<Popover.Root bind:open>
  <Popover.Trigger
    class={button({ size, tone, isRound, class: extra })}
    aria-label={label}
    {@attach hinted(hint)}>{@render trigger()}</Popover.Trigger
  >
  <Popover.Portal>
    <Popover.Content
      class="z-50 max-h-(--bits-popover-content-available-height) w-[min(30rem,94vw)] overflow-y-auto card p-4 shadow-lg"
      sideOffset={6}
      collisionPadding={8}
      aria-label={label}
    >
      {@render children()}
    </Popover.Content>
  </Popover.Portal>
</Popover.Root>
