import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readSheet } from '../harmony/sheet';
import { readInstrument } from '../neck/tuning';
import { allowedDegrees } from './candidates';
import { DEFAULT_WEIGHTS, FREE_PATH, type TargetOptions } from './options';
import { findTargets } from './path';
import { solvePaths, stepTable, type PathProblem } from './solve';

const targets = (text: string, options: Partial<TargetOptions> = {}) =>
  findTargets(readSheet(text).analysis, { ...FREE_PATH, ...options });
const degrees = (answer: ReturnType<typeof targets>) =>
  answer.paths[0]!.targets.map((t) => t.cell.degree).join(' ');

/** Every way through a problem, cheapest first. */
function bruteForce({ nodes, steps, close, k }: PathProblem): number[] {
  let partial = nodes[0]!.map((cost, i) => ({ cost, choice: [i] }));
  for (let stage = 1; stage < nodes.length; stage++) {
    partial = partial.flatMap(({ cost, choice }) =>
      nodes[stage]!.map((own, i) => ({
        cost: cost + own + steps[stage - 1]![choice.at(-1)! * nodes[stage]!.length + i]!,
        choice: [...choice, i]
      }))
    );
  }
  return partial
    .map(({ cost, choice }) => cost + (close ? close(choice.at(-1)!, choice[0]!) : 0))
    .filter((cost) => cost < Infinity)
    .sort((a, b) => a - b)
    .slice(0, k);
}

describe('solvePaths', () => {
  const problem = fc
    .record({
      sizes: fc.array(fc.integer({ min: 1, max: 4 }), { minLength: 1, maxLength: 5 }),
      costs: fc.array(fc.integer({ min: 0, max: 9 }), { minLength: 100, maxLength: 100 }),
      loop: fc.boolean(),
      barred: fc.integer({ min: 0, max: 30 }),
      k: fc.integer({ min: 1, max: 5 })
    })
    .map(({ sizes, costs, loop, barred, k }): PathProblem => {
      const pick = (...at: number[]) => costs[at.reduce((sum, n) => (sum * 7 + n) % 97, 3)]!;
      return {
        nodes: sizes.map((size, stage) => Array.from({ length: size }, (_, i) => pick(stage, i) / 2)),
        steps: sizes
          .slice(1)
          .map((to, stage) =>
            stepTable(sizes[stage]!, to, (a, b) =>
              (stage * 5 + a * 3 + b) % 31 === barred ? Infinity : pick(stage, a, b, 1)
            )
          ),
        close: loop ? (a, b) => pick(a, b, 2) : null,
        k
      };
    });

  it('equals brute force, k best paths and loops included', () => {
    fc.assert(
      fc.property(problem, (p) => {
        const { paths } = solvePaths(p);
        expect(paths.map((path) => path.cost)).toEqual(bruteForce(p));
        expect(new Set(paths.map((path) => path.choice.join())).size).toBe(paths.length);
      }),
      { numRuns: 600 }
    );
  });

  it('says where it is stuck', () => {
    expect(
      solvePaths({
        nodes: [[0], [0], [0]],
        steps: [Float64Array.of(0), Float64Array.of(Infinity)],
        close: null,
        k: 1
      })
    ).toEqual({
      paths: [],
      stuckAt: 2
    });
  });
});

describe('target paths', () => {
  it('runs through thirds and sevenths by hand', () => {
    const answer = targets('| Fm7 | Bb7 | Ebmaj7 |', { degrees: ['3', '7'], position: 8 });
    // Ab stays as the 7 of Bb7, which is charged as Eb would fall to D, and falls to G, the 3 of Ebmaj7.
    expect(degrees(answer)).toBe('b3 b7 3');
    expect(answer.paths[0]!.targets.map((t) => t.step?.semitones ?? null)).toEqual([null, 0, -1]);
    expect(answer.paths[0]).toMatchObject({
      cost: 2.75,
      parts: { degree: 0.5, pitch: 1, hand: 0, string: 0, repeat: 0, held: 1.25, register: 0, low: 0 }
    });
  });

  it('breaks ties towards the middle of the neck, and by the 3 and 7', () => {
    const free = {
      pitch: 0,
      hand: 0,
      string: 0,
      repeat: 0,
      degree: { '1': 0, '3': 0, '5': 0, '7': 0, tension: 0 }
    };
    const weights = { ...DEFAULT_WEIGHTS, ...free };
    const { targets: found, cost } = targets('| Ebmaj7 |', { degrees: ['1', '3', '5'], weights }).paths[0]!;
    expect(found[0]!.cell.degree).toBe('3');
    expect(Math.abs(found[0]!.cell.fret - 11)).toBeLessThanOrEqual(5);
    expect(cost).toBe(0);
  });

  it('charges degree, pitch, hand, string and repeat as the rules say', () => {
    const fixed = [
      { change: 0, string: 1, fret: 1 },
      { change: 1, string: 3, fret: 7 }
    ];
    const { paths } = targets('| F | D |', { fixed, weights: { ...DEFAULT_WEIGHTS, repeat: 1 } });
    // F (1) at 65 to D (1) at 62: 3 semitones, 6 frets (3 beyond the hand), 2 strings.
    expect(paths[0]!.parts).toEqual({
      degree: 2,
      pitch: 3,
      hand: 6,
      string: 0.5,
      repeat: 0,
      held: 0,
      register: 0,
      low: 0
    });
    expect(paths[0]!.targets[1]!.step).toEqual({ semitones: -3, frets: 6, strings: 2 });
  });

  it.each([
    ['| Dm7 | G7 | Dm7 | G7 |', 'C B C B'],
    ['| Dbm7 | Gb7 | Dbm7 | Gb7 |', 'Cb Bb Cb Bb'],
    ['| Am7b5 | D7b9 | Am7b5 | D7b9 |', 'G F# G F#']
  ])('moves where the other guide tone would: %s', (text, notes) => {
    const found = targets(text, { degrees: ['3', '7'], loop: true }).paths[0]!;
    expect(found.targets.map(({ cell }) => cell.note).join(' ')).toBe(notes);
  });

  it('stays in the solo register where no place is named, and where one is, goes where that is', () => {
    for (const text of [
      '| Ebm7 | Ab7 | Dbmaj7 | Gbmaj7 |',
      '| E7 | A7 | B7 | E7 |',
      '| Cm7 | Fm7 | G7alt | Cm7 |'
    ]) {
      for (const { cell } of targets(text, { degrees: ['3', '7'], loop: true }).paths[0]!.targets) {
        expect(cell.midi).toBeGreaterThanOrEqual(55);
        expect(cell.midi).toBeLessThanOrEqual(76);
        expect(cell.string).toBeLessThanOrEqual(4);
      }
      const low = targets(text, { degrees: ['3', '7'], range: { low: 40, high: 52 } }).paths[0]!;
      expect(low.parts).toMatchObject({ register: 0, low: 0 });
    }
  });

  it.each(['rising', 'falling'] as const)('%s keeps its word, or says where it cannot', (direction) => {
    for (const text of ['| Fm7 | Bb7 | Ebmaj7 |', '| Dm7 | G7 | Cmaj7 | A7 | Dm7 | G7 |']) {
      const { paths, noPath } = targets(text, { direction });
      const line = paths[0]!.targets.map(({ cell }) => cell.midi);
      const ways = line.slice(1).map((midi, i) => Math.sign(midi - line[i]!));
      expect(new Set(ways)).toEqual(new Set([direction === 'rising' ? 1 : -1]));
      expect(noPath).toBeUndefined();
    }
    const long = targets(`${'| Dm7 | G7 | Cmaj7 | A7 '.repeat(12)}|`, { direction, position: 5 });
    expect(long.paths).toEqual([]);
    expect(long.noPath!.message).toContain(`a ${direction} line runs out of notes here`);
  });

  it('alternates by moving, never by giving one pitch another name', () => {
    const line = targets('| Dm7 | G7 | Cmaj7 | Fmaj7 | Bm7b5 | E7 | Am7 | A7 |', { alternate: true })
      .paths[0]!;
    line.targets.slice(1).forEach(({ cell, step }, i) => {
      expect(step!.semitones).not.toBe(0);
      expect(cell.slot).not.toBe(line.targets[i]!.cell.slot);
    });
  });

  it.each(['| % |', '| N.C. |', ''])('says that %j has nothing to land on, in a loop too', (text) => {
    for (const loop of [true, false]) expect(targets(text, { loop }).noPath).toBeDefined();
  });

  it('counts the step that closes a loop', () => {
    const open = targets('| Gm7 | C7 | Am7 | D7 |', { position: 5 }).paths[0]!;
    const loop = targets('| Gm7 | C7 | Am7 | D7 |', { position: 5, loop: true }).paths[0]!;
    expect(loop.cost).toBeGreaterThanOrEqual(open.cost);
    expect(loop.targets[0]!.step).not.toBeNull();
  });

  it('keeps one degree in a column and alternates where asked', () => {
    expect(degrees(targets('| Em7b5 | A7 | Dm(maj7) |', { column: '7' }))).toBe('b7 b7 7');
    expect(degrees(targets('| Cm7 | F7 | Bbmaj7 | Ebmaj7 |', { alternate: true }))).toMatch(
      /^(b?3 b?7 b?3 b?7|b?7 b?3 b?7 b?3)$/
    );
  });

  it('lets a line rise or fall only', () => {
    const text = '| Cm7 | F7 | Bbmaj7 | G7 |';
    const moves = (direction: 'rising' | 'falling') =>
      targets(text, { direction, position: 3 }).paths[0]!.targets.flatMap((t) =>
        t.step ? [t.step.semitones] : []
      );
    expect(moves('rising').every((m) => m >= 0)).toBe(true);
    expect(moves('falling').every((m) => m <= 0)).toBe(true);
  });

  it('targets the changes asked for', () => {
    const text = '{key: C}\n| C Am | Dm7 G7 | C | % |';
    const at = (which: TargetOptions['which']) =>
      targets(text, { which }).paths[0]!.targets.map((t) => t.change);
    expect(at('first-of-bar')).toEqual([0, 2, 4, 5]);
    expect(at('cadences')).toContain(3);
    expect(at({ longerThan: 2 })).toEqual([4, 5]);
  });

  it('stays inside window, strings and range', () => {
    const { stages } = targets('| Ab7 | Db7 |', {
      window: { from: 3, to: 8 },
      strings: [2, 3],
      range: { low: 58, high: 66 }
    });
    for (const { fret, string, midi } of stages.flatMap((s) => s.candidates)) {
      expect(fret).toBeGreaterThanOrEqual(3);
      expect(fret).toBeLessThanOrEqual(8);
      expect([2, 3]).toContain(string);
      expect(midi).toBeGreaterThanOrEqual(58);
      expect(midi).toBeLessThanOrEqual(66);
    }
  });

  it('gives tensions by name, on any chord', () => {
    expect(degrees(targets('| Fm7 | Bb13 |', { degrees: ['9'] }))).toBe('9 9');
  });

  it('says which change has no candidate and what would give it one', () => {
    expect(targets('| Dsus4 | D7 |', { degrees: ['3'] }).noPath).toMatchObject({
      change: 0,
      message: expect.stringContaining('has no 3')
    });
    expect(degrees(targets('| Dsus4 | D7 |', { degrees: ['3'], standIn: true }))).toMatch(/^[15] 3$/);
    const standing = (symbol: string) =>
      allowedDegrees(readSheet(`| ${symbol} |`).analysis.changes[0]!.chord!, ['3'], {
        standIn: true,
        alternate: false
      }).map(({ degree }) => degree);
    expect(standing('Dsus4')).toEqual(['1', '5']);
    expect(standing('D5')).toEqual(['1', '5']);
    const neck = readInstrument({ tuning: 'E4 E4 E4' })!;
    const stuck = targets('| C | F |', { degrees: ['3'], position: 7, neck });
    expect(stuck.noPath!.message).toMatch(/position \d+ has one/);
    const falling = targets('| Fm7 | Bb7 | Ebmaj7 | Ab7 | Db7 |', {
      direction: 'falling',
      strings: [1],
      window: { from: 0, to: 4 }
    });
    expect(falling.noPath ? falling.noPath.message : 'path').toMatch(/falling line runs out|path/);
  });

  it('says so when no change is asked for', () => {
    expect(targets('| C | F |', { which: 'cadences' }).noPath?.message).toMatch(/No change/);
  });

  it('lets the sixth stand in for a missing seventh', () => {
    expect(degrees(targets('| Gm6 |', { column: '7', standIn: true }))).toBe('6');
    expect(targets('| Gm6 |', { column: '7' }).noPath).toBeDefined();
  });

  it('finds alternatives in order, all different', () => {
    const { paths } = targets('| Am7 | D7 | Gmaj7 |', { position: 5, alternatives: 8, loop: true });
    const costs = paths.map((p) => p.cost);
    expect(costs).toEqual([...costs].sort((a, b) => a - b));
    expect(
      new Set(paths.map((p) => p.targets.map((t) => `${t.cell.string}:${t.cell.fret}`).join())).size
    ).toBe(8);
  });

  it('adds its parts up, and never gets cheaper by a limit', () => {
    const symbols = fc.array(
      fc.constantFrom('Cm7', 'F7', 'Bbmaj7', 'Ebmaj7', 'Am7b5', 'D7b9', 'Gm6', 'Dbdim7'),
      {
        minLength: 1,
        maxLength: 7
      }
    );
    fc.assert(
      fc.property(symbols, fc.boolean(), fc.integer({ min: 1, max: 12 }), (chords, loop, position) => {
        const text = `| ${chords.join(' | ')} |`;
        const free = targets(text, { loop }).paths[0]!;
        const held = targets(text, { loop, position }).paths[0]!;
        for (const { cost, parts } of [free, held]) {
          expect(Object.values(parts).reduce((a, b) => a + b)).toBeCloseTo(cost, 9);
        }
        expect(held.cost).toBeGreaterThanOrEqual(free.cost - 1e-9);
      }),
      { numRuns: 60 }
    );
  });
});
