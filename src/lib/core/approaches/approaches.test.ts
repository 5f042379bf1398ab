import { readChord } from '../theory/chord-reader';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readSheet } from '../harmony/sheet';
import { type Chord } from '../theory/chord';
import { pitchClass } from '../theory/note';
import { readScale, scalePitchClasses } from '../theory/scale';
import { contextOf } from './context';
import { judge } from './judge';
import { modes } from './modes';

function chord(symbol: string): Chord {
  const reading = readChord(symbol);
  if (reading.kind !== 'chord') throw new Error(symbol);
  return reading.chord;
}

const on = (symbol: string, scale: string, minorGoal = false) =>
  judge(chord(symbol), scalePitchClasses(readScale(scale)!), { minorGoal });

describe('judge', () => {
  it('says what a scale covers, lacks and adds', () => {
    const j = on('Fm7', 'F dorian');
    expect(j.covers).toEqual(['1', 'b3', '5', 'b7']);
    expect(j.lacks).toEqual([]);
    expect(j.tensions).toEqual(['9', '11', '13']);
    expect(on('Ab7', 'Eb major pentatonic').lacks).toEqual(['1', 'b7']);
  });

  it.each([
    ['Ebmaj7', 'Eb major', ['11']],
    ['Gm7', 'G phrygian', ['b9', 'b13']],
    ['Bb7', 'Bb mixolydian', ['11']],
    ['C7sus4', 'C mixolydian', []],
    ['Am7b5', 'A locrian', ['b9']],
    ['Am7b5', 'A locrian natural 2', []],
    ['C#dim7', 'C# whole-half diminished', []]
  ])('%s: %s clashes in %j', (symbol, scale, avoid) => expect(on(symbol, scale).avoid).toEqual(avoid));

  it('allows altered tensions only where the symbol or a minor goal does', () => {
    expect(on('D7', 'D phrygian dominant').avoid).toEqual(['b9', '11', 'b13']);
    expect(on('D7', 'D phrygian dominant', true).avoid).toEqual(['11']);
    expect(on('D7b9', 'D half-whole diminished').avoid).toEqual([]);
  });

  it.each([
    ['Cm7', 'C mixolydian', ['3']],
    ['F7', 'F major', ['7']],
    ['Fmaj7', 'F mixolydian', ['b7']],
    ['Em7b5', 'E dorian', ['5']],
    ['G7b9', 'G mixolydian', ['9']],
    ['G7alt', 'G mixolydian', ['9', '5', '13']]
  ])('%s: %s contradicts with %j', (symbol, scale, contradicts) =>
    expect(on(symbol, scale).contradicts).toEqual(contradicts)
  );

  it('hears a minor third over a major one as blue', () => {
    expect(on('Eb7', 'Eb minor pentatonic').blue).toEqual(['b3']);
    expect(on('Eb7#9', 'Eb minor pentatonic').blue).toEqual([]);
  });
});

describe('modes', () => {
  /** The first choices of a chart, change by change. */
  const firsts = (text: string) => {
    const { analysis } = readSheet(text);
    return analysis.changes.map((_, i) => modes(contextOf(analysis, i)!)[0]!.name);
  };

  it.each([
    [
      '{key: Eb}\n| Ebmaj7 | Fm7 | Gm7 | Abmaj7 | Bb7 | Cm7 | Dm7b5 |',
      'Eb major, F dorian, G phrygian, Ab lydian, Bb mixolydian, C aeolian, D locrian'
    ],
    ['{key: Gm}\n| Am7b5 | D7 | Gm6 |', 'A locrian natural 2, D altered, G melodic minor'],
    ['{key: Gm}\n| Gm7 | Cm7 | Gm7 |', 'G aeolian, C dorian, G aeolian'],
    ['{key: Gm}\n| Gm7 | Cm7 | D7 | Gm7 |', 'G dorian, C dorian, D altered, G dorian'],
    ['{key: F}\n| Fmaj7 | D7 | Gm7 | C7 |', 'F major, D altered, G dorian, C mixolydian'],
    ['{key: C}\n| Dm7 | Db7 | Cmaj7 |', 'D dorian, Db lydian dominant, C major'],
    ['{key: Ab}\n| Dbm7 | Gb7 | Abmaj7 |', 'Db dorian, Gb lydian dominant, Ab major'],
    ['| Bbm7 | % |', 'Bb dorian, Bb dorian'],
    ['{key: C}\n| C#dim7 | Dm7 |', 'C# whole-half diminished, D dorian'],
    ['{key: C}\n| G7alt | Cmaj7#11 | Caug |', 'G altered, C lydian, C whole tone'],
    ['{key: F}\n| C7b9 | Fmaj7 |', 'C half-whole diminished, F major']
  ])('%s', (text, expected) => expect(firsts(text).join(', ')).toBe(expected));

  it('never contradicts the symbol and says its parent', () => {
    const { analysis } = readSheet(
      '{key: Db}\n| Ebm7 | Ab13 | Dbmaj7 | Bb7b9 | Gb6 | Gb7 | Fm7b5 | Db+ | Absus |'
    );
    for (const change of analysis.changes) {
      for (const choice of modes(contextOf(analysis, change.index)!)) {
        expect(choice.contradicts, `${change.symbol} ${choice.name}`).toEqual(choice.against ?? []);
        expect([...choice.covers, ...choice.lacks].sort()).toEqual([...change.chord!.tones].sort());
        expect(pitchClass(choice.root)).toBe(pitchClass(change.chord!.root));
        expect(choice.why).toMatch(/\.$/);
      }
    }
    expect(modes(contextOf(analysis, 0)!)[0]!.parent).toEqual({ tonic: 'Db', scale: 'major', degree: 2 });
  });

  it('warns softly of the 13 on a ii minor seventh', () => {
    const { analysis } = readSheet('{key: Bb}\n| Cm7 | F7 | Bbmaj7 |');
    expect(modes(contextOf(analysis, 0)!)[0]).toMatchObject({ softAvoid: '13' });
    const why = (text: string, change: number) => modes(contextOf(readSheet(text).analysis, change)!)[0]!.why;
    expect(why('{key: Bb}\n| Cm7 | F7 | Bbmaj7 |', 0)).toMatch(/the 13, the third of the V to come/);
    // No V comes: the reason does not speak of one.
    expect(why('{key: Bb}\n| Bbmaj7 | Cm7 | Bbmaj7 |', 1)).toMatch(/go easy on the 13\./);
    expect(why('{key: Ebm}\n| Ebm7 | Abm7 | Ebm7 |', 1)).not.toMatch(/go easy/);
  });
});

describe('the change that follows', () => {
  it('is the next one with another chord, round the form, rests left out', () => {
    const symbol = fc.constantFrom('C7', 'C9', 'F7', 'Gm7', 'N.C.', 'oops');
    fc.assert(
      fc.property(fc.array(symbol, { minLength: 1, maxLength: 12 }), (symbols) => {
        const { analysis } = readSheet(`| ${symbols.join(' | ')} |`);
        const { changes } = analysis;
        changes.forEach(({ chord }, index) => {
          if (!chord) return;
          const round = [...changes.slice(index + 1), ...changes.slice(0, index)];
          const other = round.find(
            (one) => one.chord && (one.chord.root !== chord.root || one.chord.family !== chord.family)
          );
          expect(contextOf(analysis, index)!.next?.index).toBe(other?.index);
        });
      })
    );
  });
});
