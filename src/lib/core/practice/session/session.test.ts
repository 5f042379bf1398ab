import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dayAfter } from '../log/day';
import type { LogRow, PracticeItem } from '../log/model';
import { progressOf } from '../log/progress';
import { offerOf, shareOut, worth, type Offer } from './knapsack';
import { restsIn } from './parts';
import { planSession, type SessionWish } from './session';

const DAY = '2026-03-05';

const item = (id: string, part: Partial<PracticeItem> = {}): PracticeItem => ({
  id,
  what: 'up',
  chart: 'pump',
  key: 'Eb',
  tempo: { start: 60, goal: 90 },
  ...part
});
const row = (id: string, day: string, part: Partial<LogRow> = {}): LogRow => ({
  item: id,
  day,
  tempo: 90,
  clean: true,
  rounds: 2,
  seconds: 120,
  ...part
});
const heldRows = (id: string, last = DAY) => [row(id, dayAfter(last, -9)), row(id, dayAfter(last, -5))];

const anyItems = fc.integer({ min: 0, max: 9 }).chain((count) =>
  fc.tuple(
    ...Array.from({ length: count }, (_, i) =>
      fc.record({
        minutes: fc.option(fc.integer({ min: 1, max: 20 }), { nil: undefined }),
        chart: fc.constantFrom('pump', 'cabin', undefined),
        key: fc.constantFrom('Eb', 'Gm', undefined),
        // On one that stands before it, so that nothing waits for itself.
        after: fc.option(fc.integer({ min: 0, max: Math.max(0, i - 1) }), { nil: undefined })
      })
    )
  )
);
const anyWish: fc.Arbitrary<SessionWish> = fc
  .record({
    parts: anyItems,
    rows: fc.array(
      fc.record({
        item: fc.integer({ min: 0, max: 9 }),
        ago: fc.integer({ min: -1, max: 30 }),
        tempo: fc.constantFrom(60, 80, 90, 100),
        clean: fc.constantFrom(true, true, false, null),
        rounds: fc.integer({ min: 1, max: 5 })
      }),
      { maxLength: 40 }
    ),
    cards: fc.array(fc.integer({ min: -5, max: 5 }), { maxLength: 12 }),
    minutes: fc.integer({ min: 1, max: 240 })
  })
  .map(({ parts, rows, cards, minutes }) => ({
    items: parts.map(({ after, ...part }, i) =>
      item(`i${i}`, { ...part, ...(after === undefined || i === 0 ? {} : { after: [`i${after}`] }) })
    ),
    log: rows.map(({ item: at, ago, ...part }) => row(`i${at}`, dayAfter(DAY, -ago), part)),
    cards: cards.map((days, i) => ({ id: `c${i}`, due: dayAfter(DAY, days) })),
    minutes,
    day: DAY
  }));
const holds = (property: (wish: SessionWish) => void) =>
  fc.assert(fc.property(anyWish, property), { numRuns: 150 });

describe('a session', () => {
  it('uses all the minutes and never more', () =>
    holds((wish) => {
      const { session } = planSession(wish);
      expect(session.reduce((sum, { minutes }) => sum + minutes, 0)).toBe(wish.minutes);
      expect(session.every(({ minutes }) => minutes >= 1)).toBe(true);
    }));

  it('holds nothing that is not open, one new thing at most, and no item for less than half or more than one and a half', () =>
    holds((wish) => {
      const { session } = planSession(wish);
      const progress = progressOf(wish.items, wish.log, wish.day);
      for (const part of session) {
        if (part.item === undefined) continue;
        expect(progress.get(part.item)!.isOpen).toBe(true);
        const own = wish.items.find(({ id }) => id === part.item)!.minutes ?? 5;
        expect(part.minutes).toBeGreaterThanOrEqual(Math.min(own, Math.ceil(own / 2)));
        expect(part.minutes).toBeLessThanOrEqual(Math.max(1, Math.floor(own * 1.5)));
      }
      expect(session.filter(({ kind }) => kind === 'new').length).toBeLessThanOrEqual(1);
    }));

  it('begins with the cards that are due, and tells which', () =>
    holds((wish) => {
      const { session, due } = planSession(wish);
      const isDue = (id: string) => wish.cards!.find((card) => card.id === id)!.due <= DAY;
      expect(due.every(isDue)).toBe(true);
      expect(due.length).toBe(wish.cards!.filter((card) => card.due <= DAY).length);
      expect(session[0]!.kind === 'cards').toBe(due.length > 0);
    }));

  it('never has an item twice running, rests a minute for each twenty, ends with the form', () =>
    holds((wish) => {
      const { session } = planSession(wish);
      const items = session.filter(({ kind }) => kind !== 'rest').map(({ item: id }) => id);
      expect(items.some((id, i) => id !== undefined && id === items[i + 1])).toBe(false);
      const rests = session.filter(({ kind }) => kind === 'rest');
      expect(rests.reduce((sum, { minutes }) => sum + minutes, 0)).toBe(restsIn(wish.minutes));
      const played = session.map(({ kind }) => kind).filter((kind) => kind !== 'rest');
      const form = played.indexOf('form');
      if (form >= 0) expect(played.slice(form).every((kind) => kind === 'form')).toBe(true);
    }));

  it('is the same for the same log and day', () =>
    holds((wish) => {
      expect(planSession(wish)).toEqual(planSession(structuredClone(wish)));
    }));

  it('gives a newcomer one thing, slowly, and the form; no cards, no other key', () => {
    const { session } = planSession({
      items: [item('a'), item('b', { after: ['a'] })],
      log: [],
      minutes: 15,
      day: DAY
    });
    expect(session.map(({ kind, item: id, minutes }) => [kind, id, minutes])).toEqual([
      ['new', 'a', 7],
      ['form', undefined, 8]
    ]);
    expect(session[0]).toMatchObject({ tempo: 60, chart: 'pump', key: 'Eb' });
    expect(session[0]!.why).toContain('first thing');
  });

  it('has something to say where there is nothing to practise', () => {
    const { session } = planSession({ items: [], log: [], minutes: 20, day: DAY });
    expect(session.map(({ kind, minutes }) => [kind, minutes])).toEqual([
      ['free', 19],
      ['rest', 1]
    ]);
  });

  it('mends a seam first, for its own minutes, and says how bad it is', () => {
    const log = [row('a', '2026-03-01', { clean: false, rounds: 3 }), row('a', '2026-03-02', { rounds: 1 })];
    const { session } = planSession({ items: [item('a'), item('b')], log, minutes: 12, day: DAY });
    expect(session[0]).toMatchObject({ kind: 'seam', item: 'a', minutes: 5 });
    expect(session[0]!.why).toContain('75 %');
  });

  it('mends a change that goes wrong again and again, where no item is as weak', () => {
    const stumbled = [
      { chart: 'pump', change: 4, times: 2, symbol: 'Eb7' },
      { chart: 'pump', change: 7, times: 5, symbol: 'C7b9' }
    ];
    const { session } = planSession({ items: [item('a')], log: [], stumbled, minutes: 15, day: DAY });
    expect(session[0]).toMatchObject({ kind: 'seam', chart: 'pump', change: 7, minutes: 5, tempo: 60 });
    expect(session[0]!.why).toContain('5 times going into C7♭9');
    expect(session.filter(({ kind }) => kind === 'seam')).toHaveLength(1);
  });

  it('takes an item into the next key where time is left: E flat, then A flat, slower', () => {
    const items = [item('a'), item('b', { key: 'Gm' })];
    const log = [...heldRows('a'), ...heldRows('b')];
    const { session } = planSession({ items, log, minutes: 40, day: DAY });
    const further = session.filter(({ fourths }) => fourths);
    expect(further.length).toBeGreaterThan(0);
    expect(further.find(({ item: id }) => id === 'a')).toMatchObject({ fourths: 1, key: 'Ab', tempo: 77 });
    expect(further.find(({ item: id }) => id === 'b')).toMatchObject({ fourths: 1, key: 'Cm' });
  });

  it('plays the held item first that lay longest', () => {
    const items = ['a', 'b', 'c', 'd'].map((id) => item(id));
    const log = items.flatMap(({ id }, i) => heldRows(id, dayAfter(DAY, -i)));
    const { session, held } = planSession({ items, log, minutes: 8, day: DAY });
    expect(held).toEqual(['a', 'b', 'c', 'd']);
    expect(session[0]).toMatchObject({ kind: 'held', item: 'd' });
  });

  it('plays the whole form at the best tempo held in it', () => {
    const log = ['2026-03-01', '2026-03-02'].map((day) => row('a', day, { tempo: 84 }));
    const form = (minutes: number) =>
      planSession({ items: [item('a'), item('b')], log, minutes, day: DAY }).session.at(-1);
    expect(form(19)).toMatchObject({ kind: 'form', scope: 'whole', chart: 'pump', tempo: 84 });
  });

  it('plays the first section where a whole form does not fit', () => {
    const { session } = planSession({ items: [item('a')], log: [], minutes: 8, day: DAY });
    expect(session.at(-1)).toMatchObject({ kind: 'form', minutes: 3, scope: 'first section' });
  });
});

describe('sharing minutes out', () => {
  const anyOffer = fc
    .record({ minutes: fc.integer({ min: 1, max: 6 }), value: fc.integer({ min: 1, max: 10 }) })
    .map(({ minutes, value }) => offerOf(minutes, value));
  const worthOf = (offers: readonly Offer[], taken: readonly number[]) =>
    offers.reduce((sum, offer, i) => sum + (taken[i] ? worth(offer, taken[i]) : 0), 0);

  /** Every way of giving minutes to offers. */
  function most(offers: readonly Offer[], room: number): number {
    const [first, ...rest] = offers;
    if (!first) return 0;
    let best = most(rest, room);
    for (let t = first.least; t <= Math.min(first.most, room); t++) {
      best = Math.max(best, worth(first, t) + most(rest, room - t));
    }
    return best;
  }

  it('is worth as much as the best of all ways', () =>
    fc.assert(
      fc.property(fc.array(anyOffer, { maxLength: 5 }), fc.integer({ min: 0, max: 14 }), (offers, room) => {
        const taken = shareOut(offers, room);
        expect(taken.reduce((sum, minutes) => sum + minutes, 0)).toBeLessThanOrEqual(room);
        expect(worthOf(offers, taken)).toBe(most(offers, room));
      }),
      { numRuns: 200 }
    ));

  it('prefers what stands earlier where it is all the same', () => {
    expect(shareOut([offerOf(5, 6), offerOf(5, 6)], 5)).toEqual([5, 0]);
  });
});
