/** Test data from outside: what a teacher of the style puts first, change by change. */
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { readSheet } from '../harmony/sheet';
import { scaleChoices } from './registry';

const rows = readFileSync(new URL('../../../../tests/data/choices.tsv', import.meta.url), 'utf8')
  .trim()
  .split('\n')
  .slice(1)
  .map((line) => line.split('\t') as [string, string, string, string]);

describe('choices in context', () => {
  it('are at least 80', () => expect(rows.length).toBeGreaterThanOrEqual(80));
  it.each(rows)('%s, change %s, %s: %s', (chart, change, approach, first) => {
    const { analysis } = readSheet(chart.replace(/^(\{[^}]*\})\s*/, '$1\n'));
    const names = scaleChoices(analysis, { approaches: [approach] })[Number(change)]!.map(({ name }) => name);
    const wanted = first.split(', ');
    expect(names.slice(0, wanted.length)).toEqual(wanted);
  });
});
