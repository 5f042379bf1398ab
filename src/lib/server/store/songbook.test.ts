import { copyFileSync, mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Sqlite from 'better-sqlite3';
import { sql } from 'kysely';
import { beforeEach, describe, expect, it } from 'vitest';
import { DEFAULT_PLAN } from '../../core/plan/model';
import { listCharts } from '../../api/songbook';
import { closeFile, openDatabase, type Database } from './database';
import { fillWithDemo } from '../testing';
import { DEMO_CHARTS } from '../../scenario/charts';
import { readSettings, writeSettings } from './settings';
import * as songbook from './songbook';
import { fileProblem } from '../web/failure';
import { readSheet } from '../../core/harmony/sheet';
import { DEFAULT_SETTINGS } from '../../api/default-settings';

let db: Database;
let path: string;
const list = (query: Record<string, unknown> = {}) => songbook.listSongbook(db, listCharts.parse(query));

beforeEach(async () => {
  path = join(mkdtempSync(join(tmpdir(), 'corvel-')), 'songbook.db');
  db = await openDatabase(path);
});

describe('the songbook', () => {
  it('keeps a chart with its plan over a restart', async () => {
    const plan = { ...DEFAULT_PLAN, position: 8, decisions: [{ change: 1, pins: [{ string: 3, fret: 7 }] }] };
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

  it('takes the same save sent twice for one save, not for a conflict', async () => {
    const { id } = await songbook.createChart(db, { source: '| C |' });
    const edit = { base: 1, source: '| C | F |', plan: { ...DEFAULT_PLAN, position: 7 } };
    expect(await songbook.saveChart(db, id, edit)).toEqual({ version: 2 });
    // The answer was lost.
    expect(await songbook.saveChart(db, id, edit)).toEqual({ version: 2 });
    expect(await songbook.listRevisions(db, id)).toHaveLength(2);
    // Another window went on from there: it is still the save that was made.
    await songbook.saveChart(db, id, { ...edit, base: 2, source: '| C | G |' });
    expect(await songbook.saveChart(db, id, edit)).toEqual({ version: 2 });
    expect((await songbook.openChart(db, id)).source).toBe('| C | G |');
    const other = songbook.saveChart(db, id, { ...edit, source: '| C | A |' });
    await expect(other).rejects.toMatchObject({ status: 409, extra: { stored: { version: 3 } } });
  });

  it('makes one chart of a request that is sent twice', async () => {
    const chart = { id: '0d4f6b2a-58a4-4a5e-9f7e-3a3c8d6f1b21', source: '{title: Once}\n| C |' };
    const first = await songbook.createChart(db, chart);
    expect(await songbook.createChart(db, chart)).toEqual(first);
    expect((await list()).total).toBe(1);
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
    await songbook.restoreChart(db, id);
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
    await fillWithDemo(db);
    expect((await list({ search: 'foghorns' })).charts).toHaveLength(1);
    expect((await list({ search: 'Gb7' })).charts.map((c) => c.title)).toEqual([]);
    expect((await list({ search: 'Dm7b5' })).charts.map((c) => c.title)).toEqual(['Cabin Without a Window']);
    expect((await list({ search: '%' })).total).toBe(0);
    expect((await list({ limit: 3 })).charts).toHaveLength(3);
  });

  it.each([
    ['100 % Rope', '100 %', true],
    ['100 % Rope', '%rope', false],
    ['Deck_Four', 'deck_f', true],
    ['Deck Four', 'deck_four', false],
    ['Under\\Over', 'r\\o', true],
    ['Café at Pier Nine', 'cafe', true],
    ['Cafe at Pier Nine', 'CAFÉ', true],
    ['Über die Mole', 'uber mole', true],
    ['Deck', 'tempo', false],
    ['Deck', 'e♭', true],
    ['Deck', 'Eb major', true]
  ])('%s is found by %s: %s', async (title, search, isFound) => {
    await songbook.createChart(db, { source: `{title: ${title}}\n{key: Eb}\n| Ebmaj7 |` });
    expect((await list({ search })).total).toBe(isFound ? 1 : 0);
  });

  describe('of many charts', () => {
    const BLUES = '| F7 | Bb7 | F7 | F7 | Bb7 | Bb7 | F7 | D7 | Gm7 | C7 | F7 D7 | Gm7 C7 |';
    const found = async (query: Record<string, unknown>) =>
      (await list({ sort: 'title', ...query })).charts.map(({ title }) => title);
    const fill = async () => {
      for (const source of [
        `{title: Anchor}\n{feel: shuffle}\n{tags: opener, Loud}\n${BLUES}`,
        `{title: Bollard}\n{key: Abm}\n{feel: bossa}\n{tags: loud}\n| Abm7 | Db7 |`,
        '{title: Capstan}\n{key: Abm}\n| Abm7 | Db7 |'
      ])
        await songbook.createChart(db, { source });
    };

    it('tells what they can be told apart by, and finds by that', async () => {
      await fill();
      const { facets } = await list();
      expect(facets).toEqual({
        key: [
          { value: 'Abm', count: 2 },
          { value: 'F', count: 1 }
        ],
        form: [
          { value: '2 bars', count: 2 },
          { value: '12-bar blues', count: 1 }
        ],
        style: [
          { value: 'bossa', count: 1 },
          { value: 'shuffle', count: 1 }
        ],
        // One tag in two cases is one.
        tag: [
          { value: 'Loud', count: 2 },
          { value: 'opener', count: 1 }
        ]
      });
      expect(await found({ key: 'Abm' })).toEqual(['Bollard', 'Capstan']);
      expect(await found({ form: '12-bar blues' })).toEqual(['Anchor']);
      expect(await found({ style: 'bossa' })).toEqual(['Bollard']);
      expect(await found({ tag: 'LOUD' })).toEqual(['Anchor', 'Bollard']);
      expect(await found({ tag: 'lou' })).toEqual([]);
      expect(await found({ tag: 'loud', key: 'Abm', search: 'db7' })).toEqual(['Bollard']);
      expect(await found({ search: 'opener' })).toEqual(['Anchor']);
    });

    it('finds what was practised lately, long ago, and not yet', async () => {
      await fill();
      const charts = (await list({ sort: 'title' })).charts;
      const day = 24 * 60 * 60 * 1000;
      const play = (chart: string, at: number, deletedAt: number | null = null) =>
        db
          .insertInto('practice_log')
          .values({
            id: crypto.randomUUID(),
            item_id: null,
            chart_id: chart,
            kind: 'rehearse',
            started_at: at,
            day: '2026-01-01',
            seconds: 60,
            rounds: 1,
            tempo: null,
            clean: null,
            key: null,
            area: null,
            data: '{}',
            revision: 1,
            version: 1,
            updated_at: at,
            deleted_at: deletedAt
          })
          .execute();
      await play(charts[0]!.id, Date.now() - day);
      await play(charts[1]!.id, Date.now() - 90 * day);
      await play(charts[2]!.id, Date.now() - day, Date.now());
      expect(await found({ practised: 'lately' })).toEqual(['Anchor']);
      expect(await found({ practised: 'long ago' })).toEqual(['Bollard']);
      expect(await found({ practised: 'never' })).toEqual(['Capstan']);
    });

    it('tags, untags, deletes and brings back many, each that changes once, and tells which', async () => {
      await fill();
      const [anchor, bollard, capstan] = (await list({ sort: 'title' })).charts.map(({ id }) => id);
      const ids = [anchor!, bollard!, capstan!, crypto.randomUUID()];
      const many = (what: 'tag' | 'untag' | 'delete' | 'bring back', tag?: string) =>
        songbook.changeMany(db, { ids, what, tag }).then(({ changed }) => changed.sort());
      expect(await many('tag', 'loud')).toEqual([capstan]);
      expect((await songbook.openChart(db, capstan!)).source).toContain('{tags: loud}');
      expect((await songbook.openChart(db, capstan!)).version).toBe(2);
      expect(await found({ tag: 'loud' })).toHaveLength(3);
      expect(await many('untag', 'LOUD')).toEqual([anchor, bollard, capstan].sort());
      expect((await list()).facets.tag).toEqual([{ value: 'opener', count: 1 }]);
      // The save before is among the earlier versions, and an edit upon it is told to be stale.
      expect((await songbook.openRevision(db, bollard!, 1)).source).toContain('{tags: loud}');
      await expect(
        songbook.saveChart(db, bollard!, { base: 1, source: '| C |', plan: DEFAULT_PLAN })
      ).rejects.toMatchObject({ error: { code: 'stale' } });
      expect(await many('delete')).toEqual([anchor, bollard, capstan].sort());
      expect(await many('delete')).toEqual([]);
      expect((await list()).total).toBe(0);
      expect((await list()).facets).toEqual({ key: [], form: [], style: [], tag: [] });
      expect(await many('bring back')).toHaveLength(3);
      expect((await list()).total).toBe(3);
    });

    it('tells of charts that an older Corvel saved what is told of them today, and changes nothing of theirs', async () => {
      await fill();
      await db
        .updateTable('chart')
        .set({ summary: sql`json_remove(summary, '$.form', '$.tags')` })
        .execute();
      const { id } = (await list({ sort: 'title' })).charts[0]!;
      await db.updateTable('chart').set({ summary: '{"key"' }).where('id', '=', id).execute();
      const was = await db.selectFrom('chart').select(['source', 'version', 'updated_at']).execute();
      // Meanwhile it is listed all the same.
      expect((await list({ sort: 'title' })).charts.map(({ form }) => form)).toEqual([
        '12-bar blues',
        '2 bars',
        '2 bars'
      ]);
      expect((await list()).facets.form).toEqual([]);
      expect(await songbook.hasOldSummaries(db)).toBe(true);
      await songbook.refreshSummaries(db);
      expect(await songbook.hasOldSummaries(db)).toBe(false);
      expect((await list()).facets.form).toHaveLength(2);
      expect(await found({ tag: 'opener' })).toEqual(['Anchor']);
      expect(await db.selectFrom('chart').select(['source', 'version', 'updated_at']).execute()).toEqual(was);
    });
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
  it('are kept one by one, and read by their defaults where damaged', async () => {
    await writeSettings(db, { theme: 'stage' });
    // Another window, which does not know of that.
    expect(await writeSettings(db, { capo: 3 })).toMatchObject({ theme: 'stage', capo: 3 });
    await db.updateTable('setting').set({ value: '{"theme":"stage","capo":"high","frets":24}' }).execute();
    expect(await readSettings(db)).toEqual({
      ...DEFAULT_SETTINGS,
      theme: 'stage',
      frets: 24,
      reading: 1
    });
    await db.updateTable('setting').set({ value: 'nonsense' }).execute();
    expect(await readSettings(db)).toEqual({ ...DEFAULT_SETTINGS, reading: 1 });
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

  /** The file as an earlier Corvel left it, before there was a search column. */
  function asFormat1(): void {
    const file = new Sqlite(path);
    file.exec(
      `alter table chart drop column search; alter table chart add column practised_at integer;
       drop table solo; drop table line; drop table lick; drop table practice_item; drop table practice_log;
       drop table card_review; drop table card; drop table set_list; drop table take`
    );
    file.pragma('user_version = 1');
    file.close();
  }

  it('is copied before an older format is migrated, and found in afterwards', async () => {
    await songbook.createChart(db, { source: '{title: Hawser}\n{key: Gm}\n| Gm6 | D7b9 |' });
    await db.destroy();
    asFormat1();
    db = await openDatabase(path);
    expect(readdirSync(join(path, '..'))).toContain('songbook.db.format-1.bak');
    expect((await list({ search: 'hawser g minor d7b9' })).total).toBe(1);
  });

  it.each([
    ['a format below the first', (file: Sqlite.Database) => file.pragma('user_version = -3'), /damaged/],
    [
      'no tables',
      (file: Sqlite.Database) =>
        file.exec(
          'drop table solo; drop table line; drop table plan; drop table chart_revision; drop table chart'
        ),
      /damaged/
    ],
    [
      'a missing column',
      (file: Sqlite.Database) => file.exec('alter table chart drop column search'),
      /lacks the column search/
    ],
    [
      'a missing table',
      (file: Sqlite.Database) => file.exec('drop table setting'),
      /lacks the column name of its table setting/
    ]
  ])('with %s is refused at the start', async (_, harm, sentence) => {
    await db.destroy();
    const file = new Sqlite(path);
    harm(file);
    file.close();
    await expect(openDatabase(path)).rejects.toThrow(sentence);
  });

  it('that another program holds is said to be in use, not damaged', async () => {
    await db.destroy();
    const other = new Sqlite(path);
    other.pragma('journal_mode = DELETE');
    other.exec('begin exclusive');
    await expect(openDatabase(path)).rejects.toThrow(/in use by another program/);
    other.exec('commit');
    other.close();
    db = await openDatabase(path);
    expect((await list()).total).toBe(0);
  }, 20_000);

  it('that is a folder cannot be opened, and is not called damaged', async () => {
    await expect(openDatabase(join(path, '..'))).rejects.toThrow(/cannot be opened for reading and writing/);
  });

  it('on a full disk loses nothing and says so', async () => {
    const { id } = await songbook.createChart(db, { source: '| C |' });
    const { page_count } = (await sql<{ page_count: number }>`pragma page_count`.execute(db)).rows[0]!;
    await sql.raw(`pragma max_page_count = ${page_count}`).execute(db);
    const large = songbook.saveChart(db, id, { base: 1, source: '# '.repeat(30_000), plan: DEFAULT_PLAN });
    const error = await large.catch((thrown: unknown) => fileProblem(thrown));
    expect(error).toMatchObject({ status: 507, error: { code: 'disk-full' } });
    expect(await songbook.openChart(db, id)).toMatchObject({ source: '| C |', version: 1 });
  });

  it.each([
    ['SQLITE_BUSY_SNAPSHOT', 'file-busy'],
    ['SQLITE_READONLY_DIRECTORY', 'file-not-writable'],
    ['EACCES', 'file-not-readable'],
    ['SQLITE_CORRUPT', 'file-damaged'],
    ['SQLITE_NOTADB', 'file-damaged'],
    ['SQLITE_IOERR_READ', 'file-not-readable'],
    ['SQLITE_IOERR_WRITE', 'file-not-writable']
  ])('%s is told as %s', (code, told) => {
    expect(fileProblem(Object.assign(new Error(code), { code }))?.error.code).toBe(told);
  });

  it('belongs to a transaction from its start, so that none fails half-way', async () => {
    await songbook.createChart(db, { source: '| C |' });
    const other = new Sqlite(path, { timeout: 0 });
    const write = () => other.exec("update chart set title = 'Other'");
    await db.transaction().execute(async (trx) => {
      await trx.selectFrom('chart').select('title').execute();
      expect(write).toThrow(/locked/);
    });
    expect(write).not.toThrow();
    other.close();
  });

  it('is whole in one file once it is closed', async () => {
    await songbook.createChart(db, { source: '{title: Hawser}\n| C |' });
    closeFile(db);
    const copy = join(path, '..', 'copy.db');
    copyFileSync(path, copy);
    expect(readdirSync(join(path, '..'))).not.toContain('songbook.db-wal');
    db = await openDatabase(copy);
    expect((await list()).total).toBe(1);
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
      expect(analysis.changes.every((c) => c.numeral !== null)).toBe(true);
    }
  );
});
