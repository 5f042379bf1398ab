/** Things that are kept under an id: edited on top of the version the edit was based on, deleted softly, brought back. */
import { fail, type ApiError } from '../api/errors';
import type { Database } from './database';
import type { Tables } from './tables';

/** Tables of the same frame: id, version, data, times. */
type KeptTable = 'lick' | 'line' | 'practice_item' | 'set_list' | 'take';

export interface Kept {
  readonly table: KeptTable;
  /** As a sentence says it: "lick". */
  readonly noun: string;
  /** What is said where there is none of that id. */
  readonly gone: ApiError;
}

export interface KeptEdit {
  readonly name?: string;
  readonly data?: string;
  /** Columns that a table has beside. */
  readonly [column: string]: string | number | null | undefined;
}

export function isGone({ gone }: Kept): never {
  return fail(404, gone);
}

/** What every new row begins with. */
export function freshRow() {
  const now = Date.now();
  return { version: 1, created_at: now, updated_at: now, deleted_at: null };
}

/** Columns that are worked out when something is written, and say nothing of what the player changed. */
const DERIVED: readonly string[] = ['summary', 'bytes'];

/**
 * Puts a new row in, in one statement; false where one of its id is there already, which stays as it is: the same was sent before, or is
 * sent at this moment.
 */
export async function insertKept<Table extends KeptTable>(
  db: Database,
  table: Table,
  row: Tables[Table]
): Promise<boolean> {
  const { numInsertedOrUpdatedRows } = await db
    // The tables share what is used here; the types of the builder know one table at a time.
    .insertInto(table as 'lick')
    .values(row as Tables['lick'])
    .onConflict((conflict) => conflict.column('id').doNothing())
    .executeTakeFirst();
  return (numInsertedOrUpdatedRows ?? 0n) > 0n;
}

/**
 * Changes a row on top of a version; a stale edit is refused with 409 and what is stored. The very edit that was made last is answered as
 * it was then: its answer was lost, and it was sent again.
 */
export async function editKept(
  db: Database,
  kept: Kept,
  edit: { readonly id: string; readonly base: number; readonly set: KeptEdit },
  stored: unknown
): Promise<void> {
  const { numUpdatedRows } = await db
    // The tables share these columns; the types of the builder know one table at a time.
    .updateTable(kept.table as 'lick')
    .set({ version: edit.base + 1, updated_at: Date.now(), ...edit.set })
    .where('id', '=', edit.id)
    .where('version', '=', edit.base)
    .executeTakeFirst();
  if (numUpdatedRows > 0n) return;
  const there: Readonly<Record<string, unknown>> | undefined = await db
    .selectFrom(kept.table as 'lick')
    .selectAll()
    .where('id', '=', edit.id)
    .executeTakeFirst();
  const wasMade =
    there?.version === edit.base + 1 &&
    Object.entries(edit.set).every(([column, value]) => DERIVED.includes(column) || there[column] === value);
  if (wasMade) return;
  const message = `This ${kept.noun} was changed in another window since. Nothing was overwritten.`;
  fail(409, { code: 'stale', message }, { stored });
}

/** Deletes softly (a time), or brings back (null). */
export async function markKept(
  db: Database,
  kept: Kept,
  id: string,
  deletedAt: number | null
): Promise<void> {
  const { numUpdatedRows } = await db
    .updateTable(kept.table as 'lick')
    .set({ deleted_at: deletedAt })
    .where('id', '=', id)
    .executeTakeFirst();
  if (numUpdatedRows === 0n) isGone(kept);
}

/** Whether a row of that id is there, deleted or not. */
export async function isKept(db: Database, table: KeptTable, id: string): Promise<boolean> {
  const row = await db
    .selectFrom(table as 'lick')
    .select('id')
    .where('id', '=', id)
    .executeTakeFirst();
  return row !== undefined;
}

/** How many rows of a table are not deleted. */
export async function countKept(db: Database, { table }: Kept): Promise<number> {
  const { n } = await db
    .selectFrom(table as 'lick')
    .select((eb) => eb.fn.countAll<number>().as('n'))
    .where('deleted_at', 'is', null)
    .executeTakeFirstOrThrow();
  return n;
}
