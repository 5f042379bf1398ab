/** Painting a way of the hand over the position map: with a pointer at once; a finger rests first, so that a swipe scrolls. */
import { LongPress } from '../kit/touch';
import type { MapColumn } from './columns';

/** A cell that was pressed: its row, and the column it is in. */
export interface HitCell {
  readonly row: number;
  readonly column: MapColumn;
}

interface Board {
  /** The cell under a pointer; null beside all of them. */
  readonly hit: (event: PointerEvent) => HitCell | null;
  /** A cell was pressed; true where it is dealt with, and nothing is painted. */
  readonly pressed: (cell: HitCell) => boolean;
  /** What was painted: rows by change. */
  readonly painted: (rows: ReadonlyMap<number, number>) => void;
}

export class MapPainting {
  /** Cells passed over while the pointer is down: row by change. */
  stroke: ReadonlyMap<number, number> | null = $state.raw(null);
  readonly #board: Board;
  readonly #finger = new LongPress();

  constructor(board: Board) {
    this.#board = board;
  }

  start(event: PointerEvent): void {
    if (event.button !== 0) return;
    if (event.pointerType === 'touch') this.#finger.begin(event, () => this.#begin(event));
    else {
      (event.currentTarget as Element).setPointerCapture(event.pointerId);
      this.#begin(event);
    }
  }

  move(event: PointerEvent): void {
    this.#finger.move(event);
    if (this.stroke) this.#touch(this.#board.hit(event));
  }

  cancel(): void {
    this.#finger.end();
    this.stroke = null;
  }

  finish(event: PointerEvent): void {
    if (this.#finger.end()) this.#begin(event);
    const { stroke } = this;
    this.stroke = null;
    if (stroke) this.#board.painted(stroke);
  }

  #begin(event: PointerEvent): void {
    const cell = this.#board.hit(event);
    if (cell && !this.#board.pressed(cell)) this.#touch(cell);
  }

  #touch(cell: HitCell | null): void {
    if (!cell) return;
    this.stroke = withRow(this.stroke, cell);
  }
}

/** The stroke with one more cell. */
const withRow = (stroke: ReadonlyMap<number, number> | null, { row, column }: HitCell) =>
  new Map([...(stroke ?? []), ...column.changes.map(({ index }) => [index, row] as const)]);
