/** What is practised: items in the player's order, with how far each is. */
import { sql } from 'kysely';
import type { z } from 'zod';
import {
  itemData,
  type changeItem,
  type ItemWithProgress,
  type keepItems,
  type orderItems,
  type StoredItem
} from '../../api/practice';
import { fail } from '../../api/errors';
import type { PracticeItem } from '../../core/practice/log/model';
import { lickPlaceOf } from '../../core/practice/items/lick-items';
import { wholeForm } from '../../core/practice/items/proposals';
import { progressOf } from '../../core/practice/progress/progress';
import { atOnce, type Database } from '../store/database';
import { storedKind } from '../store/stored-kind';
import { readColumn } from '../store/songbook';
import { chartFacts, chartsOf, lengthsOf, type ChartFacts } from './chart-facts';
import { placedRows } from './log';

/** Items that are practised at once. */
const MOST_ITEMS = 5000;

const rows = (db: Database) =>
  db
    .selectFrom('practice_item')
    .leftJoin('chart', (join) =>
      join.onRef('chart.id', '=', 'practice_item.chart_id').on('chart.deleted_at', 'is', null)
    )
    .select([
      'practice_item.id as id',
      'chart_id',
      'practice_item.version as version',
      'data',
      'chart.title as title'
    ])
    .where('practice_item.deleted_at', 'is', null);

type Row = Awaited<ReturnType<ReturnType<typeof rows>['executeTakeFirstOrThrow']>>;

function itemFrom({ id, chart_id, version, data, title }: Row): StoredItem {
  return { id, chart: chart_id, title, version, data: readColumn(itemData, data) };
}

export const items = storedKind({
  table: 'practice_item',
  noun: 'item',
  gone: {
    code: 'no-item',
    message: 'This is not among the items that are practised; it may have been deleted.'
  },
  most: {
    count: MOST_ITEMS,
    refusal: {
      code: 'too-many-items',
      message: `Up to ${MOST_ITEMS} items are practised at once; delete some that you no longer play.`
    }
  },
  rows,
  shown: itemFrom
});

/** Every item, in the player's order. */
export const listItems = (db: Database): Promise<StoredItem[]> =>
  items.all(db, undefined, (query) => query.orderBy('place').orderBy('practice_item.id'));

/** As the plan for a day takes it; null for one that cannot be read, or whose chart is gone. */
export function plannedItem(
  { id, chart, title, data }: StoredItem,
  facts: ReadonlyMap<string, ChartFacts>
): PracticeItem | null {
  if (!data || (chart !== null && title === null)) return null;
  const { what, area, key, minutes, after, tempo, form, over } = data;
  const own = chart === null ? undefined : facts.get(chart);
  return {
    id,
    what,
    minutes,
    after,
    tempo,
    ...(chart === null ? {} : { chart }),
    ...(area === null ? {} : { area }),
    ...(key === null ? {} : { key }),
    ...(form ? { form } : {}),
    ...(own ? lengthsOf(own, over) : {})
  };
}

/** Every item as the plan takes it. */
export async function plannedItems(db: Database, stored: readonly StoredItem[]): Promise<PracticeItem[]> {
  const facts = await chartFacts(db, chartsOf(stored));
  const licks = new Set(
    (await db.selectFrom('lick').select('id').where('deleted_at', 'is', null).execute()).map(({ id }) => id)
  );
  return stored.flatMap((item) => {
    const place = lickPlaceOf(item.id);
    // A lick that was deleted is not asked for; what was played of it stays told.
    return place && !licks.has(place.lick) ? [] : (plannedItem(item, facts) ?? []);
  });
}

/** Every item with how far it is on a day. */
export async function itemsOn(db: Database, day: string): Promise<ItemWithProgress[]> {
  const all = await listItems(db);
  const progress = progressOf(await plannedItems(db, all), await placedRows(db), day);
  return all.map((item) => ({ ...item, progress: progress.get(item.id) ?? null }));
}

/** Keeps new items behind those that there are; one that is there already stays as it is. */
export async function keepNewItems(
  db: Database,
  { items: coming }: z.infer<typeof keepItems>
): Promise<void> {
  await items.admit(db, coming.length);
  const now = Date.now();
  await atOnce(db, async (trx) => {
    const { last } = await trx
      .selectFrom('practice_item')
      .select((eb) => eb.fn.max('place').as('last'))
      .executeTakeFirstOrThrow();
    for (const [at, { id, chart, data }] of coming.entries()) {
      if (chart !== null) {
        const there = await trx.selectFrom('chart').select('id').where('id', '=', chart).executeTakeFirst();
        if (!there)
          fail(404, {
            code: 'no-chart',
            message: 'This chart is not in the songbook; it may have been deleted.'
          });
      }
      await trx
        .insertInto('practice_item')
        .values({
          id,
          chart_id: chart,
          place: Number(last ?? 0) + 1 + at,
          version: 1,
          data: JSON.stringify(data),
          created_at: now,
          updated_at: now,
          deleted_at: null
        })
        // One that was deleted and is wanted again comes back as it was.
        .onConflict((conflict) => conflict.column('id').doUpdateSet({ deleted_at: null }))
        .execute();
    }
  });
}

/** Whether a chart that is practised has no item for its whole form, as in songbooks of an older Corvel. */
export async function lacksWholeForms(db: Database): Promise<boolean> {
  const form = sql`iif(json_valid(data), json_extract(data, '$.form'), null)`;
  const one = await db
    .selectFrom('practice_item')
    .select('chart_id')
    .where('chart_id', 'is not', null)
    .where('deleted_at', 'is', null)
    .groupBy('chart_id')
    .having(sql<boolean>`max(${form}) is null`)
    .limit(1)
    .executeTakeFirst();
  return one !== undefined;
}

/**
 * The whole form is an item of its own: charts that were taken up before it was get it, in their key, at the tempo of their
 * fastest item. One that the player has deleted stays deleted.
 */
export async function keepWholeForms(db: Database): Promise<void> {
  const stored = await listItems(db);
  const known = new Set((await db.selectFrom('practice_item').select('id').execute()).map(({ id }) => id));
  const charts = new Map<string, { key: string; goal: number; hasForm: boolean }>();
  for (const { chart, title, data } of stored) {
    if (chart === null || title === null || !data || data.key === null) continue;
    const own = charts.get(chart) ?? { key: data.key, goal: 0, hasForm: false };
    // The first item is in the chart's own key.
    charts.set(chart, {
      key: own.key,
      goal: data.key === own.key ? Math.max(own.goal, data.tempo.goal) : own.goal,
      hasForm: own.hasForm || data.form === true
    });
  }
  const coming = [...charts].flatMap(([chart, { key, goal, hasForm }]) => {
    const { id, after, tempo, ...form } = wholeForm(chart, key, goal);
    if (hasForm || known.has(id)) return [];
    return [{ id, chart, data: itemData.parse({ ...form, tempo, after: [...after] }) }];
  });
  if (coming.length > 0 && stored.length + coming.length <= MOST_ITEMS)
    await keepNewItems(db, { items: coming });
}

/** Changes an item on top of the version the edit was based on. */
export const editItem = (
  db: Database,
  id: string,
  { base, data }: z.infer<typeof changeItem>
): Promise<StoredItem> => items.edit(db, { id, base, set: { data: JSON.stringify(data) } });

/** Puts items into the order of their ids; those not named keep their places behind. */
export async function reorderItems(db: Database, { order, base }: z.infer<typeof orderItems>): Promise<void> {
  await atOnce(db, async (trx) => {
    const all = await trx
      .selectFrom('practice_item')
      .select(['id', 'deleted_at'])
      .orderBy('place')
      .orderBy('id')
      .execute();
    const named = new Set(order);
    const present = (ids: readonly string[]) => {
      const there = new Set(all.map(({ id }) => id));
      return ids.filter((id) => there.has(id)).join('\n');
    };
    const now = all.filter(({ deleted_at }) => deleted_at === null).map(({ id }) => id);
    // Sent again it is as it was to be.
    if (base !== undefined && present(base) !== present(now) && present(order) !== present(now))
      fail(
        409,
        {
          code: 'stale',
          message: 'The order was changed in another window since. Nothing was overwritten.'
        },
        { stored: now }
      );
    const sorted = [...order, ...all.map(({ id }) => id).filter((id) => !named.has(id))];
    for (const [place, id] of sorted.entries()) {
      await trx.updateTable('practice_item').set({ place }).where('id', '=', id).execute();
    }
  });
}
