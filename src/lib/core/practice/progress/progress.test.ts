import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dayAfter } from '../log/day';
import type { LogRow, PracticeItem } from '../log/model';
import { standingOf } from './fold';
import { heldTempo } from './held';
import { nowIn } from './live';
import { loopsOf, type Loop } from './loops';
import { progressOf } from './progress';
import { stepped, stepsUp } from './rungs';
import { isResting, ownMinutes, seamsIn, stepsOf, wholeTempo } from './turn';

const DAY = '2026-03-02';
const day = (n: number) => dayAfter(DAY, n);
const TEMPO = { start: 80, goal: 120 };
const ITEM: PracticeItem = { id: 'a', what: 'up', bars: 16, beats: 4, tempo: TEMPO };
const row = (on: string, tempo: number, clean: boolean | null, rounds = 1): LogRow => ({
  item: 'a',
  day: on,
  tempo,
  clean,
  rounds,
  seconds: 30
});
/** A row that tells its loops. */
const loops = (on: string, tempo: number, own: number[][], bars = { from: 1, to: 16 }): LogRow => ({
  ...row(on, tempo, own.flat().length === 0, own.length),
  bars,
  loops: own
});
const spotless = (on: string, tempo: number, count: number) =>
  loops(
    on,
    tempo,
    Array.from({ length: count }, () => [])
  );
const SHORT = 60;
const LONG = 600;
const next = (rows: readonly LogRow[], on: string, item = ITEM, seconds = LONG) =>
  wholeTempo(standingOf(item, rows), on, seconds);

describe('a rung', () => {
  it('is four per cent, two beats a minute at least, or as the item says', () => {
    expect([stepped(100, 1), stepped(30, 1), stepped(200, -1), stepped(100, 2, 10)]).toEqual([
      104, 32, 192, 121
    ]);
    expect([stepsUp(100, 108), stepsUp(100, 109), stepsUp(120, 80)]).toEqual([2, 3, 0]);
  });
});

describe('rows taken apart into loops', () => {
  const stumbles = (part: Partial<LogRow>, bars = 16) =>
    loopsOf({ ...row(DAY, 100, null), ...part }, bars).flatMap(({ loop, count }) =>
      Array.from({ length: count }, () => loop.stumbles)
    );
  it('read a mark as no stumble or as two, and nothing where nothing was said', () => {
    expect(stumbles({ clean: true, rounds: 2 })).toEqual([0, 0]);
    expect(stumbles({ clean: false, rounds: 2 })).toEqual([2, 2]);
    expect(stumbles({ clean: null, rounds: 2 })).toEqual([]);
  });
  it('take bars that are told before the mark, loop by loop', () => {
    expect(stumbles({ clean: false, loops: [[3], [], [3, 9]] })).toEqual([1, 0, 2]);
    // Told in one list, a bar that is no later than the one before begins another loop.
    expect(
      loopsOf({ ...row(DAY, 100, false), loops: 3, missed: [5, 9, 5] }, 16).map(({ loop }) => loop.at)
    ).toEqual([[5, 9], [5], []]);
  });
  it('know the whole by its length, and a part of it by its bars', () => {
    expect(loopsOf(loops(DAY, 100, [[]], { from: 1, to: 16 }), 16)[0]!.loop.bars).toBeNull();
    expect(loopsOf(loops(DAY, 100, [[]], { from: 9, to: 16 }), 16)[0]!.loop).toMatchObject({
      bars: { from: 9, to: 16 },
      length: 8
    });
  });
});

describe('the ladder within a day', () => {
  it('goes up a rung after a clean run: sixteen bars, in as many loops as that takes', () => {
    expect(next([spotless(DAY, 100, 1)], DAY)).toBe(104);
    const twelve = { ...ITEM, bars: 12 };
    expect(next([loops(DAY, 100, [[]], { from: 1, to: 12 })], DAY, twelve)).toBe(100);
    expect(next([loops(DAY, 100, [[], []], { from: 1, to: 12 })], DAY, twelve)).toBe(104);
  });
  it('forgives one stumble in each full sixteen bars', () => {
    expect(next([loops(DAY, 100, [[3]])], DAY)).toBe(104);
    expect(next([loops(DAY, 100, [[3, 7]])], DAY)).toBe(100);
    // Two loops of twelve bars are twenty-four: one stumble in them, not two.
    const twelve = { ...ITEM, bars: 12 };
    const bars = { from: 1, to: 12 };
    expect(next([loops(DAY, 100, [[3], []], bars)], DAY, twelve)).toBe(104);
    expect(next([loops(DAY, 100, [[3], [4]], bars)], DAY, twelve)).toBe(100);
    const long = { ...ITEM, bars: 32 };
    expect(next([loops(DAY, 100, [[3, 20]], { from: 1, to: 32 })], DAY, long)).toBe(104);
  });
  it('takes two rungs at once after three runs without a stumble', () => {
    const up = [100, 104].map((tempo) => spotless(DAY, tempo, 1));
    expect(next([...up, spotless(DAY, 108, 1)], DAY)).toBe(stepped(108, 2));
    expect(next([...up, loops(DAY, 108, [[4]])], DAY)).toBe(stepped(108, 1));
  });
  it('goes down a rung after two unclean runs, and no less for whoever plays on at that tempo', () => {
    const unclean = (count: number) => [
      loops(
        DAY,
        100,
        Array.from({ length: count }, () => [1, 2])
      )
    ];
    expect([1, 2, 3, 4].map((count) => next(unclean(count), DAY))).toEqual([100, 96, 96, 96]);
  });
  it('goes no further than the goal', () => {
    expect(next([spotless(DAY, 118, 1)], DAY)).toBe(120);
    expect(next([spotless(DAY, 120, 4)], DAY)).toBe(120);
  });
});

describe('the first loop of a day', () => {
  it('is the start where nothing was played', () => expect(next([], DAY)).toBe(80));
  it('is a rung under what was clean where there is time to warm up, else a rung over it', () => {
    const rows = [spotless(DAY, 100, 1)];
    expect(next(rows, day(1))).toBe(96);
    expect(next(rows, day(1), ITEM, SHORT)).toBe(104);
  });
  it('takes the best clean run of the last three days played, a rung less for each day since', () => {
    const rows = [spotless(DAY, 110, 1), loops(day(1), 104, [[1, 2]]), spotless(day(2), 90, 1)];
    // 110 less two rungs is 102, more than the 90 of yesterday.
    expect(next(rows, day(3), ITEM, SHORT)).toBe(stepped(stepped(110, -2), 1));
  });
  it('takes the fastest loop without a stumble where no run was clean', () => {
    const eight = { ...ITEM, bars: 8 };
    const bars = { from: 1, to: 8 };
    expect(next([loops(DAY, 90, [[]], bars), loops(DAY, 94, [[2]], bars)], day(1), eight, SHORT)).toBe(94);
  });
  it('comes back a rung lower for each four days away, four at most, and one clean loop climbs back', () => {
    const rows = [spotless(DAY, 110, 2)];
    expect([4, 9, 40].map((away) => next(rows, day(away)))).toEqual([
      stepped(110, -1),
      stepped(110, -2),
      stepped(110, -4)
    ]);
    const back = stepped(110, -1);
    const eight = { ...ITEM, bars: 8 };
    const own = [
      loops(DAY, 110, [[], []], { from: 1, to: 8 }),
      loops(day(4), back, [[]], { from: 1, to: 8 })
    ];
    expect(next(own, day(4), eight)).toBe(110);
  });
  it('counts what a clock set back has left in the future as today’s', () =>
    expect(next([spotless(day(5), 100, 1)], DAY)).toBe(104));
});

describe('the ladder as a law', () => {
  const anyRows = fc
    .array(
      fc.tuple(
        fc.integer({ min: 0, max: 4 }),
        fc.constantFrom(80, 90, 100),
        fc.array(fc.integer({ min: 0, max: 2 }), { minLength: 1, maxLength: 3 })
      ),
      { minLength: 1, maxLength: 8 }
    )
    .map((rows) => [...rows].sort((a, b) => a[0] - b[0]));
  const rowsOf = (rows: readonly (readonly [number, number, readonly number[]])[], bars: number) =>
    rows.map(([n, tempo, own]) =>
      loops(
        day(n),
        tempo,
        own.map((count) => Array.from({ length: count }, (_, i) => i + 1)),
        { from: 1, to: bars }
      )
    );

  it('never lowers the tempo for a loop that was cleaner', () =>
    fc.assert(
      fc.property(
        anyRows,
        fc.nat(),
        fc.constantFrom(8, 12, 16, 32),
        fc.integer({ min: 4, max: 8 }),
        (rows, at, bars, on) => {
          const item = { ...ITEM, bars };
          const index = at % rows.length;
          const better = rows.map((one, i) =>
            i === index ? ([one[0], one[1], one[2].map(() => 0)] as const) : one
          );
          const tempo = (own: Parameters<typeof rowsOf>[0]) => next(rowsOf(own, bars), day(on), item);
          expect(tempo(better)).toBeGreaterThanOrEqual(tempo(rows));
        }
      ),
      {
        numRuns: 400,
        // Played on at a tempo that had gone wrong twice.
        examples: [
          [
            [
              [4, 80, [2]],
              [4, 80, [2, 2]]
            ],
            0,
            16,
            4
          ]
        ]
      }
    ));

  it('always gains where nothing goes wrong: in every part, on every form, until the goal', () =>
    fc.assert(
      fc.property(
        fc.constantFrom(4, 8, 12, 16, 24, 32, 64),
        fc.integer({ min: 60, max: 240 }),
        fc.integer({ min: 3, max: 8 }),
        fc.integer({ min: 2, max: 5 }),
        (bars, goal, minutes, beats) => {
          const item: PracticeItem = { ...ITEM, bars, beats, tempo: { start: Math.round(goal * 0.7), goal } };
          const rows: LogRow[] = [];
          let best = 0;
          for (let n = 0; n < 12 && best < goal; n++) {
            const steps = stepsOf(standingOf(item, rows), day(n), minutes);
            const played: Loop[] = [];
            for (let seconds = 0; seconds < minutes * 60;) {
              const now = nowIn(steps, played, seconds)!;
              if (now.isDone) break;
              played.push({ bars: null, length: bars, tempo: now.tempo, stumbles: 0, at: [] });
              rows.push(loops(day(n), now.tempo, [[]], { from: 1, to: bars }));
              seconds += (bars * beats * 60) / now.tempo;
            }
            const reached = Math.max(...played.map(({ tempo }) => tempo));
            expect(reached, `day ${n}`).toBeGreaterThan(best);
            best = reached;
          }
        }
      ),
      { numRuns: 60 }
    ));
});

describe('progress', () => {
  const item = (id: string, after: string[] = []): PracticeItem => ({ ...ITEM, id, after });
  const of = (rows: readonly LogRow[], on: string, items = [item('a')]) => progressOf(items, rows, on);
  const state = (rows: readonly LogRow[], on: string) => of(rows, on).get('a')!.state;

  it('opens what stands on an item once that was clean at 85 % of its goal', () => {
    const items = [item('a'), item('b', ['a']), item('c', ['gone'])];
    const states = (...rows: LogRow[]) => [...of(rows, day(1), items).values()].map((one) => one.state);
    expect(states()).toEqual(['open', 'shut', 'open']);
    expect(states(spotless(DAY, 101, 1))).toEqual(['in progress', 'shut', 'open']);
    expect(states(spotless(DAY, 102, 1))).toEqual(['in progress', 'open', 'open']);
    expect(of([spotless(DAY, 102, 1)], day(1), items).get('b')!.openSince).toBe(DAY);
  });

  it('holds what was clean at the goal on two days, each no less often than not', () => {
    const good = (n: number) => spotless(day(n), 120, 1);
    expect(state([good(0)], day(1))).toBe('in progress');
    expect(state([good(0), good(1)], day(1))).toBe('held');
    const mixed = loops(day(1), 120, [[], [1, 2], [1, 2]]);
    expect(state([good(0), mixed], day(2))).toBe('in progress');
    // A section at the goal is not the whole.
    const part = loops(day(1), 120, [[], []], { from: 9, to: 16 });
    expect(state([good(0), part], day(2))).toBe('in progress');
  });

  it('asks what is held again after 3, 6, 12 and 24 days; failed, it is in progress', () => {
    const rows = [spotless(DAY, 120, 1), spotless(day(1), 120, 1)];
    const asked: number[] = [];
    for (let n = 0; n < 5; n++) {
      const { askOn } = of(rows, day(100)).get('a')!;
      asked.push((Date.parse(askOn!) - Date.parse(rows.at(-1)!.day)) / 86_400_000);
      rows.push(spotless(askOn!, 120, 1));
    }
    expect(asked).toEqual([3, 6, 12, 24, 24]);
    rows.push(loops(day(120), 120, [[1, 2]]));
    expect(state(rows, day(121))).toBe('in progress');
  });

  it('holds a tempo that was clean on two days, in whatever order the rows stand', () => {
    const clean = (on: string, tempo: number) => row(on, tempo, true);
    expect(heldTempo([clean(DAY, 100), clean(DAY, 120)])).toBe(null);
    expect(heldTempo([clean(day(1), 120), clean(DAY, 100), row(day(2), 130, false)])).toBe(100);
  });

  it('sees a plateau after six days without a new best, lets it rest after twelve, and then begins to count again', () => {
    const days = (count: number) => Array.from({ length: count }, (_, n) => spotless(day(n), 100, 1));
    const standing = (count: number) => standingOf(ITEM, days(count));
    expect(of(days(6), day(6)).get('a')!.isFlat).toBe(false);
    expect(of(days(7), day(7)).get('a')!.isFlat).toBe(true);
    // Clean at the goal once nothing faster is asked for: no plateau, however long the second day takes.
    const atGoal = [
      spotless(DAY, 120, 1),
      ...Array.from({ length: 14 }, (_, n) => loops(day(n + 1), 120, [[1, 2]]))
    ];
    expect(of(atGoal, day(15)).get('a')).toMatchObject({ isFlat: false, isResting: false });
    // Half of the time goes to four bars of it, there being no sections.
    const stumbling = [...days(7), loops(day(7), 100, [[6], [7]])];
    expect(stepsOf(standingOf(ITEM, stumbling), day(8), 6)).toMatchObject([
      { bars: { from: 5, to: 8 }, minutes: 3 },
      { minutes: 3 }
    ]);
    expect(isResting(standing(13), day(13))).toBe(true);
    expect(isResting(standing(13), day(18))).toBe(false);
    expect(standingOf(ITEM, [...days(13), spotless(day(19), 100, 1), spotless(day(20), 100, 1)]).flat).toBe(
      1
    );
    // What stands on something that rests is not held up by it.
    const items = [{ ...item('a'), tempo: { start: 80, goal: 200 } }, item('b', ['a'])];
    expect(of(days(13), day(14), items).get('b')!.isOpen).toBe(true);
  });
});

describe('a seam', () => {
  /** Passes of bar 9 over some days, two loops a day, going wrong in those that are named. */
  const passes = (wrong: readonly number[], count: number, tempo = 100) =>
    Array.from({ length: count }, (_, i) =>
      loops(day(Math.floor(i / 2)), tempo, [wrong.includes(i) ? [9] : []])
    );
  const seams = (rows: readonly LogRow[]) => seamsIn(standingOf(ITEM, rows));

  it('opens at four stumbles in sixteen passes of one bar, on two days', () => {
    expect(seams(passes([0, 2, 4], 8))).toEqual([]);
    expect(seams(passes([0, 2, 4, 6], 8))).toMatchObject([
      { bar: 9, tempo: 100, start: 80, loop: { from: 8, to: 9 }, stumbles: 4 }
    ]);
    // Too far apart: never four in sixteen.
    expect(seams(passes([0, 8, 16, 24], 26))).toEqual([]);
    const oneDay = loops(DAY, 100, [[9], [9], [9], [9]]);
    expect(seams([oneDay])).toEqual([]);
  });
  it('stands out of the other bars: where all of it goes wrong there is none', () => {
    const all = Array.from({ length: 6 }, (_, i) => loops(day(i), 100, [[2, 5, 9, 13]]));
    expect(seams(all)).not.toEqual([]);
    const most = Array.from({ length: 6 }, (_, i) => loops(day(i), 100, [[1, 2, 3, 5, 6, 7, 9, 10, 13]]));
    expect(seams(most)).toEqual([]);
  });
  it('heals by eight clean passes near its tempo, alone or in the form, and is quiet for five days', () => {
    const open = passes([0, 2, 4, 6], 7);
    const alone = (n: number, tempo: number, count: number) =>
      loops(
        day(n),
        tempo,
        Array.from({ length: count }, () => []),
        { from: 8, to: 9 }
      );
    expect(seams([...open, alone(5, 92, 7)])).toHaveLength(1);
    expect(seams([...open, alone(5, 91, 20)])).toHaveLength(1);
    expect(seams([...open, alone(5, 92, 8)])).toEqual([]);
    expect(seams([...open, alone(5, 95, 4), spotless(day(6), 92, 4)])).toEqual([]);
    // Forty-three clean rounds later nothing brings it back.
    expect(seams([...open, alone(5, 95, 43)])).toEqual([]);
    const again = [10, 11].map((n) => loops(day(n), 100, [[9], [9], [9]]));
    expect(
      seams([...open, alone(5, 95, 8), ...again.map((one, i) => ({ ...one, day: day(6 + i) }))])
    ).toEqual([]);
    expect(
      seams([...open, alone(5, 95, 8), ...again.map((one, i) => ({ ...one, day: day(11 + i) }))])
    ).toHaveLength(1);
  });
});

describe('a part of a session', () => {
  const LONG_FORM: PracticeItem = {
    ...ITEM,
    bars: 32,
    sections: [1, 9, 17, 25].map((from) => ({ from, to: from + 7 }))
  };
  const whole = { from: 1, to: 32 };
  it('is the whole where nothing goes wrong', () =>
    expect(stepsOf(standingOf(LONG_FORM, [loops(DAY, 100, [[]], whole)]), day(1), 8)).toHaveLength(1));
  it('is whole, section, whole where a long form stumbles: the section that went wrong most, a rung slower', () => {
    const rows = [loops(DAY, 100, [[3], [18, 20], [19]], whole)];
    const steps = stepsOf(standingOf(LONG_FORM, rows), day(1), 6);
    expect(steps.map(({ bars }) => bars)).toEqual([undefined, { from: 17, to: 24 }, undefined]);
    expect(steps[1]!.tempo).toBe(stepped(steps[0]!.tempo, -1));
    expect(steps[1]!.goal).toBe(stepped(steps[0]!.tempo, 4));
  });
  it('begins with a section where the whole takes over half of it, and never leaves the whole out twice', () => {
    const slow = { ...LONG_FORM, bars: 64, sections: LONG_FORM.sections };
    expect(stepsOf(standingOf(slow, []), DAY, 5)[0]).toMatchObject({ bars: { from: 1, to: 8 } });
    const rows = [loops(DAY, 79, [[]], { from: 1, to: 8 })];
    expect(stepsOf(standingOf(slow, rows), day(1), 5)).toHaveLength(1);
  });
  it('has minutes for two and a half to six loops, three to eight', () => {
    const minutes = (bars: number, own?: number) =>
      ownMinutes(standingOf({ ...ITEM, bars, minutes: own }, []), DAY);
    // At 80 a bar lasts three seconds.
    expect([minutes(8, 5), minutes(16, 5), minutes(40), minutes(80)]).toEqual([3, 5, 5, 8]);
  });
  it('goes on at the stand by the marks, from step to step, and ends with a clean run at the goal', () => {
    const steps = [
      { minutes: 1, tempo: 112, base: 112, goal: 120 },
      { minutes: 1, bars: { from: 5, to: 8 }, tempo: 108, base: null, goal: 120 }
    ];
    const loop = (tempo: number, stumbles = 0): Loop => ({ bars: null, length: 16, tempo, stumbles, at: [] });
    expect(nowIn(steps, [], 0)).toMatchObject({ at: 0, bars: null, tempo: 112, isDone: false });
    expect(nowIn(steps, [loop(112)], 30)).toMatchObject({ tempo: 116 });
    expect(nowIn(steps, [loop(112)], 70)).toMatchObject({ at: 1, bars: { from: 5, to: 8 }, tempo: 108 });
    expect(nowIn(steps, [loop(112), loop(120)], 30)!.isDone).toBe(true);
    expect(nowIn(steps, [], 900)!.at).toBe(1);
  });
  it('goes on to the whole once its section is where it is to be: that alone ends nothing', () => {
    const section = { from: 5, to: 8 };
    const steps = [
      { minutes: 2, bars: section, tempo: 96, base: null, goal: 100 },
      { minutes: 2, tempo: 96, base: 96, goal: 100 }
    ];
    const clean = (bars: typeof section | null, length: number, tempo: number): Loop => ({
      bars,
      length,
      tempo,
      stumbles: 0,
      at: []
    });
    const four = Array.from({ length: 4 }, () => clean(section, 4, 100));
    expect(nowIn(steps, four.slice(1), 30)).toMatchObject({ at: 0, isDone: false });
    expect(nowIn(steps, four, 30)).toMatchObject({ at: 1, bars: null, tempo: 96, isDone: false });
    expect(nowIn(steps, [...four, clean(null, 16, 100)], 60)).toMatchObject({ at: 1, isDone: true });
    // A seam is all that there is of its part.
    expect(nowIn(steps.slice(0, 1), four, 30)!.isDone).toBe(true);
  });
});
