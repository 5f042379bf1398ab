/** What is practised and what was: items, and the rows of the log. The log is what happened; everything else follows from it. */

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
  /** Items that are to be held before this one opens. */
  readonly after?: readonly string[] | undefined;
  readonly tempo: ItemTempo;
}

/** One stretch of playing: some rounds at one tempo, marked alike. */
export interface LogRow {
  /** Of the item it was played for. */
  readonly item: string | null;
  /** The day it began on, where it was played. */
  readonly day: string;
  /** Beats a minute; null where there was none. */
  readonly tempo: number | null;
  /** As the player has marked the rounds; null where nothing was said. */
  readonly clean: boolean | null;
  readonly rounds: number;
  readonly seconds: number;
}

/** Minutes of an item that says none. */
export const ITEM_MINUTES = 5;

/** Rows by their item, each in the order played: by day, on one day as they stand in the log. */
export function rowsByItem<Row extends LogRow>(log: readonly Row[]): ReadonlyMap<string, readonly Row[]> {
  const byItem = new Map<string, Row[]>();
  for (const row of log) {
    if (row.item === null) continue;
    const rows = byItem.get(row.item);
    if (rows) rows.push(row);
    else byItem.set(row.item, [row]);
  }
  // The sort keeps the order of rows of one day.
  for (const rows of byItem.values()) rows.sort((a, b) => (a.day < b.day ? -1 : a.day > b.day ? 1 : 0));
  return byItem;
}
