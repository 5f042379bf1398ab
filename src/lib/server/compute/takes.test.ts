import { describe, expect, it } from 'vitest';
import { takeRequest } from '../../api/requests';
import { wavFile } from '../../audio/wav';
import { judged, played, START, TEMPO, tuneOf } from '../../core/takes/testing';
import { sounded } from '../../core/takes/player/string';
import { answerListen } from './listen';
import { answerTake } from './take';
import { refusal } from './testing';

const CHART = '{key: Eb}\n{tempo: 100}\n| Fm7 | Bb7 | Ebmaj7 | C7b9 |';
const TUNE = tuneOf(CHART);

describe('the way from sound to judgement', () => {
  it('hears what was played, and judges it as it was meant', () => {
    const wav = wavFile(sounded(played(TUNE, 1), 'bright', 44_100), 44_100);
    const { notes, tuning, troubles } = answerListen({ wav });
    expect(troubles).toEqual([]);
    expect(Math.abs(tuning)).toBeLessThan(10);
    const { changes, figures, remarks } = answerTake(
      takeRequest.parse({
        chart: CHART,
        tempo: TEMPO,
        start: START,
        notes: notes.map(({ at, seconds, midi }) => ({ at, seconds, midi })),
        targets: TUNE.targets
      })
    );
    expect(figures.hits).toBe(1);
    expect(changes.map(({ change }) => change)).toEqual([0, 1, 2, 3]);
    expect(changes.map(({ verdict }) => verdict)).toEqual(
      judged(TUNE, played(TUNE, 1)).changes.map(({ verdict }) => verdict)
    );
    expect(remarks[0]).toMatchObject({
      bar: expect.any(Number) as number,
      text: expect.any(String) as string
    });
  });

  it('gives every heard note its time, length, pitch and confidence', () => {
    const { notes } = answerListen({ wav: wavFile(sounded(played(TUNE, 1), 'dark', 22_050), 22_050) });
    for (const note of notes) {
      expect(note.seconds).toBeGreaterThan(0);
      expect(note.confidence).toBeGreaterThan(0);
      expect(note.confidence).toBeLessThanOrEqual(1);
      expect(Number.isInteger(note.midi)).toBe(true);
      expect(note.curve.length).toBeGreaterThan(0);
    }
  });

  it('refuses what is no sound, and targets that the chart has not', () => {
    expect(
      refusal(() => answerListen({ wav: new TextEncoder().encode('not a sound at all') }))
    ).toMatchObject({
      status: 400,
      error: { code: 'bad-sound' }
    });
    const input = takeRequest.parse({
      chart: CHART,
      tempo: 100,
      notes: [],
      targets: [{ change: 9, midi: 60 }]
    });
    expect(refusal(() => answerTake(input))).toMatchObject({
      status: 400,
      error: { code: 'no-such-change', path: 'targets.0.change' }
    });
  });
});
