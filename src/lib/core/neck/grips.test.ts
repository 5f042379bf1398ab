import { readChord } from '../theory/chord-reader';
import fc from 'fast-check';
import { fingerGrip } from './fingering';
import { describe, expect, it } from 'vitest';
import { sure } from '../../testing/sure';
import { type Chord } from '../theory/chord';
import { readScale } from '../theory/scale';
import { placeOf } from './area';
import { gripDistance, gripPath, gripPathThrough, type GripDirection, type GripStage } from './grip-path';
import { gripCaution } from './position';
import { readInstrument, soundAt, STANDARD, TUNINGS } from './tuning';
import { lowestUnits, unitsOf } from './unit';
import {
  byFret,
  stringSets,
  VOICING_FACTS,
  voicedTones,
  VOICINGS,
  voicingsOf,
  type Grip,
  type VoicingType
} from './voicing';

const chordOf = (symbol: string): Chord => {
  const reading = readChord(symbol);
  if (reading.kind !== 'chord') throw new Error(symbol);
  return reading.chord;
};
const SYMBOLS = [
  'Abm7',
  'Db7',
  'Gbmaj7',
  'F#m7b5',
  'B7alt',
  'Ebm6',
  'Cdim7',
  'E7sus4',
  'Bbmaj7#5',
  'Am(maj7)'
];
const symbols = fc.constantFrom(...SYMBOLS);
const fretsOf = ({ cells }: Grip) => cells.map(({ fret }) => fret).join(' ');
const stage = (symbol: string, change: number, strings: readonly number[], type: VoicingType = 'closed') => ({
  change,
  where: symbol,
  grips: voicingsOf(STANDARD, chordOf(symbol), type, strings)
});

describe('voicings', () => {
  it('lie on four, three and two string sets of a guitar', () => {
    expect(stringSets(STANDARD, 'closed')).toEqual([
      [6, 5, 4],
      [5, 4, 3],
      [4, 3, 2],
      [3, 2, 1]
    ]);
    expect(stringSets(STANDARD, 'drop2')).toHaveLength(3);
    expect(stringSets(STANDARD, 'drop3')).toEqual([
      [6, 4, 3, 2],
      [5, 3, 2, 1]
    ]);
    expect(stringSets(readInstrument({ tuning: 'bass' })!, 'drop3')).toEqual([]);
  });

  it('are those that players hold', () => {
    const held = (symbol: string, type: VoicingType, strings: number[]) =>
      voicingsOf(STANDARD, chordOf(symbol), type, strings).map(
        (grip) => `${grip.inversion}: ${fretsOf(grip)}`
      );
    // F sharp minor on the top three strings, from the first fret up.
    expect(held('F#m', 'closed', [3, 2, 1]).slice(0, 3)).toEqual(['1: 2 2 2', '2: 6 7 5', '0: 11 10 9']);
    expect(held('Bbmaj7', 'drop2', [5, 4, 3, 2])[0]).toBe('0: 1 3 2 3');
    expect(held('G7', 'drop3', [6, 4, 3, 2])).toContain('0: 3 3 4 3');
    expect(held('Ab', 'closed', [4, 3, 2])).toContain('0: 6 5 4');
  });

  it('have their chord, their order and a hand that can hold them, in every tuning', () => {
    fc.assert(
      fc.property(
        symbols,
        fc.constantFrom(...VOICINGS),
        fc.constantFrom(...Object.keys(TUNINGS)),
        (symbol, type, tuning) => {
          const neck = readInstrument({ tuning })!;
          const chord = chordOf(symbol);
          const tones = voicedTones(chord, VOICING_FACTS[type].voices)!;
          for (const strings of stringSets(neck, type)) {
            const grips = voicingsOf(neck, chord, type, strings);
            expect(grips).toEqual([...grips].sort(byFret));
            for (const { cells, inversion } of grips) {
              expect(cells.map(({ string }) => string)).toEqual(strings);
              const midis = cells.map(({ midi }) => midi);
              expect(midis).toEqual([...midis].sort((a, b) => a - b));
              expect(new Set(cells.map(({ degree }) => degree))).toEqual(new Set(tones));
              expect(cells[0]!.degree).toBe(tones[inversion]);
              for (const cell of cells) sure(soundAt(neck, cell.string, cell.fret)).toBe(cell.midi);
              const width = midis.at(-1)! - midis[0]!;
              if (type === 'closed') expect(width).toBeLessThan(12);
              else {
                // Lifting the bass an octave closes a drop 2 and a drop 3.
                const lifted = [midis[0]! + 12, ...midis.slice(1)].sort((a, b) => a - b);
                expect(lifted.at(-1)! - lifted[0]!).toBeLessThan(12);
                expect(lifted.indexOf(midis[0]! + 12)).toBe(type === 'drop2' ? 2 : 1);
              }
            }
          }
        }
      )
    );
  });

  it('come in all inversions on every set of a standard neck', () => {
    for (const symbol of SYMBOLS) {
      for (const type of VOICINGS) {
        for (const strings of stringSets(STANDARD, type)) {
          const inversions = new Set(
            voicingsOf(STANDARD, chordOf(symbol), type, strings).map((g) => g.inversion)
          );
          expect(inversions.size, `${symbol} ${type} ${strings.join()}`).toBe(VOICING_FACTS[type].voices);
        }
      }
    }
  });

  it('need tones enough', () => {
    expect(voicingsOf(STANDARD, chordOf('C'), 'drop2', [4, 3, 2, 1])).toEqual([]);
    expect(voicingsOf(STANDARD, chordOf('C5'), 'closed', [3, 2, 1])).toEqual([]);
    expect(voicedTones(chordOf('Csus4'), 3)).toEqual(['1', '11', '5']);
    expect(voicedTones(chordOf('Cm6'), 4)).toEqual(['1', 'b3', '5', '6']);
  });

  it('carry a caution where they are wide', () => {
    const at = (...frets: number[]) => frets.map((fret, i) => ({ string: 6 - i, fret, midi: 0 }));
    expect(gripCaution(at(1, 5, 3))).toMatch(/wide grip/);
    expect(gripCaution(at(7, 11, 9))).toBeUndefined();
    expect(gripCaution(at(7, 12, 9))).toMatch(/stop if it hurts/);
    expect(gripCaution(at(0, 3, 0))).toBeUndefined();
  });
});

describe('the path of nearest grips', () => {
  it('keeps two voices and moves one from E flat to C minor', () => {
    const stages = ['Eb', 'Cm'].map((symbol, i) => stage(symbol, i, [3, 2, 1]));
    const { grips, total } = gripPath(stages, 'nearest');
    expect(total).toBe(2);
    expect(grips[1]!.moves.map(({ semitones }) => semitones).filter((s) => s !== 0)).toEqual([2]);
  });

  it('starts where the player wants', () => {
    const stages = ['Fm', 'Db', 'Eb'].map((symbol, i) => stage(symbol, i, [4, 3, 2]));
    const start = stages[0]!.grips.find(({ inversion }) => inversion === 2)!;
    const path = gripPath(stages, 'nearest', start);
    expect(path.grips[0]!.cells).toEqual(start.cells);
    expect(path.grips).toHaveLength(3);
  });

  it('goes up or down and says where the neck runs out', () => {
    const chords = ['C', 'F', 'G', 'C', 'F', 'G', 'C', 'F', 'G', 'C'];
    const stages = chords.map((symbol, i) => stage(symbol, i, [3, 2, 1]));
    for (const direction of ['up', 'down'] as const) {
      const { grips, ranOut } = gripPath(
        stages,
        direction,
        direction === 'up' ? null : stages[0]!.grips.at(-1)!
      );
      const steps = grips.slice(1).flatMap(({ moves }) => moves.map(({ semitones }) => semitones));
      expect(steps.every((step) => (direction === 'up' ? step >= 0 : step <= 0))).toBe(true);
      expect(grips.length).toBeGreaterThan(3);
      if (grips.length < stages.length) {
        expect(ranOut!.change).toBe(grips.length);
        expect(ranOut!.message).toMatch(/runs out at/);
      }
    }
    const top = gripPath(stages, 'up', stages[0]!.grips.at(-1)!);
    expect(top.ranOut).toBeDefined();
  });

  it('goes through a grip in the middle, back and on', () => {
    const stages = ['Gm', 'Cm', 'D', 'Gm', 'Eb'].map((symbol, i) => stage(symbol, i, [4, 3, 2]));
    const grip = stages[2]!.grips[1]!;
    const path = gripPathThrough(stages, 'nearest', 2, grip);
    expect(path.grips.map(({ change }) => change)).toEqual([0, 1, 2, 3, 4]);
    expect(path.grips[2]!.cells.map(placeOf)).toEqual(grip.cells.map(placeOf));
    const moved = path.grips
      .slice(1)
      .flatMap(({ moves }) => moves.map(({ semitones }) => Math.abs(semitones)));
    expect(moved.reduce((a, b) => a + b, 0)).toBe(path.total);
  });

  it('are fingered as players hold them', () => {
    const fingers = (frets: string) =>
      fingerGrip(
        frets
          .split(' ')
          .flatMap((fret, i) => (fret === 'x' ? [] : [{ string: 6 - i, fret: Number(fret), midi: 0 }]))
      )!
        .map(({ finger }) => finger)
        .join('');
    // The first finger lies flat; two notes behind one fret take two fingers, three take one laid flat.
    expect(fingers('1 3 3 2 1 1')).toBe('134211');
    expect(fingers('x 3 5 5 4 3')).toBe('13421');
    expect(fingers('x 3 5 5 5 3')).toBe('13331');
    expect(fingers('x 5 7 5 6 5')).toBe('13121');
    expect(fingers('x x x 3 5 5')).toBe('134');
    expect(fingers('x x x 4 5 5')).toBe('123');
    expect(fingers('x 3 2 0 1 0')).toBe('32010');
    expect(fingers('x x 5 5 5 8')).toBe('1114');
  });

  it('has nothing to say about nothing', () => {
    expect(gripPath([], 'nearest')).toEqual({ grips: [], total: 0 });
    expect(gripPath([{ change: 3, where: 'X', grips: [] }], 'nearest')).toMatchObject({
      grips: [],
      ranOut: { change: 3 }
    });
  });

  /** Every sequence of grips, tried one by one. */
  function shortest(stages: readonly GripStage[]): number {
    let best = Infinity;
    const walk = (i: number, from: Grip | null, cost: number): void => {
      if (cost >= best) return;
      if (i === stages.length) {
        best = cost;
        return;
      }
      for (const grip of stages[i]!.grips) walk(i + 1, grip, cost + (from ? gripDistance(from, grip) : 0));
    };
    walk(0, null, 0);
    return best;
  }

  it('is never longer than brute force, step by step and over the whole', () => {
    const triads = fc.constantFrom('C', 'Ebm', 'F#', 'Bbdim', 'Aaug', 'Dm', 'Ab', 'Gsus4');
    const set = fc.constantFrom(...stringSets(STANDARD, 'closed'));
    fc.assert(
      fc.property(fc.array(triads, { minLength: 2, maxLength: 5 }), set, (chords, strings) => {
        const stages = chords.map((symbol, i) => stage(symbol, i, strings));
        expect(gripPath(stages, 'shortest').total).toBe(shortest(stages));
        const { grips, total } = gripPath(stages, 'nearest');
        expect(total).toBeGreaterThanOrEqual(shortest(stages));
        for (const [i, grip] of grips.slice(1).entries()) {
          const own = gripDistance(grips[i]!, grip);
          for (const other of stages[i + 1]!.grips) {
            const distance = gripDistance(grips[i]!, other);
            expect(own).toBeLessThanOrEqual(distance);
            // Lower frets on a tie.
            if (own === distance) expect(byFret(grip, other)).toBeLessThanOrEqual(0);
          }
        }
      }),
      { numRuns: 60 }
    );
  });

  it('adds its moves up to its total in every direction', () => {
    const ways = fc.constantFrom<GripDirection>('nearest', 'shortest', 'up', 'down');
    fc.assert(
      fc.property(fc.array(symbols, { minLength: 1, maxLength: 6 }), ways, (chords, way) => {
        const stages = chords.map((symbol, i) => stage(symbol, i, [5, 4, 3, 2], 'drop2'));
        const { grips, total } = gripPath(stages, way);
        const moved = grips.flatMap(({ moves }) => moves.map(({ semitones }) => Math.abs(semitones)));
        expect(moved.reduce((a, b) => a + b, 0)).toBe(total);
      }),
      { numRuns: 60 }
    );
  });
});

describe('root-string units', () => {
  it.each([
    ['Emaj7', 'drop D'],
    ['Fmaj7', 'DADGAD'],
    ['Abm7', 'open G'],
    ['E13', 'open G']
  ])('hold every tone of %s in %s, or say which is missing', (symbol, tuning) => {
    const neck = readInstrument({ tuning })!;
    const chord = chordOf(symbol);
    for (const unit of lowestUnits(unitsOf(neck, chord, chord.notes))) {
      const missing = chord.tones.filter((tone) => !unit.arpeggio.some(({ degree }) => degree === tone));
      expect(unit.lacks, `${symbol} on string ${unit.rootString}`).toEqual(missing);
      if (tuning !== 'open G') expect(missing).toEqual([]);
    }
  });

  it('hold grip, arpeggio and scale of A flat minor round each root', () => {
    const units = lowestUnits(unitsOf(STANDARD, chordOf('Abm7'), readScale('Ab dorian')!.notes));
    expect(units.map(({ rootString, anchor }) => [rootString, anchor])).toEqual([
      [6, 4],
      [5, 11],
      [4, 6]
    ]);
    const [six, five] = units;
    expect(six!.grip.map(placeOf)).toEqual(['6:4', '4:4', '3:4', '2:4']);
    expect(six!.grip.map(({ degree }) => degree)).toEqual(['1', 'b7', 'b3', '5']);
    expect(five!.grip.map(({ degree }) => degree)).toEqual(['1', '5', 'b7', 'b3']);
    expect(six!.arpeggio.map(({ degree }) => degree)).toEqual(['1', 'b3', '5', 'b7', '1']);
    expect(six!.scale.map(({ note }) => note)).toEqual(['Ab', 'Bb', 'Cb', 'Db', 'Eb', 'F', 'Gb', 'Ab']);
  });

  it('lie in one place: everything within reach of the hand', () => {
    for (const symbol of SYMBOLS) {
      const chord = chordOf(symbol);
      for (const unit of unitsOf(STANDARD, chord, readScale(`${chord.root} major`)!.notes)) {
        for (const { fret } of [...unit.arpeggio, ...unit.scale]) {
          expect(fret).toBeGreaterThanOrEqual(unit.position - 1);
          expect(fret).toBeLessThanOrEqual(unit.position + 4);
        }
        expect(unit.arpeggio[0]).toMatchObject({ string: unit.rootString, fret: unit.anchor, degree: '1' });
      }
    }
  });

  it('double the root of a triad', () => {
    const [unit] = unitsOf(STANDARD, chordOf('G'), readScale('G major')!.notes);
    expect(unit!.grip.map(placeOf)).toEqual(['6:3', '4:5', '3:4', '2:3']);
    expect(unit!.grip.map(({ degree }) => degree)).toEqual(['1', '1', '3', '5']);
  });

  it('do without a grip where an instrument has too few strings', () => {
    const bass = readInstrument({ tuning: 'bass' })!;
    const units = unitsOf(bass, chordOf('Dm7'), readScale('D dorian')!.notes);
    expect(new Set(units.map(({ rootString }) => rootString))).toEqual(new Set([4]));
    expect(units.every(({ arpeggio }) => arpeggio.length === 5)).toBe(true);
  });
});
