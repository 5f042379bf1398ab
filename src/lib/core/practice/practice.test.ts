import { excerptOf, playedAt, type Excerpt, type LoopWish } from '../harmony/excerpt';
import { describe, expect, it } from 'vitest';
import { readKey } from '../harmony/key';
import { readSheet } from '../harmony/sheet';
import { MODE_NAMES } from '../theory/mode';
import { homeUp, sharpsOf } from '../theory/tonic';
import { shiftOf, tappedTempo, tempoOf } from './ladder';
import { transposeKey, transposeNote, transposeSymbol, transposeText } from '../chart/transpose';

const TUNE = `{key: Gm}
{start_of_grid label="A"}
| Gm6 | Am7b5 D7b9 | Gm6 | % |
{end_of_grid}
{start_of_grid label="B"}
| Cm7 | F7 | Bbmaj7 | D7alt |
{end_of_grid}`;

const excerpt = (wish: LoopWish, text = TUNE): Excerpt => {
  const { form, analysis } = readSheet(text);
  return excerptOf(form, analysis, wish)!;
};

describe('excerpts', () => {
  it('are the form, a section, bars, a drone or a pair', () => {
    expect(excerpt({ kind: 'form' })).toMatchObject({ beats: 32 });
    expect(excerpt({ kind: 'section', bar: 5 }).changes.map(({ source }) => source.symbol)).toEqual([
      'Cm7',
      'F7',
      'Bbmaj7',
      'D7alt'
    ]);
    const bars = excerpt({ kind: 'bars', from: 2, to: 3 });
    expect(bars.changes.map(({ source, start, beats }) => [source.symbol, start, beats])).toEqual([
      ['Am7b5', 0, 2],
      ['D7b9', 2, 2],
      ['Gm6', 4, 4]
    ]);
    expect(excerpt({ kind: 'change', change: 1 })).toMatchObject({ beats: 16 });
    const pair = excerpt({ kind: 'pair', change: 8 });
    expect(pair.changes.map(({ source }) => source.symbol)).toEqual(['D7alt', 'Gm6']);
    expect(playedAt(pair, 4.5)).toBe(1);
  });

  it('are none where a loop ends before its start or there is nothing to play', () => {
    const { form, analysis } = readSheet(TUNE);
    expect(excerptOf(form, analysis, { kind: 'bars', from: 4, to: 3 })).toBeNull();
    expect(excerptOf(form, analysis, { kind: 'bars', from: 0, to: 99 })).toBeNull();
    expect(excerptOf(form, analysis, { kind: 'change', change: 99 })).toBeNull();
    const vamp = readSheet('| Fm7 |');
    expect(excerptOf(vamp.form, vamp.analysis, { kind: 'pair', change: 0 })).toBeNull();
  });

  it('join without gap or overlap', () => {
    for (const wish of [
      { kind: 'form' },
      { kind: 'bars', from: 2, to: 6 },
      { kind: 'pair', change: 3 }
    ] as const) {
      const { changes, beats } = excerpt(wish);
      let at = 0;
      for (const change of changes) {
        expect(change.start).toBeCloseTo(at, 9);
        at += change.beats;
      }
      expect(at).toBeCloseTo(beats, 9);
    }
  });
});

describe('from round to round', () => {
  it('moves an excerpt as a whole with the key', () => {
    const sheet = readSheet(TUNE);
    const up = readSheet(transposeText(TUNE, sheet.analysis.key, 2));
    const of = excerptOf(up.form, up.analysis, { kind: 'form' })!;
    expect(of.changes.map(({ source }) => source.symbol).slice(0, 3)).toEqual(['Am6', 'Bm7b5', 'E7b9']);
    expect(up.analysis.changes.map(({ numeral }) => numeral)).toEqual(
      sheet.analysis.changes.map(({ numeral }) => numeral)
    );
  });

  it('climbs the ladder after rounds, or after clean ones', () => {
    const ladder = { start: 60, goal: 80, step: 8, rounds: 2, onlyClean: false };
    expect([0, 1, 2, 3, 4, 5, 6, 20].map((round) => tempoOf(ladder, round, 0))).toEqual([
      60, 60, 68, 68, 76, 76, 80, 80
    ]);
    expect(tempoOf({ ...ladder, onlyClean: true }, 20, 2)).toBe(68);
    expect(tempoOf({ ...ladder, start: 120, goal: 100 }, 4, 0)).toBe(104);
  });

  it('goes round all twelve keys in every order', () => {
    for (const order of ['fourths', 'fifths', 'up', 'down', 'whole'] as const) {
      const keys = Array.from({ length: 12 }, (_, round) => shiftOf(order, round));
      expect(new Set(keys).size, order).toBe(12);
      expect(keys[0]).toBe(0);
    }
    expect(shiftOf('stay', 7)).toBe(0);
  });

  it('hears the tempo of taps', () => {
    expect(tappedTempo([0, 0.5, 1, 1.5])).toBe(120);
    expect(tappedTempo([0])).toBeNull();
    expect(tappedTempo([0, 9])).toBeNull();
  });

  it('spells other keys as players do', () => {
    const [eFlat, f] = [readKey('Eb')!, readKey('F')!];
    expect(transposeSymbol('Ebmaj7', eFlat, 2)).toBe('Fmaj7');
    expect(transposeSymbol('C7/E', f, 3)).toBe('Eb7/G');
    expect(transposeNote('F', eFlat, 5)).toBe('Bb');
    expect(transposeKey('f# minor', readKey('F#m')!, 1)).toBe('G minor');
    expect(transposeText('{key: Eb}\n{title: Bb}\n| Eb | Bb7 |\n', eFlat, 2)).toContain('{key: F}');
  });

  it.each([
    // A key with fewer accidentals is read more easily: C♯ minor has four sharps, D♭ minor eight flats.
    ['Cm', 1, 'C#m'],
    ['Gm', 1, 'G#m'],
    ['Cm', 3, 'Ebm'],
    ['Em', 11, 'D#m'],
    ['C', 1, 'Db'],
    ['F dorian', 8, 'C# dorian'],
    ['F lydian', 1, 'Gb lydian'],
    // Six sharps are as many as six flats: a flat key stays among flats.
    ['Db', 5, 'Gb'],
    ['E', 2, 'F#'],
    ['C', 6, 'F#'],
    ['Am', 6, 'Ebm']
  ])('names the key %s up by %i semitones %s', (key, up, wanted) => {
    expect(transposeKey(key, readKey(key)!, up)).toBe(wanted);
  });

  it('names every key by its signature, so that none has more than six accidentals', () => {
    for (const mode of MODE_NAMES)
      for (let up = 0; up < 12; up++)
        expect(Math.abs(sharpsOf(homeUp({ tonic: 'C', mode }, up))), `${mode} ${up}`).toBeLessThanOrEqual(6);
  });
});
