/** What the songbook tells of a chart from the log: when it was last played, and how fast it is held. */
import { sql } from 'kysely';
import { heldTempo } from '../../core/practice/progress/held';
import type { LogRow } from '../../core/practice/log/model';
import type { Database } from '../store/database';

/** When each chart was last practised, as a table to join. */
export const lastPractised = sql<{ chart_id: string; practised_at: number }>`(
  select chart_id, max(started_at) as practised_at from practice_log
  where deleted_at is null and chart_id is not null group by chart_id
)`.as('practised');

/** The highest tempo held in each of some charts, in anything that was played there. */
export async function heldTempos(
  db: Database,
  charts: readonly string[]
): Promise<ReadonlyMap<string, number>> {
  if (charts.length === 0) return new Map();
  const rows = await db
    .selectFrom('practice_log')
    .select(['chart_id', 'item_id', 'key', 'area', 'day', 'tempo'])
    .where('chart_id', 'in', charts)
    .where('deleted_at', 'is', null)
    .where('clean', '=', 1)
    .where('tempo', 'is not', null)
    .execute();
  // Held is one thing in one place: rows of the same item, or played in the same key and area.
  const byThing = new Map<string, { chart: string; rows: LogRow[] }>();
  for (const { chart_id, item_id, key, area, day, tempo } of rows) {
    const thing = item_id ?? `${chart_id} ${key} ${area}`;
    const known = byThing.get(thing) ?? { chart: chart_id!, rows: [] };
    known.rows.push({ item: item_id, day, tempo, clean: true, rounds: 1, seconds: 0 });
    byThing.set(thing, known);
  }
  const held = new Map<string, number>();
  for (const { chart, rows: own } of byThing.values()) {
    const tempo = heldTempo(own);
    if (tempo !== null) held.set(chart, Math.max(tempo, held.get(chart) ?? 0));
  }
  return held;
}
