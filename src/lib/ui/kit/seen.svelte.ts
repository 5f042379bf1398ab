/**
 * What of a long row is in sight: only that is drawn. Items stand one behind another along the row; the window moves in
 * steps, so that a scroll draws anew now and then, not with every pixel.
 */
import { untrack } from 'svelte';
import type { Attachment } from 'svelte/attachments';

/** The first item in sight and the first one behind them. */
export interface Range {
  readonly from: number;
  readonly to: number;
}

/** Items drawn on either side beyond what is in sight. */
const OVER = 2;
/** Items by which the window moves. */
const STEP = 2;

/** How many of the items begin before a place; `start` grows with the item. */
function countBefore(count: number, start: (item: number) => number, place: number): number {
  let [low, high] = [0, count];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (start(middle) < place) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** The items to be drawn for a stretch of the row, in the unit of `start`. */
export function rangeOf(count: number, start: (item: number) => number, left: number, right: number): Range {
  const first = Math.max(0, countBefore(count, start, left) - 1 - OVER);
  const last = Math.min(count, countBefore(count, start, right) + OVER);
  return {
    from: Math.floor(first / STEP) * STEP,
    to: Math.min(count, Math.ceil(last / STEP) * STEP)
  };
}

/** Follows how far a scroller has been scrolled, frame by frame. */
export class Seen {
  left = $state(0);
  width = $state(1000);
  #element: HTMLElement | null = null;

  /** For the scroller itself. */
  readonly follow: Attachment<HTMLElement> = (element) => {
    this.#element = element;
    let frame = 0;
    const read = () => {
      frame = 0;
      this.left = element.scrollLeft;
      this.width = element.clientWidth;
    };
    const plan = () => {
      frame ||= requestAnimationFrame(read);
    };
    element.addEventListener('scroll', plan, { passive: true });
    // It tells of the first size too. Reading it here would have the page laid out before all of it is there.
    const resized = new ResizeObserver(plan);
    resized.observe(element);
    return () => {
      cancelAnimationFrame(frame);
      element.removeEventListener('scroll', plan);
      resized.disconnect();
      this.#element = null;
    };
  };

  range(count: number, start: (item: number) => number): Range {
    return rangeOf(count, start, this.left, this.left + this.width);
  }

  /**
   * Brings a stretch into sight, a third of the way in, where it is not there already. Goes by what was followed: asking
   * the element would have the page laid out on the spot.
   */
  show(left: number, right: number): void {
    if (this.#isInSight(left, right)) return;
    const calm = matchMedia('(prefers-reduced-motion: reduce)').matches;
    // A long way is not travelled, it is taken at once.
    const isFar = Math.abs(left - untrack(() => this.left)) > 3 * this.width;
    this.#element?.scrollTo({ left: left - this.width / 3, behavior: calm || isFar ? 'instant' : 'smooth' });
  }

  /** Brings the middle of a stretch to the middle, at once, where the stretch is not in sight. */
  centre(left: number, right: number): void {
    if (this.#isInSight(left, right)) return;
    this.#element?.scrollTo({ left: (left + right - this.width) / 2, behavior: 'instant' });
  }

  /** An effect that asks is run again when the room changes, not when the player scrolls. */
  #isInSight(left: number, right: number): boolean {
    const room = this.width;
    return untrack(() => Math.max(0, left) >= this.left && right <= this.left + room);
  }
}
