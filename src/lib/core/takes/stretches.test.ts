import { describe, expect, it } from 'vitest';
import { asWritten, inBeats } from './align';
import { STEP_SECONDS, type PitchEvent } from './model';
import { stretchesOf } from './stretches';

/** A note of two seconds whose pitch is at each of some cents for as many seconds. */
const note = (places: readonly (readonly [number, number])[], events: readonly PitchEvent[]) => ({
  at: 1,
  seconds: places.reduce((sum, [, seconds]) => sum + seconds, 0),
  midi: 64,
  curve: places.flatMap(([cents, seconds]) =>
    Array.from({ length: Math.round(seconds / STEP_SECONDS) }, () => cents)
  ),
  events
});

describe('what a note comes to', () => {
  it('is one note where it is bent at once, written with the fret it came from', () => {
    const [bent, ...others] = stretchesOf([note([[0, 2]], [{ kind: 'bend', at: 1.05, cents: 180 }])]);
    expect(others).toEqual([]);
    expect(bent).toMatchObject({ at: 1, midi: 64, technique: { bend: { from: 62 } } });
  });

  it('is two notes where it is held, and then slid or bent to another that is held', () => {
    const slid = note(
      [
        [-300, 0.8],
        [0, 1.2]
      ],
      [{ kind: 'slide', at: 1.8, cents: 300 }]
    );
    expect(stretchesOf([slid]).map(({ at, midi, technique }) => [at, midi, technique])).toEqual([
      [1, 61, undefined],
      [1.8, 64, { slide: true }]
    ]);
  });

  it('is let down to another note where that one is held, and within the note where it is not', () => {
    const down = (held: number) =>
      stretchesOf([
        note(
          [
            [0, 1],
            [-200, held]
          ],
          [
            { kind: 'bend', at: 1.04, cents: 200 },
            { kind: 'release', at: 2, cents: -200 }
          ]
        )
      ]);
    expect(down(0.8).map(({ midi }) => midi)).toEqual([64, 62]);
    expect(down(0.15)).toMatchObject([{ midi: 64, technique: { bend: { from: 62 }, release: { to: 62 } } }]);
  });

  it('keeps vibrato and curls, which make no other note', () => {
    const events: PitchEvent[] = [
      { kind: 'bend', at: 1.5, cents: 45 },
      { kind: 'vibrato', at: 1.9, cents: 30 }
    ];
    expect(stretchesOf([note([[0, 2]], events)])).toMatchObject([
      { midi: 64, technique: { bend: { from: 64, cents: 50 }, vibrato: true } }
    ]);
  });
});

describe('as a line', () => {
  it('has both notes of a double stop, and of two that come one right after the other the later', () => {
    const clock = { tempo: 60, start: 0 };
    const played = [
      { at: 0, seconds: 0.9, midi: 60 },
      { at: 0.01, seconds: 0.9, midi: 64 },
      { at: 0.95, seconds: 0.04, midi: 62 },
      { at: 1.02, seconds: 0.9, midi: 65 }
    ];
    const line = asWritten(inBeats(played, clock), (beat) => Math.round(beat * 2) / 2);
    expect(line.map(({ start, midi }) => [start, midi])).toEqual([
      [0, 60],
      [0, 64],
      [960, 65]
    ]);
  });
});
