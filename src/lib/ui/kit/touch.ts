/**
 * Touch on drawings: what can be dragged is dragged, every other swipe scrolls the page. `touch-action` does nothing
 * inside a drawing, so that the swipe is stopped where it begins on something to drag.
 */
import type { Attachment } from 'svelte/attachments';

/**
 * For a drawing whose draggable things carry `data-drag`. `isDragging` says that a swipe belongs to the drawing wherever
 * it began, as after a long press.
 */
export function dragByTouch(isDragging: () => boolean = () => false): Attachment<Element> {
  return (drawing) => {
    const hold = (event: Event) => {
      const isHandle = event.target instanceof Element && event.target.closest('[data-drag]') !== null;
      if (event.cancelable && (isHandle || isDragging())) event.preventDefault();
    };
    // A listener that may stop the scrolling has to say so.
    drawing.addEventListener('touchmove', hold, { passive: false });
    return () => drawing.removeEventListener('touchmove', hold);
  };
}

/** Milliseconds that a finger rests before it paints. */
const LONG_PRESS = 350;
/** Pixels that a finger may move meanwhile. */
const STILL = 8;

/** Tells a long press from a swipe and from a tap; one for each drawing. */
export class LongPress {
  #timer: ReturnType<typeof setTimeout> | undefined;
  #from: { readonly x: number; readonly y: number } | null = null;

  /** A finger has come down; `pressed` is called when it has rested long enough. */
  begin({ clientX, clientY }: PointerEvent, pressed: () => void): void {
    clearTimeout(this.#timer);
    this.#from = { x: clientX, y: clientY };
    this.#timer = setTimeout(() => {
      this.#from = null;
      pressed();
    }, LONG_PRESS);
  }

  /** The finger has moved: too far, and it is a swipe. */
  move({ clientX, clientY }: PointerEvent): void {
    if (this.#from && Math.hypot(clientX - this.#from.x, clientY - this.#from.y) > STILL) this.end();
  }

  /** The finger is up or the press is over; true where it was a tap. */
  end(): boolean {
    clearTimeout(this.#timer);
    const isTap = this.#from !== null;
    this.#from = null;
    return isTap;
  }
}
