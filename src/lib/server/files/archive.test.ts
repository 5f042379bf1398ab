import { randomUUID } from 'node:crypto';
import {
  mkdirSync,
  mkdtempSync,
  readFileSync,
  readdirSync,
  renameSync,
  rmSync,
  writeFileSync
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { strToU8, unzipSync, zipSync } from 'fflate';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { ArchiveImported, Merge } from '../../api/archive';
import { listCharts } from '../../api/songbook';
import { DEFAULT_PLAN } from '../../core/plan/model';
import { importArchiveInto, copyForArchive } from './archive';
import { archiveStream, ownFolder, receive } from './archive-stream';
import { restoreCopy, listCopies } from '../store/copies';
import { fileOf, openDatabase, type Database } from '../store/database';
import { lickData } from '../../api/lick';
import { editLick, keepNewLick } from '../store/licks';
import { editLine, keepNewLine, listLines } from '../store/lines';
import { fillWithDemo } from '../testing';
import * as songbook from '../store/songbook';
import { COLUMNS } from '../store/tables';
import { announceArrival, finishArrival, halfOf } from '../takes/arrival';
import { placeForSound, soundFolder, soundsOf, writeSound } from '../takes/sounds';

/** Where archives are worked on. */
const WORK = mkdtempSync(join(tmpdir(), 'corvel-archive-test-'));
const NOW = new Date(2026, 2, 14, 12);
const empty = () => openDatabase(join(mkdtempSync(join(tmpdir(), 'corvel-archive-test-')), 'songbook.db'));

let here: Database;
let there: Database;
beforeEach(async () => {
  [here, there] = await Promise.all([empty(), empty()]);
});

/** The stream of an archive; `between` is done when what goes into it is known, before it is written. */
async function streamed(db: Database, withSounds = true, between: () => void = () => {}) {
  const { folder, remove } = ownFolder(WORK);
  const parts = await copyForArchive(db, { folder, sounds: withSounds ? 'yes' : 'no' });
  between();
  return archiveStream(parts, remove);
}
const archived = async (db: Database, withSounds = true, between?: () => void): Promise<Uint8Array> =>
  new Uint8Array(await new Response(await streamed(db, withSounds, between)).arrayBuffer());
async function importOrLook(db: Database, bytes: Uint8Array, merge: Merge | 'look') {
  const { folder, remove } = ownFolder(WORK);
  try {
    const path = join(folder, 'archive.zip');
    await receive(new Response(bytes as Uint8Array<ArrayBuffer>).body, path);
    return await importArchiveInto(db, path, merge, NOW);
  } finally {
    remove();
  }
}
const bring = async (db: Database, bytes: Uint8Array, merge: Merge): Promise<ArchiveImported> =>
  (await importOrLook(db, bytes, merge)) as ArchiveImported;
const refusal = (bytes: Uint8Array) =>
  importOrLook(here, bytes, 'replace').then(
    () => 'taken',
    (error: { error: { code: string } }) => error.error.code
  );
/** All that is kept, table by table; without the numbers that only count a file's own rows where they are not the same. */
const rows = (db: Database, counters = true) =>
  Object.fromEntries(
    Object.entries(COLUMNS).map(([table, columns]) => {
      const own = columns.filter(
        (one) => counters || (one !== 'seq' && !(table === 'chart_revision' && one === 'id'))
      );
      const list = own.map((one) => `"${one}"`).join();
      return [table, fileOf(db)!.prepare(`select ${list} from ${table} order by ${list}`).all()];
    })
  );
const sounds = (db: Database) =>
  Object.fromEntries(soundsOf(db).map(({ take, path }) => [take, readFileSync(path).toString('base64')]));
const add = (db: Database, title: string) =>
  songbook.createChart(db, { source: `{title: ${title}}\n| Abm7 | Db7 |` });
const save = (db: Database, id: string, base: number, title: string) =>
  songbook.saveChart(db, id, { base, source: `{title: ${title}}\n| Gb | Cb7 |`, plan: DEFAULT_PLAN });
const titles = async (db: Database) =>
  (await songbook.listSongbook(db, listCharts.parse({ sort: 'title' }))).charts.map(({ title }) => title);
const at = (db: Database, id: string, time: number) =>
  db.updateTable('chart').set({ updated_at: time }).where('id', '=', id).execute();

/** A songbook with all that there is: the demo, a deleted chart, the sound of a take. */
async function lived(): Promise<Database> {
  await fillWithDemo(there);
  const { id } = await add(there, 'Deleted');
  await songbook.deleteChart(there, id);
  const { id: take } = await there.selectFrom('take').select('id').executeTakeFirstOrThrow();
  writeSound(there, take, { from: 0, rate: 8000, samples: new Uint8Array(16_000).map((_, i) => i % 251) });
  await there.updateTable('take').set({ bytes: 16_044 }).where('id', '=', take).execute();
  return there;
}

describe('everything as one archive', () => {
  it('is restored on an empty machine row by row, with its sounds, whichever way it comes in', async () => {
    const bytes = await archived(await lived());
    expect(Object.keys(unzipSync(bytes)).sort().slice(0, 2)).toEqual(['about.txt', 'songbook.db']);
    const { compared, sounds: count } = await bring(here, bytes, 'replace');
    expect(rows(here)).toEqual(rows(there));
    expect(sounds(here)).toEqual(sounds(there));
    expect(count).toBe(1);
    expect(compared.find(({ kind }) => kind === 'charts')).toMatchObject({ missing: 11, newer: 0, known: 0 });
    for (const merge of ['add', 'newer'] as const) {
      const other = await empty();
      await bring(other, bytes, merge);
      expect(rows(other, false)).toEqual(rows(there, false));
      expect(sounds(other)).toEqual(sounds(there));
      // Sent twice it is there once.
      await bring(other, bytes, merge);
      expect(rows(other, false)).toEqual(rows(there, false));
    }
  });

  it('without sounds leaves none behind that could be asked for', async () => {
    await bring(here, await archived(await lived(), false), 'add');
    expect(sounds(here)).toEqual({});
    expect(await here.selectFrom('take').select('id').where('bytes', '>', 0).execute()).toEqual([]);
  });

  it('is looked at before anything is stored', async () => {
    const bytes = await archived(await lived());
    await add(here, 'Mine');
    const was = rows(here);
    const { compared } = await importOrLook(here, bytes, 'look');
    expect(compared.find(({ kind }) => kind === 'charts')!.missing).toBe(11);
    expect(compared.find(({ kind }) => kind === 'takes')!.missing).toBeGreaterThan(3);
    expect(rows(here)).toEqual(was);
    expect(listCopies(here)).toEqual([]);
  });

  it('adds what is missing beside what is here, also what was deleted here, and leaves the rest', async () => {
    const kept = await add(there, 'Theirs, then');
    const gone = await add(there, 'Deleted here');
    await bring(here, await archived(there), 'add');
    await add(there, 'New there');
    await save(there, kept.id, 1, 'Theirs, now');
    await songbook.deleteChart(here, gone.id);
    await add(here, 'Mine');
    await bring(here, await archived(there), 'add');
    expect(await titles(here)).toEqual(['Deleted here', 'Mine', 'New there', 'Theirs, then']);
  });

  it('takes what is newer there as a save upon what is here, and keeps what is newer here', async () => {
    const [one, two] = [await add(there, 'One'), await add(there, 'Two')];
    await bring(here, await archived(there), 'add');
    await save(here, one.id, 1, 'One, mine, older');
    await save(there, one.id, 1, 'One, theirs');
    await save(there, two.id, 1, 'Two, theirs, older');
    await save(here, two.id, 1, 'Two, mine');
    await at(here, one.id, 1000);
    await at(there, one.id, 2000);
    await at(there, two.id, 1000);
    await at(here, two.id, 2000);
    const bytes = await archived(there);
    const { compared } = await importOrLook(here, bytes, 'look');
    expect(compared[0]).toEqual({ kind: 'charts', missing: 0, newer: 1, known: 1 });
    await bring(here, bytes, 'newer');
    expect(await titles(here)).toEqual(['One, theirs', 'Two, mine']);
    // Nothing that was saved here is lost, and the next save goes on from there.
    const revisions = await songbook.listRevisions(here, one.id);
    expect(revisions.map(({ version, title }) => `${version} ${title}`)).toEqual([
      '3 One, theirs',
      '2 One, mine, older',
      '1 One'
    ]);
    await expect(save(here, one.id, 3, 'On')).resolves.toMatchObject({ version: 4 });
  });

  it('gives no version number twice, and lets a line belong to the version it was written over', async () => {
    const chart = await add(there, 'One');
    const data = { notes: [{ start: 0, length: 960, midi: 59, note: 'Cb' }], over: [] };
    const line = randomUUID();
    const lick = randomUUID();
    await keepNewLine(there, chart.id, { id: line, name: 'Then', data });
    const book = lickData.parse({
      over: [{ symbol: 'Ebm7', beats: 4 }],
      notes: data.notes,
      meter: { beats: 4, unit: 4 },
      source: '',
      rating: 0,
      played: 0,
      tags: []
    });
    await keepNewLick(there, { id: lick, name: 'Then', data: book });
    await bring(here, await archived(there), 'add');
    // Both go on, each with a version 2 of its own.
    await save(here, chart.id, 1, 'One, mine');
    await editLine(here, chart.id, line, { base: 1, name: 'Mine', data });
    await editLick(here, lick, { base: 1, name: 'Mine' });
    await save(there, chart.id, 1, 'One, theirs');
    await editLine(there, chart.id, line, { base: 1, name: 'Theirs', data });
    await editLick(there, lick, { base: 1, name: 'Theirs' });
    const newLine = randomUUID();
    await keepNewLine(there, chart.id, { id: newLine, name: 'New there', data });
    for (const table of ['chart', 'line', 'lick'] as const)
      await here.updateTable(table).set({ updated_at: 1000 }).execute();
    await bring(here, await archived(there), 'newer');
    // A window that has seen version 2 of here does not write over what came.
    await expect(editLine(here, chart.id, line, { base: 2, name: 'Late' })).rejects.toMatchObject({
      status: 409
    });
    await expect(editLick(here, lick, { base: 2, name: 'Late' })).rejects.toMatchObject({ status: 409 });
    for (const { name, chartVersion } of await listLines(here, chart.id)) {
      expect(['Theirs', 'New there']).toContain(name);
      // Their version 2 is version 3 here.
      expect((await songbook.openRevision(here, chart.id, chartVersion!)).source).toContain('One, theirs');
    }
    // What is only added there over a version that is not here belongs to none that is known.
    await save(there, chart.id, 2, 'One, on');
    const other = randomUUID();
    await keepNewLine(there, chart.id, { id: other, name: 'Over another', data });
    await bring(here, await archived(there), 'add');
    expect((await listLines(here, chart.id)).find(({ id }) => id === other)!.chartVersion).toBeNull();
  });

  it('has a way back: what was there is copied first', async () => {
    await add(here, 'Mine');
    const was = rows(here);
    const { before } = await bring(here, await archived(await lived()), 'replace');
    expect(await titles(here)).not.toContain('Mine');
    await restoreCopy(here, before, NOW);
    expect(rows(here)).toEqual(was);
  });

  it('is refused whole where it is none, torn, or of another program, and nothing is left lying about', async () => {
    await add(here, 'Mine');
    const was = rows(here);
    const folders = () => readdirSync(WORK).length;
    const before = folders();
    const whole = await archived(await lived());
    expect(await refusal(strToU8('no zip at all'))).toBe('no-archive');
    expect(await refusal(new Uint8Array(0))).toBe('no-archive');
    expect(await refusal(whole.subarray(0, whole.length - 500))).toBe('no-archive');
    expect(await refusal(zipSync({ 'songs.txt': strToU8('x') }))).toBe('no-archive');
    expect(await refusal(zipSync({ 'songbook.db': strToU8('not a database') }))).toBe('damaged-archive');
    // A sound that is spoilt inside a file that is whole otherwise.
    const spoilt = Uint8Array.from(zipSync({ ...unzipSync(whole) }, { level: 6 }));
    const name = Buffer.from(spoilt).indexOf('.wav');
    spoilt.fill(255, name + 4, name + 60);
    expect(await refusal(spoilt)).toBe('no-archive');
    expect(sounds(here)).toEqual({});
    // Entries that would lead out of the folder are no entries.
    expect(await refusal(zipSync({ '../songbook.db': strToU8('x') }))).toBe('no-archive');
    expect(rows(here)).toEqual(was);
    expect(listCopies(here)).toEqual([]);
    expect(folders()).toBe(before);
  });

  it('leaves out a sound that is deleted while it is written, and is whole all the same', async () => {
    const db = await lived();
    const [first] = soundsOf(db);
    const bytes = await archived(db, true, () => rmSync(first!.path));
    await bring(here, bytes, 'add');
    expect(await titles(here)).toEqual(await titles(db));
    expect(soundsOf(here).map(({ take }) => take)).not.toContain(first!.take);
  });

  it('ends alone where a sound cannot be read, with nothing left open', async () => {
    const db = await lived();
    const [first] = soundsOf(db);
    const reading = archived(db, true, () => {
      rmSync(first!.path);
      mkdirSync(first!.path);
    });
    await expect(reading).rejects.toThrow();
    rmSync(first!.path, { recursive: true });
  });

  it('lets go of everything when its reader leaves', async () => {
    const db = await lived();
    const handles = () => readdirSync('/proc/self/fd').length;
    await archived(db);
    const before = handles();
    for (let i = 0; i < 40; i++) {
      const stream = await streamed(db);
      const reader = stream.getReader();
      await reader.read();
      await reader.cancel();
    }
    await vi.waitUntil(() => handles() <= before + 2, { timeout: 10_000 });
    expect(handles()).toBeLessThanOrEqual(before + 2);
  });

  it('is all there or not at all, with its sounds, at whatever moment it is torn off', async () => {
    const bytes = await archived(await lived());
    const whole = sounds(there);
    // Killed after the rows came in: what was announced is put in its place at the next start.
    await bring(here, bytes, 'add');
    const [take] = Object.keys(whole);
    renameSync(placeForSound(here, take!), halfOf(here, take!));
    await announceArrival(here, [take!]);
    await finishArrival(here);
    expect(sounds(here)).toEqual(whole);
    // Killed before: what lies half there belongs to nothing, and is let go.
    const other = await empty();
    mkdirSync(soundFolder(other));
    writeFileSync(halfOf(other, take!), 'half');
    await finishArrival(other);
    expect(readdirSync(soundFolder(other))).toEqual([]);
  });

  it('brings no sound that no take in it has, and none that is not what its check sum says', async () => {
    const files = unzipSync(await archived(await lived()));
    const stray = `sounds/${randomUUID()}.wav`;
    await bring(here, zipSync({ ...files, [stray]: new Uint8Array(5000) }), 'add');
    expect(Object.keys(sounds(here))).toEqual(Object.keys(sounds(there)));
    const packed = Uint8Array.from(zipSync(files, { level: 0 }));
    const at = Buffer.from(packed).lastIndexOf('RIFF');
    packed[at + 60]! ^= 255;
    const third = await empty();
    await expect(bring(third, packed, 'add')).rejects.toMatchObject({ error: { code: 'no-archive' } });
    expect(await titles(third)).toEqual([]);
  });

  it('is refused where it has more entries than any songbook', async () => {
    const nothing = new Uint8Array(0);
    const many = Object.fromEntries(Array.from({ length: 50_001 }, (_, i) => [`${i}`, nothing]));
    expect(await refusal(zipSync(many, { level: 0 }))).toBe('too-large');
  });
});
