/** The lines that are kept with a chart. */
import type { z } from 'zod';
import { fail } from '../api/errors';
import { lineData, type changeLine, type keepLine, type StoredLine } from '../api/line';
import type { Database } from './database';
import { editKept, freshRow, insertKept, isGone, isKept, type Kept, markKept } from './kept';
import { readColumn } from './songbook';

/** Lines that one chart keeps. */
const MOST_LINES = 500;

const LINE: Kept = {
  table: 'line',
  noun: 'line',
  gone: { code: 'no-line', message: 'This line is not kept with the chart; it may have been deleted.' }
};

type Row = { id: string; name: string; version: number; data: string };

function lineFrom({ id, name, version, data }: Row): StoredLine {
  return { id, name, version, data: readColumn(lineData, data) as StoredLine['data'] };
}

/** The lines of a chart, the oldest first. */
export async function listLines(db: Database, chart: string): Promise<StoredLine[]> {
  const rows = await db
    .selectFrom('line')
    .select(['id', 'name', 'version', 'data'])
    .where('chart_id', '=', chart)
    .where('deleted_at', 'is', null)
    .orderBy('created_at')
    .orderBy('id')
    .execute();
  return rows.map(lineFrom);
}

async function oneLine(db: Database, chart: string, id: string): Promise<StoredLine> {
  const row = await db
    .selectFrom('line')
    .select(['id', 'name', 'version', 'data'])
    .where('chart_id', '=', chart)
    .where('id', '=', id)
    .where('deleted_at', 'is', null)
    .executeTakeFirst();
  return row ? lineFrom(row) : isGone(LINE);
}

/** Keeps a new line; sent twice it is kept once. */
export async function keepNewLine(
  db: Database,
  chart: string,
  { id, name, data }: z.infer<typeof keepLine>
): Promise<StoredLine> {
  if (await isKept(db, 'line', id)) return oneLine(db, chart, id);
  const owner = await db
    .selectFrom('chart')
    .select('id')
    .where('id', '=', chart)
    .where('deleted_at', 'is', null)
    .executeTakeFirst();
  if (!owner)
    fail(404, { code: 'no-chart', message: 'This chart is not in the songbook; it may have been deleted.' });
  const { n } = await db
    .selectFrom('line')
    .select((eb) => eb.fn.countAll<number>().as('n'))
    .where('chart_id', '=', chart)
    .where('deleted_at', 'is', null)
    .executeTakeFirstOrThrow();
  if (n >= MOST_LINES) {
    fail(413, {
      code: 'too-many-lines',
      message: `A chart keeps up to ${MOST_LINES} lines; delete some you no longer play.`
    });
  }
  await insertKept(db, 'line', {
    id,
    chart_id: chart,
    name,
    data: JSON.stringify(data),
    ...freshRow()
  });
  return oneLine(db, chart, id);
}

/** Renames a line, or puts other notes in it, on top of the version the edit was based on. */
export async function editLine(
  db: Database,
  chart: string,
  id: string,
  { base, name, data }: z.infer<typeof changeLine>
): Promise<{ version: number }> {
  const stored = await oneLine(db, chart, id);
  const set = {
    ...(name === undefined ? {} : { name }),
    ...(data === undefined ? {} : { data: JSON.stringify(data) })
  };
  await editKept(db, LINE, { id, base, set }, stored);
  return { version: base + 1 };
}

/** Soft: it can be brought back. */
export async function deleteLine(db: Database, chart: string, id: string): Promise<void> {
  await oneLine(db, chart, id);
  await markKept(db, LINE, id, Date.now());
}

export async function bringBackLine(db: Database, id: string): Promise<void> {
  await markKept(db, LINE, id, null);
}
