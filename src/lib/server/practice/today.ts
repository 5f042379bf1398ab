/** What the page of the day shows: items with their progress, the plan, cards that are due, set lists. */
import { entryOf } from '../../core/base/list';
import { z } from 'zod';
import { dayField, type StoredSetList, type Today, type TuneOutlook } from '../../api/practice';
import { dayAfter, dayOf } from '../../core/practice/log/day';
import type { LogRow, PracticeItem } from '../../core/practice/log/model';
import { secondsByDay } from '../../core/practice/log/sums';
import { standingsOf, type Standing } from '../../core/practice/progress/fold';
import { progressIn, type Progress } from '../../core/practice/progress/progress';
import { aheadOf, type WeekAhead } from '../../core/practice/session/ahead';
import { outlook } from '../../core/practice/session/date';
import { FEWEST_MINUTES, MOST_MINUTES } from '../../core/practice/session/parts';
import { planSession } from '../../core/practice/session/session';
import type { Database } from '../store/database';
import { readColumn } from '../store/songbook';
import { missedSince } from '../takes/takes';
import { listCards } from './cards';
import { chartFacts } from './chart-facts';
import { listItems, plannedItems } from './items';
import { placedRows } from './log';
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
  const { items, stored, log, setLists, wish } = await wishOf(db, { day, minutes, offset });
  const standings = standingsOf(items, wish.log);
  const progress = progressIn(standings, day);
  const plan = planSession(wish);
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
    cards: { due: plan.due.length, known: wish.cards.length },
    setLists,
    outlooks: outlooksOf(setLists, { items, standings, progress, day }),
    charts: charts.map(({ id, title, summary }) => ({
      id,
      title,
      key: readColumn(chartKey, summary)?.key ?? ''
    })),
    days: secondsByDay(log, dayAfter(day, 1 - LAST_DAYS), day)
  };
}

/** How far the tunes of every set list to come will be by then. */
function outlooksOf(
  setLists: readonly StoredSetList[],
  {
    items,
    standings,
    progress,
    day
  }: {
    readonly items: readonly PracticeItem[];
    readonly standings: ReadonlyMap<string, Standing>;
    readonly progress: ReadonlyMap<string, Progress>;
    readonly day: string;
  }
): Today['outlooks'] {
  const coming = setLists.flatMap(({ id, data }) => (data && data.day >= day ? [{ id, data }] : []));
  return Object.fromEntries(
    coming.map(({ id, data }) => [
      id,
      data.charts.map(({ chart, key, tempo }): TuneOutlook => {
        const own = items.filter((item) => item.chart === chart);
        const form = own.find((item) => item.form);
        // What is practised in other keys does not make the tune ready.
        const ofDay = own.filter(
          (item) => item.key === undefined || item.key === (key ?? form?.key ?? item.key)
        );
        return {
          chart,
          items: ofDay.length,
          held: ofDay.filter((item) => progress.get(item.id)?.state === 'held').length,
          ...(form ? outlook(entryOf(standings, form.id), day, data.day, tempo ?? form.tempo.goal) : {})
        };
      })
    ])
  );
}

/** Four weeks from a day on, if all goes as now. */
export async function aheadFrom(
  db: Database,
  query: z.infer<typeof todayQuery>
): Promise<{ weeks: readonly WeekAhead[] }> {
  const { wish } = await wishOf(db, query);
  return { weeks: aheadOf(wish) };
}

/** All that a plan is made of. */
async function wishOf(db: Database, { day, minutes, offset }: z.infer<typeof todayQuery>) {
  const [stored, log, cards, setLists] = [
    await listItems(db),
    await placedRows(db),
    await listCards(db),
    await listSetLists(db)
  ];
  const items = await plannedItems(db, stored);
  const next = setLists.find(({ data }) => data && data.charts.length > 0 && data.day >= day)?.data;
  const latest = await db
    .selectFrom('chart')
    .select('id')
    .where('deleted_at', 'is', null)
    .orderBy('updated_at', 'desc')
    .limit(1)
    .executeTakeFirst();
  return {
    stored,
    items,
    log,
    setLists,
    wish: {
      items,
      log: [...log, ...(await takeRows(db, items, day))],
      cards: cards.map(({ id, memory }) => ({ id, due: dayOf(memory.due, offset) })),
      hasNewCards: items.some(({ chart }) => chart !== undefined),
      minutes,
      day,
      ...(next ? { set: { day: next.day, charts: next.charts } } : {}),
      ...(latest ? { latest: latest.id } : {})
    }
  };
}

/** Days that count as lately. */
const LATELY = 14;

/** Takes as rows of the forms that they were of: the bars in which a target was missed lately. */
async function takeRows(db: Database, items: readonly PracticeItem[], day: string): Promise<LogRow[]> {
  const forms = items.filter(({ form }) => form);
  const missed = await missedSince(db, dayAfter(day, 1 - LATELY));
  const facts = await chartFacts(
    db,
    forms.flatMap(({ chart }) => (chart && missed.has(chart) ? [chart] : []))
  );
  return forms.flatMap(({ id, chart }) => {
    const changes = facts.get(chart!)?.sheet.form.changes ?? [];
    return (missed.get(chart!) ?? []).map((take): LogRow => ({
      item: id,
      day: take.day,
      tempo: take.tempo,
      clean: null,
      rounds: 1,
      seconds: 0,
      isTake: true,
      loops: [[...new Set(take.stumbles.flatMap((change) => changes[change]?.bar ?? []))]]
    }));
  });
}
