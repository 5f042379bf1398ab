import { describe, expect, it } from 'vitest';
import { readSheet } from '../../harmony/sheet';
import { pieceOf } from '../testing';
import { importText } from './import';
import { writeInline } from './inline';

const played = (chart: string) =>
  readSheet(chart).form.changes.flatMap(({ symbol, beats }) =>
    Array.from({ length: 2 * beats }, () => symbol)
  );

describe('chords in brackets', () => {
  it('stand bar by bar, the form written out', () => {
    const chart =
      '{title: Slack Water}\n{key: Gb}\n{start_of_grid label="A"}\n|: Gbmaj7 | Abm7 Db7 :|\n{end_of_grid}\n| Ebm7 |';
    expect(writeInline(pieceOf([], chart))).toBe(
      '{title: Slack Water}\n{key: Gb}\n{time: 4/4}\n\n{start_of_verse: A}\n| [Gbmaj7] | [Abm7] [Db7] | [Gbmaj7] | [Abm7] [Db7] |\n| [Ebm7] |\n{end_of_verse}\n'
    );
  });

  it.each([
    '| Fm7 | Bb7 Eb6 | N.C. | C7/E |',
    '{time: 3/4}\n|: Dbmaj7 | Gb7 :| Cm7b5 |',
    '{key: F#m}\n| F#m7 B7 | C#7#9 |'
  ])('come back as they are played: %s', (chart) => {
    const back = importText(writeInline(pieceOf([], chart)));
    expect(played(back.chart!)).toEqual(played(chart));
    expect(back.left).toEqual([]);
  });
});
