/** Charts for a date: set lists in the order of their days. */
import type { z } from 'zod';
import { setListData, type changeSetList, type keepSetList, type StoredSetList } from '../../api/practice';
import type { Database } from '../database';
import { editKept, freshRow, insertKept, isGone, type Kept, markKept } from '../kept';
import { readColumn } from '../songbook';

const SET_LIST: Kept = {
  table: 'set_list',
  noun: 'set list',
  gone: { code: 'no-set-list', message: 'There is no such set list; it may have been deleted.' }
};

const rows = (db: Database) =>
  db.selectFrom('set_list').select(['id', 'name', 'version', 'data']).where('deleted_at', 'is', null);

type Row = { id: string; name: string; version: number; data: string };
const setListFrom = ({ id, name, version, data }: Row): StoredSetList => ({
  id,
  name,
  version,
  data: readColumn(setListData, data)
});

export async function listSetLists(db: Database): Promise<StoredSetList[]> {
  const all = (await rows(db).orderBy('created_at').execute()).map(setListFrom);
  return all.sort((a, b) => ((a.data?.day ?? '') < (b.data?.day ?? '') ? -1 : 1));
}

export async function keepNewSetList(
  db: Database,
  { id, name, data }: z.infer<typeof keepSetList>
): Promise<StoredSetList> {
  // Sent twice it is kept once.
  await insertKept(db, 'set_list', {
    id,
    name,
    data: JSON.stringify(data),
    ...freshRow()
  });
  return oneSetList(db, id);
}

export async function oneSetList(db: Database, id: string): Promise<StoredSetList> {
  const row = await rows(db).where('id', '=', id).executeTakeFirst();
  return row ? setListFrom(row) : isGone(SET_LIST);
}

export async function editSetList(
  db: Database,
  id: string,
  { base, name, data }: z.infer<typeof changeSetList>
): Promise<StoredSetList> {
  const stored = await oneSetList(db, id);
  const set = {
    ...(name === undefined ? {} : { name }),
    ...(data === undefined ? {} : { data: JSON.stringify(data) })
  };
  await editKept(db, SET_LIST, { id, base, set }, stored);
  return oneSetList(db, id);
}

export async function markSetList(db: Database, id: string, deletedAt: number | null): Promise<void> {
  await markKept(db, SET_LIST, id, deletedAt);
}
