/** What is practised and what was: items, and the rows of the log. The log is what happened; everything else follows from it. */

import { nth } from '../../base/list';
import type { Beats, Seconds } from '../../base/units';

/** Beats a minute that an item begins at and is to reach, and the step between two tempos in per cent. */
export interface ItemTempo {
  readonly start: number;
  readonly goal: number;
  readonly step?: number | undefined;
}

/** Something that can be practised: what, over what, where, in which key. */
export interface PracticeItem {
  readonly id: string;
  /** A drill's id, "targets", "melody", "line", or the player's own words. */
  readonly what: string;
  readonly chart?: string | undefined;
  /** Where on the neck: a position, or a name. */
  readonly area?: string | number | undefined;
  readonly key?: string | undefined;
  /** Minutes that it takes in a session. */
  readonly minutes?: number | undefined;
  /** Items that have to be within reach before this one opens. */
  readonly after?: readonly string[] | undefined;
  readonly tempo: ItemTempo;
  /** Bars of one loop, and the sections that it has: bars of the unrolled form, both in. */
  readonly bars?: number | undefined;
  readonly sections?: readonly Bars[] | undefined;
  /** Beats of a bar. */
  readonly beats?: Beats | undefined;
  /** The whole form with the band, as it will be played. */
  readonly form?: boolean | undefined;
}

/** One stretch of playing: some loops at one tempo. */
export interface LogRow {
  /** Of the item it was played for. */
  readonly item: string | null;
  readonly chart?: string | null | undefined;
  /** The day it began on, where it was played. */
  readonly day: string;
  /** Beats a minute; null where there was none. */
  readonly tempo: number | null;
  /** As the player has marked the rounds; null where nothing was said. */
  readonly clean: boolean | null;
  readonly rounds: number;
  readonly seconds: Seconds;
  /** The stretch that was looped; without it the whole of the item. */
  readonly bars?: Bars | undefined;
  /** How often it was looped, or for each loop the bars in which the player stumbled. */
  readonly loops?: number | readonly (readonly number[])[] | undefined;
  /** Bars in which the player stumbled, in the order played, where the loops do not tell them apart. */
  readonly missed?: readonly number[] | undefined;
  /** Heard in a take: it tells where it goes wrong, and moves no tempo. */
  readonly isTake?: boolean | undefined;
}

/** Bars of an unrolled form, counted from 1, both in. */
export interface Bars {
  readonly from: number;
  readonly to: number;
}

/** Rows by day, those of one day as they stand in the log. */
export function byDay<Row extends LogRow>(rows: readonly Row[]): readonly Row[] {
  for (let i = 1; i < rows.length; i++) {
    // The sort keeps the order of rows of one day; mostly there is nothing to sort.
    if (nth(rows, i - 1).day > nth(rows, i).day)
      return [...rows].sort((a, b) => (a.day < b.day ? -1 : a.day > b.day ? 1 : 0));
  }
  return rows;
}
