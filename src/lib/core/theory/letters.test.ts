import { afterEach, describe, expect, it } from 'vitest';
import { chordLabel } from './chord-label';
import { readChord } from './chord-reader';
import { readWritten, writeLetters, type Letters } from './letters';
import { asciiAccidentals, prettyNote, prettyProse, prettySymbol } from './typeset';

afterEach(() => writeLetters('b'));

const NAMES = ['C', 'Eb', 'F#', 'B', 'Bb', 'Bbb', 'B#', 'Abb', 'G##'];
const WRITTEN: Readonly<Record<Letters, readonly string[]>> = {
  b: ['C', 'E♭', 'F♯', 'B', 'B♭', 'B♭♭', 'B♯', 'A♭♭', 'G♯♯'],
  h: ['C', 'E♭', 'F♯', 'H', 'B', 'B♭', 'H♯', 'A♭♭', 'G♯♯'],
  solfege: ['Do', 'Mi♭', 'Fa♯', 'Si', 'Si♭', 'Si♭♭', 'Si♯', 'La♭♭', 'Sol♯♯']
};

describe.each(Object.entries(WRITTEN) as [Letters, readonly string[]][])(
  'names with %s',
  (letters, names) => {
    it('are written in its letters, and no two notes alike', () => {
      writeLetters(letters);
      expect(NAMES.map(prettyNote)).toEqual(names);
      expect(new Set(names).size).toBe(NAMES.length);
    });

    it('are read again as they are written', () => {
      writeLetters(letters);
      for (const [i, name] of NAMES.entries()) {
        // Two flats of H are one of B: what is typed with fewer signs is never taken for another note.
        if (letters === 'h' && name === 'Bbb') continue;
        expect(readWritten(asciiAccidentals(names[i]!)), names[i]).toBe(name);
      }
    });
  }
);

describe('chords and sentences', () => {
  const label = (symbol: string) => {
    const reading = readChord(symbol);
    if (reading.kind !== 'chord') throw new Error(symbol);
    const { root, base, raised, bass } = chordLabel(reading.chord);
    return `${root}${base}${raised}${bass && `/${bass}`}`;
  };

  it('have their roots and basses in the same letters', () => {
    const symbols = ['B7', 'Bbmaj7', 'Bm7b5', 'E7/B', 'Cm7/Bb', 'Bb13#11'];
    writeLetters('h');
    expect(symbols.map(label)).toEqual(['H7', 'Bmaj7', 'Hm7♭5', 'E7/H', 'Cm7/B', 'B13♯11']);
    expect(symbols.map(prettySymbol)).toEqual(['H7', 'Bmaj7', 'Hm7♭5', 'E7/H', 'Cm7/B', 'B13♯11']);
    writeLetters('solfege');
    expect(symbols.map(prettySymbol)).toEqual(['Si7', 'Si♭maj7', 'Sim7♭5', 'Mi7/Si', 'Dom7/Si♭', 'Si♭13♯11']);
  });

  it('a sentence keeps its words', () => {
    const text =
      'Begin on B over Bb7: A bend from A to B. A blues in E; Both end on Bdim7. A minor pentatonic.';
    writeLetters('h');
    expect(prettyProse(text)).toBe(
      'Begin on H over B7: A bend from A to H. A blues in E; Both end on Hdim7. A minor pentatonic.'
    );
    writeLetters('solfege');
    expect(
      prettyProse('A leap falls back. Bebop over Bmaj7, then F# and A. A minor pentatonic over Dm7.')
    ).toBe('A leap falls back. Bebop over Simaj7, then Fa♯ and La. La minor pentatonic over Rem7.');
  });

  it('international letters are as they were', () => {
    expect(prettyProse('Begin on Bb7, then Eb')).toBe('Begin on B♭7, then E♭');
  });
});
