import { describe, expect, it } from 'vitest';
import { linesRequest, takeRequest, targetsRequest } from '../../api/requests';
import { wavFile } from '../../audio/wav';
import { judged, played, START, TEMPO, tuneOf } from '../../core/takes/testing';
import { sounded } from '../../core/takes/player/string';
import { MAX_SOUND_SECONDS } from '../../api/limits';
import { answerListen } from './listen';
import { answerLines } from './lines';
import { answerTake } from './take';
import { answerTargets } from './targets';
import { refusal } from './testing';

const CHART = '{key: Eb}\n{tempo: 100}\n| Fm7 | Bb7 | Ebmaj7 | C7b9 |';
const TUNE = tuneOf(CHART);

/** A WAV file of one channel as one of two, the other silent. */
function onTheLeft(mono: Uint8Array): Uint8Array {
  const size = mono.length - 44;
  const stereo = new Uint8Array(44 + 2 * size);
  stereo.set(mono.subarray(0, 44));
  const view = new DataView(stereo.buffer);
  view.setUint32(4, 36 + 2 * size, true);
  view.setUint16(22, 2, true);
  view.setUint32(28, 2 * view.getUint32(28, true), true);
  view.setUint16(32, 4, true);
  view.setUint32(40, 2 * size, true);
  for (let i = 0; i < size; i += 2) stereo.set(mono.subarray(44 + i, 46 + i), 44 + 2 * i);
  return stereo;
}

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

  it('tells how the player lies in time, once, and nothing of it at the changes', () => {
    const late = played(TUNE, 1).map(({ at, seconds, midi }) => ({ at: at + 0.09, seconds, midi }));
    const { clock, changes, remarks } = answerTake(
      takeRequest.parse({ chart: CHART, tempo: TEMPO, start: START, notes: late, targets: TUNE.targets })
    );
    expect(clock.offset).toBeCloseTo(0.09, 2);
    expect(clock).toMatchObject({ drift: 0, swing: 1 });
    expect(clock.mean).toBeCloseTo(0.09, 2);
    expect(clock.spread).toBeLessThan(0.01);
    const dragging = played(TUNE, 1, 1, 4).map(({ at, seconds, midi }) => ({
      at: START + (at - START) * 1.02,
      seconds,
      midi
    }));
    const { drift } = answerTake(
      takeRequest.parse({ chart: CHART, tempo: TEMPO, start: START, notes: dragging, targets: TUNE.targets })
    ).clock;
    expect(Math.abs(drift)).toBeCloseTo(0.02, 2);
    expect(changes.every(({ target }) => target?.met === 'hit')).toBe(true);
    expect(remarks.map(({ kind }) => kind)).toEqual(['well', 'time']);
    const beside = answerTake(
      takeRequest.parse({
        chart: CHART,
        tempo: TEMPO,
        start: START,
        notes: late.map((note) => ({ ...note, at: note.at - 0.09 + 60 / TEMPO })),
        targets: TUNE.targets
      })
    );
    expect(beside.remarks).toMatchObject([{ kind: 'whole', move: -1 }]);
  });

  it('wants a target when it is planned, early or late, as the route of targets gives it', () => {
    // D over Bb7 is its third; it lies on string 2, fret 3.
    for (const [when, beat] of [
      ['early', 3.5],
      ['on', 4],
      ['late', 4.5]
    ] as const) {
      const fixed = [{ change: 1, string: 2, fret: 3, when }];
      const { paths } = answerTargets(targetsRequest.parse({ chart: CHART, fixed }));
      const { targets } = paths[0]!;
      expect(targets[1]!.at).toBe(beat);
      const judgedFor = (played: number) =>
        answerTake(
          takeRequest.parse({
            chart: CHART,
            tempo: 60,
            notes: [{ at: played, seconds: 0.9, midi: 62 }],
            targets: JSON.parse(JSON.stringify(targets)) as unknown
          })
        ).changes[1]!.target!;
      expect(judgedFor(beat)).toMatchObject({ wanted: 62, met: 'hit', late: 0 });
      for (const other of [3.5, 4.5].filter((at) => Math.abs(at - beat) > 0.6))
        expect(judgedFor(other).met, `${when}, played at ${other}`).not.toBe('hit');
    }
    const lacking = refusal(() =>
      takeRequest.parse({ chart: CHART, tempo: 60, notes: [], targets: [{ change: 1 }] })
    );
    expect(JSON.stringify(lacking)).toContain('needs its change and its pitch');
  });

  it('hits all that phrases were made to hit, whenever it was planned', () => {
    const fixed = [
      { change: 1, string: 2, fret: 9, when: 'early' },
      { change: 2, string: 2, fret: 8, when: 'late' },
      { change: 3, string: 1, fret: 6, when: 'on' }
    ] as const;
    const { paths } = answerTargets(targetsRequest.parse({ chart: CHART, fixed }));
    const pinned = paths[0]!.targets.filter(({ change }) => fixed.some((pin) => pin.change === change));
    for (let seed = 1; seed <= 12; seed++) {
      const request = linesRequest.parse({ chart: CHART, level: 'phrases', seed, fixed, alternatives: 1 });
      const { notes } = answerLines(request).lines[0]!;
      const take = takeRequest.parse({
        chart: CHART,
        tempo: 60,
        notes: notes.map(({ at, beats, midi }) => ({ at, seconds: beats, midi })),
        targets: pinned
      });
      const met = answerTake(take).changes.flatMap(({ target }) => (target ? [target.met] : []));
      expect(met, `seed ${seed}`).toEqual(['hit', 'hit', 'hit']);
    }
  });

  it('judges what was heard as it is: a slide is heard at both pitches that are held', () => {
    const curve = Array.from({ length: 86 }, (_, i) => (i < 43 ? -200 : 0));
    const events = [{ kind: 'slide', at: 1, cents: 200 }];
    const judge = (more: object) =>
      answerTake(
        takeRequest.parse({
          chart: '| Dm7 | G7 |',
          tempo: 240,
          notes: [{ at: 0, seconds: 2, midi: 67, ...more }],
          targets: [
            { change: 0, midi: 65 },
            { change: 1, midi: 67 }
          ]
        })
      ).changes.map(({ target }) => target!.met);
    expect(judge({ curve, events })).toEqual(['hit', 'hit']);
    expect(judge({})).not.toEqual(['hit', 'hit']);
  });

  it('gives every heard note its time, length, pitch and confidence', () => {
    const { notes } = answerListen({ wav: wavFile(sounded(played(TUNE, 1), 'dark', 22_050), 22_050) });
    for (const note of notes) {
      expect(note.seconds).toBeGreaterThan(0);
      expect(note.confidence).toBeGreaterThan(0);
      expect(note.confidence).toBeLessThanOrEqual(1);
      expect(Number.isInteger(note.midi)).toBe(true);
      expect(note.curve.length).toBeGreaterThan(0);
      expect(note.level).toBeGreaterThan(0);
      expect(note.level).toBeLessThanOrEqual(1);
      expect(note.events).toEqual([]);
    }
  });

  it.each([8000, 22_050, 48_000, 96_000])('hears the same line at %i samples a second', (rate) => {
    const strokes = played(TUNE, 1).slice(0, 8);
    const { notes } = answerListen({ wav: wavFile(sounded(strokes, 'dark', rate), rate) });
    expect(notes.map(({ midi }) => midi)).toEqual(strokes.map(({ midi }) => midi));
  });

  it('hears what comes on one of two channels, and refuses what lasts too long', () => {
    const strokes = played(TUNE, 1).slice(0, 6);
    const mono = wavFile(sounded(strokes, 'bright', 22_050), 22_050);
    const { notes } = answerListen({ wav: onTheLeft(mono) });
    expect(notes.map(({ midi }) => midi)).toEqual(strokes.map(({ midi }) => midi));
    const long = wavFile(new Float32Array(8000 * (MAX_SOUND_SECONDS + 1)), 8000);
    expect(refusal(() => answerListen({ wav: long }))).toMatchObject({
      status: 400,
      error: { code: 'bad-sound', message: expect.stringMatching(/minutes|long/) as string }
    });
  });

  it('tells of a trade whose notes are whose, and how the answer stands to the call', () => {
    const line = played(TUNE, 1).map(({ at, seconds, midi }) => ({ at, seconds, midi }));
    const half = START + (8 * 60) / TEMPO;
    const call = line.filter(({ at }) => at < half - 0.1);
    const { changes, exchanges } = answerTake(
      takeRequest.parse({ chart: CHART, tempo: TEMPO, start: START, notes: line, trade: { bars: 2, call } })
    );
    expect(changes.map(({ isLeftAlone }) => isLeftAlone)).toEqual([true, true, false, false]);
    expect(exchanges).toHaveLength(1);
    expect(exchanges![0]).toMatchObject({ from: 3, to: 4, round: 0, called: call.length });
    expect(exchanges![0]!.text).toMatch(/^Bars 3–4: you /);
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
