/** The tempo that rows held, whatever they were of: for the songbook and the pictures. */
import type { LogRow } from '../log/model';
/** The highest tempo at which rows were clean on two days, each day counted by its best; null before there is one. */
export function heldTempo(rows: readonly LogRow[]): number | null {
  let best: LogRow | null = null;
  /** The best of the other days. */
  let second: LogRow | null = null;
  for (const row of rows) {
    if (!row.clean || row.tempo === null) continue;
    if (best === null || row.tempo > best.tempo!) {
      if (best?.day !== row.day) second = best;
      best = row;
    } else if (row.day !== best.day && (second === null || row.tempo > second.tempo!)) second = row;
  }
  return second?.tempo ?? null;
}

/** The highest tempo at which any row was clean. */
export function cleanTempo(rows: readonly LogRow[]): number | null {
  const clean = rows.flatMap((row) => (row.clean && row.tempo !== null ? [row.tempo] : []));
  return clean.length ? Math.max(...clean) : null;
}
