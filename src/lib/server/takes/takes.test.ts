import { randomUUID } from 'node:crypto';
import { appendFileSync, mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { beforeEach, describe, expect, it } from 'vitest';
import { planSchema } from '../../api/plan';
import { keepTake, takeData } from '../../api/take';
import { readWav } from '../../core/formats/wav/read';
import { DEFAULT_PLAN } from '../../core/plan/model';
import { played, START, TEMPO, tuneOf } from '../../core/takes/testing';
import { openDatabase, type Database } from '../store/database';
import { itemData } from '../../api/practice';
import { readSheet } from '../../core/harmony/sheet';
import { keepNewItems, keepWholeForms, listItems } from '../practice/items';
import { todayOf } from '../practice/today';
import { recordRows } from '../../api/practice';
import { listRows, record } from '../practice/log';
import { picturesOf } from '../practice/pictures';
import { createChart, saveChart } from '../store/songbook';
import { soundBytes, soundFile, writeAll, writeSound } from './sounds';
import {
  editTake,
  forgetSound,
  keepNewTake,
  listTakes,
  missedSince,
  openTake,
  sweepTakes,
  takes,
  takeSounds
} from './takes';

const CHART = '{key: Eb}\n| Fm7 | Bb7 | Ebmaj7 | C7b9 |';
const TUNE = tuneOf(CHART);
const DAY = 24 * 60 * 60 * 1000;
let db: Database;
let chart: string;

const dataOf = (skill = 1) =>
  takeData.parse({
    way: 'microphone',
    source: CHART,
    tempo: TEMPO,
    start: START,
    notes: played(TUNE, skill).map(({ at, seconds, midi }) => ({ at, seconds, midi })),
    troubles: [],
    targets: TUNE.targets
  });
const keep = (playedAt = 1000, data = dataOf(), day = '2026-05-04') =>
  keepNewTake(
    db,
    chart,
    keepTake.parse({ id: randomUUID(), name: 'A take', playedAt, day, seconds: 12, data })
  );
const pcm = (...samples: number[]) => new Uint8Array(Int16Array.from(samples).buffer);

beforeEach(async () => {
  db = await openDatabase(join(mkdtempSync(join(tmpdir(), 'corvel-')), 'songbook.db'));
  chart = (await createChart(db, { source: CHART })).id;
});

describe('the takes of a chart', () => {
  it('are kept with what the judgement says of them, the last played first', async () => {
    const first = await keep(1000);
    const second = await keep(2000, dataOf(0));
    const takes = await listTakes(db, chart);
    expect(takes.map(({ id }) => id)).toEqual([second.id, first.id]);
    expect(takes[1]!.summary!.figures).toMatchObject({ hits: 1, fits: true, rounds: 1 });
    expect(takes[1]!.summary!.landings.map(({ met }) => met)).toEqual(['hit', 'hit', 'hit', 'hit']);
    expect((await openTake(db, chart, first.id)).data).toEqual({ ...dataOf(), plan: DEFAULT_PLAN });
  });

  it('are kept once though they are sent twice', async () => {
    const take = keepTake.parse({
      id: randomUUID(),
      name: 'A',
      playedAt: 1,
      day: '2026-05-04',
      seconds: 1,
      data: dataOf()
    });
    await keepNewTake(db, chart, take);
    await keepNewTake(db, chart, take);
    expect(await listTakes(db, chart)).toHaveLength(1);
  });

  it('are judged anew with other notes, and a stale edit is refused', async () => {
    const { id } = await keep();
    await editTake(db, chart, id, { base: 1, data: { ...dataOf(), notes: [] }, name: 'Empty' });
    const [take] = await listTakes(db, chart);
    expect(take).toMatchObject({ name: 'Empty', version: 2 });
    expect(take!.summary!.figures.notes).toBe(0);
    await expect(editTake(db, chart, id, { base: 1, name: 'Late' })).rejects.toMatchObject({ status: 409 });
  });

  it('come back after they were deleted, with their sound; after a week they are gone for good', async () => {
    const { id } = await keep();
    writeSound(db, id, { from: 0, rate: 44_100, samples: pcm(1, 2, 3) });
    await takes.remove(db, id, chart);
    expect(await listTakes(db, chart)).toEqual([]);
    await sweepTakes(db, Date.now() + 6 * DAY);
    await takes.restore(db, id, chart);
    expect(await listTakes(db, chart)).toHaveLength(1);
    expect(soundBytes(db, id)).toBe(50);
    await takes.remove(db, id, chart);
    await sweepTakes(db, Date.now() + 8 * DAY);
    await expect(takes.restore(db, id, chart)).rejects.toMatchObject({ status: 404 });
    expect(soundBytes(db, id)).toBe(0);
  });
});

it('takes tell how their player lies in time, in the pictures by day and beside the log', async () => {
  const behind = { ...dataOf(), start: START - 0.06 };
  await keep(1000, behind, '2026-05-03');
  await keep(2000, behind, '2026-05-04');
  await keep(3000, dataOf(), '2026-05-04');
  // One that fits its chart nowhere tells nothing.
  const strange = {
    ...dataOf(),
    notes: dataOf().notes.map((note, i) => ({ ...note, midi: 61 + 6 * (i % 2) }))
  };
  await keep(4000, strange, '2026-05-05');
  const { time } = await picturesOf(db, '2026-05-06');
  expect(time.map(({ day, takes: of }) => `${day} ${of}`)).toEqual(['2026-05-03 1', '2026-05-04 2']);
  expect(time[0]!.mean).toBeCloseTo(0.06, 2);
  expect(time[1]!.mean).toBeCloseTo(0.03, 2);
  const own = {
    id: randomUUID(),
    kind: 'own',
    what: 'A rehearsal',
    startedAt: 1,
    day: '2026-05-04',
    seconds: 60
  };
  await record(db, recordRows.parse({ rows: [{ ...own, revision: 1 }] }));
  const part = await listRows(db, { offset: 0, limit: 10 });
  expect(part.time).toEqual([time[1]]);
});

describe('the version of a chart that a take was played to', () => {
  const OLD = '{key: C}\n| Dm7 | G7 | Cmaj7 | Cmaj7 |';
  const NEW = '{key: C}\n| Am7 | Dm7 | G7 | Cmaj7 | Cmaj7 |';
  const ALTERED = { change: 1, position: 7 };
  const decided = (...decisions: object[]) => planSchema.parse({ ...DEFAULT_PLAN, decisions });
  const taken = (source: string, more: object = {}) =>
    takeData.parse({ ...dataOf(), source, targets: [], notes: [], ...more });
  const planOf = async (id: string) => (await openTake(db, chart, id)).data!;

  beforeEach(async () => {
    chart = (await createChart(db, { source: OLD, plan: decided(ALTERED) })).id;
  });

  it('is kept with it, and stays when chord and choice are changed', async () => {
    const { id } = await keep(1, taken(OLD));
    await saveChart(db, chart, { base: 1, source: NEW, plan: decided({ ...ALTERED, change: 2 }) });
    const data = await planOf(id);
    expect([data.source, data.plan!.decisions[0]!.change, data.today]).toEqual([OLD, 1, undefined]);
    // Loved, it is judged as it was.
    const [before] = await listTakes(db, chart);
    await editTake(db, chart, id, { base: 1, data: { ...data, isLoved: true } });
    expect((await listTakes(db, chart))[0]!.summary).toEqual(before!.summary);
    expect((await planOf(id)).plan!.decisions[0]!.change).toBe(1);
  });

  it('is that of the latest save with its text, where it names none', async () => {
    await saveChart(db, chart, { base: 1, source: NEW, plan: decided({ change: 2, position: 3 }) });
    const { id } = await keep(1, taken(OLD));
    // Not today's, which has the hand elsewhere.
    const { plan, today } = await planOf(id);
    expect([plan!.decisions, today]).toMatchObject([[ALTERED], undefined]);
  });

  it('is today’s, each decision on its change, where no save has its text; and says so', async () => {
    await saveChart(db, chart, { base: 1, source: NEW, plan: decided({ ...ALTERED, change: 2 }) });
    const { id } = await keep(1, taken(`${OLD} `));
    expect(await planOf(id)).toMatchObject({ today: true, plan: { decisions: [{ change: 1 }] } });
  });
});

describe('what was missed in takes', () => {
  it('becomes a seam of the plan, where it is missed again and again', async () => {
    const late = (chartData = dataOf()) => ({
      ...chartData,
      // The third note of the form and on: the Bb7 is landed on a good beat late, all else on time.
      notes: chartData.notes.map((note) =>
        Math.abs(note.at - START - (4 * 60) / TEMPO) < 0.1
          ? { ...note, at: note.at + (0.8 * 60) / TEMPO }
          : note
      )
    });
    await keepNewItems(db, {
      items: [{ id: `${chart}:Eb:5:up`, chart, data: ITEM }]
    });
    await keepWholeForms(db);
    const missed = { ...late(), notes: late().notes.filter((note) => !isInside(note.at, 4, 4.7)) };
    for (const at of [1, 2, 3]) await keep(at, missed);
    expect((await missedSince(db, '2026-05-01')).get(chart)).toMatchObject(
      Array.from({ length: 3 }, () => ({ stumbles: [1], day: '2026-05-04', tempo: TEMPO }))
    );
    expect((await missedSince(db, '2026-05-05')).get(chart)).toBeUndefined();
    const seams = async () =>
      (await todayOf(db, { day: '2026-05-06', minutes: 30, offset: 0 })).plan.session.filter(
        ({ kind }) => kind === 'seam'
      );
    // A seam wants a second day.
    expect(await seams()).toEqual([]);
    await keep(4, missed, '2026-05-05');
    const [form] = (await listItems(db)).filter(({ data }) => data?.form);
    const { bar } = readSheet(CHART).analysis.changes[1]!;
    expect(await seams()).toMatchObject([
      { item: form!.id, bars: { from: Math.max(1, bar - 1), to: Math.max(2, bar) } }
    ]);
  });

  it('is none of the plan’s where the take fits its chart nowhere', async () => {
    const strange = dataOf();
    await keep(1, { ...strange, notes: strange.notes.map((note) => ({ ...note, midi: note.midi + 1 })) });
    expect((await missedSince(db, '2026-05-01')).get(chart)).toBeUndefined();
  });
});

const isInside = (at: number, from: number, to: number) => {
  const beat = ((at - START) * TEMPO) / 60;
  return beat > from - 0.3 && beat < to;
};
const ITEM = itemData.parse({
  what: 'up',
  name: 'Ascending',
  area: 5,
  key: 'Eb',
  after: [],
  tempo: { start: 60, goal: 100 }
});

describe('the sound of a take', () => {
  it('is a whole file after every piece of it, whatever is sent twice', async () => {
    const { id } = await keep();
    const whole = [100, -200, 300, -400, 500];
    writeSound(db, id, { from: 0, rate: 8000, samples: pcm(...whole.slice(0, 2)) });
    expect(readWav(readFileSync(soundFile(db, id).path), 60).samples).toHaveLength(2);
    writeSound(db, id, { from: 4, rate: 8000, samples: pcm(...whole.slice(2)) });
    writeSound(db, id, { from: 4, rate: 8000, samples: pcm(...whole.slice(2)) });
    const { samples, rate, isCutShort } = readWav(readFileSync(soundFile(db, id).path), 60);
    expect([...samples].map((sample) => Math.round(sample * 2 ** 15))).toEqual(whole);
    expect([rate, isCutShort]).toEqual([8000, false]);
  });

  it('has no gaps: a piece that comes too soon is told how far the sound goes', async () => {
    const { id } = await keep();
    writeSound(db, id, { from: 0, rate: 8000, samples: pcm(1) });
    expect(() => writeSound(db, id, { from: 8, rate: 8000, samples: pcm(1) })).toThrow(
      expect.objectContaining({ status: 409, extra: { bytes: 2 } })
    );
  });

  it('is written whole or not at all: a disk that takes a part is told, and the head stays true', async () => {
    const { id } = await keep();
    writeSound(db, id, { from: 0, rate: 8000, samples: pcm(1, 2) });
    const asked: number[] = [];
    // A disk that takes three bytes at a time.
    writeAll(0, new Uint8Array(8), 44, (_file, _bytes, _from, length, at) => {
      asked.push(at);
      return Math.min(3, length);
    });
    expect(asked).toEqual([44, 47, 50]);
    expect(() => writeAll(0, new Uint8Array(8), 0, () => 0)).toThrow(
      expect.objectContaining({ code: 'ENOSPC' })
    );
    // What lies behind the head was never acknowledged: the next piece goes over it.
    appendFileSync(soundFile(db, id).path, new Uint8Array([9, 9, 9]));
    expect(() => writeSound(db, id, { from: 6, rate: 8000, samples: pcm(3) })).toThrow(
      expect.objectContaining({ status: 409, extra: { bytes: 4 } })
    );
    expect(writeSound(db, id, { from: 4, rate: 8000, samples: pcm(3) })).toEqual({ bytes: 6 });
  });

  it('lies beside the database, and leads nowhere else', async () => {
    const { id } = await keep();
    writeSound(db, id, { from: 0, rate: 8000, samples: pcm(1) });
    expect(() => soundBytes(db, '../../songbook')).toThrow(expect.objectContaining({ status: 404 }));
    const { takes, bytes } = await takeSounds(db);
    expect(takes).toEqual([]);
    expect(bytes).toBe(0);
    await editTake(db, chart, id, { base: 1, name: 'Louder' });
    expect((await takeSounds(db)).takes).toMatchObject([{ id, bytes: 46, chart }]);
  });

  it('can go while the notes stay', async () => {
    const { id } = await keep();
    writeSound(db, id, { from: 0, rate: 8000, samples: pcm(1) });
    await forgetSound(db, chart, id);
    expect(() => soundFile(db, id)).toThrow(expect.objectContaining({ status: 404 }));
    const take = await openTake(db, chart, id);
    expect(take.bytes).toBe(0);
    expect(take.data!.notes.length).toBeGreaterThan(0);
  });
});
