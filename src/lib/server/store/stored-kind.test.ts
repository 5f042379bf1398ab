import { randomUUID } from 'node:crypto';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { beforeEach, describe, expect, it } from 'vitest';
import { lickData } from '../../api/lick';
import { itemData, setListData } from '../../api/practice';
import { soloData } from '../../api/solo';
import { takeData } from '../../api/take';
import { openDatabase, type Database } from './database';
import { storedKind } from './stored-kind';
import { licks } from './licks';
import { lines } from './lines';
import { items } from '../practice/items';
import { setLists } from '../practice/set-lists';
import { solos } from './solos';
import { createChart } from './songbook';
import { takes } from '../takes/takes';

let db: Database;
let chart: string;
beforeEach(async () => {
  db = await openDatabase(join(mkdtempSync(join(tmpdir(), 'corvel-kept-')), 'songbook.db'));
  chart = (await createChart(db, { source: '| Ebm7 | Ab7 |' })).id;
});

type Store = ReturnType<typeof storedKind<never, { readonly version: number }>>;
const notes = [{ start: 0, length: 960, midi: 63, note: 'Eb' }];
const tempo = { start: 70, goal: 100 };

/** Every kind, with columns of a new one, and whether it belongs to a chart. */
const KINDS = [
  ['lines', lines, { name: 'A', data: { notes, over: [] } }, true],
  [
    'solos',
    solos,
    { name: 'A', data: soloData.parse({ arc: 'rise', choruses: 1, phrases: [], line: notes, seed: 1 }) },
    true
  ],
  [
    'licks',
    licks,
    {
      name: 'A',
      data: lickData.parse({
        over: [{ symbol: 'Ebm7', beats: 4 }],
        notes,
        meter: { beats: 4, unit: 4 },
        source: '',
        rating: 0,
        played: 0,
        tags: []
      })
    },
    false
  ],
  ['set lists', setLists, { name: 'A', data: setListData.parse({ day: '2026-05-04', charts: [] }) }, false],
  ['items', items, { place: 1, data: itemData.parse({ what: 'up', name: 'A', tempo }) }, false],
  [
    'takes',
    takes,
    {
      name: 'A',
      way: 'midi',
      played_at: 1,
      day: '2026-05-04',
      seconds: 1,
      bytes: 0,
      tempo: 100,
      loved: 0,
      summary: 'null',
      data: takeData.parse({
        way: 'midi',
        source: '| Ebm7 |',
        tempo: 100,
        start: 0,
        notes: [],
        troubles: [],
        targets: []
      })
    },
    true
  ]
] as const;

describe.each(KINDS)('%s', (_, kind, { data, ...columns }, isOfChart) => {
  const store = kind as unknown as Store;
  const id = randomUUID();
  const row = { id, ...columns, data: JSON.stringify(data) };
  const of = () => (isOfChart ? chart : undefined);
  const keep = () => store.keep(db, row, of());
  const other = JSON.stringify({ ...data, more: 1 });

  it('are kept once, however often and however late they are sent', async () => {
    const [first, again] = await Promise.all([keep(), keep()]);
    expect(again).toEqual(first);
    await store.edit(db, { id, base: 1, set: { data: other } }, of());
    expect(await keep()).toMatchObject({ version: 2 });
    expect(await store.count(db, of())).toBe(1);
  });

  it('take an edit on top of its base, the same one twice, and refuse a stale one with what is stored', async () => {
    await keep();
    const edit = { id, base: 1, set: { data: other } };
    const made = await store.edit(db, edit, of());
    expect(made).toMatchObject({ version: 2 });
    // Its answer was lost, and it was sent again.
    expect(await store.edit(db, edit, of())).toEqual(made);
    const stale = store.edit(db, { id, base: 1, set: { data: JSON.stringify(data) } }, of());
    await expect(stale).rejects.toMatchObject({
      status: 409,
      error: { code: 'stale' },
      extra: { stored: made }
    });
    await expect(store.edit(db, { id, base: 7, set: { data: other } }, of())).rejects.toMatchObject({
      status: 409
    });
  });

  it('are deleted softly, once or twice, and come back as they were', async () => {
    const kept = await keep();
    await store.remove(db, id, of());
    await store.remove(db, id, of());
    expect(await store.all(db, of())).toEqual([]);
    await expect(store.open(db, id, of())).rejects.toMatchObject({ status: 404 });
    await store.restore(db, id, of());
    expect(await store.all(db, of())).toEqual([kept]);
  });

  it('are not to be had under another id, nor in another chart', async () => {
    await keep();
    const none = randomUUID();
    await expect(store.open(db, none, of())).rejects.toMatchObject({ status: 404 });
    await expect(store.remove(db, none, of())).rejects.toMatchObject({ status: 404 });
    await expect(store.edit(db, { id: none, base: 1, set: {} }, of())).rejects.toMatchObject({ status: 404 });
    if (!isOfChart) return;
    const second = (await createChart(db, { source: '| C |' })).id;
    await expect(store.open(db, id, second)).rejects.toMatchObject({ status: 404 });
    await expect(store.remove(db, id, second)).rejects.toMatchObject({ status: 404 });
    await expect(store.keep(db, { ...row, id: none }, randomUUID())).rejects.toMatchObject({ status: 404 });
  });
});

it('as many as there may be, and no more', async () => {
  const few = storedKind({
    table: 'lick',
    noun: 'lick',
    gone: { code: 'no-lick', message: 'none' },
    most: { count: 2, refusal: { code: 'too-many-licks', message: 'too many' } },
    rows: (own) => own.selectFrom('lick').select(['id', 'version']).where('deleted_at', 'is', null),
    shown: (row) => row
  });
  const one = () => ({ id: randomUUID(), name: 'A', data: '{}' });
  const first = one();
  await few.keep(db, first);
  await few.keep(db, one());
  await expect(few.keep(db, one())).rejects.toMatchObject({ status: 413 });
  // One that is there already is answered all the same.
  await expect(few.keep(db, first)).resolves.toMatchObject({ id: first.id });
});
