/** The lick book: licks over all charts. */
import { sql } from 'kysely';
import type { z } from 'zod';
import { fail } from '../api/errors';
import {
  lickData,
  type changeLick,
  type keepLick,
  type LickData,
  type LickList,
  type listLicks as licksAsked,
  type StoredLick
} from '../api/lick';
import { lickFacts, type LickFacts } from '../core/line/lick-facts';
import { STANDARD } from '../core/neck/tuning';
import type { Database } from './database';
import { countKept, editKept, freshRow, insertKept, isGone, isKept, type Kept, markKept } from './kept';
import { readColumn } from './songbook';

/** Licks that the book holds. */
const MOST_LICKS = 2000;

const LICK: Kept = {
  table: 'lick',
  noun: 'lick',
  gone: { code: 'no-lick', message: 'This lick is not in the book; it may have been deleted.' }
};

type Row = { id: string; name: string; version: number; data: string };

const known = new Map<string, { readonly data: LickData | null; readonly facts: LickFacts | null }>();

/** What is kept of a lick, with what is found in it: worked out once for each state of it. */
function lickFrom({ id, name, version, data: stored }: Row): StoredLick {
  let own = known.get(stored);
  if (!own) {
    const data = readColumn(lickData, stored) as LickData | null;
    own = { data, facts: data && lickFacts(data, STANDARD) };
    if (known.size >= MOST_LICKS) known.delete(known.keys().next().value!);
    known.set(stored, own);
  }
  return { id, name, version, ...own };
}

const rows = (db: Database) =>
  db.selectFrom('lick').select(['id', 'name', 'version', 'data']).where('deleted_at', 'is', null);

/** A part of the book, the newest first. */
export async function listLicks(
  db: Database,
  { offset, limit }: z.infer<typeof licksAsked>
): Promise<LickList> {
  const some = await rows(db)
    .orderBy('created_at', 'desc')
    // Of those kept at one moment the one written last.
    .orderBy(sql`rowid`, 'desc')
    .limit(limit)
    .offset(offset)
    .execute();
  return { licks: some.map(lickFrom), total: await countKept(db, LICK) };
}

async function oneLick(db: Database, id: string): Promise<StoredLick> {
  const row = await rows(db).where('id', '=', id).executeTakeFirst();
  return row ? lickFrom(row) : isGone(LICK);
}

/** Keeps a new lick; sent twice it is kept once. */
export async function keepNewLick(
  db: Database,
  { id, name, data }: z.infer<typeof keepLick>
): Promise<StoredLick> {
  if (await isKept(db, 'lick', id)) return oneLick(db, id);
  if ((await countKept(db, LICK)) >= MOST_LICKS) {
    fail(413, {
      code: 'too-many-licks',
      message: `The book holds up to ${MOST_LICKS} licks; delete some you no longer play.`
    });
  }
  await insertKept(db, 'lick', {
    id,
    name,
    data: JSON.stringify(data),
    ...freshRow()
  });
  return oneLick(db, id);
}

/** Changes a lick on top of the version the edit was based on. */
export async function editLick(
  db: Database,
  id: string,
  { base, name, data }: z.infer<typeof changeLick>
): Promise<StoredLick> {
  const stored = await oneLick(db, id);
  const set = {
    ...(name === undefined ? {} : { name }),
    ...(data === undefined ? {} : { data: JSON.stringify(data) })
  };
  await editKept(db, LICK, { id, base, set }, stored);
  return oneLick(db, id);
}

/** Soft: it can be brought back. */
export async function markLick(db: Database, id: string, deletedAt: number | null): Promise<void> {
  await markKept(db, LICK, id, deletedAt);
}
