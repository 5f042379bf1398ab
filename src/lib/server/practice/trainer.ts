/** What the trainer begins with: cards that are known, and the charts that new ones come from. */
import type { TrainerData } from '../../api/practice';
import type { Database } from '../store/database';
import { listCards } from './cards';
import { listItems } from './items';

export async function trainerOf(db: Database, day: string): Promise<TrainerData> {
  const [cards, items] = [await listCards(db), await listItems(db)];
  const areas = new Map<string, number[]>();
  for (const { chart, title, data } of items) {
    if (chart === null || title === null || !data || data.area === null) continue;
    const own = areas.get(chart) ?? [];
    // New cards come from the area that the player begins with.
    if (own.length === 0) areas.set(chart, [data.area]);
  }
  const ids = [...areas.keys()];
  const rows = ids.length
    ? await db
        .selectFrom('chart')
        .select(['id', 'title', 'source'])
        .where('id', 'in', ids)
        .where('deleted_at', 'is', null)
        .execute()
    : [];
  return {
    cards,
    charts: rows.map(({ id, title, source }) => ({ title, source, positions: areas.get(id) ?? [] })),
    newToday: cards.filter((card) => card.day === day).length
  };
}
