/**
 * The door for songbooks from elsewhere: an archive, a copy that is brought back. Nothing in such a file is believed. Its tables alone are
 * read, row by row, through the schemas and bounds of the routes; what passes is written into a new file of today's own making, and what
 * does not is told. Nothing of its own (views, triggers, indexes) is ever run.
 */
import { entryOf, sure } from '../../core/base/list';
import Sqlite from 'better-sqlite3';
import { openSync, readSync, closeSync } from 'node:fs';
import { join } from 'node:path';
import { z } from 'zod';
import type { LeftOut } from '../../api/archive';
import { fail, PlayerError, type ApiError } from '../../api/errors';
import { lickData } from '../../api/lick';
import { lineData } from '../../api/line';
import { soloData } from '../../api/solo';
import { byteLength, MAX_CHART_BYTES } from '../../api/limits';
import { planSchema } from '../../api/plan';
import { itemData, LOG_KINDS, memory, question, setListData } from '../../api/practice';
import { LONGEST_TAKE, takeData, WAYS_IN } from '../../api/take';
import { DEFAULT_PLAN } from '../../core/plan/model';
import { isDay } from '../../core/practice/log/day';
import { closeFile, fileOf, openDatabase } from '../store/database';
import { migrations } from '../store/migrations';
import { readColumn, summarise } from '../store/songbook';
import type { Tables } from '../store/tables';
import { ownNumber, threadTime } from '../threads/thread-time';

/** Bytes of one value, rows in all, and milliseconds of processor time that a file may take. */
const MOST = { value: 16 * 1024 * 1024, rows: 1_000_000, time: 120_000 } as const;
/** Things left out that are told one by one; the others are counted. */
const TOLD = 100;
const HEADER = 'SQLite format 3\u0000';

type Table = keyof Tables;
type Row = Readonly<Record<string, unknown>>;

const moment = z.number().int().min(0).max(8.64e15);
const gone = moment.nullable();
const version = z
  .number()
  .int()
  .min(0)
  .max(2 ** 31);
const uuid = z.uuid();
const name = z.string().trim().min(1).max(120);
const day = z.string().refine(isDay, 'is no day');
const text = (most: number) => z.string().max(most);
const source = z
  .string()
  .refine((own) => byteLength(own) <= MAX_CHART_BYTES, 'is longer than a chart may be');
const times = { created_at: moment, updated_at: moment, deleted_at: gone };
/** A column of JSON that its own schema reads. */
const holding = <T extends z.ZodType>(schema: T, most = MOST.value) =>
  text(most).refine((own) => readColumn(schema, own) !== null, 'cannot be read');

interface Admission {
  /** What it is called where it is left out. */
  readonly kind: string;
  readonly schema: z.ZodType;
  /** Columns that refer to rows of another table. */
  readonly refers?: Readonly<Record<string, Table>>;
  /** The column by which its rows are told apart; they come once. */
  readonly key?: string;
}

/** What is let in, table by table, in an order in which what is referred to comes first. */
const ADMITTED: { readonly [Name in Table]: Admission } = {
  chart: { kind: 'chart', key: 'id', schema: z.object({ id: uuid, source, version, ...times }) },
  plan: {
    kind: 'plan',
    key: 'chart_id',
    refers: { chart_id: 'chart' },
    schema: z.object({ chart_id: uuid, data: holding(planSchema) })
  },
  chart_revision: {
    kind: 'earlier version',
    refers: { chart_id: 'chart' },
    schema: z.object({
      id: z.number().int().min(0),
      chart_id: uuid,
      version,
      source,
      plan: text(MOST.value),
      saved_at: moment
    })
  },
  line: {
    kind: 'line',
    key: 'id',
    refers: { chart_id: 'chart' },
    schema: z.object({
      id: uuid,
      chart_id: uuid,
      name,
      version,
      chart_version: version.nullable(),
      data: holding(lineData),
      ...times
    })
  },
  solo: {
    kind: 'solo',
    key: 'id',
    refers: { chart_id: 'chart' },
    schema: z.object({
      id: uuid,
      chart_id: uuid,
      name,
      version,
      chart_version: version.nullable(),
      data: holding(soloData),
      ...times
    })
  },
  lick: {
    kind: 'lick',
    key: 'id',
    schema: z.object({ id: uuid, name, version, data: holding(lickData), ...times })
  },
  practice_item: {
    kind: 'practice item',
    key: 'id',
    refers: { chart_id: 'chart' },
    schema: z.object({
      id: text(120).min(1),
      chart_id: uuid.nullable(),
      place: z.number().int(),
      version,
      data: holding(itemData),
      ...times
    })
  },
  practice_log: {
    kind: 'log row',
    key: 'id',
    schema: z.object({
      seq: z.number().int(),
      id: uuid,
      item_id: text(120).nullable(),
      chart_id: uuid.nullable(),
      kind: z.enum(LOG_KINDS),
      started_at: moment,
      day,
      seconds: z.number().int().min(0).max(86_400),
      rounds: z.number().int().min(0).max(10_000),
      tempo: z.number().min(1).max(1000).nullable(),
      clean: z.union([z.literal(0), z.literal(1)]).nullable(),
      key: text(40).nullable(),
      area: z.number().int().min(0).max(30).nullable(),
      data: holding(z.looseObject({}), 64 * 1024),
      revision: z.number().int(),
      version,
      updated_at: moment,
      deleted_at: gone
    })
  },
  card: {
    kind: 'card',
    key: 'id',
    schema: z.object({
      id: text(200).min(1),
      data: holding(question),
      memory: holding(memory),
      due: moment,
      day
    })
  },
  card_review: {
    kind: 'answer',
    key: 'id',
    refers: { card_id: 'card' },
    schema: z.object({
      seq: z.number().int(),
      id: uuid,
      card_id: text(200),
      at: moment,
      day,
      seconds: z.number().min(0).max(86_400),
      grade: text(20)
    })
  },
  set_list: {
    kind: 'set list',
    key: 'id',
    schema: z.object({ id: uuid, name, version, data: holding(setListData), ...times })
  },
  take: {
    kind: 'take',
    key: 'id',
    refers: { chart_id: 'chart' },
    schema: z.object({
      id: uuid,
      chart_id: uuid,
      name,
      version,
      way: z.enum(WAYS_IN),
      played_at: moment,
      day,
      seconds: z.number().min(0).max(LONGEST_TAKE),
      bytes: z.number().int().min(0),
      tempo: z.number().min(20).max(400),
      loved: z.union([z.literal(0), z.literal(1)]),
      summary: text(MOST.value),
      data: holding(takeData),
      ...times
    })
  },
  setting: {
    kind: 'setting',
    key: 'name',
    schema: z.object({ name: z.literal('player'), value: holding(z.looseObject({}), 64 * 1024) })
  }
};

/** How it is told that what a row belongs to is missing: once for all such rows of a kind. */
const BELONGS = 'belongs to';

/** What was not there yet in files of older formats. */
const SINCE: Row = { search: '' };

export interface Admitted {
  /** The file of today's making; it lies in the folder that was given. */
  readonly path: string;
  readonly left: readonly LeftOut[];
}

/** Reads a songbook from elsewhere into a new file in a folder. `refusal` is said where it cannot be read at all. */
export async function admit(from: string, folder: string, refusal: ApiError): Promise<Admitted> {
  const refuse = (): never => fail(409, refusal);
  if (!isSqlite(from)) return refuse();
  let foreign: Sqlite.Database | undefined;
  const path = join(folder, `admitted-${process.hrtime.bigint()}.db`);
  const db = await openDatabase(path);
  try {
    foreign = new Sqlite(from, { readonly: true, fileMustExist: true });
    foreign.pragma('trusted_schema = off');
    foreign.pragma('cell_size_check = on');
    const format = Number(foreign.pragma('user_version', { simple: true }));
    if (!(format >= 1 && format <= migrations.length)) return refuse();
    const left = admitAll(foreign, sure(fileOf(db), 'fileOf'));
    if (left === null) return refuse();
    return { path, left };
  } catch (thrown) {
    if (thrown instanceof PlayerError) throw thrown;
    if (
      thrown instanceof Error &&
      'code' in thrown &&
      /^(ENOSPC|EDQUOT|SQLITE_FULL)/.test(String(thrown.code))
    )
      throw thrown;
    return refuse();
  } finally {
    foreign?.close();
    closeFile(db);
  }
}

function isSqlite(path: string): boolean {
  const file = openSync(path, 'r');
  try {
    const head = Buffer.alloc(HEADER.length);
    return readSync(file, head, 0, head.length, 0) === head.length && head.toString('latin1') === HEADER;
  } finally {
    closeSync(file);
  }
}

/** What was left out; null where there is no table of charts. */
function admitAll(foreign: Sqlite.Database, own: Sqlite.Database): LeftOut[] | null {
  const left: LeftOut[] = [];
  let uncounted = 0;
  const alone = new Map<string, { kind: string; why: string; count: number }>();
  const leave = (kind: string, what: string, why: string) => {
    if (why.startsWith(BELONGS)) {
      const same = alone.get(kind + why) ?? { kind, why, count: 0 };
      alone.set(kind + why, { ...same, count: same.count + 1 });
      return;
    }
    if (left.length < TOLD) left.push({ kind, what, why });
    else uncounted += 1;
  };
  const known = new Map<Table, Set<unknown>>();
  const number = ownNumber();
  const begun = threadTime(number) ?? 0;
  let count = 0;
  own.exec('begin');
  for (const [table, admission] of Object.entries(ADMITTED) as [Table, Admission][]) {
    const keys = new Set<unknown>();
    known.set(table, keys);
    const columns = columnsOf(foreign, table);
    if (columns === null) {
      if (table === 'chart') return null;
      continue;
    }
    try {
      for (const raw of rowsOf(foreign, table, columns)) {
        if (++count > MOST.rows || (count % 500 === 0 && (threadTime(number) ?? 0) - begun > MOST.time))
          fail(413, {
            code: 'too-large',
            message: 'This songbook holds more than Corvel can take in; nothing was changed.'
          });
        const { row, why } = admitted(raw, admission, known);
        const key = admission.key === undefined ? undefined : raw[admission.key];
        const isTwice = key !== undefined && keys.has(key);
        if (row === null || isTwice) leave(admission.kind, called(raw), isTwice ? 'is there twice' : why);
        else {
          insert(own, table, row);
          keys.add(key);
        }
      }
    } catch (thrown) {
      if (thrown instanceof PlayerError) throw thrown;
      leave(admission.kind, 'the rest of them', 'cannot be read: the file is damaged there');
    }
  }
  // A chart whose plan was left out, or that came without one, has one to begin with.
  own
    .prepare(
      'insert into plan (chart_id, data) select id, ? from chart where id not in (select chart_id from plan)'
    )
    .run(JSON.stringify(DEFAULT_PLAN));
  own.exec('commit');
  for (const { kind, why, count: all } of alone.values()) left.push({ kind, what: `${all} of them`, why });
  if (uncounted > 0)
    left.push({ kind: 'others', what: String(uncounted), why: 'were left out for the like reasons' });
  return left;
}

/** The columns of a table that is one; null where there is none of that name. */
function columnsOf(file: Sqlite.Database, table: string): readonly string[] | null {
  const found = file.prepare(`select sql from sqlite_master where type = 'table' and name = ?`).get(table) as
    | { sql: unknown }
    | undefined;
  if (typeof found?.sql !== 'string' || /^\s*create\s+virtual/i.test(found.sql)) return null;
  const columns = file.pragma(`table_xinfo(${table})`) as { name: string; hidden: number }[];
  return columns.filter(({ hidden }) => hidden === 0).map(({ name: own }) => own);
}

/** The rows of a table; what is no text or number, or too long for anything, is told as missing. */
function rowsOf(file: Sqlite.Database, table: Table, columns: readonly string[]): IterableIterator<Row> {
  const wanted = Object.keys((ADMITTED[table].schema as z.ZodObject).shape);
  const list = wanted.map((own) =>
    columns.includes(own)
      ? `iif(typeof("${own}") = 'blob' or octet_length("${own}") > ${MOST.value}, null, "${own}") as "${own}"`
      : `null as "${own}"`
  );
  return file
    .prepare(`select ${list.join(', ')} from main."${table}" order by rowid`)
    .iterate() as IterableIterator<Row>;
}

function admitted(
  raw: Row,
  { schema, refers = {} }: Admission,
  known: ReadonlyMap<Table, ReadonlySet<unknown>>
): { row: Row | null; why: string } {
  const { success, data, error } = schema.safeParse(raw);
  if (!success) {
    const [issue] = error.issues;
    return { row: null, why: `its ${issue!.path.join('.') || 'row'} is not what Corvel writes` };
  }
  const row = data as Row;
  for (const [column, table] of Object.entries(refers))
    if (row[column] !== null && !entryOf(known, table).has(row[column]))
      return { row: null, why: `${BELONGS} a ${ADMITTED[table].kind} that is not there` };
  return { row, why: '' };
}

function insert(own: Sqlite.Database, table: Table, row: Row): void {
  const whole: Row = table === 'chart' ? { ...SINCE, ...row, ...told(row.source as string) } : row;
  const names = Object.keys(whole);
  own
    .prepare(
      `insert into "${table}" (${names.map((one) => `"${one}"`).join()}) values (${names.map(() => '?').join()})`
    )
    .run(Object.values(whole));
}

/** What the songbook tells of a chart is read from its text anew. */
function told(chart: string): Row {
  const { title, summary, search } = summarise(chart);
  return { title, summary: JSON.stringify(summary), search };
}

/** What a row may be known by to the player. */
function called(raw: Row): string {
  const said = raw.name ?? raw.id ?? raw.chart_id;
  if (typeof raw.source === 'string' && raw.name === undefined)
    return summarise(raw.source.slice(0, MAX_CHART_BYTES)).title;
  return typeof said === 'string' || typeof said === 'number'
    ? String(said).slice(0, 80)
    : 'one without a name';
}
