import { describe, expect, it } from 'vitest';
import { readSheet } from '../harmony/sheet';
import { STANDARD } from '../neck/tuning';
import { lickChart, lickFacts, lickFrom } from './lick-facts';
import { noteOf, ticksOf } from './model';
import { lineOf } from './testing';

const FOUR = { beats: 4, unit: 4 };
const spans = (text: string) =>
  text.split(' ').map((word) => {
    const [symbol = '', beats] = word.split(':');
    return { symbol, beats: Number(beats) };
  });
const changesOf = (chart: string) =>
  readSheet(chart)
    .form.changes.map(({ symbol, beats }) => `${symbol}:${beats}`)
    .join(' ');

describe('a lick by itself', () => {
  it.each([
    ['Dm7:4 G7:4 Cmaj7:8', FOUR],
    ['Dm7:2 G7:2 Cmaj7:4', FOUR],
    ['Dm7:3 G7:1 Cmaj7:4', FOUR],
    ['Dm7:1.5 G7:2.5', FOUR],
    ['Cm7:3 F7:3 Bbmaj7:3', { beats: 3, unit: 4 }],
    ['Fm7:6', { beats: 6, unit: 8 }]
  ])('%s stands as a chart of its own', (over, meter) => {
    const spread = changesOf(lickChart({ meter, over: spans(over) }, 'Rope {ladder}')).split(' ');
    // A chord that goes on over a bar is written again.
    const joined = spans(spread.join(' ')).reduce<{ symbol: string; beats: number }[]>((all, one) => {
      const last = all.at(-1);
      return last?.symbol === one.symbol
        ? [...all.slice(0, -1), { ...last, beats: last.beats + one.beats }]
        : [...all, one];
    }, []);
    expect(joined).toEqual(spans(over));
  });

  it('says its motion, its landing, how clearly it tells its chords', () => {
    const notes = lineOf('F4, A4, C5, E5, D5, C5, A4, F4, B4, D5, F5, D5, B4, G4, F4, D4, E4 1, G4 1, C5 2');
    const facts = lickFacts({ meter: FOUR, over: spans('Dm7:4 G7:4 Cmaj7:4'), notes }, STANDARD);
    expect(facts).toMatchObject({
      motion: 'ii7–V7–Imaj7',
      resolves: { symbol: 'Cmaj7', degree: '3' },
      beats: 12
    });
    expect(facts.told).toBeGreaterThanOrEqual(2 / 3);
  });

  it('is cut from a line with the chords under it, timed from its start', () => {
    const { form } = readSheet('| Cm7 | F7 . . Bb7 | N.C. |');
    const notes = lineOf('C4 2, Eb4 2, A3 2, C4 1, D4 3');
    const lick = lickFrom(notes, form.changes, FOUR, { from: ticksOf(2), to: ticksOf(8) })!;
    expect(lick.over).toEqual(spans('Cm7:2 F7:3 Bb7:1'));
    expect(lick.notes.map(({ start, length }) => [start, length])).toEqual([
      [0, ticksOf(2)],
      [ticksOf(2), ticksOf(2)],
      [ticksOf(4), ticksOf(1)],
      // What lasts longer ends with the passage.
      [ticksOf(5), ticksOf(1)]
    ]);
    expect(lickFrom(notes, form.changes, FOUR, { from: ticksOf(8), to: ticksOf(12) })).toBeNull();
    expect(
      lickFrom([noteOf(0, 480, 60)], form.changes, FOUR, { from: ticksOf(4), to: ticksOf(8) })
    ).toBeNull();
  });
});
