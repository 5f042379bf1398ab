/**
 * Things that are kept under an id of the client's making: kept once however often they are sent, edited on top of the version the edit
 * was based on, deleted softly, brought back. `storedKind` makes the store of one kind; what a kind has beside stands in its own file.
 */
import { sure } from '../../core/base/list';
import type { SelectQueryBuilder } from 'kysely';
import { fail, type ApiError } from '../../api/errors';
import type { Database } from './database';
import { versionSaved } from './songbook';
import type { Tables } from './tables';

/** Tables of the same frame: id, version, data, times. */
type KeptTable = 'lick' | 'line' | 'practice_item' | 'set_list' | 'solo' | 'take';

// The builder knows the types of one table at a time; what is used of it here all these tables share.
// oxlint-disable-next-line typescript/no-explicit-any
type Rows<Row> = SelectQueryBuilder<any, any, Row>;

/** What one kind of thing says of itself. */
export interface Kind<Row, Shown> {
  readonly table: KeptTable;
  /** As a sentence says it: "lick". */
  readonly noun: string;
  /** What is said where there is none of that id. */
  readonly gone: ApiError;
  /** How many are kept, of one chart where they belong to one, and what is said beyond. */
  readonly most: { readonly count: number; readonly refusal: ApiError };
  /** They belong to a chart, and are asked for together with its id. */
  readonly isOfChart?: true;
  /** Rows that are not deleted, with the columns that are shown. */
  readonly rows: (db: Database) => Rows<Row>;
  readonly shown: (row: Row) => Shown;
}

/** Columns of a row beside its frame. */
type Columns = Readonly<Record<string, string | number | null>>;

export interface Edit {
  readonly id: string;
  /** The version the edit was based on. */
  readonly base: number;
  /** Columns that are written; one that is undefined stays. */
  readonly set: Readonly<Record<string, string | number | null | undefined>>;
}

/** Columns that are worked out when something is written, and say nothing of what the player changed. */
const DERIVED: readonly string[] = ['summary', 'bytes'];

/** What every new row begins with. */
function freshRow() {
  const now = Date.now();
  return { version: 1, created_at: now, updated_at: now, deleted_at: null };
}

/** The store of one kind. `chart` is the id of the chart that things belong to, where they belong to one. */
export function storedKind<Row, Shown>({
  table,
  noun,
  gone,
  most,
  isOfChart,
  rows,
  shown
}: Kind<Row, Shown>) {
  // The tables share their frame; the builder is asked as for one of them.
  const one = table as 'lick';
  const of = <Found>(query: Rows<Found>, chart: string | undefined) =>
    chart === undefined ? query : query.where(`${table}.chart_id`, '=', chart);

  async function all(
    db: Database,
    chart?: string,
    wanted: (query: Rows<Row>) => Rows<Row> = (query) =>
      // Of those kept at one moment the one written first.
      query.orderBy(`${table}.created_at`).orderBy(`${table}.rowid`)
  ): Promise<Shown[]> {
    return (await wanted(of(rows(db), chart)).execute()).map(shown);
  }

  /** One of them; 404 where it is not kept, or was deleted. */
  async function open(db: Database, id: string, chart?: string): Promise<Shown> {
    const row = await of(rows(db), chart).where(`${table}.id`, '=', id).executeTakeFirst();
    return row === undefined ? fail(404, gone) : shown(row as Row);
  }

  async function count(db: Database, chart?: string): Promise<number> {
    const query = db.selectFrom(one).select((eb) => eb.fn.countAll<number>().as('n'));
    const { n } = await of(query, chart).where('deleted_at', 'is', null).executeTakeFirstOrThrow();
    return Number(n);
  }

  /** Refuses where a number of new ones would be too many, or belong to a chart that is not there. */
  async function admit(db: Database, coming: number, chart?: string): Promise<void> {
    if (isOfChart) await versionSaved(db, sure(chart, 'the chart of what is kept'));
    if ((await count(db, chart)) + coming > most.count) fail(413, most.refusal);
  }

  /**
   * Puts a new row in, in one statement. One of its id that is there already stays as it is: the same was sent before, or is sent at this
   * moment.
   */
  async function insert(db: Database, row: Columns & { readonly id: string }): Promise<void> {
    const whole = { ...freshRow(), ...row } as unknown as Tables['lick'];
    await db
      .insertInto(one)
      .values(whole)
      .onConflict((conflict) => conflict.column('id').doNothing())
      .execute();
  }

  /** Whether one of that id is there, deleted or not. */
  async function has(db: Database, id: string): Promise<boolean> {
    return (await db.selectFrom(one).select('id').where('id', '=', id).executeTakeFirst()) !== undefined;
  }

  /** Keeps a new one; sent twice it is kept once. */
  async function keep(db: Database, row: Columns & { readonly id: string }, chart?: string): Promise<Shown> {
    if (!(await has(db, row.id))) {
      await admit(db, 1, chart);
      await insert(db, chart === undefined ? row : { ...row, chart_id: chart });
    }
    return open(db, row.id, chart);
  }

  /**
   * Changes one on top of a version; a stale edit is refused with 409 and what is stored. The very edit that was made last is answered as
   * it was then: its answer was lost, and it was sent again.
   */
  async function edit(db: Database, { id, base, set }: Edit, chart?: string): Promise<Shown> {
    const stored = await open(db, id, chart);
    const written = Object.fromEntries(Object.entries(set).filter(([, value]) => value !== undefined));
    const { numUpdatedRows } = await db
      .updateTable(one)
      .set({ version: base + 1, updated_at: Date.now(), ...written })
      .where('id', '=', id)
      .where('version', '=', base)
      .executeTakeFirst();
    if (numUpdatedRows === 0n && !(await wasMade(db, { id, base, set: written }))) {
      const message = `This ${noun} was changed in another window since. Nothing was overwritten.`;
      fail(409, { code: 'stale', message }, { stored });
    }
    return open(db, id, chart);
  }

  async function wasMade(db: Database, { id, base, set }: Edit): Promise<boolean> {
    const there: Readonly<Record<string, unknown>> | undefined = await db
      .selectFrom(one)
      .selectAll()
      .where('id', '=', id)
      .executeTakeFirst();
    if (there?.version !== base + 1) return false;
    return Object.entries(set).every(
      ([column, value]) => DERIVED.includes(column) || there[column] === value
    );
  }

  /** Deletes softly (a time), or brings back (null). */
  async function mark(db: Database, id: string, deletedAt: number | null, chart?: string): Promise<void> {
    const query = db.updateTable(one).set({ deleted_at: deletedAt }).where('id', '=', id);
    const { numUpdatedRows } = await (
      chart === undefined ? query : query.where('chart_id' as never, '=', chart as never)
    ).executeTakeFirst();
    if (numUpdatedRows === 0n) fail(404, gone);
  }

  const remove = (db: Database, id: string, chart?: string) => mark(db, id, Date.now(), chart);
  const restore = (db: Database, id: string, chart?: string) => mark(db, id, null, chart);
  return { all, open, count, admit, insert, has, keep, edit, remove, restore };
}

/** The columns of a thing that has a name and data, as an edit names them. */
export const named = ({ name, data }: { readonly name?: string | undefined; readonly data?: unknown }) => ({
  ...(name === undefined ? {} : { name }),
  ...(data === undefined ? {} : { data: JSON.stringify(data) })
});
