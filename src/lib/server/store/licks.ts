/** The lick book: licks over all charts. */
import { sql } from 'kysely';
import type { z } from 'zod';
import {
  lickData,
  type changeLick,
  type keepLick,
  type LickData,
  type LickList,
  type listLicks as licksAsked,
  type StoredLick
} from '../../api/lick';
import { lickFacts, type LickFacts } from '../../core/line/lick-facts';
import { STANDARD } from '../../core/neck/tuning';
import type { Database } from './database';
import { storedKind, named } from './stored-kind';
import { readColumn } from './songbook';

/** Licks that the book holds. */
const MOST_LICKS = 2000;

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

export const licks = storedKind({
  table: 'lick',
  noun: 'lick',
  gone: { code: 'no-lick', message: 'This lick is not in the book; it may have been deleted.' },
  most: {
    count: MOST_LICKS,
    refusal: {
      code: 'too-many-licks',
      message: `The book holds up to ${MOST_LICKS} licks; delete some you no longer play.`
    }
  },
  rows: (db) =>
    db.selectFrom('lick').select(['id', 'name', 'version', 'data']).where('deleted_at', 'is', null),
  shown: lickFrom
});

/** A part of the book, the newest first. */
export async function listLicks(
  db: Database,
  { offset, limit }: z.infer<typeof licksAsked>
): Promise<LickList> {
  const some = await licks.all(db, undefined, (query) =>
    query
      .orderBy('created_at', 'desc')
      // Of those kept at one moment the one written last.
      .orderBy(sql`rowid`, 'desc')
      .limit(limit)
      .offset(offset)
  );
  return { licks: some, total: await licks.count(db) };
}

/** Keeps a new lick; sent twice it is kept once. */
export const keepNewLick = (
  db: Database,
  { id, name, data }: z.infer<typeof keepLick>
): Promise<StoredLick> => licks.keep(db, { id, name, data: JSON.stringify(data) });

/** Changes a lick on top of the version the edit was based on. */
export const editLick = (
  db: Database,
  id: string,
  { base, ...lick }: z.infer<typeof changeLick>
): Promise<StoredLick> => licks.edit(db, { id, base, set: named(lick) });
