<!--
  A part of a scrolled list beside the thing that is looked at. In sight it follows a step at once and a run of steps at its end,
  out of sight when the player rests, so that a step costs what is seen of it. It is always there, to be found and read out.
-->
<script lang="ts" generics="Value">
  import type { Snippet } from 'svelte';
  import type { Attachment } from 'svelte/attachments';
  import { lastOf } from '$lib/core/base/list';
  import { Debounced } from './debounced.svelte';

  interface Props {
    value: Value;
    /** What scrolls. */
    root: HTMLElement | undefined;
    /** Follows at once wherever it is: the player is in the list. */
    isAwake: boolean;
    children: Snippet<[Value]>;
  }
  let { value, root, isAwake, children }: Props = $props();

  /** Pixels beyond what is in sight that count as seen. */
  const NEAR = 40;
  let isSeen = $state(true);
  const followed = new Debounced(
    () => value,
    () => !isSeen
  );
  const shown = $derived(isAwake ? value : followed.value);

  const follow: Attachment<HTMLElement> = (element) => {
    if (!root) return;
    const observer = new IntersectionObserver(
      (entries) => {
        isSeen = lastOf(entries).isIntersecting;
      },
      { root, rootMargin: `${NEAR}px` }
    );
    observer.observe(element);
    return () => observer.disconnect();
  };
</script>

<div {@attach follow}>{@render children(shown)}</div>
