import { describe, expect, it } from 'vitest';
import { excerptOf } from '../harmony/excerpt';
import { readSheet } from '../harmony/sheet';
import { bandEvents } from './band';
import { DRUMS, FEELS, feelNamed } from './feel';

const ROUNDS = 20;

/** What is counted of a feel over some two hundred bars. */
function figures(id: string) {
  const feel = feelNamed(id)!;
  const time = id === 'waltz' || id === 'jazz waltz' ? '3/4' : id === 'gospel 6/8' ? '6/8' : '4/4';
  const { form, analysis } = readSheet(
    `{key: A}\n{time: ${time}}\n| A | D | A | F#m | Bm7 | E7 | A | E7 | D | A |`
  );
  const excerpt = excerptOf(form, analysis, { kind: 'form' })!;
  const all = Array.from({ length: ROUNDS }, (_, round) =>
    bandEvents({ excerpt, feel, ratio: 0.6, seed: 7, round, isLast: false })
  );
  const bars = excerpt.bars.length * ROUNDS;
  const of = (part: string) => all.flatMap((events) => events.filter((event) => event.part === part));
  const times = (part: string) =>
    all.reduce(
      (sum, events) =>
        sum +
        new Set(events.filter((event) => event.part === part).map(({ start }) => start.toFixed(2))).size,
      0
    );
  const onOne = (part: string) =>
    all.reduce(
      (sum, events) =>
        sum +
        excerpt.bars.filter((bar) =>
          events.some((event) => event.part === part && Math.abs(event.start - bar.start) < 0.05)
        ).length,
      0
    ) / bars;
  const kinds = new Set(
    all.flatMap((events) =>
      excerpt.bars.map((bar) =>
        events
          .filter(
            ({ part, start }) => part !== 'click' && start >= bar.start && start < bar.start + bar.beats
          )
          .map(
            ({ part, start, midi }) =>
              `${part} ${(start - bar.start).toFixed(1)} ${part === 'drums' ? midi : ''}`
          )
          .join()
      )
    )
  );
  return {
    bass: of('bass').length / bars,
    bassOnOne: onOne('bass'),
    chords: times('chords') / bars,
    chordsOnOne: onOne('chords'),
    drums: of('drums').length / bars,
    kick: of('drums').filter(({ midi }) => midi === DRUMS.kick).length / bars,
    different: kinds.size / bars
  };
}

type Bound = readonly [low: number, high: number];
/** Notes of the bass, strokes of the chords and drums a bar; how often the chords strike 1. */
const BOUNDS: Readonly<Record<string, { bass: Bound; chords: Bound; chordsOnOne: Bound; drums: Bound }>> = {
  straight: { bass: [2, 4], chords: [2, 4], chordsOnOne: [0.7, 1], drums: [9, 15] },
  swing: { bass: [4, 5], chords: [1, 2.5], chordsOnOne: [0.35, 0.7], drums: [9, 15] },
  shuffle: { bass: [3, 6], chords: [1.5, 4], chordsOnOne: [0.1, 0.6], drums: [10, 16] },
  bossa: { bass: [2.5, 4], chords: [2, 4], chordsOnOne: [0.4, 0.8], drums: [13, 25] },
  waltz: { bass: [1.2, 3], chords: [1, 2.5], chordsOnOne: [0.25, 0.7], drums: [5, 10] },
  ballad: { bass: [1.5, 3.5], chords: [1, 2.5], chordsOnOne: [0.8, 1], drums: [5, 10] },
  rock: { bass: [5, 9], chords: [2, 8], chordsOnOne: [0.95, 1], drums: [11, 17] },
  'half-time rock': { bass: [1, 4], chords: [1, 3], chordsOnOne: [0.95, 1], drums: [7, 14] },
  funk: { bass: [4, 8], chords: [2, 6], chordsOnOne: [0.7, 1], drums: [17, 28] },
  soul: { bass: [3, 6], chords: [2, 4.5], chordsOnOne: [0.4, 0.8], drums: [12, 20] },
  'slow 12/8 blues': { bass: [3, 6], chords: [2, 12], chordsOnOne: [0.8, 1], drums: [14, 20] },
  reggae: { bass: [2.5, 6], chords: [1.5, 4], chordsOnOne: [0, 0.1], drums: [8, 14] },
  samba: { bass: [3, 4.5], chords: [2.5, 5], chordsOnOne: [0.3, 0.7], drums: [15, 26] },
  country: { bass: [2, 3.5], chords: [1.5, 4], chordsOnOne: [0.03, 0.35], drums: [10, 16] },
  train: { bass: [2, 4], chords: [1.5, 4], chordsOnOne: [0.03, 0.35], drums: [16, 24] },
  montuno: { bass: [2.5, 4.5], chords: [3, 6], chordsOnOne: [0.1, 0.6], drums: [9, 16] },
  bolero: { bass: [2.5, 3.5], chords: [2, 5], chordsOnOne: [0.9, 1], drums: [11, 18] },
  'gospel 6/8': { bass: [2, 5], chords: [1.8, 4.5], chordsOnOne: [0.95, 1], drums: [7, 14] },
  'second line': { bass: [3, 6], chords: [2, 4.5], chordsOnOne: [0.05, 0.5], drums: [10, 17] },
  'hard rock': { bass: [6, 9], chords: [2, 7], chordsOnOne: [0.95, 1], drums: [8, 17] },
  'jazz waltz': { bass: [3, 4.2], chords: [0.8, 2.2], chordsOnOne: [0.25, 0.7], drums: [6, 11] }
};

describe('feels, counted over two hundred bars', () => {
  it('has bounds for every feel', () => {
    expect(Object.keys(BOUNDS).sort()).toEqual(
      FEELS.map(({ id }) => id)
        .filter((id) => id !== 'drone')
        .sort()
    );
  });

  it.each(Object.keys(BOUNDS))('%s keeps within its own', (id) => {
    const own = figures(id);
    for (const [name, [low, high]] of Object.entries(BOUNDS[id]!)) {
      const value = own[name as keyof typeof own];
      expect(value, `${name} of ${id}`).toBeGreaterThanOrEqual(low);
      expect(value, `${name} of ${id}`).toBeLessThanOrEqual(high);
    }
    // The bass is there where a chord begins, and hardly two bars are the same.
    expect(own.bassOnOne, id).toBeGreaterThan(0.99);
    expect(own.different, id).toBeGreaterThan(0.3);
  });
});
