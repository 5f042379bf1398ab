import { describe, expect, it } from 'vitest';
import { readSheet } from '$lib/core/harmony/sheet';
import type { TakeData } from '$lib/api/take';
import { callTurnsIn, curvePath, playedIn } from './played';

const sheet = readSheet('{time: 4/4}\n| Gbmaj7 | Ebm7 |');
const { changes } = sheet.analysis;
const { beats } = sheet.form;
const note = (at: number, midi: number) => ({ at, seconds: 0.5, midi, curve: [], events: [], confidence: 1 });
/** At 60 beats a minute a second is a beat; beat 0 sounds at second 2. */
const take = (...notes: object[]) =>
  ({ tempo: 60, start: 2, notes, trade: { bars: 1 } }) as unknown as TakeData;

describe('what is drawn of a take in one time through the form', () => {
  it('is what was played in it: a pickup belongs to the round it leads into, in beats of the form', () => {
    const data = take(note(1.5, 66), note(2, 70), note(5.9, 63), note(9.95, 66), note(10.5, 65));
    expect(playedIn(data, 0, beats, changes).map(({ at, midi, change }) => [at, midi, change])).toEqual([
      [-0.5, 66, 0],
      [0, 70, 0],
      [expect.closeTo(3.9), 63, 1]
    ]);
    expect(playedIn(data, 1, beats, changes).map(({ at, index }) => [at, index])).toEqual([
      [expect.closeTo(-0.05), 3],
      [0.5, 4]
    ]);
  });

  it('has the turns of Corvel where bars are traded, each round its own', () => {
    expect(callTurnsIn(take(), 1, sheet.form)).toEqual([{ from: 0, to: 4 }]);
  });

  it('draws the way of a pitch only where it moves, and leaves gaps where it is not known', () => {
    const [one] = playedIn(take(note(2, 70)), 0, beats, changes);
    const scale = { time: (beat: number) => 100 * beat, pitch: (midi: number) => 200 - midi, semitone: 10 };
    expect(curvePath({ ...one!, curve: [0, 10, 20, 30] }, 60, scale)).toBe('');
    expect(curvePath({ ...one!, curve: [0, 50, null, 100] }, 60, scale)).toMatch(
      /^M0\.0 130\.0L\d\.\d 125\.0M\d\.\d 120\.0$/
    );
  });
});
