/** The lines that are kept with a chart, each with the version of it that it was written over. */
import type { z } from 'zod';
import { lineData, type changeLine, type keepLine, type StoredLine } from '../../api/line';
import type { Database } from './database';
import { storedKind, named } from './stored-kind';
import { versionNamed, readColumn } from './songbook';

const MOST_LINES = 500;

export const lines = storedKind({
  table: 'line',
  noun: 'line',
  gone: { code: 'no-line', message: 'This line is not kept with the chart; it may have been deleted.' },
  most: {
    count: MOST_LINES,
    refusal: {
      code: 'too-many-lines',
      message: `A chart keeps up to ${MOST_LINES} lines; delete some you no longer play.`
    }
  },
  isOfChart: true,
  rows: (db) =>
    db
      .selectFrom('line')
      .select(['id', 'name', 'version', 'chart_version', 'data'])
      .where('deleted_at', 'is', null),
  shown: ({ id, name, version, chart_version, data }): StoredLine => ({
    id,
    name,
    version,
    chartVersion: chart_version,
    data: readColumn(lineData, data) as StoredLine['data']
  })
});

/** The lines of a chart, the oldest first. */
export const listLines = (db: Database, chart: string): Promise<StoredLine[]> => lines.all(db, chart);

/** Keeps a new line; it belongs to the version of the chart that is named, else to the one there is. */
export async function keepNewLine(
  db: Database,
  chart: string,
  { id, chartVersion, ...line }: z.infer<typeof keepLine>
): Promise<StoredLine> {
  const over = await versionNamed(db, chart, chartVersion);
  return lines.keep(db, { id, name: line.name, data: JSON.stringify(line.data), chart_version: over }, chart);
}

/** Renames a line, or puts other notes in it, which belong to the version of the chart they were written over. */
export async function editLine(
  db: Database,
  chart: string,
  id: string,
  { base, chartVersion, ...line }: z.infer<typeof changeLine>
): Promise<{ version: number }> {
  const over = line.data && { chart_version: await versionNamed(db, chart, chartVersion) };
  await lines.edit(db, { id, base, set: { ...named(line), ...over } }, chart);
  return { version: base + 1 };
}
