/** Charts for a date: set lists in the order of their days. */
import type { z } from 'zod';
import { setListData, type changeSetList, type keepSetList, type StoredSetList } from '../../api/practice';
import type { Database } from '../store/database';
import { storedKind, named } from '../store/stored-kind';
import { readColumn } from '../store/songbook';

const MOST_SET_LISTS = 1000;

export const setLists = storedKind({
  table: 'set_list',
  noun: 'set list',
  gone: { code: 'no-set-list', message: 'There is no such set list; it may have been deleted.' },
  most: {
    count: MOST_SET_LISTS,
    refusal: {
      code: 'too-many-set-lists',
      message: `Up to ${MOST_SET_LISTS} set lists are kept; delete some that are over.`
    }
  },
  rows: (db) =>
    db.selectFrom('set_list').select(['id', 'name', 'version', 'data']).where('deleted_at', 'is', null),
  shown: ({ id, name, version, data }): StoredSetList => ({
    id,
    name,
    version,
    data: readColumn(setListData, data)
  })
});

export async function listSetLists(db: Database): Promise<StoredSetList[]> {
  const all = await setLists.all(db);
  return all.sort((a, b) => ((a.data?.day ?? '') < (b.data?.day ?? '') ? -1 : 1));
}

/** Keeps a new set list; sent twice it is kept once. */
export const keepNewSetList = (
  db: Database,
  { id, name, data }: z.infer<typeof keepSetList>
): Promise<StoredSetList> => setLists.keep(db, { id, name, data: JSON.stringify(data) });

/** Changes a set list on top of the version the edit was based on. */
export const editSetList = (
  db: Database,
  id: string,
  { base, ...list }: z.infer<typeof changeSetList>
): Promise<StoredSetList> => setLists.edit(db, { id, base, set: named(list) });
