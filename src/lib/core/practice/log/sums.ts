/** What the log amounts to: minutes by day and week, coverage, tempo over time. Every sum is of rows, and of nothing else. */
import { firstOf, sure } from '../../base/list';
import type { Seconds } from '../../base/units';
import { dayAfter, daysBetween, weekOf } from './day';
import type { LogRow } from './model';
import { heldTempo, cleanTempo } from '../progress/held';

/** A row with where it was played. */
export interface PlacedRow extends LogRow {
  readonly chart: string | null;
  readonly key: string | null;
  readonly area: number | null;
}

export interface Sum {
  /** The day, or the Monday of the week. */
  readonly day: string;
  readonly seconds: Seconds;
}

/** Seconds of each day between two days, both in; those without playing too. */
export function secondsByDay(rows: readonly LogRow[], from: string, to: string): readonly Sum[] {
  const sums = summed(rows, ({ day }) => day);
  return Array.from({ length: Math.max(0, daysBetween(from, to) + 1) }, (_, i) => {
    const day = dayAfter(from, i);
    return { day, seconds: sums.get(day) ?? 0 };
  });
}

/** The same by weeks, from the week of the first day to that of the last. */
export function secondsByWeek(rows: readonly LogRow[], from: string, to: string): readonly Sum[] {
  const sums = summed(
    rows.filter(({ day }) => day >= from && day <= to),
    ({ day }) => weekOf(day)
  );
  const first = weekOf(from);
  const weeks = Math.floor(daysBetween(first, to) / 7) + 1;
  return Array.from({ length: Math.max(0, weeks) }, (_, i) => {
    const day = dayAfter(first, 7 * i);
    return { day, seconds: sums.get(day) ?? 0 };
  });
}

function summed(rows: readonly LogRow[], by: (row: LogRow) => string): ReadonlyMap<string, number> {
  const sums = new Map<string, number>();
  for (const row of rows) sums.set(by(row), (sums.get(by(row)) ?? 0) + row.seconds);
  return sums;
}

/** One area in one key. */
export interface Covered {
  readonly area: number;
  readonly key: string;
  readonly seconds: Seconds;
  /** The highest tempo held there, in anything; and the highest that was clean at all. */
  readonly held: number | null;
  readonly clean: number | null;
  readonly lastDay: string;
}

/** Where on the neck and in which keys was practised, and how well. Rows without an area or a key say nothing of it. */
export function coverage(rows: readonly PlacedRow[]): readonly Covered[] {
  const places = new Map<string, PlacedRow[]>();
  for (const row of rows) {
    if (row.area === null || row.key === null) continue;
    const place = `${row.area} ${row.key}`;
    const own = places.get(place);
    if (own) own.push(row);
    else places.set(place, [row]);
  }
  return [...places.values()].map((own) => ({
    area: sure(firstOf(own).area, 'an area'),
    key: sure(firstOf(own).key, 'a key'),
    seconds: own.reduce((sum, { seconds }) => sum + seconds, 0),
    // Held is one thing: the best of what was practised there.
    held: best([...bySubject(own).values()].map(heldTempo)),
    clean: cleanTempo(own),
    lastDay: own.reduce((last, { day }) => (day > last ? day : last), '')
  }));
}

function bySubject(rows: readonly PlacedRow[]): ReadonlyMap<string, readonly PlacedRow[]> {
  const subjects = new Map<string, PlacedRow[]>();
  for (const row of rows) {
    const subject = row.item ?? row.chart ?? '';
    const own = subjects.get(subject);
    if (own) own.push(row);
    else subjects.set(subject, [row]);
  }
  return subjects;
}

const best = (tempos: readonly (number | null)[]): number | null =>
  tempos.reduce((most, tempo) => (tempo !== null && (most === null || tempo > most) ? tempo : most), null);

/** A day of an item: the fastest tempo played, and the fastest that was clean. */
export interface TempoDay {
  readonly day: string;
  readonly played: number;
  readonly clean: number | null;
}

/** An item's tempo over time. `rows`: of this item. */
export function tempoByDay(rows: readonly LogRow[]): readonly TempoDay[] {
  const days = new Map<string, LogRow[]>();
  for (const row of rows) {
    if (row.tempo === null) continue;
    const own = days.get(row.day);
    if (own) own.push(row);
    else days.set(row.day, [row]);
  }
  return [...days]
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([day, own]) => ({
      day,
      played: Math.max(...own.map(({ tempo }) => tempo!)),
      clean: cleanTempo(own)
    }));
}

/** Changes of a chart at which the player stumbled, the worst first. */
export function stumblesByChange(
  rows: readonly { readonly stumbles: readonly number[] }[]
): readonly { readonly change: number; readonly times: number }[] {
  const times = new Map<number, number>();
  for (const { stumbles } of rows) {
    for (const change of stumbles) times.set(change, (times.get(change) ?? 0) + 1);
  }
  return [...times]
    .map(([change, count]) => ({ change, times: count }))
    .sort((a, b) => b.times - a.times || a.change - b.change);
}
