/** One chart as one file, and back: it comes in beside what is there, under ids of its own. */
import { entryOf } from '../../core/base/list';
import { randomUUID } from 'node:crypto';
import type { z } from 'zod';
import type { importChartFile, ChartFile } from '../../api/chart-file';
import type { StoredChart } from '../../api/songbook';
import { carriedOver } from '../../core/plan/version';
import { atOnce, type Database } from '../store/database';
import { keepNewLine, listLines } from '../store/lines';
import { keepNewItems, listItems } from '../practice/items';
import { record, wholeLog } from '../practice/log';
import { keepNewSolo, solos } from '../store/solos';
import { createChart, earlierVersions, openChart } from '../store/songbook';
import { insertTakes, judgedTake, listTakes, openTake } from '../takes/takes';

/** Items and rows of the log that are written at once. */
const AT_ONCE = 200;

/** What is kept of a chart. `isWhole`: with its takes and the log, for another machine of the same player. */
export async function chartFileOf(db: Database, id: string, isWhole: boolean): Promise<ChartFile> {
  const { source, plan, version } = await openChart(db, id);
  const [ownLines, ownSolos] = [await listLines(db, id), await solos.all(db, id)];
  const { earlier, numberOf } = await earlierVersions(
    db,
    id,
    version,
    [...ownLines, ...ownSolos].map(({ chartVersion }) => chartVersion)
  );
  /** Which of the earlier versions something was made over; none for the chart itself, or where it is not known. */
  const over = (chartVersion: number | null) => {
    const at = (numberOf(chartVersion) ?? earlier.length + 1) - 1;
    return at < earlier.length ? { over: at } : {};
  };
  const lines = ownLines.flatMap(({ id: own, name, chartVersion, data }) =>
    data ? [{ id: own, name, ...over(chartVersion), data: data as ChartFile['lines'][number]['data'] }] : []
  );
  const solosIn = ownSolos.flatMap(({ name, chartVersion, data }) =>
    data ? [{ name, ...over(chartVersion), data }] : []
  );
  const items = (await listItems(db)).flatMap(({ id: own, chart, data }) =>
    chart === id && data ? [{ id: own, data }] : []
  );
  const versions = earlier.map((then) => ({ chart: then.source, plan: then.plan }));
  const file = {
    corvel: 'chart',
    version: 3,
    chart: source,
    plan,
    versions,
    lines,
    solos: solosIn,
    items
  } as const;
  if (!isWhole) return { ...file, takes: [], log: [] };
  const takes: ChartFile['takes'] = [];
  for (const listed of await listTakes(db, id)) {
    const { name, playedAt, day, seconds, data } = await openTake(db, id, listed.id);
    if (data) takes.push({ name, playedAt, day, seconds, data });
  }
  const log = (await wholeLog(db))
    .filter(({ chart }) => chart === id)
    .map(({ id: _, chart: _chart, title: _title, version: _version, ...row }) => row);
  return { ...file, takes, log };
}

/** Brings a file in as a new chart: all of it, or nothing. */
export async function importChart(
  db: Database,
  { id, file }: z.infer<typeof importChartFile>
): Promise<StoredChart> {
  const there = await db.selectFrom('chart').select('id').where('id', '=', id).executeTakeFirst();
  if (there) return openChart(db, id);
  // What takes its time is done before the songbook is taken for writing.
  const version = { source: file.chart, plan: file.plan };
  const takes = file.takes.map(({ data, ...take }) => {
    // A take of an older file names no plan; it was played to this chart.
    const plan = data.plan ?? carriedOver(version, data.source).plan;
    const isThen = data.plan !== undefined || data.source === file.chart;
    return judgedTake({
      id: randomUUID(),
      ...take,
      data: { ...data, plan, ...(isThen ? {} : { today: true }) }
    });
  });
  return atOnce(db, async (trx) => {
    const earlier = file.versions.map(({ chart, plan }) => ({ source: chart, plan }));
    const created = await createChart(trx, { id, source: file.chart, plan: file.plan, earlier });
    await importParts(trx, created, file);
    await insertTakes(trx, id, takes);
    return created;
  });
}

async function importParts(
  db: Database,
  { id: chart, version: present }: StoredChart,
  { versions, lines, solos: ownSolos, items, log }: ChartFile
): Promise<void> {
  const versionOf = (over: number | undefined) =>
    over !== undefined && over < versions.length ? over + 1 : present;
  const lineIds = new Map(lines.map(({ id }) => [id, randomUUID() as string]));
  const itemIds = new Map(items.map(({ id }) => [id, `${chart}:${randomUUID()}`]));
  for (const { id, name, over, data } of lines)
    await keepNewLine(db, chart, { id: entryOf(lineIds, id), name, chartVersion: versionOf(over), data });
  for (const { name, over, data } of ownSolos)
    await keepNewSolo(db, chart, { id: randomUUID(), name, chartVersion: versionOf(over), data });
  const kept = items.map(({ id, data }) => ({
    id: entryOf(itemIds, id),
    chart,
    data: {
      ...data,
      ...(data.line === undefined ? {} : { line: lineIds.get(data.line) ?? data.line }),
      // What it stands on may be an item of another chart, which is not here.
      after: data.after.flatMap((own) => itemIds.get(own) ?? [])
    }
  }));
  for (const some of inParts(kept)) await keepNewItems(db, { items: some });
  const rows = log.map((row) => ({
    ...row,
    id: randomUUID() as string,
    chart,
    item: row.item === null ? null : (itemIds.get(row.item) ?? null),
    revision: 0
  }));
  for (const some of inParts(rows)) await record(db, { rows: some });
}

function inParts<T>(all: readonly T[]): T[][] {
  return Array.from({ length: Math.ceil(all.length / AT_ONCE) }, (_, i) =>
    all.slice(i * AT_ONCE, (i + 1) * AT_ONCE)
  );
}
