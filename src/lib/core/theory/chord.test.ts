import { readChord } from './chord-reader';
import { chordLabel } from './chord-label';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Chord } from './chord';
import { DEGREES } from './degree';
import { noteAbove, pitchClass } from './note';

function chord(symbol: string): Chord {
  const reading = readChord(symbol);
  if (reading.kind !== 'chord') throw new Error(`${symbol} was not read`);
  return reading.chord;
}

/** Suffix → tones, every way of writing that players use and what stands near it. */
const TONES: Record<string, string> = {
  '1 3 5': ' maj Maj M Ma',
  '1 b3 5': 'm min - mi',
  '1 3 5 7': 'Δ △ maj7 M7 Δ7 Maj7 MAJ7',
  '1 3 5 6': '6',
  '1 3 5 6 9': '69 6/9 6(9)',
  '1 b3 5 6': 'm6 min6 -6',
  '1 b3 5 6 9': 'm69 m6/9',
  '1 3 5 b7': '7',
  '1 3 5 b7 9': '9 7(9) 7add9',
  '1 3 5 b7 9 11': '11',
  '1 3 5 b7 9 13': '13',
  '1 b3 5 b7': 'm7 min7 -7 mi7',
  '1 b3 5 b7 9': 'm9 -9',
  '1 b3 5 b7 9 11': 'm11',
  '1 b3 5 b7 9 11 13': 'm13',
  '1 b3 5 7': 'm(maj7) mM7 -Δ7 m(M7) mΔ',
  '1 b3 b5 b7': 'm7b5 ø ø7 -7b5 min7(b5) m7♭5',
  '1 b3 b5': 'dim ° o',
  '1 b3 b5 bb7': 'dim7 °7 o7',
  '1 3 #5': 'aug + (#5)',
  '1 3 #5 b7': '7#5 7+ +7 aug7 7(#5) 7+5',
  '1 11 5': 'sus sus4',
  '1 9 5': 'sus2',
  '1 11 5 b7': '7sus4 7sus',
  '1 11 5 b7 9': '9sus4',
  '1 11 5 b7 9 13': '13sus4',
  '1 3 5 9': 'add9 2 (add9)',
  '1 b3 5 9': 'madd9 m(add9)',
  '1 5': '5 no3',
  '1 3 5 7 #11': 'maj7#11 Δ7#11 maj7(#11)',
  '1 3 #5 7': 'maj7#5',
  '1 3 5 7 9': 'maj9 M9',
  '1 3 5 7 9 13': 'maj13',
  '1 3 b5 b7': '7b5',
  '1 3 5 b7 b9': '7b9 7(b9) 7-9',
  '1 3 5 b7 #9': '7#9',
  '1 3 5 b7 #11': '7#11',
  '1 3 5 b7 b13': '7b13',
  '1 3 b5 #5 b7 b9 #9': '7alt alt',
  '1 3 5 b7 b9 #11': '7(b9,#11) 7b9#11 7(b9#11) 7♭9♯11',
  '1 3 5 b7 b9 b13': '7b9b13',
  '1 3 5 b7 9 #11 13': '13#11',
  '1 3': 'no5',
  '1 3 b7': '7no5',
  '1 3 5 b7 b9 13': '13b9'
};

describe('readChord', () => {
  for (const [tones, suffixes] of Object.entries(TONES)) {
    it(`reads ${suffixes} as ${tones}`, () => {
      for (const suffix of suffixes.split(' ')) {
        expect(chord(`E${suffix}`).tones.join(' '), `E${suffix}`).toBe(tones);
      }
    });
  }

  it.each([
    ['Db7', 'Db F Ab Cb'],
    ['G#7', 'G# B# D# F#'],
    ['Cbmaj7', 'Cb Eb Gb Bb'],
    ['F#m7b5', 'F# A C E'],
    ['Bbdim7', 'Bb Db Fb Abb'],
    ['Abm7', 'Ab Cb Eb Gb'],
    ['D♯aug', 'D# F## A##'],
    ['Gbm(maj7)', 'Gb Bbb Db F'],
    ['Bbb7', 'Bbb Db Fb Abb'],
    ['C##m', 'C## E# G##']
  ])('spells %s from its root', (symbol, notes) => {
    expect(chord(symbol).notes.join(' ')).toBe(notes);
  });

  it('keeps a slash bass beside the chord', () => {
    expect(chord('Am7/G').bass).toBe('G');
    expect(chord('C6/9/E')).toMatchObject({ bass: 'E', tones: ['1', '3', '5', '6', '9'] });
  });

  it('knows that no chord sounds', () => {
    for (const text of ['N.C.', 'NC', 'n.c.']) expect(readChord(text)).toEqual({ kind: 'none' });
  });

  it.each([
    ['H7', 0],
    ['Dfoo', 1],
    ['Gm7x', 3],
    ['Eb7(b9', 3],
    ['Bb7b9)', 5],
    ['', 0]
  ])('says where %s stops making sense', (symbol, at) => {
    const reading = readChord(symbol);
    expect(reading).toMatchObject({ kind: 'problem', problem: { at } });
  });

  it('suggests a near symbol', () => {
    expect(readChord('Ebmja7')).toMatchObject({ problem: { suggestion: 'Ebmaj7' } });
    expect(readChord('Gm7x')).toMatchObject({ problem: { suggestion: 'Gm7' } });
    expect(readChord('Ddmi7')).toMatchObject({ kind: 'problem' });
  });

  it.each([
    ['Amsus4', undefined],
    ['Ab7#13', 'Ab7#11'],
    ['Bb7b11', 'Bb7#11'],
    ['Fdimalt', 'Fdim7'],
    ['Gm7alt', undefined],
    ['D9b9', 'D7b9'],
    ['E13b13', 'E7b13'],
    ['F#7maj7', undefined],
    ['B5sus4', undefined],
    ['Cø#5', undefined],
    ['C7/', 'C7'],
    ['G/B/D', undefined]
  ])('finds that %s cannot be, and suggests %s: never another quality', (symbol, suggestion) => {
    const reading = readChord(symbol);
    expect(reading.kind).toBe('problem');
    expect(reading.kind === 'problem' && reading.problem.suggestion).toBe(suggestion);
  });

  it('suggests nothing where the nearest spellings are of different qualities', () => {
    for (const symbol of ['Dbq9', 'Fq7', 'Amsus4']) {
      const reading = readChord(symbol);
      expect(reading.kind === 'problem' && reading.problem.suggestion, symbol).toBeUndefined();
    }
  });

  it('gives the same tones from every root, and notes that sound them', () => {
    const suffixes = Object.values(TONES).flatMap((list) => list.split(' '));
    const roots = 'C C# Db D D# Eb E F F# Gb G G# Ab A A# Bb B Cb'.split(' ');
    fc.assert(
      fc.property(fc.constantFrom(...suffixes), fc.constantFrom(...roots), (suffix, root) => {
        // "C#5" is a power chord on C sharp, not an augmented C.
        if (/^[#b]/.test(suffix)) return;
        const read = chord(root + suffix);
        expect(read.tones).toEqual(chord(`E${suffix}`).tones);
        const heights = read.notes.map((note) => (pitchClass(note) - pitchClass(root) + 12) % 12);
        expect(heights).toEqual(read.tones.map((tone) => DEGREES[tone].semitones));
      })
    );
  });

  it('never throws, whatever is typed', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 24 }), (text) => {
        expect(['chord', 'none', 'problem']).toContain(readChord(text).kind);
      })
    );
  });
});

describe('chordFamily', () => {
  it.each([
    ['Bbmaj9', 'major'],
    ['Fm6', 'minor'],
    ['Ab13sus4', 'dominant'],
    ['Em7b5', 'half-diminished'],
    ['C#dim7', 'diminished'],
    ['Ebaug', 'augmented'],
    ['Dsus2', 'suspended'],
    ['G5', 'power']
  ])('%s is %s', (symbol, family) => expect(chord(symbol).family).toBe(family));
});

describe('chordLabel', () => {
  it('typesets with true accidentals and keeps the player’s own writing', () => {
    expect(chordLabel(chord('Bbm7b5/Ab'))).toEqual({ root: 'B♭', base: 'm', raised: '7♭5', bass: 'A♭' });
    expect(chordLabel(chord('F#dim7'))).toMatchObject({ root: 'F♯', base: '', raised: '°7' });
    expect(chordLabel(chord('Ebmaj7'))).toMatchObject({ root: 'E♭', raised: 'maj7' });
    expect(chordLabel(chord('D-7'))).toMatchObject({ base: '–', raised: '7' });
  });
});

describe('noteAbove', () => {
  it('uses one letter per degree', () => expect(noteAbove('Gb', '7m')).toBe('Fb'));
});
