import { keyText } from './key';
import { cadenceTitle } from './cadence-model';
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
  it('are at least 800', () => expect(rows.length).toBeGreaterThanOrEqual(800));
  it('are read and spelled as in the table', () => {
    for (const [symbol, degrees, notes] of rows) {
      const reading = readChord(symbol!);
      const said =
        reading.kind === 'chord'
          ? [reading.chord.tones.join(' '), reading.chord.notes.join(' ')]
          : [reading.kind, ''];
      expect.soft(said, symbol).toEqual([degrees, notes ?? '']);
    }
  });
});

describe('progressions', () => {
  const rows = table('progressions');
  const name = keyText;
  it('are at least 120, in all styles', () => expect(rows.length).toBeGreaterThanOrEqual(120));
  it.each(rows)('%s', (chart, key, numerals, cadences = '') => {
    const text = chart!.replace(/^(\{[^}]*\})\s*/, '$1\n');
    const { analysis } = readSheet(text);
    const said = analysis.changes.map(
      (c) => (c.numeral ? romanText(c.numeral) : null) + (name(c.key) === key ? '' : `@${name(c.key)}`)
    );
    expect(`${name(analysis.key)}: ${said.join(' ')}`).toBe(`${key}: ${numerals}`);
    const titles = analysis.cadences.map(cadenceTitle);
    for (const cadence of cadences.split(',').filter(Boolean)) expect(titles).toContain(cadence);
  });
});
