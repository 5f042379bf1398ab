import { describe, expect, it } from 'vitest';
import { excerptOf } from '../harmony/excerpt';
import { readSheet } from '../harmony/sheet';
import { chanceOf } from '../line/chance';
import { pitchClass } from '../theory/note';
import { bandEvents } from './band';
import { feelNamed } from './feel';
import { HIGHEST_WALK, kindsOver, LOWEST_WALK } from './walk';

const TUNES = {
  blues: '{key: F}\n| F7 | Bb7 | F7 | % | Bb7 | % | F7 | D7 | Gm7 | C7 | F7 | C7 |',
  'ii–V':
    '{key: Eb}\n| Fm7 | Bb7 | Ebmaj7 | Cm7 | Fm7 | Bb7 | Ebmaj7 | % | Am7b5 | D7b9 | Gm7 | C7 | Fm7 | Abm7 | Ebmaj7 | Bb7 |',
  minor:
    '{key: Gm}\n| Gm6 | % | Am7b5 | D7b9 | Gm6 | % | Cm7 | F7 | Bbmaj7 | Ebmaj7 | Am7b5 | D7b9 | Gm6 | D7b9 | Gm6 | % |'
};
type Tune = keyof typeof TUNES;

/** Bars of a bass line, as many as are wanted, round by round. */
function walked(tune: Tune, bars: number, seed = 1) {
  const sheet = readSheet(TUNES[tune]);
  const excerpt = excerptOf(sheet.form, sheet.analysis, { kind: 'form' })!;
  const all: { midi: number; start: number }[][] = [];
  const roots: number[] = [];
  for (let round = 0; all.length < bars; round++) {
    const events = bandEvents({
      excerpt,
      feel: feelNamed('swing')!,
      ratio: 2 / 3,
      seed,
      round,
      isLast: false
    }).filter(({ part }) => part === 'bass');
    for (const bar of excerpt.bars) {
      all.push(
        events
          .filter(({ start }) => start >= bar.start - 1e-6 && start < bar.start + 4 - 1e-6)
          .map(({ midi, start }) => ({ midi, start: start - bar.start }))
      );
      const change = excerpt.changes.findLast(({ start }) => start <= bar.start)!;
      roots.push(pitchClass(change.source.chord!.root));
    }
  }
  return { bars: all, roots };
}

/** Shares of bars, as they are counted in docs/music-rules.md. */
function counted(tune: Tune, seed = 1) {
  const { bars, roots } = walked(tune, 200, seed);
  const beats = bars.map((bar) =>
    [0, 1, 2, 3].map((beat) => bar.find(({ start }) => Math.abs(start - beat) < 0.05)!.midi)
  );
  const share = (test: (bar: number[], i: number) => boolean) =>
    beats.slice(0, -1).filter((bar, i) => test(bar, i)).length / (beats.length - 1);
  return {
    seventhFirst: share(([a, b], i) => a! % 12 === roots[i] && (a! - b! === 2 || b! - a! === 10)),
    rootAgain: share(([, , c], i) => c! % 12 === roots[i]),
    steps: share((bar, i) =>
      [...bar.slice(1), beats[i + 1]![0]!].every(
        (midi, n) => midi !== bar[n] && Math.abs(midi - bar[n]!) <= 2
      )
    ),
    led: share((bar, i) => [1, 2, 5, 7].includes(Math.abs(beats[i + 1]![0]! - bar[3]!))),
    offBeats: share((_, i) => bars[i]!.length > 4),
    equal: share(
      (bar, i) =>
        i > 0 && bar.map((midi) => midi % 12).join() === beats[i - 1]!.map((midi) => midi % 12).join()
    )
  };
}

describe('a bass that walks', () => {
  it.each(Object.keys(TUNES) as Tune[])('goes somewhere over 200 bars of a %s tune', (tune) => {
    for (const seed of [1, 2, 3]) {
      const { seventhFirst, rootAgain, steps, led, offBeats, equal } = counted(tune, seed);
      expect(seventhFirst).toBeLessThanOrEqual(0.1);
      expect(rootAgain).toBeLessThanOrEqual(0.15);
      expect(steps).toBeGreaterThanOrEqual(0.25);
      expect(led).toBeGreaterThanOrEqual(0.9);
      expect(offBeats).toBeGreaterThanOrEqual(0.15);
      expect(offBeats).toBeLessThanOrEqual(0.35);
      expect(equal).toBeLessThanOrEqual(0.03);
    }
  });

  it('stands on the root where a chord begins, plays tones and steps, and what lies between them only in passing', () => {
    for (const tune of Object.keys(TUNES) as Tune[]) {
      const sheet = readSheet(TUNES[tune]);
      const excerpt = excerptOf(sheet.form, sheet.analysis, { kind: 'form' })!;
      for (let round = 0; round < 8; round++) {
        const events = bandEvents({
          excerpt,
          feel: feelNamed('swing')!,
          ratio: 2 / 3,
          seed: 5,
          round,
          isLast: false
        }).filter(({ part }) => part === 'bass');
        events.forEach(({ midi, start }, i) => {
          expect(midi).toBeGreaterThanOrEqual(LOWEST_WALK);
          expect(midi).toBeLessThanOrEqual(HIGHEST_WALK);
          const change = excerpt.changes.findLast((one) => one.start <= start + 1e-6)!;
          const kinds = kindsOver({ ...change.source, chord: change.source.chord! });
          if (Math.abs(change.start - start) < 1e-6)
            expect(midi % 12).toBe(pitchClass(change.source.chord!.root));
          const next = events[i + 1]?.midi ?? events[0]!.midi;
          if (kinds[midi % 12] === 'between') expect(Math.abs(next - midi)).toBeLessThanOrEqual(2);
          expect(Math.abs(next - midi)).toBeLessThanOrEqual(12);
        });
      }
    }
  });

  it('is the same for the same seed and another for the next round', () => {
    const line = (round: number) => {
      const sheet = readSheet(TUNES.blues);
      const excerpt = excerptOf(sheet.form, sheet.analysis, { kind: 'form' })!;
      return JSON.stringify(
        bandEvents({
          excerpt,
          feel: feelNamed('swing')!,
          ratio: 2 / 3,
          seed: 3,
          round,
          isLast: false
        }).filter(({ part }) => part === 'bass')
      );
    };
    expect(line(0)).toBe(line(0));
    expect(line(0)).not.toBe(line(1));
    expect(chanceOf(1)()).toBe(chanceOf(1)());
  });
});
