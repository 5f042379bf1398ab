import { describe, expect, it } from 'vitest';
import { APPROACHES } from '../approaches/registry';
import { findChains } from '../approaches/chains';
import { firstPlan } from '../plan/arrange';
import { readSheet } from './sheet';
import { isOfStyle, readStyle, STYLES } from './style';

describe('the style of a chart', () => {
  it.each([
    ['{style: country}\n| A | D | E | A |', 'country', 'key-centre'],
    ['{feel: bossa nova}\n| Dm9 | G13 | Cmaj9 | % |', 'jazz', 'modes'],
    ['{feel: tango}\n| Am | E7 | Dm | Am |', 'latin', 'modes'],
    ['| A5 | C5 | D5 | A5 |', 'rock', 'key-centre'],
    ['| Db | Gb | Ab | Db |', 'pop or folk', 'key-centre'],
    ['{feel: funk}\n| E9 | % | % | % |', 'soul or funk', 'key-centre'],
    ['| F7 | Bb7 | F7 | % | Bb7 | % | F7 | % | C7 | Bb7 | F7 | C7 |', 'blues', 'blues'],
    ['| Dm7 | % | % | % | Ebm7 | % | % | % |', 'modal', 'modes']
  ])('%s is %s, and opens with %s', (text, style, approach) => {
    const sheet = readSheet(text);
    expect(sheet.analysis.style).toBe(style);
    expect(firstPlan(sheet).approach).toBe(approach);
  });

  it('is said by hand over what is heard, and by who asks over both', () => {
    const text = '| Dm7 | G7 | Cmaj7 | % |';
    expect(readSheet(text).analysis.style).toBe('jazz');
    expect(readSheet(`{style: soul or funk}\n${text}`).analysis.style).toBe('soul or funk');
    expect(readSheet(`{style: soul or funk}\n${text}`, undefined, 'latin').analysis.style).toBe('latin');
  });

  it('opens with an approach that there is', () => {
    for (const { approach } of STYLES) expect(APPROACHES.map(({ id }) => id)).toContain(approach);
  });

  it('is named by the words that players write, also as tags of a lick', () => {
    expect(['Bebop', 'shuffle', 'gospel', 'salsa', 'waltz'].map(readStyle)).toEqual([
      'jazz',
      'blues',
      'soul or funk',
      'latin',
      null
    ]);
    expect(isOfStyle(['wide', 'swing'], 'jazz')).toBe(true);
    expect(isOfStyle(['wide', 'swing'], 'blues')).toBe(false);
  });

  it('decides whether a chain over a cadence alters its dominant', () => {
    const outside = (style: string) => {
      const { analysis } = readSheet(`{style: ${style}}\n{key: C}\n| Dm7 | G7 | Cmaj7 |`);
      const chain = findChains(analysis).find(({ approach }) => approach === 'displaced-pentatonic');
      return chain?.collections[1]?.notes.filter((note) => /b|#/.test(note)) ?? [];
    };
    expect(outside('jazz').length).toBeGreaterThan(0);
    expect(outside('country')).toEqual([]);
  });
});
