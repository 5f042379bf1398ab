/**
 * What of a long row is in sight: only that is drawn. Items stand one behind another along the row; the window moves in
 * steps, so that a scroll draws anew now and then, not with every pixel.
 */
import { untrack } from 'svelte';
import type { Attachment } from 'svelte/attachments';
import { DEBOUNCE } from './debounced.svelte';

/** The first item in sight and the first one behind them. */
export interface Range {
  readonly from: number;
  readonly to: number;
}

/** Items drawn on either side beyond what is in sight. */
const OVER = 1;
/** How far beyond is drawn while the player scrolls, as a part of what is in sight. */
const AHEAD = 0.5;
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

/** Milliseconds without a further scroll after which a row has come to rest. */
const REST = 150;

/** Where a row is going, and all that it passes on the way there, in pixels. */
interface Way {
  readonly goal: number;
  readonly left: number;
  readonly right: number;
}

/** Follows how far a scroller has been scrolled, frame by frame. */
export class ScrollWindow {
  left = $state(0);
  width = $state(1000);
  /** While the row is on its way: what it passes is drawn in one step, not piece by piece as it comes into sight. */
  #way: Way | null = $state.raw(null);
  /** Whether the player scrolls. */
  #isScrolled = $state(false);
  #element: HTMLElement | null = null;
  #going = 0;
  /** When the player stepped last. */
  #asked = -Infinity;
  #rest: ReturnType<typeof setTimeout> | undefined;

  /** For the scroller itself. */
  readonly follow: Attachment<HTMLElement> = (element) => {
    this.#element = element;
    let frame = 0;
    const plan = () => {
      frame ||= requestAnimationFrame(() => {
        frame = 0;
        const before = this.left;
        this.#read();
        if (!this.#way && this.left !== before) this.#isScrolled = true;
      });
      this.#awaitRest();
    };
    element.addEventListener('scroll', plan, { passive: true });
    // It tells of the first size too. Reading it here would have the page laid out before all of it is there.
    const resized = new ResizeObserver(plan);
    resized.observe(element);
    return () => {
      cancelAnimationFrame(frame);
      cancelAnimationFrame(this.#going);
      clearTimeout(this.#rest);
      element.removeEventListener('scroll', plan);
      resized.disconnect();
      this.#element = null;
    };
  };

  /**
   * The items of a row that are to be drawn, told anew only where they are others. `start`: where an item begins, in pixels;
   * it grows with the item.
   */
  row(count: () => number, start: (item: number) => number): Range {
    const range = $derived.by(() => {
      const ahead = this.#isScrolled ? AHEAD * this.width : 0;
      const [left, right] = [this.left - ahead, this.left + this.width + ahead];
      const { left: from, right: to } = this.#way ?? { left, right };
      return rangeOf(count(), start, Math.min(left, from), Math.max(right, to));
    });
    // Each by itself: what reads them is not asked again for a scroll that brings nothing new.
    const from = $derived(range.from);
    const to = $derived(range.to);
    return {
      get from() {
        return from;
      },
      get to() {
        return to;
      }
    };
  }

  /** Brings the stretch that the player has stepped to into sight, where it is not; one in a hurry is not carried there. */
  show(left: number, right: number): void {
    const now = performance.now();
    const isHurried = now - this.#asked < DEBOUNCE;
    this.#asked = now;
    this.#bringIntoSight(left, right, isHurried);
  }

  /** Brings the stretch that the music has come to into sight, where it is not. */
  keep(left: number, right: number): void {
    this.#bringIntoSight(left, right, false);
  }

  /** A third of the way in. A long way is not travelled but taken at once. */
  #bringIntoSight(left: number, right: number, isHurried: boolean): void {
    if (this.#isInSight(left, right)) return;
    const isFar = Math.abs(left - untrack(() => this.left)) > 3 * this.width;
    const isAtOnce = isHurried || isFar || matchMedia('(prefers-reduced-motion: reduce)').matches;
    this.#go(left - this.width / 3, isAtOnce ? 'instant' : 'smooth');
  }

  /** Brings the middle of a stretch to the middle, at once, where the stretch is not in sight. */
  centre(left: number, right: number): void {
    if (!this.#isInSight(left, right)) this.#go((left + right - this.width) / 2, 'instant');
  }

  #read(): void {
    if (!this.#element) return;
    this.left = this.#element.scrollLeft;
    this.width = this.#element.clientWidth;
  }

  /** Goes by what was followed: asking the element would have the page laid out on the spot. */
  #go(left: number, behavior: 'instant' | 'smooth'): void {
    const goal = Math.max(0, left);
    const [from, width] = untrack(() => [this.left, this.width]);
    if (behavior === 'smooth') {
      this.#way = { goal, left: Math.min(from, goal), right: Math.max(from, goal) + width };
      this.#awaitRest();
    } else {
      this.#way = null;
      this.left = goal;
    }
    cancelAnimationFrame(this.#going);
    this.#going = requestAnimationFrame(() => {
      this.#element?.scrollTo({ left: goal, behavior });
      // The row may end before the goal.
      if (behavior === 'instant') this.#read();
    });
  }

  #awaitRest(): void {
    clearTimeout(this.#rest);
    this.#rest = setTimeout(() => {
      this.#way = null;
      this.#isScrolled = false;
    }, REST);
  }

  /** An effect that asks is run again when the room changes, not when the player scrolls. */
  #isInSight(left: number, right: number): boolean {
    const room = this.width;
    return untrack(() => {
      const place = this.#way?.goal ?? this.left;
      return Math.max(0, left) >= place && right <= place + room;
    });
  }
}
