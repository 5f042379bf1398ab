<!-- The frame of a drawing in time: a card in which it scrolls from left to right. -->
<script lang="ts">
  import type { Snippet } from 'svelte';
  import type { TimeView } from './time-view.svelte';

  interface Props {
    view: TimeView;
    /** What the drawing is called; and what is scrolled. */
    name: string;
    scrolled: string;
    /** Nothing in it is come to by the Tab key: the frame is, to be scrolled by keys. */
    isStop?: boolean;
    /** Drawn anew by itself, whatever is around it. */
    hasOwnLayer?: boolean;
    children: Snippet;
    /** What stands below and does not scroll. */
    below?: Snippet;
  }
  let { view, name, scrolled, isStop = false, hasOwnLayer = false, children, below }: Props = $props();
</script>

<section class="relative min-w-0 overflow-hidden card" aria-label={name}>
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <div
    class="relative overflow-x-auto overflow-y-hidden {hasOwnLayer ? 'own-layer' : ''}"
    role="group"
    aria-label="{scrolled}, to be scrolled"
    tabindex={isStop ? 0 : undefined}
    bind:clientWidth={view.available}
    {@attach view.scroller.follow}
  >
    {@render children()}
  </div>
  {@render below?.()}
</section>
