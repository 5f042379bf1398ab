import { describe, expect, it } from 'vitest';
import { readChord } from './chord-reader';
import { PAD_COLOURS, PAD_QUALITIES, PAD_ROOTS, PAD_SIGNS, padPress, type PadKey } from './chord-pad';

const keyOf = (sign: string): PadKey => {
  if (sign === '/') return { kind: 'bass' };
  if (sign === '⌫') return { kind: 'back' };
  const has = (list: readonly string[]) => list.includes(sign);
  const kind = has(PAD_ROOTS) ? 'root' : has(PAD_SIGNS) ? 'sign' : has(PAD_QUALITIES) ? 'quality' : 'colour';
  return { kind, sign };
};
const pressed = (...signs: string[]) => signs.reduce((text, sign) => padPress(text, keyOf(sign)), '');

describe('the chord pad', () => {
  it.each([
    [['E', 'b', 'maj7'], 'Ebmaj7'],
    [['E', 'b', 'maj7', '9'], 'Ebmaj9'],
    [['B', 'b', '7', 'b9'], 'Bb7b9'],
    [['G', '7', '13', '#11'], 'G13#11'],
    [['A', 'm7', '11'], 'Am11'],
    [['D', 'm', '7'], 'D7'],
    [['C', '6', '9'], 'C6/9'],
    [['F', '#', '#', 'm7b5'], 'Fm7b5'],
    [['C', 'm7', '/', 'E', 'b'], 'Cm7/Eb'],
    [['A', 'b', '/', 'C', 'm'], 'Abm/C'],
    [['A', '7', 'alt', 'alt'], 'A7'],
    [['C', '#11'], 'Cmaj7#11'],
    [['m7'], ''],
    [['C', '⌫'], '']
  ])('%j gives %s', (signs, symbol) => {
    expect(pressed(...signs)).toBe(symbol);
  });

  it('makes chords that are understood: every root, quality and colour it has', () => {
    for (const root of PAD_ROOTS)
      for (const quality of ['', ...PAD_QUALITIES]) {
        const symbol = quality ? pressed(root, quality) : pressed(root);
        expect(readChord(symbol).kind, symbol).toBe('chord');
      }
    for (const colour of PAD_COLOURS) expect(readChord(pressed('D', '7', colour)).kind, colour).toBe('chord');
  });
});
