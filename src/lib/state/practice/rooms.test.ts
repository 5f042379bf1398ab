/** The day, the cards and the log, each by itself. */
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { SetListData, StoredSetList, Today } from '$lib/api/practice';
import { ROUND_SECONDS } from '$lib/core/practice/trainer/deck';
import { kindOf, solve } from '$lib/core/practice/trainer/kinds';
import { STANDARD } from '$lib/core/neck/tuning';

const DATA: SetListData = { day: '2027-03-01', charts: [], note: '' } as unknown as SetListData;
const server = vi.hoisted(() => ({
  list: null as unknown as StoredSetList,
  bases: [] as number[],
  refuses: 0,
  log: [] as string[]
}));
const sent = vi.hoisted(() => ({
  rows: [] as Record<string, unknown>[],
  reviews: [] as Record<string, unknown>[]
}));
vi.mock('./practice-log', () => ({
  logBox: { put: (row: Record<string, unknown>) => void sent.rows.push(row), send: () => Promise.resolve() },
  reviewBox: { put: (review: Record<string, unknown>) => void sent.reviews.push(review) }
}));
vi.mock('../call', () => ({
  callSongbook: () => Promise.reject(new Error('not asked')),
  callRoute: (
    path: string,
    _: string,
    method?: string,
    body?: { base: number; name?: string; data?: SetListData }
  ) => {
    if (path.startsWith('practice/log')) return Promise.resolve(log(path, method));
    if (method === undefined) return Promise.resolve(day([server.list]));
    const { base, ...edit } = body!;
    server.bases.push(base);
    if (server.refuses-- > 0 || base !== server.list.version)
      return Promise.reject(new Error(`${path}: changed in another window`));
    server.list = { ...server.list, ...edit, version: base + 1 };
    return Promise.resolve({ version: base + 1 });
  }
}));

const day = (setLists: readonly StoredSetList[]) =>
  ({
    day: '2027-01-01',
    minutes: 25,
    items: [],
    charts: [],
    setLists,
    plan: { session: [] }
  }) as unknown as Today;
/** The log's own route: three rows a part; days that lie on the seam of two parts come with both. */
function log(path: string, method?: string) {
  server.log.push(`${method ?? 'GET'} ${path.replace('practice/', '')}`);
  const from = Number(/offset=(\d+)/.exec(path)?.[1] ?? 0);
  return {
    rows: [0, 1, 2].map((i) => ({ id: `row ${from + i}`, version: 1 })),
    time: [{ day: from ? 'Monday' : 'Tuesday' }, { day: 'the seam', mean: from }],
    total: 6
  };
}
const { TodayState } = await import('./today.svelte');
const { Trainer } = await import('./trainer.svelte');
const { LogBook } = await import('./log-book.svelte');
const { askFor, takeAssignment } = await import('./assigned');

beforeEach(() => {
  server.list = { id: 'quay', name: 'The quay', version: 1, data: DATA } as unknown as StoredSetList;
  server.bases = [];
  server.refuses = 0;
  server.log = [];
  sent.rows = [];
  sent.reviews = [];
});

describe('set lists', () => {
  const named = (name: string) => ({ ...DATA, day: name }) as SetListData;

  it('keep edits that come one upon another, each on what the one before has become', async () => {
    const today = new TodayState(day([server.list]));
    const first = today.changeSetList(server.list, { name: 'The pier' });
    // It is shown at once, so that the next edit is made of it.
    expect(today.now.setLists[0]!.name).toBe('The pier');
    const second = today.changeSetList(today.now.setLists[0]!, { data: named('2027-04-01') });
    await Promise.all([first, second]);
    expect(server.bases).toEqual([1, 2]);
    expect([server.list.name, server.list.data!.day, today.problem]).toEqual(['The pier', '2027-04-01', '']);
  });

  it('show what another window has made of them where an edit is refused, and say so', async () => {
    const today = new TodayState(day([server.list]));
    server.refuses = 1;
    await today.changeSetList(server.list, { name: 'The pier' });
    expect(today.now.setLists[0]!.name).toBe('The quay');
    expect(today.problem).toContain('another window');
  });
});

describe('a round of cards', () => {
  const source = '{key: Gb}\n| Abm7 | Db7 | Gbmaj7 | % |';
  const round = () => {
    const trainer = new Trainer(
      { cards: [], charts: [{ title: '', source, positions: [4] }], newToday: 0 },
      STANDARD
    );
    trainer.start(0);
    return trainer;
  };
  /** Taps what is asked for; all that is asked first are places on the neck. */
  function tapRight(trainer: InstanceType<typeof Trainer>, now: number) {
    const question = trainer.question!;
    for (const cell of solve(question, STANDARD).cells) trainer.tap(cell, now);
    if (kindOf(question.kind).way === 'cells') trainer.submit(now);
  }

  it('counts what was right, tells the log after every answer, and asks again what was missed', () => {
    const trainer = round();
    tapRight(trainer, 2000);
    expect([trainer.right, trainer.wrong, trainer.verdict?.isRight]).toEqual([1, 0, true]);
    trainer.next(3000);
    const missed = trainer.question;
    trainer.submit(4000);
    expect([trainer.right, trainer.wrong, trainer.missed.length]).toEqual([1, 1, 1]);
    expect(sent.rows.map(({ asked, right, revision }) => [asked, right, revision])).toEqual([
      [1, 1, 1],
      [2, 1, 2]
    ]);
    expect(sent.reviews.map(({ isRight, seconds }) => [isRight, seconds])).toEqual([
      [true, 2],
      [false, 1]
    ]);
    const coming = [];
    for (let i = 0; i < 8 && trainer.isRunning; i++) {
      trainer.next(5000);
      coming.push(trainer.question);
    }
    expect(coming).toContainEqual(missed);
  });

  it('lets a tapped place go at a second tap, takes one answer a card, and ends with its time', () => {
    const trainer = round();
    const place = { string: 3, fret: 4 };
    trainer.tap(place, 0);
    trainer.tap(place, 0);
    expect(trainer.tapped).toEqual([]);
    tapRight(trainer, 1000);
    trainer.submit(1000);
    expect([trainer.right, sent.rows.length]).toEqual([1, 1]);
    trainer.next(1000 * ROUND_SECONDS);
    expect([trainer.isOver, trainer.question, trainer.left]).toEqual([true, null, 0]);
  });
});

describe('the log as it is shown', () => {
  it('comes a part at a time, a day on the seam once', async () => {
    const book = new LogBook(() => undefined);
    await book.load();
    await book.more();
    expect(server.log).toEqual(['GET log?limit=60', 'GET log?limit=60&offset=3']);
    expect(book.rows.map(({ id }) => id)).toEqual([0, 1, 2, 3, 4, 5].map((i) => `row ${i}`));
    expect(book.time.map(({ day, mean }) => [day, mean])).toEqual([
      ['Tuesday', undefined],
      ['Monday', undefined],
      ['the seam', 3]
    ]);
  });

  it('loses a row and has it back, each told to what is made of it', async () => {
    let changes = 0;
    const book = new LogBook(() => (changes += 1));
    await book.load();
    const restore = await book.remove(book.rows[1]!);
    await restore!();
    expect(server.log.filter((asked) => !asked.startsWith('GET'))).toEqual([
      'DELETE log/row 1',
      'POST log/row 1/bring-back'
    ]);
    expect(changes).toBe(2);
  });
});

it('what a stand is opened for is taken once, by the chart it was asked for', () => {
  const assignment = { item: 'seam' } as unknown as Parameters<typeof askFor>[1];
  askFor('quay', assignment);
  expect([takeAssignment('pier'), takeAssignment('quay'), takeAssignment('quay')]).toEqual([
    null,
    assignment,
    null
  ]);
});
