import { describe, expect, it } from 'vitest';
import { readSheet } from '$lib/core/harmony/sheet';
import { mapParts } from './columns';

const cut = (text: string, isFolded = true, columns?: number) =>
  mapParts(readSheet(text).analysis.changes, ({ symbol }) => symbol, isFolded, columns).map(
    ({ title, columns }) =>
      `${title}: ${columns.map(({ changes }) => `${changes[0]!.symbol}×${changes.length}`).join(' ')}`
  );
const section = (label: string, bars: string) => `{start_of_grid label="${label}"}\n${bars}\n{end_of_grid}\n`;

describe('the parts of a position map', () => {
  it('fold neighbours that say the same', () => {
    expect(cut('| Fm7 | Fm7 | Bb7 | Fm7 |')).toEqual(['bars 1–4: Fm7×2 Bb7×1 Fm7×1']);
    expect(cut('| Fm7 | Fm7 | Bb7 | Fm7 |', false)).toEqual(['bars 1–4: Fm7×1 Fm7×1 Bb7×1 Fm7×1']);
  });

  it('join a section to an earlier one that says the same', () => {
    const text = section('A', '| Eb | Cm |') + section('B', '| Ab | Bb |') + section('A', '| Eb | Cm |');
    expect(cut(text)).toEqual(['A: Eb×2 Cm×2', 'B: Ab×1 Bb×1']);
    expect(cut(text, false)).toHaveLength(3);
  });

  it('join a repeat, and tell parts of one name apart by their bars', () => {
    expect(cut(section('Loop', '|: Bb | Gm | Eb | F :|'))).toEqual(['Loop: Bb×2 Gm×2 Eb×2 F×2']);
    expect(cut(section('Loop', '|: Bb | Gm :|'), false)).toEqual([
      'Loop, bars 1–2: Bb×1 Gm×1',
      'Loop, bars 3–4: Bb×1 Gm×1'
    ]);
  });

  it('are cut where they grow too wide, evenly', () => {
    const symbols = ['C', 'D', 'E', 'F', 'G', 'A', 'B', 'Db', 'Eb'];
    const parts = cut(`| ${symbols.join(' | ')} |`);
    expect(parts.map((part) => part.split('×').length - 1)).toEqual([5, 4]);
    expect(cut(`| ${symbols.join(' | ')} |`, true, 12)).toHaveLength(1);
  });

  it('are none without changes', () => {
    expect(cut('')).toEqual([]);
  });
});
