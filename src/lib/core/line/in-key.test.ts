import { describe, expect, it } from 'vitest';
import { STANDARD } from '../neck/tuning';
import { lineInKey } from './in-key';
import type { LineNote } from './model';

const note = (start: number, midi: number, name: string, string: number, fret: number): LineNote => ({
  start,
  length: 480,
  midi,
  note: name,
  place: { string, fret }
});
/** C E♭ G B, over C minor. */
const LINE = [
  note(0, 60, 'C', 3, 5),
  note(480, 63, 'Eb', 2, 4),
  note(960, 67, 'G', 1, 3),
  note(1440, 71, 'B', 1, 7)
];
const C_MINOR = { tonic: 'C', mode: 'minor' } as const;

describe('a line in another key', () => {
  it('keeps its intervals and its strings, spelled for where it lands', () => {
    const moved = lineInKey(LINE, C_MINOR, 1, STANDARD);
    expect(moved.map(({ midi }) => midi)).toEqual([61, 64, 68, 72]);
    expect(moved.map((one) => one.note)).toEqual(['C#', 'E', 'G#', 'B#']);
    expect(moved.map(({ place }) => place && [place.string, place.fret])).toEqual([
      [3, 6],
      [2, 5],
      [1, 4],
      [1, 8]
    ]);
  });

  it('goes to another octave where the neck ends', () => {
    const moved = lineInKey(LINE, C_MINOR, 6, STANDARD);
    expect(new Set(moved.map(({ midi }, i) => (midi - LINE[i]!.midi - 6) % 12))).toEqual(new Set([0]));
    expect(moved.every(({ place }) => place && place.fret <= STANDARD.frets)).toBe(true);
  });

  it('stays what it is in its own key', () => {
    expect(lineInKey(LINE, C_MINOR, 0, STANDARD)).toBe(LINE);
  });
});
