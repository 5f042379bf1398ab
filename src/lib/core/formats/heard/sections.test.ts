import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readSheet } from '../../harmony/sheet';
import { TICKS } from '../../line/model';
import { chartOf, type FoundBar } from '../chart-of';
import { sectionsOf } from './sections';

const said = (text: string) =>
  sectionsOf(text.split('')).map(
    ({ label, from, to, isTwice }) => `${label}${to - from}${isTwice ? 'x2' : ''}`
  );

describe('stretches that come again', () => {
  it.each([
    ['a form of four lines', 'abcdefghabcdefghijklmnopabcdefgh', ['A8x2', 'B8', 'A8']],
    ['a loop', 'abcdabcdabcdabcd', ['A4x2', 'A4x2']],
    ['an odd number of rounds', 'abcdabcdabcd', ['A4x2', 'A4']],
    ['verse and chorus', 'abcdefghijklmnopabcdefghijklmnop', ['A16x2']],
    ['a way in before it', 'wxyzabcdefghabcdefgh', ['A4', 'B8x2']],
    [
      'one bar before it: lines are counted in fours',
      'xabcdefghijklmnopabcdefghijklmnop',
      ['A4', 'B13', 'C3', 'B13']
    ],
    ['nothing that comes again', 'abcdefghijklmnop', []],
    ['too little to be a form', 'abcdabcd', []]
  ])('%s', (_, bars, sections) => expect(said(bars)).toEqual(sections));

  it('are played as often as they were written', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom('C', 'F', 'G7', 'Am'), { minLength: 1, maxLength: 40 }),
        fc.array(fc.nat(3), { maxLength: 3 }),
        (symbols, turns) => {
          const all = [...symbols, ...turns.flatMap((turn) => symbols.slice(turn))];
          let start = 0;
          const bars = all.map((_, i): FoundBar => {
            const meter = { beats: i % 7 === 6 && turns.length === 2 ? 3 : 4, unit: 4 };
            const bar = { start, length: meter.beats * TICKS, meter };
            start += bar.length;
            return bar;
          });
          const chords = all.map((symbol, i) => ({ start: bars[i]!.start, symbol }));
          const form = (folds: boolean) => {
            const { bars: played, changes } = readSheet(chartOf({ bars, chords, folds }, TICKS).chart!).form;
            return {
              bars: played.map(({ start: at, beats }) => [at, beats]),
              chords: all.map(
                (_, i) => changes.findLast((one) => one.start <= bars[i]!.start / TICKS)?.symbol
              )
            };
          };
          expect(form(true)).toEqual(form(false));
        }
      ),
      { numRuns: 40 }
    );
  });
});
