import { randomUUID } from 'node:crypto';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { importChartFile, chartFile } from '../../api/chart-file';
import { importChart, chartFileOf } from './chart-file';
import { openDatabase, type Database } from '../store/database';
import { fillWithDemo } from '../testing';
import { itemData } from '../../api/practice';
import { DEFAULT_PLAN } from '../../core/plan/model';
import { soloData } from '../../api/solo';
import { keepNewLine, listLines } from '../store/lines';
import { keepNewItems, listItems } from '../practice/items';
import { createChart, openRevision, saveChart } from '../store/songbook';
import { keepNewSolo, solos } from '../store/solos';
import { wholeLog } from '../practice/log';
import { listTakes } from '../takes/takes';

const open = () => openDatabase(join(mkdtempSync(join(tmpdir(), 'corvel-chart-file-')), 'songbook.db'));
const NEW = '3f0c6a52-0d1f-4b5e-9a55-6d2c1c0f8d11';

/** The chart of the demo songbook that was practised most. */
async function practised(db: Database): Promise<string> {
  const { id } = await db
    .selectFrom('take')
    .select('chart_id as id')
    .groupBy('chart_id')
    .orderBy((eb) => eb.fn.countAll(), 'desc')
    .executeTakeFirstOrThrow();
  return id;
}
/** A file without its ids, which are others on another machine. */
function plain({ lines, items, log, ...file }: Awaited<ReturnType<typeof chartFileOf>>) {
  return {
    ...file,
    lines: lines.map(({ name, data }) => ({ name, data })),
    items: items.map(({ data: { after, line, ...data } }) => ({
      ...data,
      stands: after.length,
      hasLine: line !== undefined
    })),
    log: log.map(({ item, ...row }) => ({ ...row, hasItem: item !== null }))
  };
}

describe('one chart as one file', () => {
  it('goes to another machine and back with plan, lines, drills, takes and log', async () => {
    const [here, there] = [await open(), await open()];
    await fillWithDemo(here);
    const file = await chartFileOf(here, await practised(here), true);
    expect(file.lines.length + file.items.length).toBeGreaterThan(0);
    expect(file.takes.length).toBeGreaterThan(0);
    expect(file.log.length).toBeGreaterThan(0);
    const sent = importChartFile.parse(JSON.parse(JSON.stringify({ id: NEW, file })));
    await importChart(there, sent);
    expect(plain(await chartFileOf(there, NEW, true))).toEqual(
      plain(chartFile.parse(JSON.parse(JSON.stringify(file))))
    );
    // What stands on one another still does.
    const items = await listItems(there);
    const ids = new Set(items.map(({ id }) => id));
    for (const { data } of items) for (const own of data!.after) expect(ids.has(own)).toBe(true);
  });

  it('comes in beside what is there, once however often it is sent', async () => {
    const db = await open();
    await fillWithDemo(db);
    const id = await practised(db);
    const file = await chartFileOf(db, id, true);
    const before = {
      lines: (await listLines(db, id)).length,
      takes: (await listTakes(db, id)).length,
      log: (await wholeLog(db)).length
    };
    await importChart(db, { id: NEW, file });
    await importChart(db, { id: NEW, file });
    expect((await listTakes(db, NEW)).length).toBe(before.takes);
    expect((await listTakes(db, id)).length).toBe(before.takes);
    expect((await listLines(db, id)).length).toBe(before.lines);
    expect((await wholeLog(db)).length).toBe(before.log + file.log.length);
  });

  it('keeps an item on its line, under the ids that both have now', async () => {
    const [here, there] = [await open(), await open()];
    const { id } = await createChart(here, { source: '| Abm7 | Db7 |' });
    const line = '8b0f6a52-0d1f-4b5e-9a55-6d2c1c0f8d12';
    const notes = [{ start: 0, length: 960, midi: 59, note: 'Cb' }];
    await keepNewLine(here, id, { id: line, name: 'Led in', data: { notes, over: [] } });
    const tempo = { start: 70, goal: 100 };
    const data = itemData.parse({ what: 'line', name: 'Led in', line, tempo });
    await keepNewItems(here, { items: [{ id: 'own', chart: id, data }] });
    await importChart(there, { id: NEW, file: await chartFileOf(here, id, false) });
    const [brought] = await listLines(there, NEW);
    expect(brought!.id).not.toBe(line);
    expect((await listItems(there)).map((item) => item.data!.line)).toEqual([brought!.id]);
  });

  it('carries the versions that lines and solos were made over, and no others', async () => {
    const [here, there] = [await open(), await open()];
    const { id, source, plan } = await createChart(here, { source: '{title: Slow}\n| Abm7 | Db7 |' });
    const data = { notes: [{ start: 0, length: 960, midi: 59, note: 'Cb' }], over: [] };
    await keepNewLine(here, id, { id: randomUUID(), name: 'First', data });
    for (const base of [1, 2])
      await saveChart(here, id, { base, source: `${source}\n| Gbmaj7 | Gb${base + 5} |`, plan });
    await keepNewLine(here, id, { id: randomUUID(), name: 'Now', data });
    const solo = soloData.parse({ arc: 'rise', choruses: 1, phrases: [], line: data.notes, seed: 4 });
    await keepNewSolo(here, id, { id: randomUUID(), name: 'One chorus', chartVersion: 1, data: solo });
    const file = await chartFileOf(here, id, false);
    expect(file.versions.map(({ chart }) => chart)).toEqual([source]);
    const { file: read } = importChartFile.parse(JSON.parse(JSON.stringify({ id: NEW, file })));
    await importChart(there, { id: NEW, file: read });
    const at = async (version: number | null) => (await openRevision(there, NEW, version!)).source;
    const [first, now] = await listLines(there, NEW);
    expect(await at(first!.chartVersion)).toBe(source);
    expect(await at(now!.chartVersion)).toBe(file.chart);
    const [kept] = await solos.all(there, NEW);
    expect([await at(kept!.chartVersion), kept!.data]).toEqual([source, solo]);
    expect(plain(await chartFileOf(there, NEW, false))).toEqual(plain(read));
  });

  it('of the first version comes in as it did', async () => {
    const db = await open();
    const notes = [{ start: 0, length: 960, midi: 59, note: 'Cb' }];
    const lines = [{ id: 'own', name: 'Led in', data: { notes, over: [] } }];
    const file = { corvel: 'chart', version: 1, chart: '| Abm7 |', plan: DEFAULT_PLAN, lines };
    await importChart(db, importChartFile.parse({ id: NEW, file }));
    expect(await listLines(db, NEW)).toMatchObject([{ name: 'Led in', chartVersion: 1, data: { notes } }]);
  });

  it('is given to a friend without what was played', async () => {
    const db = await open();
    await fillWithDemo(db);
    const file = await chartFileOf(db, await practised(db), false);
    expect(file).toMatchObject({ takes: [], log: [] });
    expect(file.items.length).toBeGreaterThan(0);
  });

  it('is refused whole where it is of a newer version, or a part of it is wrong', () => {
    const file = { corvel: 'chart', version: 1, chart: '| C |', plan: {} };
    expect(chartFile.safeParse({ ...file, version: 4 }).error?.issues[0]?.message).toContain('newer Corvel');
    expect(
      chartFile.safeParse({ ...file, lines: [{ id: 'a', name: 'x', data: { notes: [], over: [] } }] }).success
    ).toBe(false);
    expect(chartFile.safeParse({ ...file, corvel: 'songbook' }).success).toBe(false);
  });
});
