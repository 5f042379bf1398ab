/** Dragging on the bars: bars by their number, chords by their symbol, with the pointer at once and with a finger after it has rested. */
import { LongPress } from '../../kit/touch';

/** What is dragged: the bars that are selected, or one chord. */
export type Dragged =
  | { readonly kind: 'bars'; readonly bar: number }
  | { readonly kind: 'chord'; readonly bar: number; readonly chord: number };

/** Where it would be dropped: before a bar, or on a beat of it. */
export interface DropPlace {
  readonly bar: number;
  /** How far into the bar, from 0 to 1. */
  readonly part: number;
}

/** Pixels that a pointer moves before it drags. */
const BEGINS = 6;

export class BarDrag {
  readonly #drop: (dragged: Dragged, place: DropPlace) => void;
  readonly #press = new LongPress();
  #from: { readonly dragged: Dragged; readonly x: number; readonly y: number } | null = null;
  /** What is on its way; null at rest. */
  dragged: Dragged | null = $state.raw(null);
  over: DropPlace | null = $state.raw(null);
  /** A drag has just ended: the click that follows it is none. */
  #hasDropped = false;

  constructor(drop: (dragged: Dragged, place: DropPlace) => void) {
    this.#drop = drop;
  }

  down(event: PointerEvent): void {
    this.#hasDropped = false;
    const found = event.button === 0 && event.target instanceof Element ? draggedAt(event.target) : null;
    if (!found) return;
    this.#from = { dragged: found, x: event.clientX, y: event.clientY };
    const root = event.currentTarget as Element;
    if (event.pointerType === 'mouse') return;
    this.#press.begin(event, () => {
      this.dragged = this.#from?.dragged ?? null;
      root.setPointerCapture(event.pointerId);
    });
  }

  move(event: PointerEvent): void {
    if (!this.#from) return;
    this.#press.move(event);
    const { dragged, x, y } = this.#from;
    if (
      !this.dragged &&
      event.pointerType === 'mouse' &&
      Math.hypot(event.clientX - x, event.clientY - y) > BEGINS
    ) {
      this.dragged = dragged;
      (event.currentTarget as Element).setPointerCapture(event.pointerId);
    }
    if (this.dragged) this.over = placeAt(event.clientX, event.clientY) ?? this.over;
  }

  up(): void {
    this.#press.end();
    const { dragged, over } = this;
    this.#hasDropped = dragged !== null;
    this.cancel();
    if (dragged && over) this.#drop(dragged, over);
  }

  cancel(): void {
    this.#press.end();
    this.#from = null;
    this.dragged = null;
    this.over = null;
  }

  /** Whether a click is the end of a drag. */
  get isOfDrag(): boolean {
    return this.#hasDropped;
  }
}

function draggedAt(target: Element): Dragged | null {
  const bar = Number(target.closest('[data-bar]')?.getAttribute('data-bar') ?? NaN);
  if (Number.isNaN(bar)) return null;
  if (target.closest('[data-grip]')) return { kind: 'bars', bar };
  const chord = target.closest('[data-chord]')?.getAttribute('data-chord');
  return chord ? { kind: 'chord', bar, chord: Number(chord) } : null;
}

function placeAt(x: number, y: number): DropPlace | null {
  const box = document.elementFromPoint(x, y)?.closest('[data-bar]');
  if (!box) return null;
  const { left, width } = box.getBoundingClientRect();
  return {
    bar: Number(box.getAttribute('data-bar')),
    part: Math.max(0, Math.min(0.999, (x - left) / width))
  };
}
