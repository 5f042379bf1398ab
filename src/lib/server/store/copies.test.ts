import { mkdtempSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Sqlite from 'better-sqlite3';
import { sql } from 'kysely';
import { beforeEach, describe, expect, it } from 'vitest';
import { listCharts } from '../../api/songbook';
import { DEFAULT_PLAN } from '../../core/plan/model';
import { restoreCopy, copyNow, copyOfDay, folderOf, listCopies } from './copies';
import { fileOf, openDatabase, type Database } from './database';
import { fillWithDemo } from '../testing';
import * as songbook from './songbook';
import { COLUMNS } from './tables';

let db: Database;
beforeEach(async () => {
  db = await openDatabase(join(mkdtempSync(join(tmpdir(), 'corvel-copies-')), 'songbook.db'));
});

const day = (n: number) => new Date(2026, 2, n, 12);
const titles = async () =>
  (await songbook.listSongbook(db, listCharts.parse({ sort: 'title' }))).charts.map(({ title }) => title);
const add = (title: string) => songbook.createChart(db, { source: `{title: ${title}}\n| Abm7 | Db7 |` });
/** All that is kept, table by table. */
const rows = () =>
  Object.fromEntries(
    Object.keys(COLUMNS).map((table) => [table, fileOf(db)!.prepare(`select * from ${table}`).all()])
  );

describe('copies of the songbook', () => {
  it('are made once a day, before its first change, and ten are kept', async () => {
    for (let n = 1; n <= 13; n++) {
      await copyOfDay(db, day(n));
      await add(`Day ${n}`);
      await copyOfDay(db, day(n));
    }
    const copies = listCopies(db);
    expect(copies.map((copy) => copy.day)).toEqual(
      Array.from({ length: 10 }, (_, i) => `2026-03-${String(13 - i).padStart(2, '0')}`)
    );
    expect(copies.map(({ charts }) => charts)).toEqual(Array.from({ length: 10 }, (_, i) => 12 - i));
    expect(copies.every(({ isByItself }) => isByItself)).toBe(true);
  });

  it('bring everything back row by row, after a copy of what they replace, which brings that back', async () => {
    await fillWithDemo(db);
    const was = rows();
    const { name } = await copyNow(db, day(1));
    await add('Afterwards');
    await db
      .updateTable('plan')
      .set({ data: JSON.stringify({ ...DEFAULT_PLAN, position: 9 }) })
      .execute();
    await sql`delete from line`.execute(db);
    const spoilt = rows();
    const { before } = await restoreCopy(db, name, day(2));
    expect(rows()).toEqual(was);
    await restoreCopy(db, before, day(3));
    expect(rows()).toEqual(spoilt);
    // What was brought back can be written to.
    await add('And on');
    expect(await titles()).toContain('And on');
  });

  it('never give a version twice: an old window is told of what was brought back', async () => {
    const { id } = await songbook.createChart(db, { source: '| C |' });
    const save = (base: number, source: string) =>
      songbook.saveChart(db, id, { base, source, plan: DEFAULT_PLAN });
    await save(1, '| D |');
    const { name } = await copyNow(db, day(1));
    for (const base of [2, 3, 4]) await save(base, `| E | ${'F |'.repeat(base)}`);
    // The window that saved version 5 is still open.
    await restoreCopy(db, name, day(2));
    expect(await songbook.openChart(db, id)).toMatchObject({ source: '| D |', version: 6 });
    await expect(save(5, '| from the old window |')).rejects.toMatchObject({ status: 409 });
    await expect(save(2, '| from an older one |')).rejects.toMatchObject({ status: 409 });
    expect(await save(6, '| G |')).toEqual({ version: 7 });
    // What is as it was keeps its number.
    const same = await copyNow(db, day(3));
    await restoreCopy(db, same.name, day(4));
    expect((await songbook.openChart(db, id)).version).toBe(7);
  });

  it('made before something came in are thinned like those of the days', async () => {
    await add('Mine');
    const { name } = await copyNow(db, day(1));
    for (let i = 0; i < 13; i++) await restoreCopy(db, name, new Date(2026, 2, 14, 12, i));
    expect(listCopies(db).filter((copy) => copy.name.includes(' before '))).toHaveLength(10);
  });

  it('are refused where they are gone, damaged or named otherwise, and nothing is changed', async () => {
    await add('Here');
    const { name } = await copyNow(db, day(1));
    const was = rows();
    const path = join(folderOf(db), name);
    writeFileSync(path, readFileSync(path).subarray(0, 3000));
    expect(listCopies(db)[0]!.charts).toBeNull();
    await expect(restoreCopy(db, name, day(1))).rejects.toMatchObject({ status: 409 });
    for (const wrong of ['2026-03-09.db', '../songbook.db', 'songbook.db'])
      await expect(restoreCopy(db, wrong, day(1))).rejects.toMatchObject({ status: 404 });
    expect(rows()).toEqual(was);
    expect(readdirSync(folderOf(db))).toEqual([name]);
  });

  it('of an older format are brought into today’s, and stay as they are themselves', async () => {
    await add('From before takes');
    const { name } = await copyNow(db, day(1));
    const path = join(folderOf(db), name);
    const copy = new Sqlite(path);
    copy.exec('drop table take; pragma user_version = 5');
    copy.close();
    const bytes = readFileSync(path);
    await add('Later');
    await restoreCopy(db, name, day(2));
    expect(await titles()).toEqual(['From before takes']);
    expect(readFileSync(path)).toEqual(bytes);
  });
});
