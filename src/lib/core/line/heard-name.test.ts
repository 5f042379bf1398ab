import { describe, expect, it } from 'vitest';
import { sure } from '../base/list';
import { readChord } from '../theory/chord-reader';
import { heardIn, heardSymbol, mostHeard } from './heard-name';

const heard = (symbol: string, root: number) => ({ symbol, root });

describe('a chord that is heard', () => {
  it('has the name that the key has for its root', () => {
    expect(heardIn({ tonic: 'Eb', mode: 'minor' }, heard('Bmaj7', 11))).toBe('Cbmaj7');
    expect(heardIn({ tonic: 'F#', mode: 'minor' }, heard('Dbm7', 1))).toBe('C#m7');
  });

  it('has a plain name where the key has none', () => {
    expect(heardIn({ tonic: 'Eb', mode: 'major' }, heard('Gb7', 6))).toBe('Gb7');
  });

  it('has the symbol of the chart where it has the notes of its chord, heard clearly or in part', () => {
    const key = { tonic: 'Db', mode: 'major' } as const;
    const read = readChord('Bbmin7');
    const written = { symbol: 'Bbmin7', chord: sure(read.kind === 'chord' ? read.chord : null, 'chord') };
    const chord = (symbol: string, root: number, pitches: readonly number[]) => ({
      ...heard(symbol, root),
      pitchSet: pitches.reduce((set, pc) => set | (1 << pc), 0),
      share: 0.2,
      same: []
    });
    const [own, other] = [chord('Bbm7', 10, [10, 1, 5, 8]), chord('F#7', 6, [6, 10, 1, 4])];
    expect([own, other].map((one) => heardSymbol(key, written, one))).toEqual(['Bbmin7', 'Gb7']);
    expect(mostHeard(key, written, { heard: [own, other], verdict: 'partly' })).toBe('Bbmin7');
    expect(mostHeard(key, written, { heard: [other, own], verdict: 'partly' })).toBe('Gb7');
    expect(mostHeard(key, written, { heard: [other, own], verdict: 'clear' })).toBe('Bbmin7');
    expect(mostHeard(key, written, { heard: [] })).toBe('');
  });
});
