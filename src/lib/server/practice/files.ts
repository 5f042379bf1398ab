/** The log and the items as files, and a log from a file. */
import { randomUUID } from 'node:crypto';
import { LOG_KINDS, type LogKind } from '../../api/practice';
import { logFromCsv, logToCsv, type LeftLine } from '../../core/practice/log/csv';
import { numberOf } from '../../core/practice/log/day';
import type { Database } from '../store/database';
import { listItems } from './items';
import { record, wholeLog } from './log';

const NOON = 12 * 60 * 60 * 1000;
const DAY = 24 * 60 * 60 * 1000;
const AT_ONCE = 200;

export async function logCsv(db: Database): Promise<string> {
  const rows = await wholeLog(db);
  return logToCsv(rows.map((row) => ({ ...row, title: row.title ?? '' })));
}

/** All that is known of practice, as it is kept. */
export async function practiceJson(db: Database): Promise<object> {
  return { corvel: 'practice', version: 1, items: await listItems(db), log: await wholeLog(db) };
}

/** Takes the good rows of a table into the log; a row whose id is there already stays as it is, and is not counted as taken. */
export async function takeLog(
  db: Database,
  text: string
): Promise<{ taken: number; left: readonly LeftLine[] }> {
  const { rows, left } = logFromCsv(text);
  const charts = await db
    .selectFrom('chart')
    .select(['id', 'title'])
    .where('deleted_at', 'is', null)
    .execute();
  const byTitle = new Map(charts.map(({ id, title }) => [title, id]));
  const isId = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i;
  const entries = rows.map(({ title, kind, startedAt, ...row }) => ({
    ...row,
    id: isId.test(row.id) ? row.id.toLowerCase() : randomUUID(),
    chart: byTitle.get(title) ?? null,
    kind: (LOG_KINDS as readonly string[]).includes(kind) ? (kind as LogKind) : ('own' as const),
    startedAt: startedAt ?? numberOf(row.day) * DAY + NOON,
    stumbles: [],
    // Never later than what is there.
    revision: -1
  }));
  const before = await countRows(db);
  for (let at = 0; at < entries.length; at += AT_ONCE) {
    await record(db, { rows: entries.slice(at, at + AT_ONCE) });
  }
  return { taken: (await countRows(db)) - before, left };
}

/** Rows of the log, deleted ones too. */
async function countRows(db: Database): Promise<number> {
  const { count } = await db
    .selectFrom('practice_log')
    .select((eb) => eb.fn.countAll<number>().as('count'))
    .executeTakeFirstOrThrow();
  return count;
}
