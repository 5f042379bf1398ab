<!--
  A part of a scrolled list. In sight it follows at once; out of sight it follows when the player rests, so that a step
  from one thing to the next costs what is seen of it. It is always there, to be found and read out.
-->
<script lang="ts" generics="Value">
  import { untrack, type Snippet } from 'svelte';
  import type { Attachment } from 'svelte/attachments';

  interface Props {
    value: Value;
    /** What scrolls. */
    root: HTMLElement | undefined;
    /** Follows at once wherever it is: the keyboard is in the list. */
    isAwake: boolean;
    children: Snippet<[Value]>;
  }
  let { value, root, isAwake, children }: Props = $props();

  /** Milliseconds without a further change that count as resting. */
  const REST = 120;
  /** Pixels beyond what is in sight that count as seen. */
  const NEAR = 40;
  let isSeen = $state(true);
  let late = $state.raw(untrack(() => value));
  const isFollowing = $derived(isSeen || isAwake);
  const shown = $derived(isFollowing ? value : late);

  $effect(() => {
    const next = value;
    if (isFollowing) {
      late = next;
      return;
    }
    const timer = setTimeout(() => (late = next), REST);
    return () => clearTimeout(timer);
  });

  const follow: Attachment<HTMLElement> = (element) => {
    if (!root) return;
    const observer = new IntersectionObserver(
      (entries) => {
        isSeen = entries.at(-1)!.isIntersecting;
      },
      { root, rootMargin: `${NEAR}px` }
    );
    observer.observe(element);
    return () => observer.disconnect();
  };
</script>

<div {@attach follow}>{@render children(shown)}</div>
