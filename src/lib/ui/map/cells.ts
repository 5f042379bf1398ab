/** What the cells of the position map show and say. */
import { firstOf } from '$lib/core/base/list';
import { placeOf, staying, type Area } from '$lib/core/neck/area';
import type { Instrument } from '$lib/core/neck/tuning';
import type { MapRow } from '$lib/core/neck/position-map';
import { sayCell } from '$lib/core/neck/shape';
import { DEGREES } from '$lib/core/theory/degree';
import { prettyDegree } from '$lib/core/theory/typeset';
import type { MiniNote } from '../neck/MiniNeck.svelte';
import type { MapColumn } from './columns';

/** The frets that a row of cells shows. */
export interface Frets {
  readonly from: number;
  readonly to: number;
  readonly hasOpen: boolean;
}

/** As many frets as the widest shape of the row needs, at least the hand's. */
export function fretsOf({ position, areas }: MapRow, neck: Instrument): Frets {
  // Each area once, however many changes it is played over.
  const frets = [...new Set(areas)].flatMap((area) => area?.cells.map(({ fret }) => fret) ?? []);
  const pressed = [...new Set(frets)].filter((fret) => fret > 0);
  const from = Math.max(1, Math.min(position, ...pressed));
  const to = Math.min(neck.frets, Math.max(from + neck.span, ...pressed));
  return { from, to, hasOpen: frets.includes(0) };
}

/** What the hand held just before a column, in the same row. */
function before(row: MapRow, column: MapColumn): Area | null {
  const first = firstOf(column.changes).index;
  return first > 0 ? (row.areas[first - 1] ?? null) : null;
}

/** The notes of a cell: filled ones are new, open ones stay from the cell to the left. */
export function notesOf(row: MapRow, column: MapColumn): MiniNote[] {
  const change = firstOf(column.changes);
  const area = row.areas[change.index];
  if (!area) return [];
  const last = before(row, column);
  const kept = last ? staying(area, last) : new Set<string>();
  const tones = new Set<string>(change.chord?.tones ?? []);
  return area.cells.map(({ string, fret, degree }) => {
    const stays = kept.has(placeOf({ string, fret }));
    const isTone = tones.has(degree);
    const isRoot = DEGREES[degree].slot === '1';
    return {
      string,
      fret,
      look: isRoot || isTone ? (stays ? 'open' : 'full') : stays ? 'open-dot' : 'dot',
      ...(isTone ? { label: prettyDegree(degree) } : {})
    };
  });
}

/** A cell in words, for those who do not see it. */
export function spoken(row: MapRow, column: MapColumn): string {
  const { symbol, index, bar } = firstOf(column.changes);
  const area = row.areas[index];
  if (!area) return `${symbol}, bar ${bar}: nothing to play`;
  return `${symbol}, bar ${bar}, ${area.name.words}, fret ${area.anchor}: ${area.cells.map(sayCell).join('; ')}`;
}

/** Bars a column stands for, as "3, 11". */
export function barsOf({ changes }: MapColumn): string {
  const all = [...new Set(changes.map(({ bar }) => bar))];
  return all.length > 4 ? `${all.slice(0, 3).join(', ')} …` : all.join(', ');
}

/** The row nearest a position of the hand. */
export function rowAt(rows: readonly MapRow[], position: number): number {
  const distances = rows.map((row) => Math.abs(row.position - position));
  return distances.indexOf(Math.min(...distances));
}
