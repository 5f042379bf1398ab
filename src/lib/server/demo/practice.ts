/**
 * Ten weeks of practice of the Saltmarsh Four's guitarist, before the songbook is made: a player who follows the plan of each
 * day, gets better, misses days, is away for a week, and stands still for a while. The same day gives the same weeks.
 */
import { firstOf, sure } from '../../core/base/list';
import { keepReviews, recordRows, setListData, type ItemData, type SentReview } from '../../api/practice';
import { keyText } from '../../core/harmony/key';
import { sectionsOf } from '../../core/chart/sections';
import { readSheet, type Sheet } from '../../core/harmony/sheet';
import { chanceOf, oneOf, type Chance } from '../../core/line/chance';
import { STANDARD } from '../../core/neck/tuning';
import { systemOf } from '../../core/neck/systems/registry';
import { arrange } from '../../core/plan/arrange';
import { proposals, type Proposal } from '../../core/practice/items/proposals';
import { dayAfter, dayOf, daysBetween, weekOf } from '../../core/practice/log/day';
import type { LogRow, PracticeItem } from '../../core/practice/log/model';
import { PLAYERS, playPart } from '../../core/practice/simulated';
import { planSession } from '../../core/practice/session/session';
import { cardsOf } from '../../core/practice/trainer/kinds';
import type { Question } from '../../core/practice/trainer/card';
import type { Database } from '../store/database';
import { keepAnswers } from '../practice/cards';
import { keepNewItems } from '../practice/items';
import { record } from '../practice/log';
import { keepNewSetList } from '../practice/set-lists';
import { openChart } from '../store/songbook';

const DAYS = 70;
const DAY = 24 * 60 * 60 * 1000;
const MINUTE = 60_000;
/** Days before today on which nothing was played: a week away, and days that went by. */
const AWAY = { from: 37, to: 31 };
/** Days before today on which nothing gets any better. */
const PLATEAU = { from: 26, to: 15 };
/** Charts that were taken up, and how many days ago. */
const TAKEN_UP: readonly (readonly [title: string, daysAgo: number])[] = [
  ['Bilge Pump Blues', 70],
  ['Lantern on the Stern', 58],
  ['Cabin Without a Window', 44],
  ['Three Harbours', 20]
];
const SEED = 41;
/** What 16 bars near the limit teach this player. */
const LEARNS = 0.011;
const CARDS_A_DAY = 8;

interface DemoChartRow {
  readonly id: string;
  readonly sheet: Sheet;
  readonly items: readonly Proposal[];
  readonly from: string;
}

type DemoRow = ReturnType<typeof recordRows.parse>['rows'][number];

export async function seedPractice(db: Database, now: number): Promise<void> {
  const offset = new Date(now).getTimezoneOffset();
  const today = dayOf(now, offset);
  const chance = chanceOf(SEED);
  const charts = await chartsOf(db, today);
  if (charts.length === 0) return;
  for (const { id, items } of charts) {
    await keepNewItems(db, {
      items: items.map((item) => ({ id: item.id, chart: id, data: itemOf(item) }))
    });
  }
  const rows: DemoRow[] = [];
  const reviews: SentReview[] = [];
  const cards = charts.flatMap(({ sheet, items, from }) =>
    cardsOf({ analysis: sheet.analysis, neck: STANDARD, positions: [firstOf(items).area ?? 5] })
      .slice(0, 40)
      .map((question) => ({ question, from }))
  );
  const known = new Map<Question, { due: number; times: number }>();
  const skills = new Map<string, number>();
  for (let ago = DAYS; ago >= 1; ago--) {
    const day = dayAfter(today, -ago);
    if (!isPlayed(ago, day, chance)) continue;
    for (const [id, skill] of skills) skills.set(id, skill * (1 - PLAYERS.average.forgets));
    const start = now - ago * DAY - (now % DAY) + (17 * 60 + Math.floor(chance() * 180) + offset) * MINUTE;
    rows.push(...sessionOf(charts, rows, { ago, day, start }, skills, chance));
    reviews.push(...answersOf(cards, known, { day, start }, chance));
  }
  await record(db, recordRows.parse({ rows: rows.slice(0, 200) }));
  for (let at = 200; at < rows.length; at += 200) await record(db, { rows: rows.slice(at, at + 200) });
  for (let at = 0; at < reviews.length; at += 200) {
    await keepAnswers(db, keepReviews.parse({ reviews: reviews.slice(at, at + 200) }));
  }
  await keepNewSetList(db, {
    id: idOf(chance),
    name: 'The Friday sailing',
    data: setListData.parse({
      day: fridayAfter(dayAfter(today, 9)),
      minutes: 40,
      charts: charts.map(({ id, sheet }) => ({ chart: id, tempo: sheet.head.tempo }))
    })
  });
}

function fridayAfter(day: string): string {
  const FRIDAY = 4;
  return dayAfter(weekOf(day), FRIDAY + (daysBetween(weekOf(day), day) > FRIDAY ? 7 : 0));
}

/** Mostly on weekdays, seldom on Sundays; not while away. */
function isPlayed(ago: number, day: string, chance: Chance): boolean {
  const isSunday = new Date(`${day}T12:00:00Z`).getUTCDay() === 0;
  const isThere = ago > AWAY.from || ago < AWAY.to;
  return chance() < (isSunday ? 0.25 : 0.72) && isThere;
}

async function chartsOf(db: Database, today: string): Promise<DemoChartRow[]> {
  const rows = await db.selectFrom('chart').select(['id', 'title']).execute();
  const charts: DemoChartRow[] = [];
  for (const [title, ago] of TAKEN_UP) {
    const row = rows.find((one) => one.title === title);
    if (!row) continue;
    const { source, plan } = await openChart(db, row.id);
    const sheet = readSheet(source);
    const arranged = arrange({ sheet, plan }, STANDARD, systemOf('positions'));
    const positions = [arranged.home, ...arranged.rows.map(({ position }) => position)];
    const items = proposals({
      id: row.id,
      key: keyText(sheet.analysis.key),
      tempo: sheet.head.tempo ?? 100,
      bars: sheet.form.bars.length,
      sections: sectionsOf(sheet.form),
      beats: sheet.head.meter.beats,
      positions: [...new Set(positions)],
      hasMelody: false,
      lines: []
    });
    charts.push({ id: row.id, sheet, items, from: dayAfter(today, -ago) });
  }
  return charts;
}

function itemOf({ what, name, line, area, key, minutes, after, tempo, form }: Proposal): ItemData {
  return {
    what,
    name,
    area,
    key,
    minutes,
    after: [...after],
    tempo,
    over: { kind: 'form' },
    ...(form ? { form } : {}),
    ...(line === undefined ? {} : { line })
  };
}

/** What was played on a day: the plan of that day, loop by loop. */
function sessionOf(
  charts: readonly DemoChartRow[],
  before: readonly DemoRow[],
  { ago, day, start }: { readonly ago: number; readonly day: string; readonly start: number },
  skills: Map<string, number>,
  chance: Chance
): DemoRow[] {
  const open = charts.filter(({ from }) => from <= day);
  const items = open.flatMap(itemsOf);
  const minutes = oneOf(chance, [20, 30, 30, 45, 60]);
  const { session } = planSession({ items, log: before, minutes, day });
  const player = { ...PLAYERS.average, learns: ago <= PLATEAU.from && ago >= PLATEAU.to ? 0 : LEARNS };
  const rows: DemoRow[] = [];
  let at = start;
  for (const part of session) {
    const item = items.find(({ id }) => id === part.item);
    const chart = open.find(({ id }) => id === part.chart);
    if (item && chart) {
      const played = playPart(part, item, day, player, skills, chance);
      rows.push(
        ...recorded(
          played,
          {
            chart,
            item: sure(
              chart.items.find(({ id }) => id === item.id),
              'chart.items'
            ),
            at
          },
          chance
        )
      );
    }
    at += part.minutes * MINUTE;
  }
  return rows;
}

/** As the ladder and the plan take them. */
function itemsOf({ id, sheet, items }: DemoChartRow): PracticeItem[] {
  const { form, head } = sheet;
  return items.map(({ area, ...item }) => ({
    ...item,
    chart: id,
    bars: form.bars.length,
    sections: sectionsOf(form),
    beats: head.meter.beats,
    ...(area === null ? {} : { area })
  }));
}

/** Loops as the stand writes them down: those of one tempo and stretch that went alike in one row. */
function recorded(
  loops: readonly LogRow[],
  { chart, item, at }: { readonly chart: DemoChartRow; readonly item: Proposal; readonly at: number },
  chance: Chance
): DemoRow[] {
  const rows: (DemoRow & { loops: number[][] })[] = [];
  let began = at;
  for (const { tempo, clean, seconds, day, bars, loops: own } of loops) {
    const last = rows.at(-1);
    const missed = firstOf(own as readonly (readonly number[])[]);
    const stumbles = missed.flatMap(
      (bar) => chart.sheet.form.changes.find((change) => change.bar >= bar)?.index ?? []
    );
    const isAlike = last && last.tempo === tempo && last.clean === clean && last.bars?.from === bars?.from;
    if (isAlike && last.bars?.to === bars?.to) {
      last.rounds += 1;
      last.seconds += Math.round(seconds);
      last.loops.push([...missed]);
      last.stumbles.push(...stumbles);
    } else {
      rows.push({
        id: idOf(chance),
        item: item.id,
        chart: chart.id,
        kind: 'rehearse',
        what: item.name,
        startedAt: Math.round(began),
        day,
        seconds: Math.round(seconds),
        rounds: 1,
        tempo,
        clean,
        key: item.key,
        area: item.area,
        note: '',
        stumbles,
        ...(bars ? { bars } : {}),
        loops: [[...missed]],
        revision: 1
      });
    }
    began += seconds * 1000 + 2000;
  }
  return rows;
}

/** Answers of the trainer on a day: what is due, and some new cards. */
function answersOf(
  cards: readonly { readonly question: Question; readonly from: string }[],
  known: Map<Question, { due: number; times: number }>,
  { day, start }: { readonly day: string; readonly start: number },
  chance: Chance
): SentReview[] {
  const due = [...known].filter(([, card]) => card.due <= start).map(([question]) => question);
  const fresh = cards.filter(({ question, from }) => from <= day && !known.has(question)).slice(0, 3);
  return [...due, ...fresh.map(({ question }) => question)].slice(0, CARDS_A_DAY).map((question, i) => {
    const { times } = known.get(question) ?? { times: 0 };
    const isRight = chance() < 0.6 + 0.07 * Math.min(5, times);
    known.set(question, { due: start + (isRight ? 2 ** Math.min(5, times) : 1) * DAY, times: times + 1 });
    return {
      id: idOf(chance),
      question,
      at: start + i * 9000,
      day,
      isRight,
      seconds: Math.round((14 - 2 * Math.min(5, times) + 4 * chance()) * 10) / 10
    };
  });
}

/** An id of the usual form, by chance that can be had again. */
export function idOf(chance: Chance): string {
  const hex = (length: number) =>
    Array.from({ length }, () => Math.floor(chance() * 16).toString(16)).join('');
  return `${hex(8)}-${hex(4)}-4${hex(3)}-8${hex(3)}-${hex(12)}`;
}
