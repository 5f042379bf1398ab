/** What the tests and the bench of the walking bass share: tunes, and what is counted over so many bars. */
import { firstOf, nth, sure } from '../base/list';
import type { Midi } from '../base/units';
import { excerptOf } from '../harmony/excerpt';
import { readSheet } from '../harmony/sheet';
import { pitchClass } from '../theory/note';
import { bandEvents } from './band';
import { feelNamed } from './feel';

export const WALKED_TUNES = {
  blues: '{key: F}\n| F7 | Bb7 | F7 | % | Bb7 | % | F7 | D7 | Gm7 | C7 | F7 | C7 |',
  'ii–V':
    '{key: Eb}\n| Fm7 | Bb7 | Ebmaj7 | Cm7 | Fm7 | Bb7 | Ebmaj7 | % | Am7b5 | D7b9 | Gm7 | C7 | Fm7 | Abm7 | Ebmaj7 | Bb7 |',
  minor:
    '{key: Gm}\n| Gm6 | % | Am7b5 | D7b9 | Gm6 | % | Cm7 | F7 | Bbmaj7 | Ebmaj7 | Am7b5 | D7b9 | Gm6 | D7b9 | Gm6 | % |'
};
export type WalkedTune = keyof typeof WALKED_TUNES;

/** Bars of a bass line, as many as are wanted, round by round. */
function walked(tune: WalkedTune, bars: number, seed = 1) {
  const sheet = readSheet(WALKED_TUNES[tune]);
  const excerpt = sure(excerptOf(sheet.form, sheet.analysis, { kind: 'form' }), 'excerptOf');
  const all: { midi: Midi; start: number }[][] = [];
  const roots: number[] = [];
  for (let round = 0; all.length < bars; round++) {
    const events = bandEvents({
      excerpt,
      feel: sure(feelNamed('swing'), 'feelNamed'),
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
      const change = sure(
        excerpt.changes.findLast(({ start }) => start <= bar.start),
        'excerpt.changes'
      );
      roots.push(pitchClass(change.source.chord!.root));
    }
  }
  return { bars: all, roots };
}

/** Shares of bars, as they are counted in docs/music-rules.md. */
export function walkFigures(tune: WalkedTune, seed = 1) {
  const { bars, roots } = walked(tune, 200, seed);
  const beats = bars.map((bar) =>
    [0, 1, 2, 3].map(
      (beat) =>
        sure(
          bar.find(({ start }) => Math.abs(start - beat) < 0.05),
          'bar'
        ).midi
    )
  );
  const share = (test: (bar: number[], i: number) => boolean) =>
    beats.slice(0, -1).filter((bar, i) => test(bar, i)).length / (beats.length - 1);
  return {
    seventhFirst: share(([a, b], i) => a! % 12 === roots[i] && (a! - b! === 2 || b! - a! === 10)),
    rootAgain: share(([, , c], i) => c! % 12 === roots[i]),
    steps: share((bar, i) =>
      [...bar.slice(1), firstOf(nth(beats, i + 1))].every(
        (midi, n) => midi !== bar[n] && Math.abs(midi - nth(bar, n)) <= 2
      )
    ),
    led: share((bar, i) => [1, 2, 5, 7].includes(Math.abs(firstOf(nth(beats, i + 1)) - nth(bar, 3)))),
    offBeats: share((_, i) => nth(bars, i).length > 4),
    equal: share(
      (bar, i) =>
        i > 0 &&
        bar.map((midi) => midi % 12).join() ===
          nth(beats, i - 1)
            .map((midi) => midi % 12)
            .join()
    )
  };
}
