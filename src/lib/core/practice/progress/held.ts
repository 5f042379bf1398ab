/** The tempo that rows held, whatever they were of: for the songbook and the pictures. */
import type { LogRow } from '../log/model';

/** The highest tempo at which rows were clean on two days, each day counted by its best; null before there is one. */
export function heldTempo(rows: readonly LogRow[]): number | null {
  const byDay = new Map<string, number>();
  for (const { clean, day, tempo } of rows)
    if (clean && tempo !== null) byDay.set(day, Math.max(byDay.get(day) ?? tempo, tempo));
  const [, second] = [...byDay.values()].sort((a, b) => b - a);
  return second ?? null;
}

/** The highest tempo at which any row was clean. */
export function cleanTempo(rows: readonly LogRow[]): number | null {
  const clean = rows.flatMap((row) => (row.clean && row.tempo !== null ? [row.tempo] : []));
  return clean.length ? Math.max(...clean) : null;
}
