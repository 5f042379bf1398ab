import { describe, expect, it } from 'vitest';
import { pitchClass, simpleSpelling } from './note';
import { modesOf, parentOf, readScale, SCALE_NAMES, scaleDegrees, scaleOf, scalePitchClasses } from './scale';

const KEYS = 'C Db D Eb E F Gb F# G Ab A Bb B C# Cb'.split(' ');

describe('scales', () => {
  it.each([
    ['Ab locrian natural 2', 'Ab Bb Cb Db Ebb Fb Gb'],
    ['F# altered', 'F# G A Bb C D E'],
    ['D minor pentatonic', 'D F G A C'],
    ['Bb lydian dominant', 'Bb C D E F G Ab'],
    ['C phrygian dominant', 'C Db E F G Ab Bb'],
    ['Eb half-whole diminished', 'Eb Fb Gb G A Bb C Db'],
    ['G# harmonic minor', 'G# A# B C# D# E F##'],
    ['Gb major', 'Gb Ab Bb Cb Db Eb F']
  ])('%s is %s', (name, notes) => {
    expect(readScale(name)!.notes.join(' ')).toBe(notes);
  });

  it('spells seven-note scales with seven letters in every key', () => {
    for (const name of SCALE_NAMES) {
      for (const root of KEYS) {
        const { notes, intervals } = scaleOf(root, name)!;
        if (intervals.length === 7) expect(new Set(notes.map((n) => n[0])).size, `${root} ${name}`).toBe(7);
        const home = scaleOf('C', name)!;
        const above = (tonic: string, all: readonly string[]) =>
          all.map((note) => (pitchClass(note) - pitchClass(tonic) + 12) % 12);
        expect(above(root, notes)).toEqual(above('C', home.notes));
      }
    }
  });

  it('gives a mode the notes of its parent, both ways', () => {
    for (const name of SCALE_NAMES) {
      const scale = scaleOf('Bb', name)!;
      const parent = parentOf(scale);
      if (!parent) continue;
      const home = scaleOf(parent.tonic, parent.scale)!;
      const sorted = (pcs: number[]) => [...pcs].sort((a, b) => a - b);
      expect(sorted(scalePitchClasses(scale)), name).toEqual(sorted(scalePitchClasses(home)));
      expect(modesOf(home).map((mode) => `${mode.root} ${mode.name}`)).toContain(`Bb ${name}`);
    }
  });

  it('names the parent of Bb altered as Cb melodic minor, B where simpler', () => {
    const parent = parentOf(readScale('Bb altered')!)!;
    expect(parent).toEqual({ tonic: 'Cb', scale: 'melodic minor', degree: 7 });
    expect(simpleSpelling(parent.tonic)).toBe('B');
  });

  it('counts degrees against the chord on its own root', () => {
    expect(scaleDegrees(readScale('F dorian')!).join(' ')).toBe('1 9 b3 11 5 13 b7');
    expect(scaleDegrees(readScale('A lydian augmented')!).join(' ')).toBe('1 9 3 #11 #5 13 7');
  });

  it('takes other names and refuses unknown ones', () => {
    expect(readScale('E♭ ionian')!.name).toBe('major');
    expect(readScale('A Mixolydian ♭9 ♭13')!.name).toBe('phrygian dominant');
    expect(readScale('F wobbly')).toBeNull();
    expect(readScale('dorian')).toBeNull();
  });
});
