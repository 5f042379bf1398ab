import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dayAfter, daysBetween } from '../log/day';
import type { LogRow, PracticeItem } from '../log/model';
import { proposals } from '../items/proposals';
import { standingsOf } from '../progress/fold';
import { progressOf } from '../progress/progress';
import { seamsIn } from '../progress/turn';
import { PLAYERS, practised, type Player } from '../simulated';
import { aheadOf } from './ahead';
import { inOrder } from './order';
import { restsIn } from './parts';
import { planSession, type Session, type SessionWish } from './session';

const DAY = '2026-03-05';
const item = (id: string, part: Partial<PracticeItem> = {}): PracticeItem => ({
  id,
  what: 'up',
  chart: 'pump',
  key: 'Eb',
  bars: 12,
  tempo: { start: 60, goal: 90 },
  ...part
});
const form = (id: string, chart: string, part: Partial<PracticeItem> = {}) =>
  item(id, { what: 'band', chart, form: true, ...part });
const row = (id: string, day: string, part: Partial<LogRow> = {}): LogRow => ({
  item: id,
  day,
  tempo: 90,
  clean: true,
  rounds: 2,
  seconds: 120,
  ...part
});
const ago = (days: number) => dayAfter(DAY, -days);
const heldRows = (id: string, last = DAY) => [row(id, dayAfter(last, -9)), row(id, dayAfter(last, -5))];
const plan = (wish: Partial<SessionWish>): Session =>
  planSession({ items: [], log: [], minutes: 25, day: DAY, ...wish });
const parts = (wish: Partial<SessionWish>) => plan(wish).session;

const anyItems = fc.integer({ min: 0, max: 9 }).chain((count) =>
  fc.tuple(
    ...Array.from({ length: count }, (_, i) =>
      fc.record({
        minutes: fc.option(fc.integer({ min: 1, max: 20 }), { nil: undefined }),
        chart: fc.constantFrom('pump', 'cabin', undefined),
        key: fc.constantFrom('Eb', 'Gm', undefined),
        bars: fc.constantFrom(undefined, 8, 12, 32),
        form: fc.constantFrom(undefined, undefined, true),
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
    minutes: fc.integer({ min: 1, max: 240 }),
    gig: fc.option(fc.integer({ min: 0, max: 40 }), { nil: undefined })
  })
  .map(({ parts: own, rows, cards, minutes, gig }) => ({
    items: own.map(({ after, ...part }, i) =>
      item(`i${i}`, { ...part, ...(after === undefined || i === 0 ? {} : { after: [`i${after}`] }) })
    ),
    log: rows.map(({ item: at, ago: days, ...part }) => row(`i${at}`, ago(days), part)),
    cards: cards.map((days, i) => ({ id: `c${i}`, due: dayAfter(DAY, days) })),
    minutes,
    day: DAY,
    ...(gig === undefined ? {} : { set: { day: dayAfter(DAY, gig), charts: [{ chart: 'cabin' }] } })
  }));
const holds = (property: (wish: SessionWish) => void) =>
  fc.assert(fc.property(anyWish, property), { numRuns: 150 });

describe('a session', () => {
  it('uses all the minutes and never more, in whole ones', () =>
    holds((wish) => {
      const { session } = planSession(wish);
      expect(session.reduce((sum, { minutes }) => sum + minutes, 0)).toBe(wish.minutes);
      expect(session.every(({ minutes }) => minutes >= 1 && Number.isInteger(minutes))).toBe(true);
    }));

  it('holds nothing that is shut or rests, and one seam of an item or its part at a time', () =>
    holds((wish) => {
      const { session } = planSession(wish);
      const progress = progressOf(wish.items, wish.log, wish.day);
      for (const { item: id } of session) {
        if (id !== undefined) expect(progress.get(id)).toMatchObject({ isOpen: true, isResting: false });
      }
    }));

  it('begins with the cards that are due, two minutes of them, and tells which', () =>
    holds((wish) => {
      const { session, due } = planSession(wish);
      const isDue = (id: string) => wish.cards!.find((card) => card.id === id)!.due <= DAY;
      expect(due.every(isDue)).toBe(true);
      expect(due.length).toBe(wish.cards!.filter((card) => card.due <= DAY).length);
      expect(session[0]!.kind === 'cards').toBe(due.length > 0);
      if (due.length > 0 && wish.minutes >= 2) expect(session[0]!.minutes).toBe(2);
    }));

  it('rests a minute for each twenty, never plays longer on, and ends with the form', () =>
    holds((wish) => {
      const { session } = planSession(wish);
      const rests = session.filter(({ kind }) => kind === 'rest');
      expect(rests.reduce((sum, { minutes }) => sum + minutes, 0)).toBe(restsIn(wish.minutes));
      expect(session.every(({ minutes }) => minutes <= 20)).toBe(true);
      const played = session.map(({ kind }) => kind).filter((kind) => kind !== 'rest');
      const first = played.indexOf('form');
      if (first >= 0)
        expect(played.slice(first).every((kind) => kind === 'form' || kind === 'free')).toBe(true);
    }));

  it('gives every part a tempo no faster than its goal, and a reason', () =>
    holds((wish) => {
      for (const { item: id, tempo, steps, why } of planSession(wish).session) {
        expect(why.length).toBeGreaterThan(10);
        if (id === undefined) continue;
        expect(tempo).toBeLessThanOrEqual(100);
        expect(steps![0]!.tempo).toBe(tempo);
        expect(steps!.every((step) => step.tempo <= Math.max(step.goal, 100))).toBe(true);
      }
    }));

  it('is the same for the same log and day', () =>
    holds((wish) => {
      expect(planSession(wish)).toEqual(planSession(structuredClone(wish)));
    }));

  it('has something to say where there is nothing to practise', () => {
    expect(parts({ minutes: 20, latest: 'pump' })).toMatchObject([
      { kind: 'free', minutes: 19, chart: 'pump' },
      { kind: 'rest', minutes: 1 }
    ]);
  });

  it('gives a newcomer one tune: its first thing, slowly, and the whole form from the first day', () => {
    const items = [item('a'), item('b', { after: ['a'] }), form('f', 'pump'), item('x', { chart: 'cabin' })];
    const session = parts({ items, minutes: 15 });
    expect(session.map(({ kind, item: id }) => [kind, id])).toEqual([
      ['new', 'a'],
      ['form', 'f']
    ]);
    expect(session[0]).toMatchObject({ tempo: 60, chart: 'pump', key: 'Eb' });
    expect(session[0]!.why).toContain('first thing');
  });

  it('begins a tune that was taken up, one a day, for a fifth of the minutes and more', () => {
    const items = [item('a'), item('b', { chart: 'cabin' }), item('c', { chart: 'harbours' })];
    const fresh = (log: LogRow[], day: string) =>
      parts({ items, log, day, minutes: 30 }).filter(({ kind }) => kind === 'new');
    const log = [row('a', ago(2), { tempo: 70 })];
    expect(fresh(log, DAY)).toMatchObject([{ item: 'b' }]);
    expect(fresh(log, DAY)[0]!.minutes).toBeGreaterThanOrEqual(6);
    expect(fresh([...log, row('b', DAY, { tempo: 60 })], dayAfter(DAY, 1))).toMatchObject([{ item: 'c' }]);
  });

  it('plays a whole form through where there was none for three days: the tune that is longest without', () => {
    const items = [item('a'), form('fa', 'pump'), item('b', { chart: 'cabin' }), form('fb', 'cabin')];
    const log = [row('a', ago(4)), row('fb', ago(4), { tempo: 70 }), row('fa', ago(3), { tempo: 70 })];
    const chosen = parts({ items, log, minutes: 10 }).find(({ kind }) => kind === 'form');
    expect(chosen).toMatchObject({ item: 'fb' });
    expect(chosen!.why).toContain('4 days ago');
  });

  it('holds seams: one in a short session, two in a longer one, two bars each, slowly', () => {
    const bad = (id: string, bar: number) =>
      [5, 4, 3].map((days) =>
        row(id, ago(days), { clean: false, bars: { from: 1, to: 12 }, loops: [[bar], [bar]] })
      );
    const items = [item('a'), item('b'), item('c')];
    const log = [...bad('a', 5), ...bad('b', 9), ...bad('c', 1)].sort((x, y) => (x.day < y.day ? -1 : 1));
    const seams = (minutes: number) => parts({ items, log, minutes }).filter(({ kind }) => kind === 'seam');
    expect(seams(15)).toMatchObject([{ item: 'a', bars: { from: 4, to: 5 }, minutes: 3, tempo: 72 }]);
    expect(seams(15)[0]!.why).toMatch(/Bar 5 went wrong 6 times/);
    expect(seams(30)).toHaveLength(2);
  });

  it('asks what is held when its days are over, and not before', () => {
    const items = ['a', 'b', 'c', 'd'].map((id) => item(id));
    const log = ['a', 'b'].flatMap((id) => heldRows(id, id === 'a' ? DAY : dayAfter(DAY, 4)));
    const rest = ['c', 'd'].map((id) => row(id, ago(1), { tempo: 70 }));
    const { session, held } = plan({
      items,
      log: [...log, ...rest].sort((x, y) => (x.day < y.day ? -1 : 1)),
      minutes: 12
    });
    expect(held).toEqual(['a', 'b']);
    const asked = session.filter(({ kind }) => kind === 'held').map(({ item: id }) => id);
    expect(asked).toEqual(['a']);
  });

  it('leaves what was clean at its goal today alone: its time flows on', () => {
    const items = [item('a'), item('b')];
    const log = [row('a', DAY), row('b', ago(1), { tempo: 70 })];
    expect(parts({ items, log, minutes: 10 }).map(({ item: id }) => id)).toEqual(['b']);
    // Asked in the middle of a part, it goes on from the loops of today.
    const half = [row('a', DAY, { tempo: 70 }), row('b', DAY)];
    expect(parts({ items, log: half, minutes: 5 })[0]).toMatchObject({ item: 'a', tempo: 73 });
  });

  it('goes through what is under way again where a day is long, and never one tune all along', () => {
    const items = ['a', 'b', 'c'].map((id, i) => item(id, { chart: `tune ${i}` }));
    const log = items.map(({ id }) => row(id, ago(1), { tempo: 70 }));
    const played = parts({ items, log, minutes: 120 }).filter(({ kind }) => kind !== 'rest');
    expect(played.some(({ item: id }, i) => id === played[i + 1]?.item)).toBe(false);
  });

  it('begins with another thing each day, where nothing presses', () => {
    const three = ['x', 'y', 'z'].map(
      (id) => ({ kind: 'in progress', minutes: 4, item: id, chart: id, why: '' }) as const
    );
    const first = (n: number) => inOrder(three, 12, dayAfter(DAY, n))[0]!.item;
    expect(new Set([0, 1, 2].map(first)).size).toBe(3);
    expect(first(3)).toBe(first(0));
  });

  it('comes back from a break slower', () => {
    const log = [row('a', ago(20), { tempo: 80 }), row('a', ago(19), { tempo: 84 })];
    const tempo = (day: string) => parts({ items: [item('a')], log, day, minutes: 10 })[0]!.tempo!;
    expect(tempo(ago(18))).toBeGreaterThan(tempo(DAY));
  });
});

describe('a word before it', () => {
  const word = (log: LogRow[], minutes = 25) => plan({ items: [item('a')], log, minutes }).word;
  it('is kind after a break, after a hard day, and on a short one; else there is none', () => {
    expect(word([row('a', ago(5))])).toMatch(/^5 days away: everything starts a little slower/);
    expect(word([row('a', ago(1), { clean: false, rounds: 6 })])).toMatch(/Today starts lower/);
    expect(word([row('a', ago(1))], 10)).toMatch(/short day/);
    expect(word([row('a', ago(1))])).toBeUndefined();
    expect(word([])).toBeUndefined();
  });
});

describe('for a date', () => {
  const tunes = ['pump', 'cabin', 'lantern'];
  const items = tunes.flatMap((chart) => [item(`${chart} up`, { chart }), form(`${chart} form`, chart)]);
  const set = (days: number) => ({
    day: dayAfter(DAY, days),
    charts: [{ chart: 'cabin', tempo: 80 }, { chart: 'pump' }]
  });
  const log = items
    .map(({ id }, i) => row(id, ago(i < 2 ? 1 : 4), { tempo: 66 }))
    .sort((a, b) => (a.day < b.day ? -1 : 1));

  it('plays the list through in its order on the day, and begins nothing new', () => {
    const fresh = [...items, item('x', { chart: 'harbours' }), item('pump down')];
    for (const days of [0, 3, 7]) {
      const session = parts({ items: fresh, log, set: set(days), minutes: 40 });
      const forms = session.filter(({ kind }) => kind === 'form').map(({ item: id }) => id);
      expect(forms.slice(0, 2)).toEqual(['cabin form', 'pump form']);
      expect(session.some(({ kind }) => kind === 'new')).toBe(false);
    }
  });

  it('asks for no other form on a day that has a run-through', () => {
    // Days are missed; one tune of the set is due, the other was played through the day before yesterday.
    const played = [row('cabin form', ago(9), { tempo: 66 }), row('pump form', ago(2), { tempo: 66 })];
    const forms = parts({ items, log: played, set: set(20), minutes: 25 }).filter(
      ({ kind }) => kind === 'form'
    );
    expect(forms[0]!.why).toMatch(/^Number 1 of 2/);
    expect(forms.some(({ why }) => why.includes('longest'))).toBe(false);
  });

  it('practises a tune that comes twice in the set once', () => {
    const twice = {
      day: dayAfter(DAY, 3),
      charts: [{ chart: 'cabin' }, { chart: 'pump' }, { chart: 'cabin' }]
    };
    const forms = parts({ items, log, set: twice, minutes: 40 }).filter(
      ({ item: id }) => id === 'cabin form'
    );
    expect(forms).toHaveLength(1);
  });

  it('weighs what is on the list double from thirty days before, the rest a quarter; before that nothing', () => {
    const short = (days: number) => parts({ items, log, set: set(days), minutes: 12 });
    expect(short(20).every(({ chart }) => chart === 'cabin' || chart === 'pump')).toBe(true);
    expect(parts({ items, log, set: set(31), minutes: 12 })).toEqual(parts({ items, log, minutes: 12 }));
  });

  it('still begins a tune that was taken up beside it, while the date is far', () => {
    const fresh = [...items, item('x', { chart: 'harbours' })];
    const begun = (days: number) =>
      parts({ items: fresh, log, set: set(days), minutes: 40 }).some(({ item: id }) => id === 'x');
    expect([begun(20), begun(8), begun(6)]).toEqual([true, true, false]);
    // A list of which nothing is practised drives nothing.
    const other = { day: dayAfter(DAY, 3), charts: [{ chart: 'elsewhere' }] };
    expect(parts({ items: fresh, log, set: other, minutes: 40 })).toEqual(
      parts({ items: fresh, log, minutes: 40 })
    );
  });

  it('leaves forms three fifths of the minutes at most while the date is far', () => {
    const many = Array.from({ length: 12 }, (_, i) => `t${i}`);
    const own = many.flatMap((chart) => [item(`${chart} up`, { chart }), form(`${chart} form`, chart)]);
    const played = own.map(({ id }) => row(id, ago(9), { tempo: 66 }));
    const wish = { day: dayAfter(DAY, 14), charts: many.map((chart) => ({ chart })) };
    const session = parts({ items: own, log: played, set: wish, minutes: 40 });
    const minutes = session
      .filter(({ kind }) => kind === 'form')
      .reduce((sum, part) => sum + part.minutes, 0);
    expect(minutes).toBeLessThanOrEqual(0.6 * 38 + 6);
  });

  it('tells for each tune an interval, wider the farther the day, and takes its tempo for the goal', () => {
    const { readiness } = plan({ items, log, set: set(14) });
    expect(readiness!.map(({ chart }) => chart)).toEqual(['cabin', 'pump']);
    for (const { low, middle, high } of readiness!) {
      expect(low).toBeLessThanOrEqual(middle);
      expect(middle).toBeLessThanOrEqual(high);
    }
    expect(readiness![0]!.high).toBeLessThanOrEqual(80);
    const width = (days: number) => {
      const [, pump] = plan({ items, log, set: set(days) }).readiness!;
      return pump!.high - pump!.low;
    };
    expect(width(20)).toBeGreaterThan(width(2));
  });
});

describe('four weeks ahead', () => {
  it('tell tunes, keys and how far, and what opens', () => {
    const items = tuneItems('pump', 'Eb', 120, 12);
    const weeks = aheadOf({ items, log: [], minutes: 25, day: DAY });
    expect(weeks.map(({ from }) => daysBetween(DAY, from))).toEqual([1, 8, 15, 22]);
    expect(weeks[0]!.tunes).toMatchObject([{ chart: 'pump' }]);
    expect(weeks[3]!.held).toBeGreaterThan(weeks[0]!.held);
    expect(weeks.flatMap(({ opens }) => opens).length).toBeGreaterThan(8);
    expect(weeks[0]!.keys[0]).toBe('Eb');
  });
});

/** A tune as it is proposed to be practised. */
function tuneItems(
  id: string,
  key: string,
  tempo: number,
  bars: number,
  sections = [{ from: 1, to: bars }]
): PracticeItem[] {
  const chart = {
    id,
    key,
    tempo,
    bars,
    sections,
    beats: 4,
    positions: [5, 3, 8],
    hasMelody: false,
    lines: []
  };
  return proposals(chart).map(({ area, ...one }) => ({
    ...one,
    chart: id,
    bars,
    sections,
    beats: 4,
    ...(area === null ? {} : { area })
  }));
}

describe('simulated players', () => {
  const eights = (bars: number) =>
    Array.from({ length: bars / 8 }, (_, i) => ({ from: i * 8 + 1, to: i * 8 + 8 }));
  /** Bars, goal, beats of a bar. */
  const FORMS = [
    [8, 96, 4],
    [12, 120, 4],
    [12, 144, 4],
    [16, 140, 4],
    [24, 150, 3],
    [32, 100, 4],
    [32, 160, 4],
    [32, 200, 4]
  ] as const;
  const FROM = '2026-03-02';

  /** Days until a form is held by five minutes a day. */
  function daysToHold([bars, goal, beats]: (typeof FORMS)[number], player: Player, seed: number): number {
    const sections = bars >= 24 ? eights(bars) : [];
    const only = form('f', 'tune', { bars, beats, sections, tempo: { start: Math.round(goal * 0.7), goal } });
    const { days } = practised({ items: [only], minutes: 5, from: FROM, days: 60, seed }, player);
    const held = days.find(({ held: own }) => own.length > 0);
    return held ? daysBetween(FROM, held.day) : 99;
  }
  const ninth = (days: readonly number[]) =>
    [...days].sort((a, b) => a - b)[Math.ceil(days.length * 0.9) - 1]!;
  const SEEDS = [1, 2, 3, 4, 5, 6, 7, 8, 9, 10];

  it.each(FORMS.map((one) => ({ one, name: one.join(' ') })))(
    'hold a form of $name by five minutes a day',
    ({ one }) => {
      const of = (player: Player) => ninth(SEEDS.map((seed) => daysToHold(one, player, seed)));
      expect(daysToHold(one, PLAYERS.faultless, 1)).toBeLessThanOrEqual(6);
      expect(of(PLAYERS.strong)).toBeLessThanOrEqual(9);
      expect(of(PLAYERS.average)).toBeLessThanOrEqual(28);
      expect(of(PLAYERS.irregular)).toBeLessThanOrEqual(45);
    }
  );

  const TUNES = [
    ...tuneItems('pump', 'Eb', 132, 12),
    ...tuneItems('lantern', 'Gm', 96, 16, eights(16)),
    ...tuneItems('cabin', 'Fm', 110, 8),
    ...tuneItems('harbours', 'Bb', 160, 32, eights(32))
  ];
  it.each([
    { name: 'strong', held: 40, apart: 3 },
    { name: 'average', held: 12, apart: 3 },
    { name: 'irregular', held: 7, apart: 5 }
  ] as const)('practise four tunes for sixty days of 25 minutes: $name', ({ name, held, apart }) => {
    const { days, log } = practised(
      { items: TUNES, minutes: 25, from: FROM, days: 60, seed: 2 },
      PLAYERS[name]
    );
    expect(days.at(-1)!.held.length).toBeGreaterThanOrEqual(held);
    const all = days.flatMap(({ session }) => session);
    const told = days.map(({ session }) =>
      JSON.stringify(session.map(({ item: id, bars, minutes, tempo }) => [id, bars, minutes, tempo]))
    );
    expect(new Set(told).size).toBe(days.length);
    const forms = days.filter(({ session }) => session.some(({ kind }) => kind === 'form'));
    const gaps = forms.slice(1).map(({ day }, i) => daysBetween(forms[i]!.day, day));
    expect(Math.max(...gaps)).toBeLessThanOrEqual(apart);
    const ofHeld = all.filter(({ kind }) => kind === 'held').reduce((sum, { minutes }) => sum + minutes, 0);
    expect(ofHeld / (25 * days.length)).toBeLessThanOrEqual(0.15);
    const seams = [...standingsOf(TUNES, log).values()].flatMap(seamsIn);
    expect(seams.length).toBeLessThanOrEqual(2);
    // Every tune that was taken up is begun by the day after the one before.
    const first = ['pump', 'lantern', 'cabin', 'harbours'].map((chart) =>
      days.findIndex(({ session }) => session.some((part) => part.chart === chart))
    );
    expect(first).toEqual([0, 1, 2, 3]);
  });

  it('are seldom slower on the day than the low end of what was foretold', () => {
    let [below, all] = [0, 0];
    for (const seed of [1, 2, 3, 4, 5, 6]) {
      for (const name of ['average', 'strong'] as const) {
        const ahead = 14;
        const date = dayAfter(FROM, 10 + ahead);
        const set = {
          day: date,
          charts: ['pump', 'lantern', 'cabin', 'harbours'].map((chart) => ({ chart }))
        };
        const { log } = practised(
          { items: TUNES, minutes: 25, set, from: FROM, days: 10 + ahead, seed },
          PLAYERS[name]
        );
        const before = log.filter(({ day }) => day < dayAfter(FROM, 10));
        const { readiness } = planSession({
          items: TUNES,
          log: before,
          minutes: 25,
          set,
          day: dayAfter(FROM, 10)
        });
        const progress = progressOf(TUNES, log, date);
        for (const { chart, low } of readiness!) {
          all += 1;
          const own = TUNES.find((one) => one.form && one.chart === chart)!;
          if ((progress.get(own.id)!.base ?? 0) < low) below += 1;
        }
      }
    }
    expect(below / all).toBeLessThanOrEqual(0.1);
  });
});
