import { describe, expect, it } from 'vitest';
import { readSheet } from '../harmony/sheet';
import { readingsOf } from './written-keys';

/** E flat, then four bars in which C, F and G could be many things, written in G. */
const TUNE = '{key: Eb}\n| Ebmaj7 | Ab7 | Ebmaj7 | Bb7 | Cmaj7 | Abm7 Db7 | Am7 | Bm7 |';
const readings = (keys: Parameters<typeof readingsOf>[1], text = TUNE) => {
  const { analysis } = readSheet(text);
  return readingsOf(analysis, keys).map(({ change, key }) => `${analysis.changes[change]!.symbol} ${key}`);
};

describe('keys written inside a tune', () => {
  it('read the chords that belong to them, and no others', () => {
    expect(readings([{ bar: 5, key: 'G' }])).not.toContain('Abm7 G');
    expect(readings([{ bar: 5, key: 'G' }])).not.toContain('Db7 G');
    const { analysis } = readSheet(TUNE);
    const belongs = ['Cmaj7', 'Am7', 'Bm7'].filter(
      (symbol) => analysis.changes.find((one) => one.symbol === symbol)!.key.tonic !== 'G'
    );
    expect(belongs.length).toBeGreaterThan(0);
    expect(readings([{ bar: 5, key: 'G' }])).toEqual(belongs.map((symbol) => `${symbol} G`));
  });

  it('say nothing before their bar, nor of a key that is the same or its relative', () => {
    expect(readings([{ bar: 9, key: 'G' }])).toEqual([]);
    expect(readings([])).toEqual([]);
    expect(readings([{ bar: 1, key: 'Cm' }])).not.toContain('Ebmaj7 Cm');
  });

  it('hold until the next one', () => {
    const text = '{key: C}\n| Cmaj7 | Fmaj7 | Bmaj7 | Emaj7 | Cmaj7 | Fmaj7 |';
    const found = readings(
      [
        { bar: 3, key: 'B' },
        { bar: 5, key: 'C' }
      ],
      text
    );
    expect(found.every((one) => !one.startsWith('Fmaj7 B'))).toBe(true);
  });
});
