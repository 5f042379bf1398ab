/** What is proposed while a chart is written; forms to begin from; chords made simpler; two charts compared. */
import { describe, expect, it } from 'vitest';
import { DEMO_CHARTS } from '../../scenario/charts';
import { compareForms } from '../chart/compare';
import { barsOf } from '../chart/writing/edits';
import { readChord } from '../theory/chord-reader';
import { FORM_PATTERNS, formText } from './forms';
import { readSheet } from './sheet';
import { simplified } from './simplify';
import { suggestionsAt, type Place } from './suggest';

/** The place behind what is written, or before a bar of it. */
function placeIn(text: string, bar?: number, beat = 0): Place {
  const { analysis, head } = readSheet(text);
  const bars = barsOf(text);
  const hasKey = analysis.declared || analysis.changes.some(({ chord }) => chord !== null);
  return {
    bars,
    bar: bar ?? bars.length,
    beat,
    key: hasKey ? analysis.key : null,
    isBlues: analysis.blues,
    style: head.style === null && analysis.changes.length === 0 ? null : analysis.style
  };
}
const proposed = (text: string, bar?: number, beat?: number) =>
  suggestionsAt(placeIn(text, bar, beat)).map(({ symbol }) => symbol);

describe('suggestions', () => {
  it.each<[string, string, number?]>([
    ['{key: Gm}\n| Gm7 | Am7b5 |', 'D7b9'],
    ['{key: Gm}\n| Am7b5 | D7b9 |', 'Gm7'],
    ['{key: Db}\n| Dbmaj7 | Ebm7 |', 'Ab7'],
    ['{key: Db}\n| Ebm7 | Ab7 |', 'Dbmaj7'],
    ['{key: B}\n{style: pop or folk}\n| B | E |', 'F#'],
    ['{key: F#m}\n{style: rock}\n| F#m | D |', 'E'],
    ['{key: Eb}\n{style: blues}\n| Eb7 | Ab7 | Eb7 | Eb7 | Ab7 |', 'Eb7'],
    ['{key: Bb}\n| Bbmaj7 | G7b9 |', 'Cm7'],
    ['{key: Cb}\n| Cbmaj7 | Abm7 |', 'Dbm7'],
    ['{key: D dorian}\n| Dm7 |', 'G7'],
    ['{key: Eb}\n', 'Ebmaj7'],
    ['{key: Bb}\n{style: rock}\n| | Gm | Eb | F |', 'Bb', 0]
  ])('after %j begin with %s', (text, wanted, bar) => {
    expect(proposed(text, bar)[0]).toBe(wanted);
  });

  it('lead to what follows: its ii before a V, its V before anything else', () => {
    expect(proposed('{key: F}\n| Fmaj7 | | C7 |', 1)[0]).toBe('Gm7');
    expect(proposed('{key: Gm}\n| Gm7 | | D7b9 |', 1)[0]).toBe('Am7b5');
    expect(proposed('{key: F}\n| Fmaj7 | | Gm7 |', 1)[0]).toBe('D7b9');
  });

  it('give what stood there in the section before, as long as it goes the same way', () => {
    const a = '{key: Ab}\n{start_of_grid label="A"}\n| Fm7 | Bbm7 | Dbm6 | Eb7 |\n{end_of_grid}\n';
    const again = (row: string) => `${a}{start_of_grid label="B"}\n${row}\n{end_of_grid}`;
    expect(suggestionsAt(placeIn(again('| Fm7 | Bbm7 |')))[0]).toEqual({
      symbol: 'Dbm6',
      why: 'as in section A'
    });
    expect(proposed(again('| Fm7 | Gm7 |'))[0]).not.toBe('Dbm6');
  });

  it('begin with what is typed, in any case of the root', () => {
    const all = suggestionsAt(placeIn('{key: Eb}\n| Ebmaj7 |'), 'f').map(({ symbol }) => symbol);
    expect(all[0]).toBe('Fm7');
    expect(all.every((symbol) => symbol.startsWith('F'))).toBe(true);
    expect(suggestionsAt(placeIn('{key: Eb}\n| Ebmaj7 |'), 'Bb').map(({ symbol }) => symbol)).toContain(
      'Bb7'
    );
  });

  it('are chords, none twice, in any key', () => {
    for (const tonic of 'C Db D Eb E F Gb F# G Ab A Bb B Cb C#'.split(' '))
      for (const mode of ['', 'm', ' dorian', ' mixolydian', ' lydian']) {
        const all = proposed(
          `{key: ${tonic}${mode}}\n| ${tonic}${mode === 'm' || mode === ' dorian' ? 'm' : ''} |`
        );
        expect(new Set(all).size).toBe(all.length);
        expect(all.length).toBeGreaterThan(4);
        for (const symbol of all) expect(readChord(symbol).kind, symbol).toBe('chord');
      }
  });

  it('spare presses: a tune takes three a chord and fewer', () => {
    const spent = DEMO_CHARTS.map(({ text }) => {
      const bars = barsOf(text);
      let presses = 0;
      let chords = 0;
      const head = text.split('\n').filter((line) => line.startsWith('{') && !line.includes('grid'));
      for (const { index, chords: own } of bars) {
        for (const { symbol, beat } of own) {
          const before = bars
            .slice(0, index + (beat > 0 ? 1 : 0))
            .map((bar) =>
              bar.index < index ? bar : { ...bar, chords: bar.chords.filter((one) => one.beat < beat) }
            );
          const written = `${head.join('\n')}\n${before.map(({ chords: all }) => `| ${all.map((one) => one.symbol).join(' ')}`).join(' ')} |`;
          const offer = suggestionsAt({
            ...placeIn(written),
            bars: before.map((bar) => ({ ...bar, section: bar.section })),
            bar: index,
            beat
          });
          // A digit takes it; otherwise its letters, and one more. A second chord of a bar parts it first.
          presses +=
            (offer.some((one) => one.symbol === symbol) ? 1 : symbol.length + 1) + (beat > 0 ? 1 : 0);
          chords += 1;
        }
      }
      return presses / Math.max(1, chords);
    });
    expect(spent.reduce((sum, one) => sum + one, 0) / spent.length).toBeLessThanOrEqual(3);
  });
});

describe('forms to begin from', () => {
  it.each(FORM_PATTERNS.map((pattern) => [pattern.id, pattern] as const))(
    '%s reads in every key',
    (_, pattern) => {
      for (const tonic of 'C Db D Eb E F F# G Ab A Bb B'.split(' ')) {
        const sheet = readSheet(formText(pattern, tonic, 'Early Ferry'));
        expect(sheet.problems.filter(({ code }) => code !== 'empty-chart')).toEqual([]);
        expect(sheet.head.title).toBe('Early Ferry');
        expect(sheet.analysis.key.tonic).toBe(tonic);
        expect(sheet.form.bars.length % 4).toBe(0);
      }
    }
  );

  it('are spelled by their key', () => {
    const blues = FORM_PATTERNS.find(({ id }) => id === 'jazz blues')!;
    expect(formText(blues, 'Db', 'x')).toContain('| Gb7 | Gdim7 | Db7 | Fm7b5 Bb7b9 |');
  });
});

describe('a chord made simpler', () => {
  it.each([
    ['C13#11', 'C', 'C7'],
    ['F#m11', 'F#m', 'F#m7'],
    ['Bbm7b5', 'Bbdim', 'Bbm7b5'],
    ['Ebmaj9/G', 'Eb/G', 'Ebmaj7/G'],
    ['Db7#9', 'Db', 'Db7'],
    ['G7alt', 'G', 'G7'],
    ['A9sus4', 'Asus4', 'A7sus4'],
    ['Abm(maj9)', 'Abm', 'Abm(maj7)'],
    ['D6/9', 'D', 'D6'],
    ['B°7', 'Bdim', 'Bdim7'],
    ['Gadd9', 'G', 'G'],
    ['E7#5', 'Eaug', 'E7#5'],
    ['E5', 'E5', 'E5'],
    ['N.C.', 'N.C.', 'N.C.']
  ])('%s is %s and %s', (symbol, triad, seventh) => {
    expect([simplified(symbol, 'triads'), simplified(symbol, 'sevenths')]).toEqual([triad, seventh]);
    for (const simple of [triad, seventh].filter((one) => one !== 'N.C.'))
      expect(readChord(simple).kind).toBe('chord');
  });
});

describe('two charts', () => {
  it('are paired bar by bar, what differs beside one another', () => {
    const forms = ['| Fm7 | Bb7 | Ebmaj7 | C7 |', '| Fm7 | E7 | Ebmaj7 | Ab7 | C7 |'].map(
      (text) => readSheet(text).form
    );
    const pairs = compareForms(forms[0]!, forms[1]!);
    expect(pairs.map(({ left, right, isSame }) => [left?.symbols[0], right?.symbols[0], isSame])).toEqual([
      ['Fm7', 'Fm7', true],
      ['Bb7', 'E7', false],
      ['Ebmaj7', 'Ebmaj7', true],
      [undefined, 'Ab7', false],
      ['C7', 'C7', true]
    ]);
    // A bar that only holds another chord on is another bar.
    expect(compareForms(readSheet('| C | | F |').form, readSheet('| G | | F |').form)[1]!.isSame).toBe(false);
  });
});
