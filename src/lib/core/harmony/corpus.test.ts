import { romanText } from './numeral';
/** Test data from outside: chord spellings counted by hand rules, progressions read by a musician. */
import { readChord } from '../theory/chord-reader';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { readSheet } from './sheet';

function table(name: string): string[][] {
  const text = readFileSync(new URL(`../../../../tests/data/${name}.tsv`, import.meta.url), 'utf8');
  return text
    .trim()
    .split('\n')
    .slice(1)
    .map((line) => line.split('\t'));
}

describe('chord spellings', () => {
  const rows = table('chords');
  it('are at least 300', () => expect(rows.length).toBeGreaterThanOrEqual(300));
  it('are read and spelled as in the table', () => {
    for (const [symbol, degrees, notes] of rows) {
      const reading = readChord(symbol!);
      const said =
        reading.kind === 'chord' ? [reading.chord.tones.join(' '), reading.chord.notes.join(' ')] : [];
      expect(said, symbol).toEqual([degrees, notes]);
    }
  });
});

describe('progressions', () => {
  const rows = table('progressions');
  it('are at least 40', () => expect(rows.length).toBeGreaterThanOrEqual(40));
  it.each(rows)('%s', (chart, key, numerals) => {
    const text = chart!.replace(/^(\{[^}]*\})\s*/, '$1\n');
    const { analysis } = readSheet(text);
    const name = (k: { tonic: string; mode: string }) => k.tonic + (k.mode === 'minor' ? 'm' : '');
    expect(name(analysis.key)).toBe(key);
    const said = analysis.changes.map(
      (c) => (c.numeral ? romanText(c.numeral) : null) + (name(c.key) === key ? '' : `@${name(c.key)}`)
    );
    expect(said.join(' ')).toBe(numerals);
  });
});
