import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readKey } from '../harmony/key';
import { soundAt, STANDARD } from '../neck/tuning';
import { semitonesUp } from '../theory/note';
import { atPitch, byDegree, byDegrees, everyOctave, laidOut, led, measureOf, measureOfKey } from './move';
import { placeNotes } from './place';
import { chordNamed, eighths, lineOf } from './testing';

const on = (symbol: string, ...notes: string[]) => measureOf(chordNamed(symbol), { notes });
const key = (text: string) => measureOfKey(readKey(text)!);
const pitches = (text: string) => lineOf(text).map(({ midi }) => midi);
const moved = (text: string, from: ReturnType<typeof on>, to: ReturnType<typeof on>) =>
  pitches(text).map((midi) => byDegree(midi, from, to));

describe('moved degree by degree', () => {
  const dorian = on('Dm7', 'D', 'E', 'F', 'G', 'A', 'B', 'C');
  const mixolydian = on('G7', 'G', 'A', 'B', 'C', 'D', 'E', 'F');

  it('turns a ♭3 into a 3 and keeps 9s and 13s', () => {
    // 1 b3 5 b7 9 of Dm7 become 1 3 5 b7 9 of G7.
    expect(moved('D4, F4, A4, C5, E5', dorian, mixolydian)).toEqual(pitches('G4, B4, D5, F5, A5'));
  });

  it('keeps a chromatic tone as far off as it was: a ♭9 stays one', () => {
    const five = on('Bb7', 'Bb', 'C', 'D', 'Eb', 'F', 'G', 'Ab');
    expect(moved('Cb5', five, mixolydian)).toEqual(pitches('Ab4'));
  });

  it('leads chromatically into what it led into', () => {
    // The semitone under the 5 of Dm7 is the semitone under the b5 of Em7b5.
    const to = on('Em7b5', 'E', 'F', 'G', 'A', 'Bb', 'C', 'D');
    const both = [dorian, to] as const;
    expect(byDegrees(pitches('G#4, A4, E4'), [both, both, both])).toEqual(pitches('A4, Bb4, F4'));
  });

  it('goes through the numbers of keys of different modes', () => {
    expect(moved('Eb4, F4, G4, C5', key('Eb'), key('Cm'))).toEqual(pitches('C4, D4, Eb4, Ab4'));
  });

  it('there and back again is the same, whatever the chords of a family', () => {
    const roots = ['C', 'F#', 'Bb', 'E', 'Ab'];
    const family = fc.constantFrom('m7', '7', 'maj7', 'm7b5');
    fc.assert(
      fc.property(
        family,
        fc.constantFrom(...roots),
        fc.constantFrom(...roots),
        fc.integer({ min: 48, max: 72 }),
        (suffix, a, b, midi) => {
          const [from, to] = [on(a + suffix), on(b + suffix)];
          const there = byDegree(midi, from, to);
          expect(semitonesUp(to.root, there % 12)).toBe(semitonesUp(from.root, midi % 12));
          expect(byDegree(there, to, from) % 12).toBe(midi % 12);
        }
      ),
      { numRuns: 50 }
    );
  });
});

describe('led', () => {
  it('takes the nearest tones and keeps the contour', () => {
    const home = [0, 4, 7].map((step) => (step + 5) % 12);
    // C E G E over an F triad: C F A F rather than C F F F.
    const to = led(
      pitches('C4, E4, G4, E4'),
      Array.from({ length: 4 }, () => home)
    );
    expect(to).toEqual(pitches('C4, F4, A4, F4'));
  });

  it('keeps rising what rises, over any collection with room enough', () => {
    const line = fc.array(fc.integer({ min: 55, max: 75 }), { minLength: 2, maxLength: 8 });
    fc.assert(
      fc.property(line, fc.integer({ min: 0, max: 11 }), (own, root) => {
        const scale = [0, 2, 4, 5, 7, 9, 11].map((step) => (root + step) % 12);
        const to = led(
          own,
          own.map(() => scale)
        );
        to.forEach((midi, i) => {
          expect(scale).toContain(midi % 12);
          if (i > 0 && Math.abs(own[i]! - own[i - 1]!) > 2)
            expect(Math.sign(midi - to[i - 1]!)).toBe(Math.sign(own[i]! - own[i - 1]!));
        });
      }),
      { numRuns: 60 }
    );
  });
});

describe('laid on the neck again', () => {
  const inFive = placeNotes(eighths(60, 62, 64, 67), { neck: STANDARD, position: 5, alternatives: 1 })
    .places[0]!.notes;
  const moveBy = (semitones: number) => inFive.map((note) => atPitch(note, note.midi + semitones));
  const wish = { neck: STANDARD, anyOctave: true } as const;

  it('along the neck keeps strings and shape, an octave away where the frets run out', () => {
    const up = laidOut(inFive, moveBy(3), { ...wish, where: 'along' });
    expect(up.notes!.map(({ place }) => [place.string, place.fret])).toEqual(
      inFive.map(({ place }) => [place.string, place.fret + 3])
    );
    const down = laidOut(inFive, moveBy(-10), { ...wish, where: 'along' });
    expect(down).toMatchObject({ octave: 1 });
    expect(down.notes!.map(({ place }) => place.fret)).toEqual(inFive.map(({ place }) => place.fret + 2));
    expect(laidOut(inFive, moveBy(-10), { ...wish, anyOctave: false, where: 'along' })).toMatchObject({
      notes: null
    });
  });

  it('in place stays in its frets, in a position under the hand there, and every note sounds', () => {
    const here = laidOut(inFive, moveBy(5), { ...wish, where: 'in place' });
    const frets = here.notes!.map(({ place }) => place.fret);
    expect(Math.min(...frets)).toBeGreaterThanOrEqual(4);
    expect(Math.max(...frets)).toBeLessThanOrEqual(9);
    const nine = laidOut(inFive, inFive, { ...wish, where: 'in place', position: 9 });
    for (const note of nine.notes!) {
      expect(note.position).toBe(9);
      expect(soundAt(STANDARD, note.place.string, note.place.fret)).toBe(note.midi);
      expect(note.midi % 12).toBe(inFive.find(({ start }) => start === note.start)!.midi % 12);
    }
  });

  it('is had in every octave of the neck', () => {
    const all = everyOctave(inFive, inFive, { neck: STANDARD });
    expect(all.map(({ octave }) => octave)).toEqual([-1, 0, 1]);
    expect(all.map(({ notes }) => notes[0]!.midi)).toEqual([48, 60, 72]);
  });

  it('says what has no string to stay on', () => {
    const bare = eighths(60, 64);
    expect(laidOut(bare, bare, { ...wish, where: 'along' })).toMatchObject({
      message: 'The line has no strings to move along; place it first.'
    });
  });
});
