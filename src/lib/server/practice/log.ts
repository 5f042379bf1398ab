/** The log of practice: written by itself while the player plays, corrected by hand, never lost. */
import { z } from 'zod';
import { timeByDay } from '../../core/takes/judge/time-days';
import { timedTakes } from '../takes/takes';
import { fail } from '../../api/errors';
import {
  logRow,
  type changeRow,
  type listLog,
  type LogEntry,
  type LogKind,
  type recordRows,
  type LogPart,
  type StoredRow
} from '../../api/practice';
import type { PlacedRow } from '../../core/practice/log/sums';
import { atOnce, type Database } from '../store/database';
import { readColumn } from '../store/songbook';
import type { Tables } from '../store/tables';

/** What a row tells beside its columns. */
const rowData = z.object({
  what: z.string().default(''),
  note: z.string().default(''),
  stumbles: z.array(z.number()).default([]),
  bars: logRow.shape.bars,
  loops: logRow.shape.loops,
  asked: z.number().optional(),
  right: z.number().optional(),
  /** As the recorder wrote it, once it has been corrected by hand. */
  was: z.unknown().optional()
});

type Row = Omit<Tables['practice_log'], 'seq'>;

function columnsOf(entry: LogEntry, now: number): Omit<Row, 'revision' | 'version' | 'deleted_at'> {
  const { what, note, stumbles, bars, loops, asked, right } = entry;
  return {
    id: entry.id,
    item_id: entry.item,
    chart_id: entry.chart,
    kind: entry.kind,
    started_at: entry.startedAt,
    day: entry.day,
    seconds: entry.seconds,
    rounds: entry.rounds,
    tempo: entry.tempo,
    clean: entry.clean === null ? null : Number(entry.clean),
    key: entry.key,
    area: entry.area,
    data: JSON.stringify({ what, note, stumbles, bars, loops, asked, right }),
    updated_at: now
  };
}

/**
 * Takes rows from the recorder. Sent twice a row is kept once; a later state of it (`revision`) replaces an earlier one, never
 * one that was corrected by hand or deleted.
 */
export async function record(db: Database, { rows }: z.infer<typeof recordRows>): Promise<void> {
  const now = Date.now();
  await atOnce(db, async (trx) => {
    for (const { revision, ...entry } of rows) {
      const columns = columnsOf(entry, now);
      await trx
        .insertInto('practice_log')
        .values({ ...columns, revision, version: 0, deleted_at: null })
        .onConflict((conflict) =>
          conflict
            .column('id')
            .doUpdateSet({ ...columns, revision })
            .where('practice_log.version', '=', 0)
            .where('practice_log.revision', '<', revision)
            .where('practice_log.deleted_at', 'is', null)
        )
        .execute();
    }
  });
}

const rowsOf = (db: Database) =>
  db
    .selectFrom('practice_log')
    .leftJoin('chart', (join) =>
      join.onRef('chart.id', '=', 'practice_log.chart_id').on('chart.deleted_at', 'is', null)
    )
    .select([
      'practice_log.id as id',
      'item_id',
      'chart_id',
      'kind',
      'started_at',
      'day',
      'seconds',
      'rounds',
      'tempo',
      'clean',
      'key',
      'area',
      'data',
      'practice_log.version as version',
      'chart.title as title'
    ])
    .where('practice_log.deleted_at', 'is', null);

type Listed = Awaited<ReturnType<ReturnType<typeof rowsOf>['executeTakeFirstOrThrow']>>;

function storedRow(row: Listed): StoredRow {
  const data = readColumn(rowData, row.data) ?? rowData.parse({});
  return {
    id: row.id,
    item: row.item_id,
    chart: row.chart_id,
    kind: row.kind as LogKind,
    what: data.what,
    startedAt: row.started_at,
    day: row.day,
    seconds: row.seconds,
    rounds: row.rounds,
    tempo: row.tempo,
    clean: row.clean === null ? null : row.clean === 1,
    key: row.key,
    area: row.area,
    note: data.note,
    stumbles: data.stumbles,
    ...(data.bars === undefined ? {} : { bars: data.bars }),
    ...(data.loops === undefined ? {} : { loops: data.loops }),
    ...(data.asked === undefined ? {} : { asked: data.asked, right: data.right ?? 0 }),
    version: row.version,
    title: row.title
  };
}

/** A part of the log, the latest first. */
export async function listRows(
  db: Database,
  { chart, day, offset, limit }: z.infer<typeof listLog>
): Promise<LogPart> {
  let rows = rowsOf(db);
  if (chart) rows = rows.where('chart_id', '=', chart);
  if (day) rows = rows.where('day', '=', day);
  const { total } = await rows
    .clearSelect()
    .select((eb) => eb.fn.countAll<number>().as('total'))
    .executeTakeFirstOrThrow();
  const found = await rows
    .orderBy('day', 'desc')
    .orderBy('seq', 'desc')
    .limit(limit)
    .offset(offset)
    .execute();
  const days = [...new Set(found.map((row) => row.day))];
  return { rows: found.map(storedRow), total, time: timeByDay(await timedTakes(db, days)) };
}

/** The whole log in the order written. */
export async function wholeLog(db: Database): Promise<StoredRow[]> {
  return (await rowsOf(db).orderBy('seq').execute()).map(storedRow);
}

/** What progress and sums are read from, in the order written. */
export async function placedRows(db: Database): Promise<PlacedRow[]> {
  const rows = await db
    .selectFrom('practice_log')
    .select(['item_id', 'chart_id', 'day', 'tempo', 'clean', 'rounds', 'seconds', 'key', 'area', 'data'])
    .where('deleted_at', 'is', null)
    .orderBy('seq')
    .execute();
  return rows.map(({ item_id, chart_id, clean, data, ...row }) => ({
    ...row,
    item: item_id,
    chart: chart_id,
    clean: clean === null ? null : clean === 1,
    ...whereOf(data)
  }));
}

const played = rowData.pick({ bars: true, loops: true });
/** The stretch that a row was played over, and where it went wrong loop by loop. */
function whereOf(data: string): Pick<PlacedRow, 'bars' | 'loops'> {
  // Most rows tell neither; only those that do are read.
  if (!data.includes('"bars":')) return {};
  return readColumn(played, data) ?? {};
}

/** Where it went wrong, by chart: the changes of every stumble, from a day on. */
export async function stumblesSince(
  db: Database,
  day: string
): Promise<ReadonlyMap<string, { readonly stumbles: readonly number[] }[]>> {
  const rows = await db
    .selectFrom('practice_log')
    .select(['chart_id', 'data'])
    .where('deleted_at', 'is', null)
    .where('chart_id', 'is not', null)
    .where('day', '>=', day)
    // Only a round that was not clean tells stumbles.
    .where('clean', '=', 0)
    .execute();
  const byChart = new Map<string, { stumbles: readonly number[] }[]>();
  for (const { chart_id, data } of rows) {
    const own = readColumn(rowData, data);
    if (!own?.stumbles.length) continue;
    const known = byChart.get(chart_id!);
    if (known) known.push(own);
    else byChart.set(chart_id!, [own]);
  }
  return byChart;
}

async function oneRow(db: Database, id: string): Promise<StoredRow> {
  const row = await rowsOf(db).where('practice_log.id', '=', id).executeTakeFirst();
  return row ? storedRow(row) : noRow();
}

function noRow(): never {
  return fail(404, { code: 'no-row', message: 'This entry is not in the log; it may have been deleted.' });
}

/** Corrects a row by hand, on top of the version it was read at. */
export async function correctRow(
  db: Database,
  id: string,
  { base, ...part }: z.infer<typeof changeRow>
): Promise<StoredRow> {
  const stored = await oneRow(db, id);
  const given = Object.fromEntries(Object.entries(part).filter(([, value]) => value !== undefined));
  const { id: _, data, ...columns } = columnsOf({ ...stored, ...given }, Date.now());
  const before = await db
    .selectFrom('practice_log')
    .selectAll()
    .where('id', '=', id)
    .executeTakeFirstOrThrow();
  const { seconds, rounds, tempo, clean, day } = before;
  const was = readColumn(rowData, before.data)?.was ?? { seconds, rounds, tempo, clean, day };
  const { numUpdatedRows } = await db
    .updateTable('practice_log')
    .set({ ...columns, data: JSON.stringify({ ...(JSON.parse(data) as object), was }), version: base + 1 })
    .where('id', '=', id)
    .where('version', '=', base)
    .executeTakeFirst();
  if (numUpdatedRows === 0n) {
    // The very correction that was made last: its answer was lost, and it was sent again.
    const isSame = Object.entries(given).every(([name, value]) => stored[name as keyof StoredRow] === value);
    if (stored.version === base + 1 && isSame) return stored;
    fail(
      409,
      { code: 'stale', message: 'This entry was changed in another window since. Nothing was overwritten.' },
      { stored }
    );
  }
  return oneRow(db, id);
}

/** Soft: it can be brought back. */
export async function markRow(db: Database, id: string, deletedAt: number | null): Promise<void> {
  const { numUpdatedRows } = await db
    .updateTable('practice_log')
    .set({ deleted_at: deletedAt })
    .where('id', '=', id)
    .executeTakeFirst();
  if (numUpdatedRows === 0n) noRow();
}
