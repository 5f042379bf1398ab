import { randomUUID } from 'node:crypto';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Sqlite from 'better-sqlite3';
import { beforeEach, describe, expect, it } from 'vitest';
import { keepLick, type LickData } from '../../api/lick';
import { noteOf } from '../../core/line/model';
import { openDatabase, type Database } from './database';
import { fillWithDemo } from '../testing';
import { DEMO_LICKS } from '../demo/licks';
import { editLick, keepNewLick, licks, listLicks } from './licks';

let db: Database;
let path: string;
const DATA: LickData = {
  meter: { beats: 4, unit: 4 },
  key: 'C',
  over: [
    { symbol: 'Dm7', beats: 2 },
    { symbol: 'G7', beats: 2 }
  ],
  notes: [65, 69, 72, 74, 71, 67, 65, 62].map((midi, i) => noteOf(i * 480, 480, midi)),
  tags: ['swing'],
  source: '',
  rating: 0,
  played: 0
};
const licksOf = async (from: Database) => (await listLicks(from, { offset: 0, limit: 200 })).licks;
const keep = (name = 'Rope ladder', data: LickData = DATA) =>
  keepNewLick(db, keepLick.parse({ id: randomUUID(), name, data }));

beforeEach(async () => {
  path = join(mkdtempSync(join(tmpdir(), 'corvel-')), 'songbook.db');
  db = await openDatabase(path);
});

describe('the lick book', () => {
  it('keeps licks as they are, the newest first, and says what they are', async () => {
    await keep('First');
    await keep('Second');
    const licks = await licksOf(db);
    expect(licks.map(({ name }) => name)).toEqual(['Second', 'First']);
    expect(licks[0]).toMatchObject({
      version: 1,
      data: DATA,
      facts: { motion: 'ii7–V7', told: 1, beats: 4 }
    });
    expect(licks[0]!.facts!.resolves).toEqual({ symbol: 'G7', degree: '3' });
  });

  it('keeps one where the same is sent twice, and changes it on top of what was seen', async () => {
    const lick = keepLick.parse({ id: randomUUID(), name: 'Twice', data: DATA });
    await keepNewLick(db, lick);
    await keepNewLick(db, lick);
    expect(await licksOf(db)).toHaveLength(1);
    expect(await editLick(db, lick.id, { base: 1, name: 'Once' })).toMatchObject({
      name: 'Once',
      version: 2
    });
    await expect(editLick(db, lick.id, { base: 1, name: 'Late' })).rejects.toMatchObject({ status: 409 });
    expect((await licksOf(db))[0]!.name).toBe('Once');
  });

  it('is told in parts, with how many there are in all', async () => {
    for (const name of ['One', 'Two', 'Three']) await keep(name);
    const { licks, total } = await listLicks(db, { offset: 1, limit: 1 });
    expect(licks.map(({ name }) => name)).toEqual(['Two']);
    expect(total).toBe(3);
  });

  it('deletes softly, and says so where there is none', async () => {
    const { id } = await keep();
    await licks.remove(db, id);
    expect(await licksOf(db)).toEqual([]);
    await licks.restore(db, id);
    expect(await licksOf(db)).toHaveLength(1);
    await expect(licks.remove(db, randomUUID())).rejects.toMatchObject({ status: 404 });
  });

  it('names one that cannot be read any more, and keeps it', async () => {
    const { id } = await keep();
    const file = new Sqlite(path);
    file.prepare('update lick set data = ? where id = ?').run('{"over": 3}', id);
    file.close();
    expect(await licksOf(db)).toMatchObject([{ name: 'Rope ladder', data: null, facts: null }]);
  });

  it.each([
    ['no note', { notes: [] }],
    ['no chord', { over: [] }],
    ['a rating beyond the best', { rating: 9 }],
    ['a tag without letters', { tags: [' '] }]
  ])('takes no lick with %s', (_, part) => {
    expect(() => keepLick.parse({ id: randomUUID(), name: 'x', data: { ...DATA, ...part } })).toThrow();
  });

  it('is filled with the demo licks', async () => {
    await fillWithDemo(db);
    expect((await licksOf(db)).map(({ name }) => name).sort()).toEqual(
      DEMO_LICKS.map(({ name }) => name).sort()
    );
  });
});
