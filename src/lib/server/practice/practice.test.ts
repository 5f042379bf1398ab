import { mkdtempSync } from 'node:fs';
import { randomUUID } from 'node:crypto';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { sql } from 'kysely';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { itemData, keepItems, keepReviews, logRow, recordRows, setListData } from '../../api/practice';
import { dayAfter } from '../../core/practice/log/day';
import { coverage, secondsByDay } from '../../core/practice/log/sums';
import { listCharts } from '../../api/songbook';
import { closeFile, openDatabase, type Database } from '../store/database';
import { fillWithDemo } from '../testing';
import { createChart, deleteChart, listSongbook } from '../store/songbook';
import { keepAnswers, listCards } from './cards';
import { logCsv, takeLog } from './files';
import {
  editItem,
  items,
  itemsOn,
  keepNewItems,
  keepWholeForms,
  lacksWholeForms,
  listItems,
  plannedItems,
  reorderItems
} from './items';
import { correctRow, listRows, markRow, record, placedRows, wholeLog } from './log';
import { editSetList, keepNewSetList, listSetLists, setLists } from './set-lists';

let path: string;
let db: Database;
let chart: string;
const DAY = '2026-03-05';

beforeEach(async () => {
  path = join(mkdtempSync(join(tmpdir(), 'corvel-')), 'songbook.db');
  db = await openDatabase(path);
  chart = (await createChart(db, { source: '{title: Tow Rope}\n{key: Gm}\n| Gm6 | D7b9 |' })).id;
});
afterEach(async () => {
  await db.destroy();
});

const row = (part: object = {}) => ({
  ...logRow.parse({
    id: randomUUID(),
    item: 'up',
    chart,
    kind: 'rehearse',
    what: 'Ascending',
    startedAt: 1_772_700_000_000,
    day: DAY,
    seconds: 60,
    rounds: 2,
    tempo: 80,
    clean: true,
    key: 'Gm',
    area: 3
  }),
  revision: 1,
  ...part
});
const write = (...rows: ReturnType<typeof row>[]) => record(db, recordRows.parse({ rows }));
const all = async () => (await listRows(db, { offset: 0, limit: 100 })).rows;
const item = (id: string, part: object = {}) => ({
  id,
  chart,
  data: itemData.parse({ what: 'up', name: 'Ascending', tempo: { start: 60, goal: 80 }, ...part })
});

describe('the log', () => {
  it('is there again after the server was stopped, mid-round or not', async () => {
    await write(row(), row({ clean: null }));
    closeFile(db);
    db = await openDatabase(path);
    expect((await all()).map(({ clean }) => clean)).toEqual([null, true]);
    expect((await all())[0]).toMatchObject({ title: 'Tow Rope', what: 'Ascending', key: 'Gm', area: 3 });
  });

  it('takes a row that is sent again once, and a later state of it in its place, never an earlier one', async () => {
    const one = row();
    await write(one, one);
    await write({ ...one, rounds: 4, seconds: 120, revision: 3 });
    await write({ ...one, rounds: 3, seconds: 90, revision: 2 });
    expect(await all()).toMatchObject([{ rounds: 4, seconds: 120 }]);
  });

  it('lets the player correct it; what the recorder sends after that changes nothing', async () => {
    const one = row();
    await write(one);
    const corrected = await correctRow(db, one.id, {
      base: 0,
      clean: false,
      note: 'the D7 again',
      tempo: 76
    });
    expect(corrected).toMatchObject({ clean: false, note: 'the D7 again', tempo: 76, rounds: 2, version: 1 });
    await write({ ...one, rounds: 9, revision: 9 });
    expect(await all()).toMatchObject([{ rounds: 2, clean: false }]);
    await correctRow(db, one.id, { base: 1, tempo: 70 });
    // What the recorder wrote is kept beside it.
    const { data } = await db.selectFrom('practice_log').select('data').executeTakeFirstOrThrow();
    expect(JSON.parse(data).was).toMatchObject({ tempo: 80, clean: 1, rounds: 2 });
    await expect(correctRow(db, one.id, { base: 0, clean: true })).rejects.toMatchObject({ status: 409 });
  });

  it('deletes softly, also for the recorder, and brings back', async () => {
    const one = row();
    await write(one);
    await markRow(db, one.id, 1);
    await write({ ...one, revision: 5 });
    expect(await all()).toEqual([]);
    await markRow(db, one.id, null);
    expect(await all()).toHaveLength(1);
    await expect(markRow(db, randomUUID(), 1)).rejects.toMatchObject({ status: 404 });
  });

  it('tells the songbook when a chart was last played and how fast it is held, and that follows corrections', async () => {
    const list = async () => (await listSongbook(db, listCharts.parse({}))).charts[0]!;
    expect(await list()).toMatchObject({ practisedAt: null, heldTempo: null });
    const later = row({ startedAt: 1_772_800_000_000, day: dayAfter(DAY, 1), tempo: 92 });
    await write(row({ tempo: 84 }), later);
    expect(await list()).toMatchObject({ practisedAt: 1_772_800_000_000, heldTempo: 84 });
    await markRow(db, later.id, 1);
    expect(await list()).toMatchObject({ practisedAt: 1_772_700_000_000, heldTempo: null });
  });

  it('keeps what was played when the chart and the item are gone', async () => {
    await write(row());
    await deleteChart(db, chart);
    expect(await all()).toMatchObject([{ chart, title: null, item: 'up' }]);
  });

  it('refuses what cannot have been played', () => {
    const bad = (part: object) => recordRows.safeParse({ rows: [{ ...row(), ...part }] }).success;
    expect([
      bad({ day: '2026-02-30' }),
      bad({ tempo: 4 }),
      bad({ seconds: -1 }),
      bad({ key: 'H minor' })
    ]).toEqual([false, false, false, false]);
  });
});

describe('items', () => {
  it('stand in the player’s order, and tell how far they are', async () => {
    await keepNewItems(db, keepItems.parse({ items: [item('a'), item('b', { after: ['a'] }), item('c')] }));
    // The chart has two bars: eight rounds are a run.
    await write(row({ item: 'a', rounds: 8 }), row({ item: 'a', rounds: 8, day: dayAfter(DAY, -2) }));
    const states = (await itemsOn(db, DAY)).map(({ id, progress }) => [id, progress?.state]);
    expect(states).toEqual([
      ['a', 'held'],
      ['b', 'open'],
      ['c', 'open']
    ]);
    await reorderItems(db, { order: ['c', 'a'] });
    expect((await listItems(db)).map(({ id }) => id)).toEqual(['c', 'a', 'b']);
  });

  it('have the whole form of their chart among them, once, unless the player has deleted it', async () => {
    await keepNewItems(db, keepItems.parse({ items: [item('a', { key: 'Gm' }), item('b', { key: 'Cm' })] }));
    expect(await lacksWholeForms(db)).toBe(true);
    await keepWholeForms(db);
    expect(await lacksWholeForms(db)).toBe(false);
    await keepWholeForms(db);
    const forms = async () => (await listItems(db)).filter(({ data }) => data?.form);
    expect(await forms()).toMatchObject([
      { id: `${chart}:Gm:form`, data: { what: 'band', key: 'Gm', tempo: { start: 56, goal: 80 } } }
    ]);
    await items.remove(db, `${chart}:Gm:form`);
    await keepWholeForms(db);
    expect(await forms()).toEqual([]);
  });

  it('know their bars and sections from their chart, and takes tell where it goes wrong', async () => {
    const source =
      '{title: Long}\n{key: Gm}\n{start_of_grid label="A"}\n| Gm6 | D7b9 | Gm6 | D7b9 |\n{end_of_grid}\n{start_of_grid label="B"}\n| Cm7 | D7b9 |\n{end_of_grid}';
    const { id } = await createChart(db, { source });
    const over = { kind: 'bars', from: 2, to: 3 };
    await keepNewItems(
      db,
      keepItems.parse({
        items: [
          { ...item('l'), chart: id },
          { ...item('m', { over }), chart: id }
        ]
      })
    );
    const planned = await plannedItems(db, await listItems(db));
    expect(planned).toMatchObject([
      {
        id: 'l',
        bars: 6,
        beats: 4,
        sections: [
          { from: 1, to: 4 },
          { from: 5, to: 6 }
        ]
      },
      { id: 'm', bars: 2 }
    ]);
  });

  it('are edited on top of their version, deleted, brought back; proposed again one stays as it is', async () => {
    await keepNewItems(db, keepItems.parse({ items: [item('a')] }));
    const data = itemData.parse({ ...item('a').data, name: 'My own', tempo: { start: 50, goal: 70 } });
    expect(await editItem(db, 'a', { base: 1, data })).toMatchObject({
      version: 2,
      data: { name: 'My own' }
    });
    // Sent again it is the same edit; another one on that version is late.
    expect(await editItem(db, 'a', { base: 1, data })).toMatchObject({ version: 2 });
    const other = { ...data, name: 'Late' };
    await expect(editItem(db, 'a', { base: 1, data: other })).rejects.toMatchObject({ status: 409 });
    await keepNewItems(db, keepItems.parse({ items: [item('a')] }));
    await items.remove(db, 'a');
    expect(await listItems(db)).toEqual([]);
    await items.restore(db, 'a');
    expect(await listItems(db)).toMatchObject([{ data: { name: 'My own' } }]);
  });

  it('whose chart is gone or whose data is damaged are kept and say so, without progress', async () => {
    await keepNewItems(db, keepItems.parse({ items: [item('a'), { ...item('b'), chart: null }] }));
    await deleteChart(db, chart);
    await db.updateTable('practice_item').set({ data: '{' }).where('id', '=', 'b').execute();
    expect(await itemsOn(db, DAY)).toMatchObject([
      { id: 'a', title: null, progress: null },
      { id: 'b', data: null, progress: null }
    ]);
    await expect(keepNewItems(db, { items: [{ ...item('c'), chart: randomUUID() }] })).rejects.toMatchObject({
      status: 404
    });
  });
});

describe('cards', () => {
  const NOW = 1_772_700_000_000;
  const answer = (isRight: boolean, at = NOW) =>
    keepReviews.parse({
      reviews: [
        {
          id: randomUUID(),
          question: { kind: 'spell', symbol: 'Gm6' },
          at,
          day: DAY,
          isRight,
          seconds: 6
        }
      ]
    });

  it('are kept with the first answer, and come again later the better they are known', async () => {
    const first = await keepAnswers(db, answer(true));
    const [card] = await listCards(db);
    expect(card).toMatchObject({ id: 'spell|Gm6', day: DAY, question: { symbol: 'Gm6' } });
    const second = await keepAnswers(db, answer(true, first.cards[0]!.due));
    expect(second.cards[0]!.due).toBeGreaterThan(first.cards[0]!.due);
    const missed = await keepAnswers(db, answer(false, second.cards[0]!.due));
    expect(missed.cards[0]!.grade).toBe('again');
    expect(missed.cards[0]!.due - second.cards[0]!.due).toBeLessThan(86_400_000);
  });

  it('take an answer that is sent twice once', async () => {
    const one = answer(true);
    await keepAnswers(db, one);
    await keepAnswers(db, one);
    expect((await listCards(db))[0]!.memory.reps).toBe(1);
  });

  it('are remembered by the order in which they were asked, whenever the answers arrive', async () => {
    const times = [0, 3, 9, 20].map((days) => NOW + days * 86_400_000);
    const answers = times.map((at, i) => answer(i !== 2, at));
    for (const one of answers) await keepAnswers(db, one);
    const [inOrder] = await listCards(db);
    const other = await openDatabase(join(mkdtempSync(join(tmpdir(), 'corvel-')), 'songbook.db'));
    for (const i of [2, 0, 3, 1]) await keepAnswers(other, answers[i]!);
    expect((await listCards(other))[0]!.memory).toEqual(inOrder!.memory);
    // Replayed late, nothing moves.
    for (const one of answers) await keepAnswers(other, one);
    expect((await listCards(other))[0]!.memory).toEqual(inOrder!.memory);
  });

  it('go by the server’s clock where the device’s is ahead', async () => {
    const { cards } = await keepAnswers(db, answer(true, Date.parse('2096-01-01')));
    expect(cards[0]!.due).toBeLessThan(Date.now() + 60 * 86_400_000);
  });

  it('refuse a question that is none', () => {
    const review = answer(true).reviews[0]!;
    const takes = (question: object) => keepReviews.safeParse({ reviews: [{ ...review, question }] }).success;
    expect(takes({ kind: 'spell', symbol: 'Xm7' })).toBe(false);
    expect(takes({ kind: 'riddle' })).toBe(false);
    expect(takes({ kind: 'find', symbol: 'Ab7', degree: 'b7', from: 4, to: 8 })).toBe(true);
  });
});

describe('set lists', () => {
  it('stand by their days, are edited, deleted, brought back', async () => {
    const keep = (name: string, day: string) =>
      keepNewSetList(db, { id: randomUUID(), name, data: setListData.parse({ day, charts: [{ chart }] }) });
    const late = await keep('Late', '2026-05-01');
    await keep('Early', '2026-04-01');
    expect((await listSetLists(db)).map(({ name }) => name)).toEqual(['Early', 'Late']);
    await editSetList(db, late.id, { base: 1, name: 'Later' });
    await expect(editSetList(db, late.id, { base: 1, name: 'x' })).rejects.toMatchObject({ status: 409 });
    await setLists.remove(db, late.id);
    expect(await listSetLists(db)).toHaveLength(1);
    await setLists.restore(db, late.id);
    expect((await listSetLists(db))[1]).toMatchObject({ name: 'Later' });
  });
});

describe('the demo', () => {
  it('has ten weeks of practice with gaps, things held, in progress and shut, cards due, a set list', async () => {
    const fresh = await openDatabase(join(mkdtempSync(join(tmpdir(), 'corvel-')), 'songbook.db'));
    await fillWithDemo(fresh);
    const log = await wholeLog(fresh);
    const days = [...new Set(log.map(({ day }) => day))].sort();
    const [from, to] = [days[0]!, days.at(-1)!];
    expect(log.length).toBeGreaterThan(400);
    const byDay = secondsByDay(log, from, to);
    expect(byDay.length).toBeGreaterThan(60);
    expect(byDay.filter(({ seconds }) => seconds === 0).length).toBeGreaterThan(12);
    const states = new Set((await itemsOn(fresh, dayAfter(to, 1))).map(({ progress }) => progress!.state));
    expect([...states].sort()).toEqual(expect.arrayContaining(['held', 'in progress', 'shut']));
    expect((await listCards(fresh)).length).toBeGreaterThan(20);
    expect(await listSetLists(fresh)).toHaveLength(1);

    // What the pictures sum up is what the file holds.
    const { whole } = (
      await sql<{
        whole: number;
      }>`select sum(seconds) as whole from practice_log where deleted_at is null`.execute(fresh)
    ).rows[0]!;
    const sum = (sums: readonly { seconds: number }[]) =>
      sums.reduce((total, { seconds }) => total + seconds, 0);
    expect(sum(byDay)).toBe(whole);
    const placed = (
      await sql<{ whole: number }>`select sum(seconds) as whole from practice_log
        where deleted_at is null and area is not null and key is not null`.execute(fresh)
    ).rows[0]!.whole;
    expect(sum(coverage(log))).toBe(placed);
    expect((await placedRows(fresh)).length).toBe(log.length);
    await fresh.destroy();
  });
});

describe('a table of the log', () => {
  it('counts what is new as taken, and what is there already as nothing', async () => {
    await fillWithDemo(db);
    const whole = await logCsv(db);
    expect(await takeLog(db, whole)).toEqual({ taken: 0, left: [] });
    const more = `${whole}${randomUUID()},2026-03-05,,own,Warm-up,,,,,80,yes,1,60,,,\n`;
    expect(await takeLog(db, more)).toMatchObject({ taken: 1 });
    expect(await takeLog(db, 'day;seconds\n2026-03-06;120\n')).toMatchObject({ taken: 1, left: [] });
  });
});
