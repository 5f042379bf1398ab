import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Sqlite from 'better-sqlite3';
import { beforeEach, describe, expect, it } from 'vitest';
import { DEFAULT_PLAN } from '../api/plan';
import { listCharts } from '../api/songbook';
import { openDatabase, type Database } from './database';
import { seedDemo } from './demo';
import { DEMO_CHARTS } from './demo-charts';
import { readSettings, writeSettings } from './settings';
import * as songbook from './songbook';
import { readSheet } from '../core/harmony/sheet';
import { DEFAULT_SETTINGS } from '../api/settings';

let db: Database;
let path: string;
const list = (query: Record<string, unknown> = {}) => songbook.listSongbook(db, listCharts.parse(query));

beforeEach(async () => {
  path = join(mkdtempSync(join(tmpdir(), 'corvel-')), 'songbook.db');
  db = await openDatabase(path);
});

describe('the songbook', () => {
  it('keeps a chart with its plan over a restart', async () => {
    const plan = { ...DEFAULT_PLAN, position: 8, fixed: [{ change: 1, string: 3, fret: 7 }] };
    const { id } = await songbook.createChart(db, { source: '| Fm7 | Bb7 |', plan });
    await db.destroy();
    db = await openDatabase(path);
    expect(await songbook.openChart(db, id)).toMatchObject({ source: '| Fm7 | Bb7 |', plan, version: 1 });
  });

  it('refuses a stale save, offers both versions and overwrites nothing', async () => {
    const { id } = await songbook.createChart(db, { source: '| C |' });
    await songbook.saveChart(db, id, { base: 1, source: '| C | F |', plan: DEFAULT_PLAN });
    const stale = songbook.saveChart(db, id, { base: 1, source: '| C | G |', plan: DEFAULT_PLAN });
    await expect(stale).rejects.toMatchObject({
      status: 409,
      extra: { stored: { version: 2, source: '| C | F |' }, yours: { source: '| C | G |' } }
    });
    expect((await songbook.openChart(db, id)).source).toBe('| C | F |');
  });

  it('keeps every save as a revision', async () => {
    const { id } = await songbook.createChart(db, { source: '| C |' });
    for (const base of [1, 2, 3]) {
      await songbook.saveChart(db, id, { base, source: `| C | ${'F '.repeat(base)}|`, plan: DEFAULT_PLAN });
    }
    expect((await songbook.listRevisions(db, id)).map((r) => r.version)).toEqual([4, 3, 2, 1]);
    expect((await songbook.openRevision(db, id, 1)).source).toBe('| C |');
    await expect(songbook.openRevision(db, id, 9)).rejects.toMatchObject({ status: 404 });
  });

  it('deletes softly and brings back', async () => {
    const { id } = await songbook.createChart(db, { source: '| C |' });
    await songbook.deleteChart(db, id);
    expect((await list()).total).toBe(0);
    await expect(songbook.openChart(db, id)).rejects.toMatchObject({ status: 404 });
    await songbook.bringBackChart(db, id);
    expect((await list()).total).toBe(1);
  });

  it('renames and duplicates through the text', async () => {
    const { id } = await songbook.createChart(db, { source: '{title: Deck Three}\n| C |' });
    await songbook.renameChart(db, id, 'Deck Four');
    const copy = await songbook.duplicateChart(db, id);
    expect(copy.source).toBe('{title: Deck Four (copy)}\n| C |');
    expect((await list({ sort: 'title' })).charts.map((c) => c.title)).toEqual([
      'Deck Four',
      'Deck Four (copy)'
    ]);
  });

  it('finds by title, key and chord, and takes wildcards as typed', async () => {
    await seedDemo(db);
    expect((await list({ search: 'foghorns' })).charts).toHaveLength(1);
    expect((await list({ search: 'Gb7' })).charts.map((c) => c.title)).toEqual([]);
    expect((await list({ search: 'Dm7b5' })).charts.map((c) => c.title)).toEqual(['Cabin Without a Window']);
    expect((await list({ search: '%' })).total).toBe(0);
    expect((await list({ limit: 3 })).charts).toHaveLength(3);
  });

  it('shows a damaged plan, keeps it among the revisions and goes on', async () => {
    const { id } = await songbook.createChart(db, { source: '| C |' });
    await db.updateTable('plan').set({ data: '{"position":"high"' }).where('chart_id', '=', id).execute();
    expect((await list()).charts[0]!.damaged).toBe(true);
    expect(await songbook.openChart(db, id)).toMatchObject({
      damaged: true,
      plan: DEFAULT_PLAN,
      source: '| C |'
    });
    await songbook.saveChart(db, id, { base: 1, source: '| C |', plan: DEFAULT_PLAN });
    const kept = await db.selectFrom('chart_revision').select('plan').execute();
    expect(kept.map((row) => row.plan)).toContain('{"position":"high"');
  });

  it('reads the text again where its summary is damaged', async () => {
    await songbook.createChart(db, { source: '{title: Hawser}\n| Fm7 | Bb7 |' });
    await db.updateTable('chart').set({ summary: 'torn' }).execute();
    expect((await list()).charts[0]).toMatchObject({ title: 'Hawser', bars: 2, opening: ['Fm7', 'Bb7'] });
  });

  it('refuses a chart of more than 64 KiB', async () => {
    await expect(songbook.createChart(db, { source: 'x'.repeat(70 * 1024) })).rejects.toMatchObject({
      status: 413
    });
  });
});

describe('settings', () => {
  it('are kept, and read by their defaults where damaged', async () => {
    await writeSettings(db, { ...DEFAULT_SETTINGS, theme: 'stage' });
    expect((await readSettings(db)).theme).toBe('stage');
    await db.updateTable('setting').set({ value: 'nonsense' }).execute();
    expect(await readSettings(db)).toEqual(DEFAULT_SETTINGS);
  });
});

describe('the file', () => {
  it('is refused untouched when it is newer', async () => {
    await db.destroy();
    const file = new Sqlite(path);
    file.pragma('user_version = 99');
    file.close();
    const before = readFileSync(path);
    await expect(openDatabase(path)).rejects.toThrow(/newer Corvel/);
    expect(readFileSync(path).equals(before)).toBe(true);
  });

  it('is refused untouched when it is damaged', async () => {
    const other = join(path, '..', 'broken.db');
    writeFileSync(other, 'This is no songbook at all.'.repeat(300));
    const before = readFileSync(other);
    await expect(openDatabase(other)).rejects.toThrow(/damaged/);
    expect(readFileSync(other).equals(before)).toBe(true);
  });

  it('is copied before an older format is migrated', async () => {
    await db.destroy();
    const file = new Sqlite(path);
    file.exec(
      'drop table setting; drop table plan; drop table chart_revision; drop table chart; create table chart (id text)'
    );
    file.pragma('user_version = 0');
    file.close();
    // The first step cannot run over the old table; the copy is there all the same and the file as it was.
    await expect(openDatabase(path)).rejects.toThrow();
    expect(readdirSync(join(path, '..'))).toContain('songbook.db.format-0.bak');
  });

  it('says in a sentence when its folder cannot be made', async () => {
    await expect(openDatabase(join(path, 'inside-a-file', 'corvel.db'))).rejects.toThrow(/cannot be made/);
  });
});

describe('demo charts', () => {
  it.each(DEMO_CHARTS.map(({ text }) => [readSheet(text).head.title, text]))(
    '%s is understood whole',
    (_, text) => {
      const { problems, analysis } = readSheet(text!);
      expect(problems).toEqual([]);
      expect(analysis.changes.every((c) => c.roman !== null)).toBe(true);
    }
  );
});
