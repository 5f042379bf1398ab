import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readSheet } from '../harmony/sheet';
import type { Chord } from '../theory/chord';
import { DEGREES } from '../theory/degree';
import { pitchClass } from '../theory/note';
import { STANDARD } from '../neck/tuning';
import type { Candidate } from './candidates';
import { figuresOf, priceOf } from './figures';
import { DEFAULT_WEIGHTS, DIRECTIONS, FREE_PATH, type TargetOptions } from './options';
import { findTargets } from './path';

const targets = (text: string, options: Partial<TargetOptions> = {}) =>
  findTargets(readSheet(text).analysis, { ...FREE_PATH, ...options });

const SYMBOLS = ['Cm7', 'F7', 'Bbmaj7', 'Ebmaj7', 'Am7b5', 'D7b9', 'Gm6', 'Dbdim7', 'Ab13', 'Esus4'] as const;

/** Whether a path keeps the rules, said once more in the plainest way. */
function isAllowed(path: readonly Candidate[], changes: readonly number[], options: TargetOptions): boolean {
  const half = (path.length - 1) / 2;
  return path.slice(1).every((to, i) => {
    const from = path[i]!;
    const way = options.direction === 'arch' ? (i + 1 <= half ? 'rising' : 'falling') : options.direction;
    if (way === 'rising' && to.midi < from.midi) return false;
    if (way === 'falling' && to.midi > from.midi) return false;
    const isStrict = options.direction === 'rising' || options.direction === 'falling';
    const alternates = options.alternate && options.column === null;
    if ((isStrict || alternates) && to.midi === from.midi) return false;
    if (changes[i] === changes[i + 1] && to.midi === from.midi) return false;
    return !options.alternate || options.column !== null || from.slot !== to.slot;
  });
}

/** Whether another 3 or 7 moves by a step where this pitch stands still, said once more in the plainest way. */
function isIdle(midi: number, from: Chord, to: Chord): boolean {
  const guides = (chord: Chord) =>
    chord.tones
      .map((tone, i) => [DEGREES[tone].slot, chord.pitchClasses[i]!] as const)
      .filter(([slot, pc]) => (slot === '3' || slot === '7') && pc !== midi % 12)
      .map(([, pc]) => pc);
  return guides(from).some((a) =>
    guides(to).some((b) => {
      const apart = Math.abs(a - b);
      return apart === 1 || apart === 2 || apart === 10 || apart === 11;
    })
  );
}

/** The formula of the rules, where a place on the neck is given. */
function costOf(
  path: readonly Candidate[],
  chords: readonly Chord[],
  { weights, loop }: TargetOptions
): number {
  const step = (from: Candidate, to: Candidate, a: Chord, b: Chord) =>
    weights.pitch * Math.abs(to.midi - from.midi) +
    weights.hand * Math.max(0, Math.abs(to.fret - from.fret) - 3) +
    weights.string * Math.abs(to.string - from.string) +
    (to.midi === from.midi ? weights.repeat + (isIdle(to.midi, a, b) ? weights.held : 0) : 0);
  const inside = path
    .slice(1)
    .reduce((sum, to, i) => sum + step(path[i]!, to, chords[i]!, chords[i + 1]!), 0);
  const degrees = path.reduce((sum, { slot }) => sum + weights.degree[slot], 0);
  return degrees + inside + (loop ? step(path.at(-1)!, path[0]!, chords.at(-1)!, chords[0]!) : 0);
}

function everyWay<T>(stages: readonly (readonly T[])[]): T[][] {
  return stages.reduce<T[][]>(
    (ways, stage) => ways.flatMap((way) => stage.map((one) => [...way, one])),
    [[]]
  );
}

const someOptions: fc.Arbitrary<Partial<TargetOptions>> = fc.record({
  degrees: fc.constantFrom<TargetOptions['degrees']>(['3'], ['3', '7'], ['1', '3', '5', '7'], ['3', '9']),
  column: fc.constantFrom<TargetOptions['column']>(null, null, '3', '5'),
  alternate: fc.boolean(),
  standIn: fc.constant(true),
  direction: fc.constantFrom(...DIRECTIONS),
  loop: fc.boolean(),
  position: fc.constantFrom<TargetOptions['position']>(3, 7, [3, 5, 7, 8, 10]),
  strings: fc.constantFrom<TargetOptions['strings']>(null, [1, 2, 3], [2, 4]),
  range: fc.constantFrom<TargetOptions['range']>(null, { low: 55, high: 70 }),
  avoid: fc.constantFrom<TargetOptions['avoid']>([], [{ low: 60, high: 62 }]),
  every: fc.constantFrom<TargetOptions['every']>(null, null, 2),
  weights: fc.constantFrom(DEFAULT_WEIGHTS, {
    degree: { '1': 3, '3': 0, '5': 0.5, '7': 1, tension: 4 },
    pitch: 0.5,
    hand: 0,
    string: 1,
    repeat: 2,
    held: 3,
    register: 1,
    low: 1
  }),
  alternatives: fc.constantFrom(1, 4)
});

describe('every option together', () => {
  it('equals brute force on small charts', () => {
    let solved = 0;
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom(...SYMBOLS), { minLength: 1, maxLength: 4 }),
        someOptions,
        (chords, partial) => {
          const options = { ...FREE_PATH, ...partial };
          const { analysis } = readSheet(`| ${chords.join(' | ')} |`);
          const { paths, stages } = findTargets(analysis, options);
          const ways = stages.reduce((n, { candidates }) => n * candidates.length, 1);
          if (ways > 60_000) return;
          const changes = stages.map(({ change }) => change.index);
          const costs = everyWay(stages.map(({ candidates }) => candidates))
            .filter((path) => isAllowed(path, changes, options))
            .map((path) =>
              costOf(
                path,
                stages.map(({ change }) => change.chord),
                options
              )
            )
            .sort((a, b) => a - b)
            .slice(0, options.alternatives);
          expect(paths).toHaveLength(costs.length);
          paths.forEach(({ cost, parts }, i) => {
            expect(cost).toBeCloseTo(costs[i]!, 6);
            expect(Object.values(parts).reduce((a, b) => a + b)).toBeCloseTo(cost, 6);
          });
          if (paths.length) solved++;
        }
      ),
      { numRuns: 400 }
    );
    expect(solved).toBeGreaterThan(100);
  });

  it('never gets cheaper by one more rule', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom(...SYMBOLS), { minLength: 2, maxLength: 8 }),
        fc.integer({ min: 2, max: 9 }),
        fc.constantFrom<Partial<TargetOptions>>(
          { direction: 'rising' },
          { direction: 'arch' },
          { strings: [2, 3] },
          { range: { low: 55, high: 66 } },
          { avoid: [{ low: 58, high: 61 }] },
          { alternate: true, degrees: ['3', '7'] },
          { column: '3' }
        ),
        (chords, position, rule) => {
          const text = `| ${chords.join(' | ')} |`;
          // In an alternation the 6 of a sixth chord stands in for its seventh, which no other rule gives it.
          const standIn = !rule.alternate;
          const free = targets(text, { position, standIn }).paths[0]!;
          const bound = targets(text, { position, standIn, ...rule }).paths[0];
          if (bound) expect(bound.cost).toBeGreaterThanOrEqual(free.cost - 1e-9);
        }
      ),
      { numRuns: 100 }
    );
  });

  it('steps alike an octave higher', () => {
    for (const text of ['| Fm7 | Bb7 | Ebmaj7 |', '| Gm7 | C7b9 | Fm6 |']) {
      const [low, high] = [2, 14].map(
        (position) => targets(text, { position, degrees: ['3', '7'], standIn: true }).paths[0]!
      );
      expect(high!.cost).toBe(low!.cost);
      expect(high!.targets.map(({ cell }) => cell.midi - 12)).toEqual(
        low!.targets.map(({ cell }) => cell.midi)
      );
    }
  });

  it('transposes with the chords', () => {
    const at = (text: string, position: number) =>
      targets(text, { position, degrees: ['3', '7'] }).paths[0]!.targets.map(({ cell }) => [
        cell.string,
        cell.fret - position,
        cell.degree
      ]);
    expect(at('| Ebm7 | Ab7 | Dbmaj7 |', 6)).toEqual(at('| Dm7 | G7 | Cmaj7 |', 5));
  });
});

describe('moments inside a change', () => {
  it('get a target of their own, on another tone', () => {
    const { paths } = targets('| Fm7 | Bb7 Eb7 |', { every: 2, position: 6 });
    const moments = paths[0]!.targets.map(({ change, beat }) => `${change}:${beat}`);
    expect(moments).toEqual(['0:1', '0:3', '1:1', '2:1']);
    const [first, second] = paths[0]!.targets;
    expect(second!.cell.midi).not.toBe(first!.cell.midi);
    expect(second!.step).not.toBeNull();
  });

  it('can be fixed by their beat', () => {
    const fixed = [{ change: 0, beat: 3, string: 3, fret: 5 }];
    const { paths } = targets('| Fm7 | Bb7 |', { every: 2, position: 5, fixed });
    expect(paths[0]!.targets[1]).toMatchObject({
      beat: 3,
      isFixed: true,
      cell: { string: 3, fret: 5, note: 'C' }
    });
  });
});

describe('the shape of a line', () => {
  it('arches: up to the middle, then down', () => {
    const { paths } = targets('| Cm7 | F7 | Bbmaj7 | Ebmaj7 | Am7b5 | D7 | Gm6 |', {
      direction: 'arch',
      window: { from: 3, to: 10 }
    });
    const steps = paths[0]!.targets.slice(1).map(({ step }) => step!.semitones);
    expect(steps.slice(0, 3).every((step) => step >= 0)).toBe(true);
    expect(steps.slice(3).every((step) => step <= 0)).toBe(true);
  });

  it('keeps out of registers', () => {
    const avoid = [{ low: 60, high: 71 }];
    const { stages } = targets('| Cm7 | F7 |', { avoid });
    const midis = stages.flatMap(({ candidates }) => candidates.map(({ midi }) => midi));
    expect(midis.some((midi) => midi < 60)).toBe(true);
    expect(midis.some((midi) => midi >= 60 && midi <= 71)).toBe(false);
  });

  it('travels with the hand, and leaves changes alone that are not named', () => {
    const { paths } = targets('| Cm7 | F7 | Bbmaj7 |', { position: [3, 8, 12], which: { only: [0, 2] } });
    expect(paths[0]!.targets.map(({ change }) => change)).toEqual([0, 2]);
    expect(paths[0]!.targets[1]!.cell.fret).toBeGreaterThanOrEqual(11);
  });
});

describe('where there is no path', () => {
  const said = (text: string, options: Partial<TargetOptions>) => targets(text, options).noPath!.message;

  it('tells the smallest loosening that gives the whole chart one', () => {
    expect(
      said('| Dm7 | G7 | Cmaj7 |', { window: { from: 3, to: 4 }, strings: [6], degrees: ['3'] })
    ).toMatch(/in bar \d: .*(widen the window to frets|allow string 5 too)/);
    expect(said('| Cm7 | F7 |', { range: { low: 40, high: 41 }, degrees: ['7'] })).toMatch(
      /widen the range to/
    );
    expect(said('| Cm7 |', { avoid: [{ low: 0, high: 127 }] })).toMatch(/allow the notes from/);
    const rising = said('| Cm7 | F7 | Bbmaj7 | G7 | Cm7 | F7 | Bbmaj7 | G7 |', {
      direction: 'rising',
      strings: [1, 2],
      window: { from: 3, to: 8 },
      degrees: ['3', '7']
    });
    expect(rising).toMatch(/a rising line runs out of notes here; .+/);
  });

  it('what it proposes does give one', () => {
    const text = '| Cm7 | F7 | Bbmaj7 | Ebmaj7 |';
    const options = { strings: [6], window: { from: 5, to: 8 }, degrees: ['3'] as const };
    const message = said(text, options);
    const wider = /frets (\d+) to (\d+)/.exec(message);
    const string = /allow string (\d) too/.exec(message);
    const eased = wider
      ? { ...options, window: { from: Number(wider[1]), to: Number(wider[2]) } }
      : { ...options, strings: [6, Number(string![1])] };
    expect(targets(text, eased).paths).toHaveLength(1);
  });

  it('allows another string where nothing smaller helps, the nearest that does', () => {
    // Each root a seventh above the last: string 6 ends before the third, and string 5 would too.
    const roots = { degrees: ['1'] as const, direction: 'rising' as const, strings: [6] };
    expect(said('| C | B | Bb |', roots)).toMatch(/allow string 4 too/);
    expect(targets('| C | B | Bb |', { ...roots, strings: [6, 5] }).paths).toHaveLength(0);
    expect(targets('| C | B | Bb |', { ...roots, strings: [6, 4] }).paths).toHaveLength(1);
  });

  it('names the fixed target that is in the way', () => {
    const fixed = [{ change: 0, string: 1, fret: 20 }];
    expect(said('| Cm7 | F7 | Bbmaj7 |', { fixed, direction: 'rising', window: { from: 0, to: 5 } })).toMatch(
      /let the fixed target of Cm7 in bar 1 go/
    );
  });
});

describe('numbers and prices', () => {
  it('count what the path does', () => {
    const { paths } = targets('| Fm7 | Bb7 | Ebmaj7 |', { degrees: ['3', '7'], position: 8 });
    expect(figuresOf(paths[0]!)).toEqual({
      targets: 3,
      semitones: 1,
      shifts: 0,
      longest: 1,
      held: 1,
      guideTones: 3
    });
  });

  it('say what another path costs in words', () => {
    const best = { targets: 4, semitones: 3, shifts: 1, longest: 2, held: 1, guideTones: 4 };
    expect(priceOf(best, { ...best, semitones: 4, shifts: 0 })).toBe(
      'one semitone more in all, but one shift of the hand fewer'
    );
    expect(priceOf(best, { ...best, semitones: 5, guideTones: 2 })).toBe(
      'two semitones more in all, two fewer on a 3 or 7'
    );
    expect(priceOf(best, { ...best, held: 2 })).toBe('one more held');
    expect(priceOf(best, best)).toMatch(/elsewhere/);
    expect(priceOf(best, { ...best, longest: 3 })).toMatch(/longest step of 3/);
    expect(priceOf(best, { ...best, semitones: 40 })).toBe('37 semitones more in all');
  });
});

it('lands where the notes are', () => {
  const { paths } = targets('| Abm7 | Db7 | Gbmaj7 |', { position: 4, every: 2 });
  for (const { cell } of paths[0]!.targets) {
    expect(STANDARD.strings[cell.string - 1]! + cell.fret).toBe(cell.midi);
    expect(pitchClass(cell.note)).toBe(cell.midi % 12);
    expect(DEGREES[cell.degree]).toBeDefined();
  }
});
