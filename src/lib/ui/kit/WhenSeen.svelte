<!-- A part of a scrolled list that is drawn when it comes near what is in sight; until then it keeps its room. -->
<script lang="ts">
  import { untrack, type Snippet } from 'svelte';
  import type { Attachment } from 'svelte/attachments';

  interface Props {
    /** What scrolls. */
    root: HTMLElement | undefined;
    /** Drawn from the first picture on, before anything can be measured. */
    isFirst?: boolean;
    children: Snippet;
  }
  let { root, isFirst = false, children }: Props = $props();

  /** Pixels beyond what is in sight: a row that keys go to next is there. */
  const NEAR = 80;
  /** Pixels, where it has never been drawn. */
  const USUAL_HEIGHT = 180;
  let isSeen = $state(untrack(() => isFirst));
  let height = $state(USUAL_HEIGHT);

  const follow: Attachment<HTMLElement> = (element) => {
    if (!root) return;
    const observer = new IntersectionObserver(
      (entries) => {
        const { isIntersecting, boundingClientRect } = entries.at(-1)!;
        if (isSeen && boundingClientRect.height > 0) height = boundingClientRect.height;
        isSeen = isIntersecting;
      },
      { root, rootMargin: `${NEAR}px` }
    );
    observer.observe(element);
    return () => observer.disconnect();
  };
</script>

<div style:min-height={isSeen ? undefined : `${height}px`} {@attach follow}>
  {#if isSeen}{@render children()}{/if}
</div>
