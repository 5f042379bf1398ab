import { randomUUID } from 'node:crypto';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { beforeEach, describe, expect, it } from 'vitest';
import { keepLine } from '../../api/line';
import { noteOf } from '../../core/line/model';
import { openDatabase, type Database } from './database';
import { fillWithDemo } from '../testing';
import { DEMO_CHARTS } from '../../scenario/charts';
import { editLine, keepNewLine, lines, listLines } from './lines';
import { createChart, duplicateChart, openChart, openRevision, saveChart } from './songbook';

let db: Database;
let chart: string;
const DATA = {
  notes: [{ ...noteOf(0, 960, 60), place: { string: 3, fret: 5, finger: 1 }, bend: { from: 58 } }],
  over: [{ symbol: 'Cm7', start: 0, beats: 4 }]
};
const keep = (name = 'Up to the third') =>
  keepNewLine(db, chart, keepLine.parse({ id: randomUUID(), name, data: DATA }));

beforeEach(async () => {
  db = await openDatabase(join(mkdtempSync(join(tmpdir(), 'corvel-')), 'songbook.db'));
  chart = (await createChart(db, { source: '| Cm7 |' })).id;
});

describe('the lines of a chart', () => {
  it('are kept as they are, in their order, and go along with a copy of the chart', async () => {
    const first = await keep();
    await keep('Another');
    const all = await listLines(db, chart);
    expect(all.map(({ name }) => name)).toEqual(['Up to the third', 'Another']);
    expect(all[0]).toEqual({ ...first, version: 1, chartVersion: 1, data: DATA });
    const copy = await duplicateChart(db, chart);
    const copied = await listLines(db, copy.id);
    expect(copied.map(({ name, data }) => [name, data])).toEqual([
      ['Up to the third', DATA],
      ['Another', DATA]
    ]);
    expect(copied.map(({ id }) => id)).not.toContain(first.id);
  });

  it('are kept once where the same is sent twice', async () => {
    const line = keepLine.parse({ id: randomUUID(), name: 'Twice', data: DATA });
    await keepNewLine(db, chart, line);
    await keepNewLine(db, chart, line);
    expect(await listLines(db, chart)).toHaveLength(1);
  });

  it('are edited on top of the version that was seen; a stale edit overwrites nothing', async () => {
    const { id } = await keep();
    expect(await editLine(db, chart, id, { base: 1, name: 'Renamed' })).toEqual({ version: 2 });
    await expect(editLine(db, chart, id, { base: 1, name: 'Late' })).rejects.toMatchObject({
      status: 409,
      extra: { stored: { name: 'Renamed', version: 2 } }
    });
    expect((await listLines(db, chart))[0]).toMatchObject({ name: 'Renamed', version: 2, data: DATA });
  });

  it('are deleted softly and brought back; another chart has nothing to do with them', async () => {
    const { id } = await keep();
    const other = (await createChart(db, { source: '| G7 |' })).id;
    await expect(lines.remove(db, id, other)).rejects.toMatchObject({ status: 404 });
    await lines.remove(db, id, chart);
    expect(await listLines(db, chart)).toEqual([]);
    await lines.restore(db, id, chart);
    expect(await listLines(db, chart)).toHaveLength(1);
    await expect(editLine(db, chart, randomUUID(), { base: 1 })).rejects.toMatchObject({ status: 404 });
  });

  it('that are damaged are kept and listed without notes, and can be mended', async () => {
    const { id } = await keep();
    await db.updateTable('line').set({ data: '{"notes": "gone"' }).where('id', '=', id).execute();
    expect((await listLines(db, chart))[0]).toMatchObject({ id, data: null });
    await editLine(db, chart, id, { base: 1, data: DATA });
    expect((await listLines(db, chart))[0]!.data).toEqual(DATA);
  });

  it('stand in the demo songbook as they were found there', async () => {
    const fresh = await openDatabase(join(mkdtempSync(join(tmpdir(), 'corvel-')), 'songbook.db'));
    await fillWithDemo(fresh);
    const charts = await fresh.selectFrom('chart').select('id').execute();
    const all = (await Promise.all(charts.map(({ id }) => listLines(fresh, id)))).flat();
    const wanted = DEMO_CHARTS.flatMap(({ lines: own = [] }) => own.map(({ name }) => name));
    expect(all.map(({ name }) => name).sort()).toEqual([...wanted].sort());
    for (const { data } of all) expect(data!.notes.length).toBeGreaterThan(20);
  });

  it('refuse what is no line, and a deleted chart', async () => {
    expect(keepLine.safeParse({ id: randomUUID(), name: '  ', data: DATA }).success).toBe(false);
    expect(keepLine.safeParse({ id: randomUUID(), name: 'x', data: { notes: [], over: [] } }).success).toBe(
      false
    );
    const line = keepLine.parse({ id: randomUUID(), name: 'Lost', data: DATA });
    await expect(keepNewLine(db, randomUUID(), line)).rejects.toMatchObject({ status: 404 });
  });

  it('belong to the version of the chart they were written over', async () => {
    await keep();
    const { source, plan } = await openChart(db, chart);
    const edited = `${source}\n| Bbmaj7 | Ebmaj7 |`;
    await saveChart(db, chart, { base: 1, source: edited, plan });
    const [first] = await listLines(db, chart);
    expect(first!.chartVersion).toBe(1);
    // Renamed it belongs where it did; with other notes to the chart as it is now, or to the version that is named.
    await editLine(db, chart, first!.id, { base: 1, name: 'Renamed' });
    expect((await listLines(db, chart))[0]!.chartVersion).toBe(1);
    await editLine(db, chart, first!.id, { base: 2, data: DATA });
    expect((await listLines(db, chart))[0]!.chartVersion).toBe(2);
    await editLine(db, chart, first!.id, { base: 3, data: DATA, chartVersion: 1 });
    expect((await listLines(db, chart))[0]!.chartVersion).toBe(1);
    // One that is not there yet cannot be named.
    await editLine(db, chart, first!.id, { base: 4, data: DATA, chartVersion: 99 });
    expect((await listLines(db, chart))[0]!.chartVersion).toBe(2);
    await editLine(db, chart, first!.id, { base: 5, data: DATA, chartVersion: null });
    expect((await listLines(db, chart))[0]!.chartVersion).toBe(null);
  });

  it('take the versions they belong to along when the chart is duplicated', async () => {
    await keep();
    const { source, plan } = await openChart(db, chart);
    for (const base of [1, 2])
      await saveChart(db, chart, { base, source: `${source}\n| Bbmaj7 | Eb${base} |`, plan });
    const { id: second } = keepLine.parse({ id: randomUUID(), name: 'Second', data: DATA });
    await keepNewLine(db, chart, { id: second, name: 'Second', data: DATA });
    const copy = await duplicateChart(db, chart);
    const copied = await listLines(db, copy.id);
    expect(copied.map(({ chartVersion }) => chartVersion)).toEqual([1, 2]);
    expect(copy.version).toBe(2);
    expect((await openRevision(db, copy.id, 1)).source).toBe(source);
  });
});
