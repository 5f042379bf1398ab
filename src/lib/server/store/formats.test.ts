import { copyFileSync, existsSync, mkdtempSync, readdirSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Sqlite from 'better-sqlite3';
import { describe, expect, it } from 'vitest';
import { importChartFile } from '../../api/chart-file';
import { listCharts } from '../../api/songbook';
import { readSheet } from '../../core/harmony/sheet';
import { importArchiveInto } from '../files/archive';
import { importChart, chartFileOf } from '../files/chart-file';
import { fileOf, openDatabase, type Database } from './database';
import { listLicks } from './licks';
import { listLines } from './lines';
import { migrations } from './migrations';
import * as songbook from './songbook';
import { COLUMNS } from './tables';
import { listTakes, openTake } from '../takes/takes';

/** Small songbooks as each released format left them: three charts of the demo with what there was to keep then. */
const FOLDER = 'tests/data/formats';
const FORMATS = migrations.map((_, i) => i + 1);
const fileFor = (format: number) => `format-${format}.db`;

/** A songbook of a format, opened as one of today; its own file stays as it is. */
async function opened(format: number): Promise<{ db: Database; path: string }> {
  const path = join(mkdtempSync(join(tmpdir(), 'corvel-format-')), 'songbook.db');
  copyFileSync(join(FOLDER, fileFor(format)), path);
  return { db: await openDatabase(path), path };
}
const shapeOf = (db: Database) =>
  Object.fromEntries(
    Object.keys(COLUMNS).map((table) => [
      table,
      (
        fileOf(db)!.pragma(`table_info(${table})`) as {
          name: string;
          type: string;
          notnull: number;
          pk: number;
        }[]
      )
        .map(({ name, type, notnull, pk }) => `${name} ${type} ${notnull} ${pk}`)
        .sort()
    ])
  );
const indexesOf = (db: Database) =>
  fileOf(db)!.prepare(`select name from sqlite_master where type = 'index' order by name`).all();
const rowsOf = (file: Sqlite.Database, table: string) =>
  (file.prepare(`select * from ${table}`).all() as Record<string, unknown>[]).map((row) => ({ ...row }));

/** The notes of all takes of a songbook. */
const songbookTakes = async (db: Database) => {
  const { charts } = await songbook.listSongbook(db, listCharts.parse({}));
  const takes = await Promise.all(
    charts.map(async ({ id }) =>
      Promise.all((await listTakes(db, id)).map((take) => openTake(db, id, take.id)))
    )
  );
  return takes.flat().flatMap(({ data }) => data?.notes ?? []);
};

it('a small songbook of every format is at hand', () => {
  expect(readdirSync(FOLDER).sort()).toEqual(FORMATS.map(fileFor).sort());
});

describe.each(FORMATS)('a songbook of format %i', (format) => {
  it('opens as one of today’s, in every table and index, after a copy of it as it was', async () => {
    const { db, path } = await opened(format);
    const fresh = await openDatabase(join(mkdtempSync(join(tmpdir(), 'corvel-format-')), 'songbook.db'));
    expect(shapeOf(db)).toEqual(shapeOf(fresh));
    expect(indexesOf(db)).toEqual(indexesOf(fresh));
    expect(fileOf(db)!.pragma('foreign_key_check')).toEqual([]);
    expect(existsSync(`${path}.format-${format}.bak`)).toBe(format < migrations.length);
  });

  it('keeps every row of it', async () => {
    const { db } = await opened(format);
    const then = new Sqlite(join(FOLDER, fileFor(format)), { readonly: true });
    const tables = Object.keys(COLUMNS).filter(
      (table) => then.prepare(`select 1 from sqlite_master where name = ?`).all(table).length > 0
    );
    for (const table of tables) {
      const now = rowsOf(fileOf(db)!, table);
      const was = rowsOf(then, table);
      expect(now, table).toHaveLength(was.length);
      was.forEach((row, i) => {
        // When a chart was practised is read from the log since format 5.
        const { practised_at: _, ...kept } = row;
        expect(now[i], table).toMatchObject(kept);
      });
    }
    then.close();
  });

  it('shows its charts, plans, lines, licks and takes, none of them damaged, and goes on', async () => {
    const { db } = await opened(format);
    await songbook.refreshSummaries(db);
    const { charts, facets } = await songbook.listSongbook(db, listCharts.parse({ sort: 'title' }));
    expect(charts.map(({ title, damaged }) => `${title} ${damaged}`)).toEqual([
      'Bilge Pump Blues false',
      'Cabin Without a Window false',
      'Waltz for the Night Steward false'
    ]);
    expect(facets.form.map(({ value }) => value)).toContain('12-bar blues');
    for (const { id } of charts) {
      const { source, plan, version } = await songbook.openChart(db, id);
      const { form, problems } = readSheet(source);
      expect(problems).toEqual([]);
      expect(plan.decisions.every(({ change }) => change < form.changes.length)).toBe(true);
      for (const { data } of await listLines(db, id)) expect(data).not.toBeNull();
      for (const { summary } of await listTakes(db, id)) expect(summary).not.toBeNull();
      await expect(songbook.saveChart(db, id, { base: version, source, plan })).resolves.toEqual({
        version: version + 1
      });
    }
    if (format >= 8) {
      const heard = [
        ...new Set((await songbookTakes(db)).flatMap(({ events }) => events.map(({ kind }) => kind)))
      ];
      expect(heard.sort()).toEqual(['bend', 'release', 'vibrato']);
    }
    for (const { data } of (await listLicks(db, { offset: 0, limit: 200 })).licks)
      expect(data).not.toBeNull();
    // The players of the blues had put their hand at the sixth fret.
    expect((await songbook.openChart(db, charts[0]!.id)).plan).toMatchObject({
      position: 6,
      approach: 'blues'
    });
  });
});

describe('files that were written by this format', () => {
  const FILES = 'tests/data/files';
  const fresh = () => openDatabase(join(mkdtempSync(join(tmpdir(), 'corvel-file-')), 'songbook.db'));

  it('an archive brings every row that its songbook had', async () => {
    const [{ db: then }, db] = [await opened(7), await fresh()];
    const folder = mkdtempSync(join(tmpdir(), 'corvel-file-'));
    copyFileSync(join(FILES, 'archive-7.zip'), join(folder, 'archive.zip'));
    const brought = await importArchiveInto(db, join(folder, 'archive.zip'), 'replace', new Date(2026, 5, 1));
    expect(brought.left).toEqual([]);
    for (const table of Object.keys(COLUMNS))
      expect(rowsOf(fileOf(db)!, table), table).toEqual(rowsOf(fileOf(then)!, table));
  });

  it('a chart file brings its chart, plan, lines, solos and takes, and is written again as it was', async () => {
    const db = await fresh();
    const file: unknown = JSON.parse(readFileSync(join(FILES, 'chart-2.corvel.json'), 'utf8'));
    const sent = importChartFile.parse({ id: '7c0f6a52-0d1f-4b5e-9a55-6d2c1c0f8d11', file });
    expect(sent.file.solos.map(({ name }) => name)).toEqual(['One chorus']);
    await importChart(db, sent);
    const again = await chartFileOf(db, sent.id, true);
    // Ids are others on every machine.
    const plain = ({ lines, items, log, takes, version: _, ...rest }: typeof sent.file) => ({
      ...rest,
      // Takes of that time did not name the plan they were played to; they do now.
      takes: takes.map(({ data: { plan: _, today: __, ...data }, ...take }) => ({ ...take, data })),
      lines: lines.map(({ name, data }) => ({ name, data })),
      items: items.length,
      log: log.length
    });
    expect(plain(again)).toEqual(plain(sent.file));
    expect(again.lines.find(({ name }) => name === 'With a pickup')!.data.notes[0]!.start).toBe(-480);
  });
});
