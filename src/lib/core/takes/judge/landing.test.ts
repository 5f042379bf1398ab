import { describe, expect, it } from 'vitest';
import { readSheet } from '../../harmony/sheet';
import type { BeatNote } from '../align';
import { metSoFar, type Meeting, type Place } from './landing';

/** B♭7 in the second bar, after an F7. */
const [, change] = readSheet('{key: Bb}\n| F7 | Bb7 | F7 |').analysis.changes;
const place: Place = { start: 4, end: 8, chord: change!.chord! };
const D = 62;
const note = (at: number, midi: number, beats = 0.5): BeatNote => ({ at, beats, midi });
const told = (played: readonly BeatNote[], now: number, wanted: number | null = D) =>
  metSoFar(wanted, played, place, now);

describe('a landing, while it is played', () => {
  it('is a hit at once, and nothing before its change comes', () => {
    expect(told([], 3)).toBeNull();
    expect(told([note(4.05, D)], 4.1)).toBe('hit');
    expect(told([note(3.9, D)], 3.95)).toBe('hit');
    // In another octave it is the same note.
    expect(told([note(4, D - 12)], 4.1)).toBe('hit');
  });

  it('is told as something else only when nothing can mend it any more', () => {
    const late = [note(4.6, D)];
    expect(told(late, 4.7)).toBeNull();
    expect(told(late, 5.5)).toBe('late');
    const cases: readonly (readonly [readonly BeatNote[], Meeting])[] = [
      [[note(3.5, D, 0.25)], 'early'],
      [[note(4, 65)], 'chord tone'],
      [[note(4, 64)], 'outside'],
      [[], 'silent']
    ];
    for (const [played, met] of cases) {
      expect(told(played, 5.4)).toBeNull();
      expect(told(played, 5.5)).toBe(met);
    }
  });

  it('is a hit where the target is held over the change, once it has been', () => {
    expect(told([note(3.5, D, 0.55)], 4.05)).toBeNull();
    expect(told([note(3.5, D, 0.8)], 4.3)).toBe('hit');
  });

  it('takes any tone of the chord where no target is meant', () => {
    expect(told([note(4.1, 65)], 4.2, null)).toBe('hit');
    expect(told([note(4.1, 64)], 5, null)).toBe('outside');
    expect(told([], 4.9, null)).toBeNull();
    expect(told([], 5, null)).toBe('silent');
  });
});
