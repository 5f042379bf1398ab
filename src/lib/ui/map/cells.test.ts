import { describe, expect, it } from 'vitest';
import { readSheet } from '$lib/core/harmony/sheet';
import { STANDARD } from '$lib/core/neck/tuning';
import type { MapRow } from '$lib/core/neck/position-map';
import { mapParts } from './columns';
import { barsOf, fretsOf, notesOf, rowAt, spoken } from './cells';

const cell = (string: number, fret: number, degree: string) => ({
  string,
  fret,
  degree,
  note: 'Gb',
  midi: 60
});
const area = (anchor: number, ...cells: object[]) => ({
  anchor,
  cells,
  name: { words: 'box 2', kind: 'box' }
});
const row = (position: number, ...areas: unknown[]) => ({ position, areas }) as unknown as MapRow;
const [columns] = mapParts(
  readSheet('| Gbm7 | B7 | Gbm7 |').analysis.changes,
  ({ symbol }) => symbol,
  true
).map((part) => part.columns);

describe('a cell of the position map', () => {
  it('shows the frets of the widest shape of its row, the hand’s at least, and open strings apart', () => {
    expect(fretsOf(row(5, area(5, cell(1, 4, '1'), cell(2, 9, '5')), null), STANDARD)).toEqual({
      from: 4,
      to: 9,
      hasOpen: false
    });
    expect(fretsOf(row(0, area(0, cell(1, 0, '1'))), STANDARD)).toEqual({ from: 1, to: 5, hasOpen: true });
  });

  it('draws open what stays from the cell to the left', () => {
    const held = row(
      5,
      area(5, cell(3, 6, 'b3')),
      area(5, cell(3, 6, 'b7'), cell(3, 8, '1'), cell(2, 5, '9'))
    );
    expect(notesOf(held, columns![1]!).map(({ fret, look, label }) => [fret, look, label])).toEqual([
      [6, 'open', '♭7'],
      [8, 'full', '1'],
      [5, 'dot', undefined]
    ]);
  });

  it('says what it holds, and that there is nothing to play', () => {
    expect(spoken(row(5, area(4, cell(3, 6, 'b3'))), columns![0]!)).toMatch(/^Gbm7, bar 1, box 2, fret 4: /);
    expect(spoken(row(5, null), columns![0]!)).toBe('Gbm7, bar 1: nothing to play');
  });

  it('is found by the nearest row, and names its bars', () => {
    expect([rowAt([row(2), row(5), row(9)], 6), rowAt([row(2), row(5), row(9)], 8)]).toEqual([1, 2]);
    expect(columns!.map(barsOf)).toEqual(['1', '2', '3']);
  });
});
