/** What the page of the day shows: items with their progress, the plan, cards that are due, set lists. */
import { z } from 'zod';
import { dayField, type Today } from '../../api/practice';
import { progressOf } from '../../core/practice/log/progress';
import { secondsByDay, stumblesByChange } from '../../core/practice/log/sums';
import { readSheet } from '../../core/harmony/sheet';
import type { PracticeItem } from '../../core/practice/log/model';
import { dayAfter, dayOf } from '../../core/practice/log/day';
import {
  FEWEST_MINUTES,
  MOST_MINUTES,
  STUMBLED_OFTEN,
  type Stumbled
} from '../../core/practice/session/parts';
import { planSession } from '../../core/practice/session/session';
import type { Database } from '../database';
import { openChart, readColumn } from '../songbook';
import { listCards } from './cards';
import { listItems, plannedItem } from './items';
import { placedRows, stumblesSince } from './log';
import { missedSince } from '../takes/takes';
import { listSetLists } from './set-lists';

export const todayQuery = z.object({
  day: dayField,
  minutes: z.coerce.number().int().min(FEWEST_MINUTES).max(MOST_MINUTES).default(25),
  /** Minutes that the player's clock is behind UTC. */
  offset: z.coerce.number().int().min(-900).max(900).default(0)
});

const LAST_DAYS = 14;
const chartKey = z.object({ key: z.string() });

export async function todayOf(
  db: Database,
  { day, minutes, offset }: z.infer<typeof todayQuery>
): Promise<Today> {
  const [stored, log, cards, setLists] = [
    await listItems(db),
    await placedRows(db),
    await listCards(db),
    await listSetLists(db)
  ];
  const items = stored.flatMap((item) => plannedItem(item) ?? []);
  const progress = progressOf(items, log, day);
  const due = cards.map(({ id, memory }) => ({ id, due: dayOf(memory.due, offset) }));
  const plan = planSession({
    items,
    log,
    cards: due,
    stumbled: await stumbledLately(db, items, day),
    hasNewCards: items.some(({ chart }) => chart !== undefined),
    minutes,
    day
  });
  const charts = await db
    .selectFrom('chart')
    .select(['id', 'title', 'summary'])
    .where('deleted_at', 'is', null)
    .orderBy('title')
    .limit(500)
    .execute();
  return {
    day,
    minutes,
    items: stored.map((item) => ({ ...item, progress: progress.get(item.id) ?? null })),
    plan,
    cards: { due: plan.due.length, known: cards.length },
    setLists,
    charts: charts.map(({ id, title, summary }) => ({
      id,
      title,
      key: readColumn(chartKey, summary)?.key ?? ''
    })),
    days: secondsByDay(log, dayAfter(day, 1 - LAST_DAYS), day)
  };
}

/** Days that count as lately. */
const LATELY = 14;

/** Changes of charts in practice at which it went wrong lately: marked at the stand, or missed in takes. */
async function stumbledLately(
  db: Database,
  items: readonly PracticeItem[],
  day: string
): Promise<readonly Stumbled[]> {
  const practised = [...new Set(items.flatMap(({ chart }) => chart ?? []))];
  if (practised.length === 0) return [];
  const since = dayAfter(day, 1 - LATELY);
  const [marked, missed] = [await stumblesSince(db, since), await missedSince(db, since)];
  const found: Stumbled[] = [];
  for (const chart of practised) {
    const often = stumblesByChange([...(marked.get(chart) ?? []), ...(missed.get(chart) ?? [])]).filter(
      ({ times }) => times >= STUMBLED_OFTEN
    );
    if (often.length === 0) continue;
    const { source } = await openChart(db, chart);
    const { changes } = readSheet(source).analysis;
    // The chart may have become shorter since.
    found.push(
      ...often.flatMap(({ change, times }) => {
        const symbol = changes[change]?.symbol;
        return symbol === undefined ? [] : [{ chart, change, times, symbol }];
      })
    );
  }
  return found;
}
