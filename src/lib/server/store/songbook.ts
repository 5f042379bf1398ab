/** The songbook: charts with their plans, every save kept. */
import { sure } from '../../core/base/list';
import { randomUUID } from 'node:crypto';
import { sql } from 'kysely';
import { byteLength, MAX_CHART_BYTES, tooLargeMessage } from '../../api/limits';
import { planSchema } from '../../api/plan';
import { firstPlan } from '../../core/plan/arrange';
import { DEFAULT_PLAN, type Plan } from '../../core/plan/model';
import type { ChartVersion } from '../../core/plan/version';
import { z } from 'zod';
import type {
  ChartList,
  Facet,
  Facets,
  listCharts,
  ManyCharts,
  RevisionSummary,
  StoredChart
} from '../../api/songbook';
import { keyText } from '../../core/harmony/key';
import { readSheet } from '../../core/harmony/sheet';
import { declared, directivesIn, withDeclaration } from '../../core/chart/directives';
import { tagged, tagsOf, untagged } from '../../core/chart/tags';
import { counted } from '../../core/theory/words';
import { fail } from '../../api/errors';
import { atOnce, fileOf, type Database } from './database';
import { heldTempos, lastPractised } from '../practice/played';
import { searchText, searchWords } from './search';

const UNTITLED = 'Untitled chart';
/** Earlier versions that are listed; all of them are kept. */
const SHOWN_REVISIONS = 200;

const summarySchema = z.object({
  key: z.string(),
  meter: z.string(),
  tempo: z.number().nullable(),
  feel: z.string().nullable(),
  bars: z.number(),
  opening: z.array(z.string()),
  // What was not told before a chart was saved last is told by its text, see `refreshSummaries`.
  form: z.string().optional(),
  tags: z.array(z.string()).optional()
});
type Summary = z.infer<typeof summarySchema>;

/** What the songbook shows of a chart and finds it by, read from its text. */
export function summarise(source: string): { title: string; summary: Summary; search: string } {
  const { head, form, analysis } = readSheet(source);
  const { tonic, mode } = analysis.key;
  // Each place in the text once, however often the form plays it.
  const written = new Map(
    form.changes.map(({ place, symbol }) => [`${place?.line}:${place?.column}`, symbol])
  );
  const symbols = [...written.values()];
  const title = head.title ?? UNTITLED;
  const summary = {
    key: symbols.length ? keyText({ tonic, mode }) : '',
    meter: `${head.meter.beats}/${head.meter.unit}`,
    tempo: head.tempo,
    feel: head.feel,
    bars: form.bars.length,
    form: analysis.blues ? `${form.bars.length}-bar blues` : counted(form.bars.length, 'bar'),
    tags: tagsOf(source),
    opening: symbols.filter((symbol, i) => symbol !== symbols[i - 1]).slice(0, 8)
  };
  return { title, summary, search: searchText(title, summary, summary.tags) };
}

/** The title alone, without reading the bars. */
function titleOf(source: string): string {
  return declared(directivesIn(source), 'title') ?? UNTITLED;
}

function checkSize(source: string): void {
  if (byteLength(source) > MAX_CHART_BYTES) {
    fail(413, { code: 'chart-too-large', message: tooLargeMessage(source), path: 'source' });
  }
}

/** A column that should hold text; one that something else has filled otherwise is empty. */
const textOf = (value: unknown): string => (typeof value === 'string' ? value : '');

/** A JSON column through its schema; null where it cannot be read. */
export function readColumn<T extends z.ZodType>(schema: T, data: string): z.infer<T> | null {
  try {
    return schema.parse(JSON.parse(data));
  } catch {
    return null;
  }
}

const readPlan = (data: string): Plan | null => readColumn(planSchema, data);

export async function listSongbook(db: Database, query: z.infer<typeof listCharts>): Promise<ChartList> {
  let rows = db.selectFrom('chart').where('deleted_at', 'is', null);
  for (const word of searchWords(query.search)) {
    rows = rows.where(sql<boolean>`instr(search, ${word}) > 0`);
  }
  for (const facet of ['key', 'form', 'style'] as const) {
    if (query[facet] !== undefined) rows = rows.where(sql<boolean>`${told(FACETS[facet])} = ${query[facet]}`);
  }
  if (query.tag !== undefined) {
    rows = rows.where(
      sql<boolean>`exists (select 1 from json_each(${told('$.tags')}) where lower(value) = lower(${query.tag}))`
    );
  }
  if (query.practised !== undefined) {
    const since = sql`(select max(started_at) from practice_log where chart_id = chart.id and practice_log.deleted_at is null)`;
    const line = Date.now() - LATELY;
    rows = rows.where(
      query.practised === 'never'
        ? sql<boolean>`${since} is null`
        : query.practised === 'lately'
          ? sql<boolean>`${since} >= ${line}`
          : sql<boolean>`${since} < ${line}`
    );
  }
  const { total } = await rows.select((eb) => eb.fn.countAll<number>().as('total')).executeTakeFirstOrThrow();
  const found = await rows
    .leftJoin('plan', 'plan.chart_id', 'chart.id')
    .leftJoin(lastPractised, 'practised.chart_id', 'chart.id')
    .select(['chart.id', 'title', 'source', 'summary', 'updated_at', 'practised_at', 'plan.data'])
    .orderBy(
      query.sort === 'title' ? 'title' : query.sort === 'changed' ? 'updated_at' : 'practised_at',
      query.sort === 'title' ? 'asc' : 'desc'
    )
    .orderBy('title')
    .limit(query.limit)
    .offset(query.offset)
    .execute();
  const held = await heldTempos(
    db,
    found.map(({ id }) => id)
  );
  return {
    total,
    facets: await facetsOf(db),
    charts: found.map((row) => ({
      id: row.id,
      title: textOf(row.title) || UNTITLED,
      // The summary only repeats the text: where it is damaged, the text is read again.
      ...complete(readColumn(summarySchema, row.summary) ?? summarise(textOf(row.source)).summary),
      updatedAt: row.updated_at,
      practisedAt: row.practised_at,
      heldTempo: held.get(row.id) ?? null,
      damaged: typeof row.source !== 'string' || (row.data !== null && readPlan(row.data) === null)
    }))
  };
}

/** Milliseconds for which a chart counts as practised lately. */
const LATELY = 30 * 24 * 60 * 60 * 1000;
/** Where a summary tells what charts are told apart by. */
const FACETS = { key: '$.key', form: '$.form', style: '$.feel' } as const;
/** Something that the summary tells; nothing where it is damaged. */
const told = (path: string) => sql`iif(json_valid(summary), json_extract(summary, ${sql.lit(path)}), null)`;

const complete = (summary: Summary) => ({
  ...summary,
  form: summary.form ?? counted(summary.bars, 'bar'),
  tags: summary.tags ?? []
});

const knownFacets = new WeakMap<Database, { readonly stamp: string; readonly facets: Facets }>();

/** What there is to tell charts apart by, the most frequent first; counted anew once something was written. */
async function facetsOf(db: Database): Promise<Facets> {
  const file = fileOf(db);
  const written = file?.prepare('select total_changes() as own').get() as { own: number } | undefined;
  const stamp = `${written?.own} ${file?.pragma('data_version', { simple: true })}`;
  const known = knownFacets.get(db);
  if (known?.stamp === stamp) return known.facets;
  const facets = await countFacets(db);
  knownFacets.set(db, { stamp, facets });
  return facets;
}

async function countFacets(db: Database): Promise<Facets> {
  const of = async (path: string) => {
    const { rows } = await sql<Facet>`select ${told(path)} as value, count(*) as count from chart
      where deleted_at is null and ${told(path)} <> '' group by 1 order by 2 desc, 1`.execute(db);
    return rows;
  };
  const [key, form, style] = await Promise.all(Object.values(FACETS).map(of));
  const { rows: tag } = await sql<Facet>`select min(one.value) as value, count(*) as count
    from chart, json_each(${told('$.tags')}) one where chart.deleted_at is null
    group by lower(one.value) order by 2 desc, 1`.execute(db);
  return { key: key!, form: form!, style: style!, tag };
}

/** Charts whose summaries are refreshed between two other requests. */
const REFRESHED_AT_ONCE = 20;

/** Whether lists wait for summaries that are not made yet. */
export async function hasOldSummaries(db: Database): Promise<boolean> {
  const one = await db
    .selectFrom('chart')
    .select('id')
    .where(sql<boolean>`${told('$.form')} is null`)
    .limit(1)
    .executeTakeFirst();
  return one !== undefined;
}

/** Tells of charts that were saved by an older Corvel what is told of them today. Nothing of theirs is changed. */
export async function refreshSummaries(db: Database): Promise<void> {
  for (;;) {
    const rows = await db
      .selectFrom('chart')
      .select(['id', 'source'])
      .where(sql<boolean>`${told('$.form')} is null`)
      .limit(REFRESHED_AT_ONCE)
      .execute();
    if (rows.length === 0) return;
    for (const { id, source } of rows) {
      const { summary } = summarise(textOf(source));
      await db
        .updateTable('chart')
        .set({ summary: JSON.stringify(summary) })
        .where('id', '=', id)
        .where('source', '=', source)
        .execute();
    }
    await new Promise((ready) => setImmediate(ready));
  }
}

/** Does one thing to many charts: to all of them, or to none. Those that are not there any more, or are so already, are passed over. */
export async function changeMany(
  db: Database,
  { ids, what, tag = '' }: ManyCharts
): Promise<{ changed: string[] }> {
  const change = what === 'tag' ? tagged : untagged;
  return atOnce(db, async (trx) => {
    if (what === 'delete' || what === 'bring back') {
      const changed = await trx
        .updateTable('chart')
        .set({ deleted_at: what === 'delete' ? Date.now() : null })
        .where('id', 'in', ids)
        .where('deleted_at', what === 'delete' ? 'is' : 'is not', null)
        .returning('id')
        .execute();
      return { changed: changed.map(({ id }) => id) };
    }
    const rows = await present(trx).where('chart.id', 'in', ids).execute();
    const changed: string[] = [];
    for (const row of rows) {
      const source = change(row.source, tag);
      if (source === row.source || byteLength(source) > MAX_CHART_BYTES) continue;
      const [version, now] = [row.version + 1, Date.now()];
      await writeText(trx, row.id, version, source, now);
      await keepRevision(trx, row.id, version, source, row.data ?? JSON.stringify(DEFAULT_PLAN), now);
      changed.push(row.id);
    }
    return { changed };
  });
}

/** Text and plan of a chart as they were saved under a version, the latest such save; undefined where there is none. */
const savedAs = (db: Database, id: string, version: number) =>
  db
    .selectFrom('chart_revision')
    .select(['source', 'plan'])
    .where('chart_id', '=', id)
    .where('version', '=', version)
    .orderBy('id', 'desc')
    .executeTakeFirst();

/** Charts that are not deleted, each with its plan as it is stored. */
const present = (db: Database) =>
  db
    .selectFrom('chart')
    .leftJoin('plan', 'plan.chart_id', 'chart.id')
    .select(['chart.id', 'source', 'version', 'plan.data'])
    .where('deleted_at', 'is', null);

/** A new text of a chart, with what the songbook tells of it. */
async function writeText(
  trx: Database,
  id: string,
  version: number,
  source: string,
  now: number
): Promise<void> {
  const { title, summary, search } = summarise(source);
  await trx
    .updateTable('chart')
    .set({ source, version, title, summary: JSON.stringify(summary), search, updated_at: now })
    .where('id', '=', id)
    .execute();
}

export async function openChart(db: Database, id: string): Promise<StoredChart> {
  const row = await present(db).where('chart.id', '=', id).executeTakeFirst();
  if (!row) return noChart();
  const plan = row.data === null ? DEFAULT_PLAN : readPlan(row.data);
  const { source, version } = row;
  const damaged = plan === null || typeof source !== 'string';
  return { id, source: textOf(source), version, plan: plan ?? DEFAULT_PLAN, damaged };
}

/** The version of a chart that something belongs to: the one that is named, where it is one, else the one saved last. */
export async function versionNamed(
  db: Database,
  id: string,
  named: number | null | undefined
): Promise<number | null> {
  if (named === null) return null;
  const saved = await versionSaved(db, id);
  return Math.min(named ?? saved, saved);
}

/** The version of a chart that was saved last. Refuses where the chart is not in the songbook or is deleted. */
export async function versionSaved(db: Database, id: string): Promise<number> {
  const row = await db
    .selectFrom('chart')
    .select('version')
    .where('id', '=', id)
    .where('deleted_at', 'is', null)
    .executeTakeFirst();
  return row ? row.version : noChart();
}

function noChart(): never {
  return fail(404, {
    code: 'no-chart',
    message: 'This chart is not in the songbook; it may have been deleted.'
  });
}

export interface NewChart {
  /** Given by the client, so that a request sent twice makes one chart. */
  readonly id?: string | undefined;
  readonly source: string;
  readonly plan?: Plan | undefined;
  /** Earlier versions that something refers to, the oldest first; they are versions 1, 2 and so on. */
  readonly earlier?: readonly ChartVersion[];
}

export async function createChart(db: Database, chart: NewChart): Promise<StoredChart> {
  checkSize(chart.source);
  const id = chart.id ?? randomUUID();
  const plan = chart.plan ?? firstPlan(readSheet(chart.source));
  const { title, summary, search } = summarise(chart.source);
  const now = Date.now();
  const earlier = chart.earlier ?? [];
  const version = earlier.length + 1;
  const isNew = await atOnce(db, async (trx) => {
    const { numInsertedOrUpdatedRows } = await trx
      .insertInto('chart')
      .values({
        id,
        source: chart.source,
        version,
        title,
        summary: JSON.stringify(summary),
        search,
        created_at: now,
        updated_at: now,
        deleted_at: null
      })
      .onConflict((conflict) => conflict.column('id').doNothing())
      .executeTakeFirst();
    if ((numInsertedOrUpdatedRows ?? 0n) === 0n) return false;
    await trx
      .insertInto('plan')
      .values({ chart_id: id, data: JSON.stringify(plan) })
      .execute();
    for (const [i, then] of earlier.entries())
      await keepRevision(trx, id, i + 1, then.source, JSON.stringify(then.plan), now);
    await keepRevision(trx, id, version, chart.source, JSON.stringify(plan), now);
    return true;
  });
  // Sent twice it is made once; what was made of it since is told.
  return isNew ? { id, source: chart.source, plan, version, damaged: false } : openChart(db, id);
}

async function keepRevision(
  trx: Database,
  id: string,
  version: number,
  source: string,
  plan: string,
  now: number
): Promise<void> {
  await trx
    .insertInto('chart_revision')
    .values({ chart_id: id, version, source, plan, saved_at: now })
    .execute();
}

/**
 * Saves a chart and its plan on top of the version the edit was based on. A stale edit is refused with 409 and both
 * versions; nothing is overwritten.
 */
export async function saveChart(
  db: Database,
  id: string,
  edit: { base: number; source: string; plan: Plan }
): Promise<{ version: number }> {
  checkSize(edit.source);
  const now = Date.now();
  return atOnce(db, async (trx) => {
    const stored = await present(trx).where('chart.id', '=', id).executeTakeFirst();
    if (!stored) return noChart();
    const storedPlan = stored.data === null ? DEFAULT_PLAN : readPlan(stored.data);
    const data = JSON.stringify(edit.plan);
    if (stored.version !== edit.base) {
      if (await wasSaved(trx, id, edit.base + 1, edit.source, data)) return { version: edit.base + 1 };
      fail(
        409,
        {
          code: 'stale',
          message: 'This chart was changed in another window since you opened it. Nothing was overwritten.'
        },
        {
          stored: { version: stored.version, source: stored.source, plan: storedPlan ?? DEFAULT_PLAN },
          yours: { version: edit.base, source: edit.source, plan: edit.plan }
        }
      );
    }
    // A plan that cannot be read goes to the revisions as it is before it is written over.
    if (storedPlan === null)
      await keepRevision(trx, id, stored.version, stored.source, sure(stored.data, 'the stored plan'), now);
    const version = edit.base + 1;
    await writeText(trx, id, version, edit.source, now);
    await trx
      .insertInto('plan')
      .values({ chart_id: id, data })
      .onConflict((conflict) => conflict.column('chart_id').doUpdateSet({ data }))
      .execute();
    await keepRevision(trx, id, version, edit.source, data, now);
    return { version };
  });
}

/** Whether this very save has been stored already: its answer was lost and it was sent again. */
async function wasSaved(
  trx: Database,
  id: string,
  version: number,
  source: string,
  plan: string
): Promise<boolean> {
  const row = await savedAs(trx, id, version);
  return row?.source === source && row.plan === plan;
}

export async function renameChart(db: Database, id: string, title: string): Promise<{ version: number }> {
  const { source, plan, version } = await openChart(db, id);
  return saveChart(db, id, { base: version, source: withDeclaration(source, 'title', title), plan });
}

/** A copy with its plan, its lines and its solos, and the earlier versions that these belong to; all of it or nothing. */
export function duplicateChart(db: Database, id: string): Promise<StoredChart> {
  return atOnce(db, async (trx) => {
    const { source, plan, version } = await openChart(trx, id);
    const of = <Table extends 'line' | 'solo'>(table: Table) =>
      trx
        .selectFrom(table as 'line')
        .selectAll()
        .where('chart_id', '=', id)
        .where('deleted_at', 'is', null)
        .execute();
    const linesAndSolos = { line: await of('line'), solo: await of('solo') };
    const { earlier, numberOf } = await earlierVersions(
      trx,
      id,
      version,
      [...linesAndSolos.line, ...linesAndSolos.solo].map(({ chart_version }) => chart_version)
    );
    const copy = await createChart(trx, {
      source: withDeclaration(source, 'title', `${titleOf(source)} (copy)`),
      plan,
      earlier
    });
    for (const [table, rows] of Object.entries(linesAndSolos))
      for (const row of rows)
        await trx
          .insertInto(table as 'line')
          .values({
            ...row,
            id: randomUUID(),
            chart_id: copy.id,
            chart_version: numberOf(row.chart_version)
          })
          .execute();
    return copy;
  });
}

/**
 * Versions of a chart before its present one that are referred to, the oldest first, and the numbers that they have in a chart that begins
 * with them. A version that is not to be found, or cannot be read, has no number.
 */
export async function earlierVersions(
  db: Database,
  id: string,
  present: number,
  wanted: readonly (number | null)[]
): Promise<{ earlier: ChartVersion[]; numberOf: (version: number | null) => number | null }> {
  const earlier: ChartVersion[] = [];
  const numbers = new Map<number, number>();
  const asked = [...new Set(wanted)].filter((one): one is number => one !== null && one !== present);
  for (const version of asked.sort((a, b) => a - b)) {
    const row = await savedAs(db, id, version);
    const plan = row && readPlan(row.plan);
    if (!row || !plan) continue;
    earlier.push({ source: row.source, plan });
    numbers.set(version, earlier.length);
  }
  numbers.set(present, earlier.length + 1);
  return { earlier, numberOf: (version) => (version === null ? null : (numbers.get(version) ?? null)) };
}

/** Soft: the chart leaves the songbook and can be brought back. */
export async function deleteChart(db: Database, id: string): Promise<void> {
  const { numUpdatedRows } = await db
    .updateTable('chart')
    .set({ deleted_at: Date.now() })
    .where('id', '=', id)
    .where('deleted_at', 'is', null)
    .executeTakeFirst();
  if (numUpdatedRows === 0n) noChart();
}

export async function restoreChart(db: Database, id: string): Promise<void> {
  const { numUpdatedRows } = await db
    .updateTable('chart')
    .set({ deleted_at: null })
    .where('id', '=', id)
    .executeTakeFirst();
  if (numUpdatedRows === 0n) noChart();
}

/** The saves of a chart, newest first. */
export async function listRevisions(db: Database, id: string): Promise<RevisionSummary[]> {
  const rows = await db
    .selectFrom('chart_revision')
    .select(['version', 'saved_at', 'source'])
    .where('chart_id', '=', id)
    .orderBy('id', 'desc')
    .limit(SHOWN_REVISIONS)
    .execute();
  return rows.map((row) => ({
    version: row.version,
    savedAt: row.saved_at,
    title: titleOf(row.source)
  }));
}

/** One earlier save, to be restored as a new edit. */
export async function openRevision(db: Database, id: string, version: number): Promise<StoredChart> {
  const row = await savedAs(db, id, version);
  if (!row) return fail(404, { code: 'no-revision', message: 'There is no such earlier version.' });
  const plan = readPlan(row.plan);
  return { id, source: row.source, plan: plan ?? DEFAULT_PLAN, version, damaged: plan === null };
}
