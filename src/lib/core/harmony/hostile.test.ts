/** No text can hurt: whatever is typed or pasted is read, in time that grows with its length and no faster. */
import { readChord } from '../theory/chord-reader';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readChart } from '../chart/read';
import { writeChart } from '../chart/write';
import { readSheet } from './sheet';

/** Signs and words that mean something to a reader, to be thrown together. */
const SIGNS = fc.constantFrom(
  ...'| || ||: :|| : . / % %% 1 2. 1,3 1-3 3-1 1, - ( ) (a [ ] { } { { } " \' \\ # ♭ ∅'.split(' '),
  ...'C F#m7b5 Bb7(b9, #11) N.C. em7 H7 x \t \u00a0 \u2028 label="A" label= start_of_grid sog eog'.split(' '),
  ' ',
  '  ',
  '\n',
  '\r\n',
  '\r',
  '{sog label="A"}',
  "{start_of_grid: label='it\"s'}",
  '{t: a}',
  '{meta: key Eb}',
  '{Title: }',
  '{a}b}',
  '{time: 3/4}'
);
const HOSTILE = fc.oneof(
  fc.array(SIGNS, { maxLength: 24 }).map((parts) => parts.join('')),
  fc.array(SIGNS, { maxLength: 24 }).map((parts) => parts.join(' ')),
  fc.string({ maxLength: 60 }),
  fc.string({ unit: 'binary', maxLength: 40 })
);

describe('hostile texts', () => {
  it('read, written and read again say the same', () => {
    fc.assert(
      fc.property(HOSTILE, (text) => {
        const { chart } = readChart(text);
        expect(readChart(writeChart(chart)).chart).toEqual(chart);
      }),
      { numRuns: 4000 }
    );
  });

  it.each([
    '{sog label="a \\" b"}\n| C |',
    '{sog label=\'say "A"\'}\n| C |',
    '{sog: my "label"}',
    '{sog label="" rest}',
    '{sog foo label="A" bar}',
    '{start_of_grid: 4x4}',
    '||1-3:||:',
    '|  1 C |',
    '| C |1 - 3 D :|',
    '|3-1 C |',
    '',
    '\n',
    'A\u2028| C |',
    '{a:\u2028b}',
    '|1 ,x|',
    '|| 1.|',
    '| 2. - 3-1',
    '| 2. - 3',
    '|1. , 2 C |',
    '{meta}',
    '{:}',
    '| :   ',
    '{}}',
    'C(b9, #11) | F'
  ])('%j comes round', (text) => {
    const { chart } = readChart(text);
    expect(readChart(writeChart(chart)).chart).toEqual(chart);
  });

  it('are analysed without an error', () => {
    fc.assert(
      fc.property(HOSTILE, (text) => {
        const { form, analysis } = readSheet(text);
        expect(analysis.changes).toHaveLength(form.changes.length);
      }),
      { numRuns: 1000 }
    );
  });

  it.each([
    'Cadd#4',
    'Caddb6',
    'Cadd#2',
    'Caddb2',
    'Caddb4',
    'Cadd#6',
    'Caddb11',
    'Cadd#13',
    'C7#13',
    'C7b11',
    'C7b4'
  ])('reads %s, or says what is wrong with it', (symbol) => {
    const reading = readChord(symbol);
    const isReal = /#4|b6|#2|b2/.test(symbol);
    expect(reading.kind).toBe(isReal ? 'chord' : 'problem');
  });

  it('a symbol without end is quoted in part', () => {
    const reading = readChord(`C${'m'.repeat(50_000)}`);
    expect(reading.kind).toBe('problem');
    expect(reading.kind === 'problem' && reading.problem.message.length).toBeLessThan(120);
  });
});

/** Texts of a length whose readers would take all time or memory, were they to look back or to copy. */
const WORST: Readonly<Record<string, (length: number) => string>> = {
  'an open directive and space': (n) => `{a${' '.repeat(n)}x`,
  'a directive of space': (n) => `{a:${' '.repeat(n)}x`,
  'an open directive of letters': (n) => `{${'a'.repeat(n)}`,
  'a label without end': (n) => `{sog label${' '.repeat(n)}x}`,
  'repeat signs over a full bar': (n) => `|${'C '.repeat(n / 6)}${'|%'.repeat(n / 3)}|`,
  'double repeat signs': (n) => `| C | D ${'|%%'.repeat(n / 3)}|`,
  'endings without end': (n) => `|${'1,'.repeat(n / 2)}`,
  'endings over endings': (n) => '|1,2,3,4,5,6,7,8,9 C :'.repeat(n / 22),
  'open parentheses': (n) => '(a '.repeat(n / 3),
  'open parentheses in a bar': (n) => `|${'C(a '.repeat(n / 4)}|`,
  'one long symbol': (n) => `| C${'/'.repeat(n)} |`,
  'many unknown symbols': (n) => `| ${Array.from({ length: n / 6 }, (_, i) => `C${i % 9973}`).join(' ')} |`,
  'a line of words before a bar': (n) => `${'C '.repeat(n / 2)}x |`,
  'bars without end': (n) => '|'.repeat(n),
  'rests without end': (n) => '| '.repeat(n / 2),
  'one chord a line': (n) => 'C|\n'.repeat(n / 3)
};

describe('the worst texts', () => {
  it.each(Object.keys(WORST))('%s', (name) => {
    const text = WORST[name]!;
    // No time is asserted but that it ends at all: what looked back or copied took all the time or memory there was.
    expect(text(64_000).length).toBeGreaterThan(40_000);
    expect(readSheet(text(64_000)).form.changes.length).toBeLessThanOrEqual(2001);
  });
});
