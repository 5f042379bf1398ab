<!-- A button: with words, or an icon with a name; a hint says what it does where that is not plain. -->
<script lang="ts">
  import type { Snippet } from 'svelte';
  import type { HTMLButtonAttributes } from 'svelte/elements';
  import { button, type ButtonLook } from './button';

  interface Props extends HTMLButtonAttributes, ButtonLook {
    /** The name of an icon. */
    label?: string | undefined;
    hint?: string | undefined;
    /** On or off; leave out for what is done once. */
    pressed?: boolean | undefined;
    element?: HTMLButtonElement | undefined;
    children: Snippet;
  }
  let {
    label,
    hint,
    pressed,
    size,
    tone,
    isRound,
    element = $bindable(),
    class: extra = '',
    children,
    ...rest
  }: Props = $props();
</script>

<button
  type="button"
  bind:this={element}
  class={button({ size, tone, isRound, isIcon: label !== undefined, class: extra as string })}
  aria-label={label}
  aria-pressed={pressed}
  {...rest}
  data-hint={hint ?? label}>{@render children()}</button
>
