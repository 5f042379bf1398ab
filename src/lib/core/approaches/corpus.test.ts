/** Test data from outside: what a teacher of the style puts first, change by change. */
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { sure } from '../../testing/sure';
import { transposeText } from '../chart/transpose';
import { readSheet } from '../harmony/sheet';
import { pitchClass, plainName } from '../theory/note';
import { sameNotes } from './choice';
import { scaleChoices } from './registry';

const table = (name: string) =>
  readFileSync(new URL(`../../../../tests/data/${name}.tsv`, import.meta.url), 'utf8')
    .trim()
    .split('\n')
    .slice(1)
    .map((line) => line.split('\t') as [string, string, string, string]);
const rows = table('choices');
const styled = table('style-choices');

describe('choices in context', () => {
  it('are at least 80', () => expect(rows.length).toBeGreaterThanOrEqual(80));
  it('are at least 60 more by style', () => expect(styled.length).toBeGreaterThanOrEqual(60));
  it.each([...rows, ...styled])('%s, change %s, %s: %s', (chart, change, approach, first) => {
    const { analysis } = readSheet(chart.replaceAll(/(\{[^}]*\})\s*/g, '$1\n'));
    const names = scaleChoices(analysis, { approaches: [approach] })[Number(change)]!.map(({ name }) => name);
    const wanted = first.split(', ');
    expect(names.slice(0, wanted.length)).toEqual(wanted);
  });

  it('agree in another key', () => {
    for (const [i, [chart, change, approach, first]] of styled.entries()) {
      const text = chart.replaceAll(/(\{[^}]*\})\s*/g, '$1\n');
      const up = 1 + (i % 11);
      const { analysis } = readSheet(transposeText(text, readSheet(text).analysis.key, up));
      const found = scaleChoices(analysis, { approaches: [approach] })[Number(change)]!;
      const wanted = first.split(', ');
      const said = (root: string, rest: string) => `${(pitchClass(root) + 12) % 12}${rest}`;
      const plain = (name: string, by: number) =>
        name.replace(/^([A-G][b#]?)(.*)$/, (_, root: string, rest: string) =>
          said(plainName((pitchClass(root) + by) % 12), rest)
        );
      expect(
        found.slice(0, wanted.length).map(({ name }) => plain(name, 0)),
        `${chart} up ${up}, change ${change}`
      ).toEqual(wanted.map((name) => plain(name, up)));
    }
  });

  it('never name the same notes twice in one list, but for orders and thoughts of the same', () => {
    for (const [chart] of [...rows, ...styled]) {
      const { analysis } = readSheet(chart.replaceAll(/(\{[^}]*\})\s*/g, '$1\n'));
      for (const choices of scaleChoices(analysis))
        for (const [i, one] of choices.entries())
          for (const other of choices.slice(0, i))
            if (one.approach === other.approach && !['arpeggio', 'substitution'].includes(one.approach))
              sure(sameNotes(one, other), `${chart}: ${one.name}, ${other.name}`).toBe(false);
    }
  });
});
