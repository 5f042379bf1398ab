/** What the pictures of practice are drawn from: sums of the log and the cards. */
import { entryOf } from '../../core/base/list';
import { keyShort } from '../../core/practice/items/words';
import { readSheet } from '../../core/harmony/sheet';
import {
  coverage,
  secondsByDay,
  secondsByWeek,
  stumblesByChange,
  tempoByDay
} from '../../core/practice/log/sums';
import type { Pictures } from '../../api/practice';
import { dayAfter } from '../../core/practice/log/day';
import { areaAsked, degreeAsked } from '../../core/practice/trainer/kinds';
import { isKnown } from '../../core/practice/trainer/memory';
import type { Database } from '../store/database';
import { latenessByChange } from '../../core/takes/judge/lateness';
import { timeByDay } from '../../core/takes/judge/time-days';
import { landingsByChart, timedTakes } from '../takes/takes';
import { listCards } from './cards';
import { listItems } from './items';
import { placedRows, stumblesSince } from './log';

/** Weeks and days that are drawn. */
const [WEEKS, DAYS] = [12, 28];

export async function picturesOf(db: Database, day: string): Promise<Pictures> {
  const [log, items, cards] = [await placedRows(db), await listItems(db), await listCards(db)];
  const byItem = new Map<string, typeof log>();
  for (const row of log) {
    if (row.item === null) continue;
    const own = byItem.get(row.item);
    if (own) own.push(row);
    else byItem.set(row.item, [row]);
  }
  const tempos = items.flatMap(({ id, title, data }) => {
    const rows = byItem.get(id);
    return rows && data
      ? [{ id, title, goal: data.tempo.goal, name: itemTitle(data), days: tempoByDay(rows) }]
      : [];
  });
  const last = ({ days }: (typeof tempos)[number]) => days.at(-1)?.day ?? '';
  return {
    coverage: coverage(log),
    weeks: secondsByWeek(log, dayAfter(day, -7 * (WEEKS - 1)), day),
    days: secondsByDay(log, dayAfter(day, 1 - DAYS), day),
    tempos: tempos.sort((a, b) => (last(a) < last(b) ? 1 : last(a) > last(b) ? -1 : 0)).slice(0, 40),
    cards: cardSums(cards),
    time: timeByDay(await timedTakes(db)),
    lateness: await lateness(db),
    stumbles: await stumbles(db)
  };
}

function itemTitle({ name, area, key }: { name: string; area: number | null; key: string | null }): string {
  return [
    name,
    ...(area === null ? [] : [`position ${area}`]),
    ...(key === null ? [] : [keyShort(key)])
  ].join(', ');
}

function cardSums(cards: Awaited<ReturnType<typeof listCards>>): Pictures['cards'] {
  const sums = new Map<string, { degree: string; area: number | null; known: number; all: number }>();
  for (const { question, memory } of cards) {
    const [degree, area] = [degreeAsked(question) ?? 'whole chords', areaAsked(question)];
    const place = `${degree} ${area}`;
    const own = sums.get(place) ?? { degree, area, known: 0, all: 0 };
    sums.set(place, { ...own, all: own.all + 1, known: own.known + Number(isKnown(memory)) });
  }
  return [...sums.values()];
}

/** From the first day there can be. */
const ALWAYS = '0000-00-00';

/** Changes of a chart that are drawn. */
const MOST_CHANGES = 12;

async function stumbles(db: Database): Promise<Pictures['stumbles']> {
  const byChart = await stumblesSince(db, ALWAYS);
  return overCharts(db, byChart, stumblesByChange);
}

async function lateness(db: Database): Promise<Pictures['lateness']> {
  const charts = await overCharts(db, await landingsByChart(db), latenessByChange);
  return charts.filter(({ changes }) => changes.length > 0);
}

/** Something of the changes of each chart, with what they are called now; what a chart has lost since is left out. */
async function overCharts<T, C extends { readonly change: number }>(
  db: Database,
  byChart: ReadonlyMap<string, readonly T[]>,
  sum: (own: readonly T[]) => readonly C[]
) {
  if (byChart.size === 0) return [];
  const rows = await db
    .selectFrom('chart')
    .select(['id', 'title', 'source'])
    .where('id', 'in', [...byChart.keys()])
    .where('deleted_at', 'is', null)
    .execute();
  return rows.map(({ id, title, source }) => {
    const { changes } = readSheet(source).analysis;
    return {
      chart: id,
      title,
      changes: sum(entryOf(byChart, id))
        .flatMap((own) => {
          const { symbol, bar } = changes[own.change] ?? {};
          return symbol === undefined || bar === undefined ? [] : [{ ...own, symbol, bar }];
        })
        .slice(0, MOST_CHANGES)
    };
  });
}
