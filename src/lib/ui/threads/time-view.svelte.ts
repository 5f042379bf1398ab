/** A drawing in time that scrolls: how wide it is, and what of it is in sight. Threads, lines and takes are laid on one. */
import { nth } from '$lib/core/base/list';
import type { Form } from '$lib/core/chart/unroll';
import { ScrollWindow, type Range } from '../kit/scroll-window.svelte';
import { layOutTime } from './layout';

interface Drawn {
  readonly changes: readonly { readonly start: number; readonly beats: number }[];
  readonly form: Form;
  /** Pixels that a beat takes at least; 0 where the columns alone decide. */
  readonly leastBeat?: number;
  /** The change that is looked at. */
  readonly selected: number;
}

/** Pixels that the frame takes of the room. */
const FRAME = 2;

export class TimeView {
  /** Pixels that there are for the drawing; set by its frame. */
  available = $state(900);
  readonly scroller = new ScrollWindow();
  readonly #drawn: () => Drawn;
  readonly #columns: Range;
  readonly #bars: Range;

  readonly timeline = $derived.by(() => {
    const { changes, form, leastBeat = 0 } = this.#drawn();
    return layOutTime(changes, form.beats, Math.max(this.available - FRAME, form.beats * leastBeat));
  });
  /** The changes and the bars that are in sight. */
  readonly columns = $derived.by(() => this.timeline.columns.slice(this.#columns.from, this.#columns.to));
  readonly bars = $derived.by(() => this.#drawn().form.bars.slice(this.#bars.from, this.#bars.to));

  constructor(drawn: () => Drawn) {
    this.#drawn = drawn;
    this.#columns = this.scroller.row(
      () => this.timeline.columns.length,
      (i) => nth(this.timeline.columns, i).x
    );
    this.#bars = this.row(
      () => drawn().form.bars.length,
      (i) => nth(drawn().form.bars, i).start
    );
    $effect(() => {
      const column = this.timeline.columns[drawn().selected];
      if (column) this.scroller.show(column.x, column.x + column.width);
    });
  }

  /** The numbers of the changes in sight: the first, and the first behind them. */
  get range(): Range {
    return this.#columns;
  }

  /** What of a row of things in time is in sight. `start`: the beat of the form at which one begins; it grows with the thing. */
  row(count: () => number, start: (item: number) => number): Range {
    return this.scroller.row(count, (i) => this.timeline.time(start(i)));
  }
}
