import { describe, expect, it } from 'vitest';
import { excerptOf, type Excerpt } from '../harmony/excerpt';
import { readSheet } from '../harmony/sheet';
import { bandEvents } from './band';
import { gripIn } from './comping';
import type { SoundEvent } from './events';
import { FEELS, feelNamed } from './feel';

const BLUES =
  '{key: F}\n| F7 | Bb7 | F7 | Cm7 F7 | Bb7 | Bdim7 | F7 | Am7b5 D7b9 | Gm7 | C7 | F7 D7b9 | Gm7 C7 |';
const excerptFrom = (text: string): Excerpt => {
  const { form, analysis } = readSheet(text);
  return excerptOf(form, analysis, { kind: 'form' })!;
};
function rounds(id: string, count: number, text = BLUES): { events: SoundEvent[]; excerpt: Excerpt }[] {
  const excerpt = excerptFrom(text);
  return Array.from({ length: count }, (_, round) => ({
    excerpt,
    events: bandEvents({ excerpt, feel: feelNamed(id)!, ratio: 0.5, seed: 4, round, isLast: false }).filter(
      ({ part }) => part === 'chords'
    )
  }));
}
/** Times at which something is struck. */
const struck = (events: readonly SoundEvent[]) =>
  [...new Set(events.map(({ start }) => start))].sort((a, b) => a - b);

/** Bars with a chord on 1, and bars in which nothing is struck, of so many. */
function counted(id: string) {
  let [bars, onOne, empty, pushes, changes] = [0, 0, 0, 0, 0];
  for (const { events, excerpt } of rounds(id, 12)) {
    const times = struck(events);
    for (const bar of excerpt.bars) {
      bars++;
      const own = times.filter((time) => time >= bar.start - 1e-6 && time < bar.start + bar.beats - 1e-6);
      if (own.some((time) => Math.abs(time - bar.start) < 0.02)) onOne++;
      if (own.length === 0) empty++;
    }
    for (const { start } of excerpt.changes) {
      changes++;
      if (times.some((time) => time < start - 0.1 && start - time <= 0.52)) pushes++;
    }
  }
  return { onOne: onOne / bars, empty: empty / bars, pushes: pushes / changes };
}

describe('the chords of the band', () => {
  it.each([
    ['swing', 0.4, 0.7],
    ['bossa', 0.4, 0.7],
    ['funk', 0.7, 0.95],
    ['reggae', 0, 0.05]
  ] as const)('%s: strike 1 as often as the feel has it', (id, low, high) => {
    const { onOne } = counted(id);
    expect(onOne).toBeGreaterThanOrEqual(low);
    expect(onOne).toBeLessThanOrEqual(high);
  });

  it.each(['swing', 'bossa'])('%s: push into changes, and leave a bar of air now and then', (id) => {
    const { pushes, empty } = counted(id);
    expect(pushes).toBeGreaterThan(0.15);
    expect(empty).toBeGreaterThan(0.01);
    expect(empty).toBeLessThan(0.2);
  });

  it('sound the chord to come where they push', () => {
    // Two chords that share no tone: what sounds tells which is meant.
    let pushed = 0;
    for (const { events, excerpt } of rounds('swing', 24, '{key: C}\n| Cmaj7 | Db7 | Cmaj7 | Db7 |')) {
      excerpt.changes.slice(1).forEach(({ start, source }) => {
        const early = events.filter((event) => event.start < start - 0.1 && start - event.start <= 0.52);
        if (early.length === 0) return;
        pushed++;
        const allowed = [
          ...source.chord!.pitchClasses,
          ...[2, 9].map((by) => (source.chord!.rootPc + by) % 12)
        ];
        for (const { midi } of early) expect(allowed).toContain(midi % 12);
      });
    }
    expect(pushed).toBeGreaterThan(8);
  });

  it('hear every chord of a bar with two, in every feel that comps', () => {
    for (const { id } of FEELS.filter(({ comping, id: own }) => comping && own !== 'reggae'))
      for (const { events, excerpt } of rounds(id, 6, '{key: C}\n| Dm7 G7 | Em7 A7 | Dm7 G7 | Cmaj7 A7 |')) {
        const times = struck(events);
        for (const { start, beats } of excerpt.changes)
          expect(
            times.some((time) => time >= start - 0.8 && time < start + beats - 1e-6),
            id
          ).toBe(true);
      }
  });

  it('take grips in turn: the same tones, the top voice a step or a third away', () => {
    let turned = 0;
    for (const { events } of rounds('swing', 10)) {
      const groups = struck(events).map((time) =>
        events.filter(({ start }) => start === time).map(({ midi }) => midi)
      );
      groups.slice(1).forEach((group, i) => {
        const same = (midis: number[]) => [...new Set(midis.map((midi) => midi % 12))].sort().join();
        if (same(group) !== same(groups[i]!) || group.join() === groups[i]!.join()) return;
        turned++;
        expect(Math.abs(Math.max(...group) - Math.max(...groups[i]!))).toBeLessThanOrEqual(7);
      });
    }
    expect(turned).toBeGreaterThan(10);
    const voicing = [52, 55, 58, 62].map((midi) => ({ midi, degree: '1' as const }));
    expect(gripIn(voicing, 0)).toBe(voicing);
    expect(gripIn(voicing, 1).map(({ midi }) => midi)).toEqual([55, 58, 62, 64]);
  });

  it('end with everybody on the last pulse, and never past the end', () => {
    const excerpt = excerptFrom(BLUES);
    for (const feel of FEELS.filter(({ comping }) => comping)) {
      const events = bandEvents({ excerpt, feel, ratio: 0.5, seed: 2, round: 3, isLast: true }).filter(
        ({ part }) => part === 'chords'
      );
      expect(Math.max(...events.map(({ start }) => start)), feel.id).toBeCloseTo(47, 1);
      expect(Math.max(...events.map(({ start, beats }) => start + beats))).toBeLessThanOrEqual(48 + 1e-6);
      for (const { start } of events) expect(start).toBeGreaterThanOrEqual(0);
    }
  });

  it.each([
    ['a form without a chord', '| % | % | % | % |', 0],
    ['bars before the first chord', '| % | N.C. | Dm7 | G7 |', 8]
  ])('are silent over %s', (_, text, from) => {
    const excerpt = excerptFrom(text);
    for (const feel of FEELS)
      for (const isLast of [false, true]) {
        const events = bandEvents({ excerpt, feel, ratio: 0.5, seed: 2, round: 1, isLast });
        const sung = events.filter(({ part }) => part === 'chords' || part === 'bass');
        expect(sung.length > 0, feel.id).toBe(from > 0);
        // A push may say the first chord half a pulse early, a bass lead into it.
        for (const { start } of sung) expect(start, feel.id).toBeGreaterThanOrEqual(from - 1);
      }
  });
});

describe('what plays together', () => {
  it('the drummer marks most of the pushes of the chords, and none where it is quiet', () => {
    const excerpt = excerptFrom(BLUES);
    const share = (intensity: number) => {
      let [marked, all] = [0, 0];
      for (let round = 0; round < 24; round++) {
        const events = bandEvents({
          excerpt,
          feel: feelNamed('swing')!,
          ratio: 0.6,
          seed: 4,
          round,
          isLast: false,
          intensity
        });
        const kicks = events.filter(({ part, midi }) => part === 'drums' && midi === 36);
        const chords = struck(events.filter(({ part }) => part === 'chords'));
        for (const { start } of excerpt.changes.slice(1)) {
          const push = chords.find((time) => time > start - 0.5 && time < start - 0.2);
          if (push === undefined) continue;
          all++;
          if (kicks.some((kick) => Math.abs(kick.start - push) < 0.08)) marked++;
        }
      }
      expect(all).toBeGreaterThan(20);
      return marked / all;
    };
    expect(share(0.5)).toBeGreaterThan(0.5);
    expect(share(0.1)).toBe(0);
  });

  it('chords lie a little behind in swing, on the beat in rock; the bass is on it in both', () => {
    const late = (id: string, part: 'bass' | 'chords') => {
      const [first] = bandEvents({
        excerpt: excerptFrom(BLUES),
        feel: feelNamed(id)!,
        ratio: 0.6,
        seed: 4,
        round: 0,
        isLast: false
      }).filter((event) => event.part === part);
      return first!.start;
    };
    expect(late('swing', 'chords')).toBeGreaterThan(0.01);
    expect(late('rock', 'chords')).toBe(0);
    expect([late('swing', 'bass'), late('rock', 'bass')]).toEqual([0, 0]);
  });
});

describe('what a feel makes of its chords', () => {
  const chordsOf = (id: string, text: string) =>
    bandEvents({
      excerpt: excerptFrom(text),
      feel: feelNamed(id)!,
      ratio: 0.5,
      seed: 2,
      round: 0,
      isLast: false
    }).filter(({ part }) => part === 'chords');
  const first = (events: readonly SoundEvent[]) =>
    events
      .filter(({ start }) => start === events[0]!.start)
      .map(({ midi }) => midi)
      .sort((a, b) => a - b);

  it('rock plays fifths on low strings with the third above, of chords that say no more', () => {
    for (const id of ['rock', 'half-time rock', 'hard rock']) {
      expect(first(chordsOf(id, '{key: A}\n| A | D |')), id).toEqual([45, 52, 57, 61]);
      expect(first(chordsOf(id, '{key: Gb}\n| Gbm | Db |')), id).toEqual([42, 49, 54, 57]);
      expect(first(chordsOf(id, '{key: E}\n| E5 | A5 |')), id).toEqual([40, 47, 52]);
      // What says more is voiced as anywhere else.
      expect(first(chordsOf(id, '{key: A}\n| A7 | D7 |'))[0], id).toBeGreaterThanOrEqual(48);
    }
    expect(first(chordsOf('straight', '{key: A}\n| A | D |'))[0]).toBeGreaterThanOrEqual(48);
  });

  it('a ballad is played with the pedal: every stroke rings as long as its chord, and no longer', () => {
    const events = chordsOf('ballad', '{key: F}\n| Fmaj7 | Gm7 | C7 | % |');
    for (const { start, beats } of events) {
      const end = start < 4 ? 4 : start < 8 ? 8 : 12;
      const until = start >= 12 ? 16 : end;
      expect(start + beats).toBeLessThanOrEqual(until + 1e-6);
      expect(start + beats).toBeGreaterThan(until - 0.3);
    }
  });
});
