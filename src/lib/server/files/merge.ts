/**
 * One songbook's file merged into another, all of it or nothing. Rows are known by their ids; which of two is newer is told by when they
 * were written. What is deleted here and alive there counts as missing here.
 */
import { firstOf } from '../../core/base/list';
import { sql, type Kysely } from 'kysely';
import type { Archived, Compared, Merge } from '../../api/archive';
import type { Database } from '../store/database';
import { COLUMNS, type Tables } from '../store/tables';

type Table = keyof Tables;
type Connection = Kysely<Tables>;

/** Tables whose rows say when they were written, and what they are counted as. */
const DATED = {
  chart: 'charts',
  line: 'lines',
  solo: 'solos',
  lick: 'licks',
  take: 'takes',
  practice_item: 'practice items',
  practice_log: 'log rows',
  set_list: 'set lists'
} as const satisfies Partial<Record<Table, Archived>>;
type Dated = keyof typeof DATED;

/** Columns that count rows of this file, and mean nothing in another. */
const COUNTERS: readonly string[] = ['seq'];

/** Does something with another songbook's file at hand as `other`. */
async function beside<T>(db: Database, source: string, work: (one: Connection) => Promise<T>): Promise<T> {
  return db.connection().execute(async (one) => {
    await sql`attach ${source} as other`.execute(one);
    try {
      return await work(one);
    } finally {
      await sql`detach other`.execute(one);
    }
  });
}

/** The same inside one transaction; rows that refer to one another are whole again at its end. */
const merging = (db: Database, source: string, work: (trx: Connection) => Promise<void>) =>
  beside(db, source, (one) =>
    one.transaction().execute(async (trx) => {
      await sql`pragma defer_foreign_keys = on`.execute(trx);
      await work(trx);
    })
  );
const run = (on: Connection, statement: string) => sql.raw(statement).execute(on);

/** Tables whose edits name the version that they were based on. */
const VERSIONED = ['chart', 'line', 'solo', 'lick', 'practice_item', 'set_list', 'take'] as const;

/** Tables whose rows name the version of the chart that they belong to. */
const OVER_A_VERSION = ['line', 'solo'] as const;

/**
 * Every table filled from another file. A version number that was given here is not given to something else: what comes back under it, or
 * under an older one, is a save of its own upon it, so that a window that has seen the former is told.
 */
export const replaceAll = (
  db: Database,
  source: string,
  also: (trx: Database) => Promise<void> = () => Promise.resolve()
): Promise<void> =>
  merging(db, source, async (trx) => {
    for (const table of VERSIONED)
      await run(
        trx,
        `create temp table former_${table} as select id, version, updated_at from main.${table}`
      );
    for (const [table, columns] of Object.entries(COLUMNS)) {
      const list = columns.map((column) => `"${column}"`).join();
      await run(trx, `delete from main.${table}`);
      await run(trx, `insert into main.${table} (${list}) select ${list} from other.${table}`);
    }
    for (const table of VERSIONED) {
      await run(
        trx,
        `update main.${table} as own set version = former.version + 1 from former_${table} former
         where former.id = own.id and former.version >= own.version
           and (former.version > own.version or former.updated_at <> own.updated_at)`
      );
      if (table === 'chart')
        await run(
          trx,
          `insert into main.chart_revision (chart_id, version, source, plan, saved_at)
           select own.id, own.version, own.source, plan.data, own.updated_at
           from main.chart own join main.plan plan on plan.chart_id = own.id
           join former_chart former on former.id = own.id where own.version = former.version + 1
             and own.version > (select max(version) from main.chart_revision where chart_id = own.id)`
        );
      await run(trx, `drop table former_${table}`);
    }
    await also(trx);
  });

const columnsOf = (table: Table): string[] =>
  COLUMNS[table].filter((column) => !COUNTERS.includes(column)).map((column) => `"${column}"`);

/** When a card was asked last, in one of the files. */
const lastAsked = (file: 'main' | 'other', card: string) =>
  `(select coalesce(max(at), 0) from ${file}.card_review where card_id = ${card})`;

/** Takes in what is not here, and with `newer` also what was written later there. */
export const mergeIn = (
  db: Database,
  source: string,
  how: Exclude<Merge, 'replace'>,
  also: (trx: Database) => Promise<void> = () => Promise.resolve()
): Promise<void> =>
  merging(db, source, async (trx) => {
    for (const table of OVER_A_VERSION)
      await run(
        trx,
        `create temp table taken_${table} as select theirs.id from other.${table} theirs
         left join main.${table} own on own.id = theirs.id
         where own.id is null ${how === 'newer' ? 'or theirs.updated_at > own.updated_at' : ''}`
      );
    if (how === 'newer') await renew(trx);
    // What hangs on a chart comes with it, as its plan and what every save of it stored.
    await run(
      trx,
      `create temp table arriving as select id from other.chart where id not in (select id from main.chart)`
    );
    for (const table of Object.keys(DATED) as Dated[]) {
      const list = columnsOf(table).join();
      await run(
        trx,
        `insert into main.${table} (${list}) select ${list} from other.${table}
         where id not in (select id from main.${table}) order by rowid`
      );
      await run(
        trx,
        `update main.${table} set deleted_at = null
         where deleted_at is not null and id in (select id from other.${table} where deleted_at is null)`
      );
    }
    await run(
      trx,
      `insert into main.plan (chart_id, data) select chart_id, data from other.plan where chart_id in (select id from arriving)`
    );
    await run(
      trx,
      `insert into main.chart_revision (chart_id, version, source, plan, saved_at)
       select chart_id, version, source, plan, saved_at from other.chart_revision
       where chart_id in (select id from arriving) order by id`
    );
    for (const table of OVER_A_VERSION) {
      // Of a chart that both have, the same number may be another version there: known by its text and plan, or not at all.
      await run(
        trx,
        `update main.${table} set chart_version = (
           select here.version from other.chart_revision there join main.chart_revision here
             on here.chart_id = there.chart_id and here.source = there.source and here.plan = there.plan
           where there.chart_id = main.${table}.chart_id and there.version = main.${table}.chart_version
           order by here.id desc limit 1)
         where id in (select id from taken_${table}) and chart_id not in (select id from arriving)`
      );
      await run(trx, `drop table taken_${table}`);
    }
    await run(trx, 'drop table arriving');
    await run(
      trx,
      `insert into main.card (${columnsOf('card').join()}) select ${columnsOf('card').join()} from other.card
       where id not in (select id from main.card)`
    );
    await run(
      trx,
      `insert into main.card_review (${columnsOf('card_review').join()})
       select ${columnsOf('card_review').join()} from other.card_review
       where id not in (select id from main.card_review) order by seq`
    );
    await run(
      trx,
      `insert into main.setting (name, value) select name, value from other.setting
       where name not in (select name from main.setting)`
    );
    await also(trx);
  });

/** Rows that were written later there take the place of those here. */
async function renew(trx: Connection): Promise<void> {
  // A chart that is renewed is saved once more, upon what was saved here.
  await run(
    trx,
    `create temp table renewed as
     select theirs.id, max(own.version, theirs.version) + 1 as version
     from other.chart theirs join main.chart own on own.id = theirs.id where theirs.updated_at > own.updated_at`
  );
  for (const table of Object.keys(DATED) as Dated[]) {
    // A number that was given here is not given to something else: what is newer there is an edit upon what is here.
    const set = columnsOf(table)
      .filter((column) => column !== '"id"')
      .map((column) =>
        column === '"version"'
          ? // A row of the log that nobody has corrected counts none.
            `version = max(own.version, theirs.version) + ${table === 'practice_log' ? '(own.version > 0)' : '1'}`
          : `${column} = theirs.${column}`
      )
      .join();
    await run(
      trx,
      `update main.${table} as own set ${set} from other.${table} theirs
       where theirs.id = own.id and theirs.updated_at > own.updated_at`
    );
  }
  await run(
    trx,
    `update main.plan as own set data = theirs.data from other.plan theirs
     where theirs.chart_id = own.chart_id and own.chart_id in (select id from renewed)`
  );
  await run(
    trx,
    `insert into main.chart_revision (chart_id, version, source, plan, saved_at)
     select renewed.id, renewed.version, theirs.source, plan.data, theirs.updated_at
     from renewed join other.chart theirs on theirs.id = renewed.id join other.plan plan on plan.chart_id = renewed.id`
  );
  await run(trx, 'drop table renewed');
  await run(
    trx,
    `update main.card as own set memory = theirs.memory, due = theirs.due, day = theirs.day from other.card theirs
     where theirs.id = own.id and ${lastAsked('other', 'theirs.id')} > ${lastAsked('main', 'own.id')}`
  );
}

/** How what is in another file stands to what is here. Rows that are deleted in both, or only there, are not counted. */
export const compare = (db: Database, source: string): Promise<Compared[]> =>
  beside(db, source, async (one) => {
    const found: Compared[] = [];
    for (const [table, kind] of Object.entries(DATED)) {
      const { rows } = await sql
        .raw<{ missing: number; newer: number; all: number }>(
          `select count(*) as "all",
             coalesce(sum(own.id is null or own.deleted_at is not null), 0) as missing,
             coalesce(sum(own.id is not null and own.deleted_at is null and theirs.updated_at > own.updated_at), 0) as newer
           from other.${table} theirs left join main.${table} own on own.id = theirs.id where theirs.deleted_at is null`
        )
        .execute(one);
      const { missing, newer, all } = firstOf(rows);
      found.push({ kind, missing, newer, known: all - missing - newer });
    }
    const { rows } = await sql
      .raw<{ missing: number; newer: number; all: number }>(
        `select count(*) as "all", coalesce(sum(own.id is null), 0) as missing,
           coalesce(sum(own.id is not null and ${lastAsked('other', 'theirs.id')} > ${lastAsked('main', 'theirs.id')}), 0) as newer
         from other.card theirs left join main.card own on own.id = theirs.id`
      )
      .execute(one);
    const { missing, newer, all } = firstOf(rows);
    return [...found, { kind: 'cards', missing, newer, known: all - missing - newer }];
  });
