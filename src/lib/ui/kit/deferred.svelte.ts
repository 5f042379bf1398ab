/** Draws what is long in two strokes: what is seen first with the first picture, the rest just behind it. */
import { onMount } from 'svelte';

/** Does something just behind the next picture, unless what is given back is called before. */
export function behindPicture(work: () => void): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined;
  // A frame is asked for before the picture, a timer within it runs after.
  const frame = requestAnimationFrame(() => (timer = setTimeout(work)));
  return () => {
    cancelAnimationFrame(frame);
    clearTimeout(timer);
  };
}

export class Deferred {
  /** How many items are drawn by now. */
  count: number = $state(0);

  /** For a component as it is made. `first`: how many items the first picture holds. */
  constructor(first: number) {
    this.count = first;
    onMount(() => behindPicture(() => (this.count = Infinity)));
  }
}
