import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { beforeAll, describe, expect, it } from 'vitest';
import { openDatabase, type Database } from './database';
import { find } from './find';
import { deleteChart } from './songbook';
import { fillWithDemo } from '../testing';

let db: Database;
beforeAll(async () => {
  db = await openDatabase(join(mkdtempSync(join(tmpdir(), 'corvel-find-')), 'songbook.db'));
  await fillWithDemo(db);
});
const ask = (search: string, limit = 8) => find(db, { search, limit });

describe('the finder', () => {
  it('without words gives charts alone', async () => {
    const found = await ask('');
    expect(found.charts.length).toBe(8);
    expect([found.licks, found.takes, found.log]).toEqual([[], [], []]);
  });

  it('finds by words that must all be there, in any case, as many of each kind as are wanted', async () => {
    const found = await ask('BILGE pump', 3);
    expect(found.charts.map(({ title }) => title)).toEqual(['Bilge Pump Blues']);
    expect(found.takes).toHaveLength(3);
    expect(found.log).toHaveLength(3);
    expect(found.log.every(({ title }) => title === 'Bilge Pump Blues')).toBe(true);
    expect((await ask('bilge nothingofthekind')).takes).toEqual([]);
  });

  it('passes over what was deleted, and over rows that cannot be read', async () => {
    const { charts, takes } = await ask('bilge', 1);
    await db.updateTable('practice_log').set({ data: '{' }).where('chart_id', '=', charts[0]!.id).execute();
    expect((await ask('bilge', 1)).log).toHaveLength(1);
    expect(takes).toHaveLength(1);
    await deleteChart(db, charts[0]!.id);
    const after = await ask('bilge', 1);
    expect([after.charts, after.takes]).toEqual([[], []]);
  });
});
