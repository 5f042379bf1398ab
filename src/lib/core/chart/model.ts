/** The chart model: what a chart text says, as plain data. Times are in beats of the meter's lower number. */

import type { Beats } from '../base/units';

export type BarLineStyle = 'single' | 'double' | 'final';

/** A bar line and what it carries. */
export interface BarLine {
  readonly style: BarLineStyle;
  /** `:|` — a repeat ends here. */
  readonly repeatEnd: boolean;
  /** `|:` — a repeat starts here. */
  readonly repeatStart: boolean;
  /** Rounds in which the bars from here on are played: `|1` is [1]. */
  readonly ending: readonly number[];
}

/** What stands in one cell of a bar. */
export type Cell =
  | { readonly kind: 'chord'; readonly symbol: string }
  /** `.` or `/`: the chord before goes on. */
  | { readonly kind: 'hold'; readonly mark: '.' | '/' }
  /** `%` (1) or `%%` (2): the bars before once more. */
  | { readonly kind: 'repeat-bars'; readonly count: 1 | 2 };

export interface Bar {
  readonly cells: readonly Cell[];
}

/** One line of a grid: n bars between n + 1 bar lines. */
export interface GridRow {
  readonly kind: 'bars';
  /** Text left and right of the bars (margin labels, remarks). */
  readonly left: string;
  readonly right: string;
  readonly bars: readonly Bar[];
  readonly barLines: readonly BarLine[];
}

/** One line of a chart text. What is not ours to read is kept word for word. */
export type ChartLine =
  | { readonly kind: 'directive'; readonly name: string; readonly value: string }
  /** `rest`: what stands beside the label, word for word. */
  | { readonly kind: 'grid-start'; readonly label: string; readonly rest: string }
  | { readonly kind: 'grid-end' }
  | GridRow
  | { readonly kind: 'text'; readonly text: string };

export interface Meter {
  /** Beats in a bar. */
  readonly beats: Beats;
  /** The note value of a beat: 4 is a quarter. */
  readonly unit: number;
}

export interface Chart {
  readonly lines: readonly ChartLine[];
}

/** What the head of a chart declares; null where it says nothing. */
export interface ChartHead {
  readonly title: string | null;
  readonly key: string | null;
  readonly meter: Meter;
  /** Beats a minute. */
  readonly tempo: number | null;
  readonly feel: string | null;
  /** The style as declared: "blues"; `harmony/style.ts` reads it. */
  readonly style: string | null;
  /** Beats before bar 1 in which melody and lines may begin; 0 where nothing is said. */
  readonly pickup: number;
  /** The melody as typed; `line/melody.ts` reads it. */
  readonly melody: string | null;
}

/** A place in the chart text, both counted from 1, columns in UTF-16 units; `length` of the marked text. */
export interface Place {
  readonly line: number;
  readonly column: number;
  readonly length: number;
}

export interface ChartProblem {
  readonly code: string;
  /** A sentence a player understands. */
  readonly message: string;
  readonly place?: Place;
  readonly suggestion?: string;
}

export const DEFAULT_METER: Meter = { beats: 4, unit: 4 };
export const MIN_TEMPO = 20;
export const MAX_TEMPO = 400;
