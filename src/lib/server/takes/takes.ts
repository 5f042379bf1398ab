/** The takes of a chart: notes, clock and targets in the database, sounds beside it, and what the judgement says for lists. */
import type { z } from 'zod';
import { planSchema } from '../../api/plan';
import {
  takeData,
  takeLanding,
  takeTime,
  type changeTake,
  type keepTake,
  type ListedTake,
  type StoredTake,
  type TakeData,
  type TakeLanding,
  type TakeSounds,
  type TakeSummary,
  type WayIn
} from '../../api/take';
import { systemOf } from '../../core/neck/systems/registry';
import { STANDARD } from '../../core/neck/tuning';
import { meantTargets } from '../../core/plan/pin-times';
import { DEFAULT_PLAN } from '../../core/plan/model';
import { arrangeVersion, carriedOver } from '../../core/plan/version';
import { judgeTake } from '../../core/takes/judge/judge';
import { chartSwing } from '../../core/practice/chart-swing';
import type { TimedTake } from '../../core/takes/judge/time-days';
import { THRESHOLDS } from '../../core/takes/judge/thresholds';
import type { Database } from '../store/database';
import type { Tables } from '../store/tables';
import { storedKind } from '../store/stored-kind';
import { openChart, readColumn } from '../store/songbook';
import { isTakeId, removeSound, soundBytes } from './sounds';

/** Takes that one chart keeps. */
const MOST_TAKES = 1000;
/** Days after which what was deleted can not be brought back any more. */
const KEPT_DAYS = 7;
const DAY = 24 * 60 * 60 * 1000;

const LISTED = [
  'id',
  'name',
  'version',
  'way',
  'played_at',
  'day',
  'seconds',
  'bytes',
  'loved',
  'tempo',
  'summary'
] as const;

type Row = Pick<Tables['take'], (typeof LISTED)[number]>;

function listedFrom({ played_at, loved, way, summary, ...row }: Row): ListedTake {
  return {
    ...row,
    way: way as WayIn,
    playedAt: played_at,
    isLoved: loved === 1,
    summary: summaryFrom(summary)
  };
}

/** Summaries are made here; one of an older judgement, or a damaged one, is left out until the take is opened. */
function summaryFrom(text: string): TakeSummary | null {
  try {
    const { figures, landings, time } = JSON.parse(text) as TakeSummary;
    return {
      figures,
      landings: takeLanding.array().parse(landings),
      ...(time ? { time: takeTime.parse(time) } : {})
    };
  } catch {
    return null;
  }
}

/** The takes of a chart, the last played first. */
export async function listTakes(db: Database, chart: string): Promise<ListedTake[]> {
  const rows = await db
    .selectFrom('take')
    .select(LISTED)
    .where('chart_id', '=', chart)
    .where('deleted_at', 'is', null)
    .orderBy('played_at', 'desc')
    .orderBy('id')
    .execute();
  return rows.map(listedFrom);
}

export const takes = storedKind({
  table: 'take',
  noun: 'take',
  gone: { code: 'no-take', message: 'This take is not kept any more; it may have been deleted.' },
  most: {
    count: MOST_TAKES,
    refusal: {
      code: 'too-many-takes',
      message: `A chart keeps up to ${MOST_TAKES} takes; delete some you have learnt from.`
    }
  },
  isOfChart: true,
  rows: (db) =>
    db
      .selectFrom('take')
      .select([...LISTED, 'data'])
      .where('deleted_at', 'is', null),
  shown: ({ data, ...listed }): StoredTake => ({ ...listedFrom(listed), data: readColumn(takeData, data) })
});

export const openTake = (db: Database, chart: string, id: string): Promise<StoredTake> =>
  takes.open(db, id, chart);

/** Keeps a new take; sent twice it is kept once. */
export async function keepNewTake(
  db: Database,
  chart: string,
  take: z.infer<typeof keepTake>
): Promise<StoredTake> {
  if (!(await takes.has(db, take.id))) {
    const versioned = await withVersion(db, chart, take.data);
    await insertTakes(db, chart, [judgedTake({ ...take, data: versioned })]);
  }
  return openTake(db, chart, take.id);
}

/** A take with what is read from it; worked out before the songbook is taken for writing. */
export type JudgedTake = ReturnType<typeof judgedTake>;
export function judgedTake({ data, ...take }: z.infer<typeof keepTake>) {
  return { ...take, columns: columnsOf(data, summaryOf(data)) };
}

/**
 * A take with the version of the chart that it was played to: the plan that it names; else the one that was saved last with that very text;
 * else today's, carried over to that text, which is said.
 */
export async function withVersion(db: Database, chart: string, data: TakeData): Promise<TakeData> {
  if (data.plan) return data;
  const { source, plan } = await openChart(db, chart);
  if (source === data.source) return { ...data, plan };
  const saved = await db
    .selectFrom('chart_revision')
    .select('plan')
    .where('chart_id', '=', chart)
    .where('source', '=', data.source)
    .orderBy('id', 'desc')
    .executeTakeFirst();
  const then = saved && readColumn(planSchema, saved.plan);
  if (then) return { ...data, plan: then };
  return { ...data, plan: carriedOver({ source, plan }, data.source).plan, today: true };
}

/** Puts judged takes in. */
export async function insertTakes(db: Database, chart: string, judged: readonly JudgedTake[]): Promise<void> {
  await takes.admit(db, judged.length, chart);
  for (const { id, name, playedAt, day, seconds, columns } of judged) {
    await takes.insert(db, {
      id,
      chart_id: chart,
      name,
      played_at: playedAt,
      day,
      seconds,
      bytes: soundBytes(db, id),
      ...columns
    });
  }
}

/** What is read from a take's data whenever it is written. */
function columnsOf(data: TakeData, summary: TakeSummary | null) {
  return {
    way: data.way,
    tempo: data.tempo,
    loved: data.isLoved ? 1 : 0,
    summary: JSON.stringify(summary),
    data: JSON.stringify(data)
  };
}

/** What a list tells of a take: judged against the chart as it was played. */
function summaryOf({
  source,
  plan = DEFAULT_PLAN,
  notes,
  tempo,
  start,
  targets,
  trade
}: TakeData): TakeSummary | null {
  const { sheet, analysis, chosen } = arrangeVersion({ source, plan }, STANDARD, systemOf('positions'));
  if (analysis.changes.length === 0) return null;
  const { changes, figures, time } = judgeTake(
    {
      notes,
      clock: { tempo, start },
      targets: meantTargets(targets, plan, sheet.form),
      trade: trade?.bars,
      swing: chartSwing(sheet, tempo)
    },
    { form: sheet.form, analysis, chosen, meter: sheet.head.meter, neck: STANDARD }
  );
  const { rounds, outlined, hits, late, apart, fits } = figures;
  return {
    figures: { notes: figures.notes, rounds, changes: figures.changes, outlined, hits, late, apart, fits },
    landings: changes.map(({ change, round, target, verdict }) => ({
      change,
      round,
      met: target?.met ?? null,
      late: target?.late ?? null,
      verdict
    })),
    time: { mean: milli(time.mean), spread: milli(time.spread), drift: milli(time.drift) }
  };
}

const milli = (value: number) => Math.round(value * 1000) / 1000;

/** Renames a take, or puts other notes in it, on top of the version the edit was based on. */
export async function editTake(
  db: Database,
  chart: string,
  id: string,
  { base, name, seconds, data }: z.infer<typeof changeTake>
): Promise<{ version: number }> {
  const stored = await openTake(db, chart, id);
  const columns = data === undefined ? {} : await editedColumns(db, chart, stored, data);
  const set = {
    ...(name === undefined ? {} : { name }),
    ...(seconds === undefined ? {} : { seconds }),
    ...columns,
    bytes: soundBytes(db, id)
  };
  await takes.edit(db, { id, base, set }, chart);
  return { version: base + 1 };
}

/** What a take is judged by. Another name, a heart, a remark change nothing of it. */
const judgedBy = ({ source, plan, notes, tempo, start, targets, trade }: TakeData) =>
  JSON.stringify([source, plan, notes, tempo, start, targets, trade]);

/** What was judged stays as it was, until something that it was judged by is changed. */
async function editedColumns(db: Database, chart: string, stored: StoredTake, edit: TakeData) {
  const known = stored.data?.source === edit.source ? stored.data : null;
  const data = await withVersion(db, chart, {
    ...edit,
    ...(edit.plan || !known?.plan ? {} : { plan: known.plan, ...(known.today ? { today: true } : {}) })
  });
  const before = stored.data && { ...stored.data, plan: stored.data.plan ?? data.plan };
  const isSame = stored.summary !== null && before !== null && judgedBy(before) === judgedBy(data);
  return columnsOf(data, isSame ? stored.summary : summaryOf(data));
}

/** Notes how much the sound of a take fills. */
export async function measureSound(db: Database, id: string): Promise<void> {
  await db
    .updateTable('take')
    .set({ bytes: soundBytes(db, id) })
    .where('id', '=', id)
    .execute();
}

/** Takes the sound of a take off the disk; its notes and what was read in them stay. */
export async function forgetSound(db: Database, chart: string, id: string): Promise<void> {
  await openTake(db, chart, id);
  removeSound(db, id);
  await measureSound(db, id);
}

/** What the sounds of all takes fill; those that are not loved and the oldest first. */
export async function takeSounds(db: Database): Promise<TakeSounds> {
  const rows = await db
    .selectFrom('take')
    .innerJoin('chart', 'chart.id', 'take.chart_id')
    .select([
      'take.id',
      'take.name',
      'take.bytes',
      'take.played_at',
      'take.loved',
      'chart.id as chart',
      'chart.title'
    ])
    .where('take.deleted_at', 'is', null)
    .where('take.bytes', '>', 0)
    .orderBy('take.loved')
    .orderBy('take.played_at')
    .execute();
  return {
    bytes: rows.reduce((sum, { bytes }) => sum + bytes, 0),
    takes: rows.map(({ played_at, loved, ...row }) => ({ ...row, playedAt: played_at, isLoved: loved === 1 }))
  };
}

/** How the player lay in time: the takes that fit their chart, of some days or of all. */
export async function timedTakes(db: Database, days?: readonly string[]): Promise<TimedTake[]> {
  let rows = db.selectFrom('take').select(['day', 'summary']).where('deleted_at', 'is', null);
  if (days) rows = rows.where('day', 'in', [...days]);
  return (await rows.execute()).flatMap(({ day, summary }): TimedTake[] => {
    const read = summaryFrom(summary);
    return read?.figures.fits && read.time ? [{ day, mean: read.time.mean, spread: read.time.spread }] : [];
  });
}

/** How the changes of each chart were met, in all takes that fit it. */
export async function landingsByChart(db: Database): Promise<ReadonlyMap<string, readonly TakeLanding[]>> {
  const rows = await db
    .selectFrom('take')
    .select(['chart_id', 'summary'])
    .where('deleted_at', 'is', null)
    .execute();
  const byChart = new Map<string, TakeLanding[]>();
  for (const { chart_id, summary } of rows) {
    const read = summaryFrom(summary);
    if (read?.figures.fits) byChart.set(chart_id, [...(byChart.get(chart_id) ?? []), ...read.landings]);
  }
  return byChart;
}

/**
 * Changes that were missed in takes since a day, one entry for each take of a chart: late, silent or outside. A take that fits its chart
 * nowhere tells nothing.
 */
export async function missedSince(db: Database, day: string): Promise<ReadonlyMap<string, MissedInTake[]>> {
  const rows = await db
    .selectFrom('take')
    .select(['chart_id', 'summary', 'day', 'tempo'])
    .where('deleted_at', 'is', null)
    .where('day', '>=', day)
    .execute();
  const byChart = new Map<string, MissedInTake[]>();
  for (const { chart_id, summary, day: played, tempo } of rows) {
    const read = summaryFrom(summary);
    if (!read?.figures.fits) continue;
    const stumbles = read.landings.filter(isMissed).map(({ change }) => change);
    byChart.set(chart_id, [...(byChart.get(chart_id) ?? []), { stumbles, day: played, tempo }]);
  }
  return byChart;
}

/** A take with the changes at which its target was missed. */
export interface MissedInTake {
  readonly stumbles: readonly number[];
  readonly day: string;
  readonly tempo: number;
}

const isMissed = ({ met, late }: TakeLanding) =>
  met === 'silent' || met === 'outside' || (met === 'late' && (late ?? 0) >= THRESHOLDS.seam);

/** Removes for good what was deleted long ago: rows and sounds. */
export async function sweepTakes(db: Database, now: number): Promise<void> {
  const old = await db
    .selectFrom('take')
    .select('id')
    .where('deleted_at', '<', now - KEPT_DAYS * DAY)
    .execute();
  for (const { id } of old) {
    // An id that names no file has none; whatever it is, it stops no start.
    if (isTakeId(id)) removeSound(db, id);
    await db.deleteFrom('take').where('id', '=', id).execute();
  }
}
