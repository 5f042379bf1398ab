import { describe, expect, it } from 'vitest';
import { heardIn } from './heard-name';

const heard = (symbol: string, root: number) => ({ symbol, root });

describe('a chord that is heard', () => {
  it('has the name that the key has for its root', () => {
    expect(heardIn({ tonic: 'Eb', mode: 'minor' }, heard('Bmaj7', 11))).toBe('Cbmaj7');
    expect(heardIn({ tonic: 'F#', mode: 'minor' }, heard('Dbm7', 1))).toBe('C#m7');
  });

  it('has a plain name where the key has none', () => {
    expect(heardIn({ tonic: 'Eb', mode: 'major' }, heard('Gb7', 6))).toBe('Gb7');
  });
});
