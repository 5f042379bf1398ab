import MidiParser from 'midi-parser-js';
import { describe, expect, it } from 'vitest';
import { bandRequest } from '../../api/requests';
import { PlayerError } from '../../api/errors';
import { parse } from '../web/body';
import { answerBand } from './band';

interface Note {
  readonly tick: number;
  readonly midi: number;
}
interface Parsed {
  track: { event: { deltaTime: number; type: number; metaType?: number; data: number[] | string }[] }[];
}

/** The notes of a file by the names of its tracks, read by an independent reader. */
function notesOf(request: object): Readonly<Record<string, readonly Note[]>> {
  const { base64 } = answerBand(parse(bandRequest, request));
  const { track } = MidiParser.parse(new Uint8Array(Buffer.from(base64, 'base64'))) as Parsed;
  return Object.fromEntries(
    track.map(({ event }) => {
      let tick = 0;
      const notes = event.flatMap(({ deltaTime, type, data }) => {
        tick += deltaTime;
        return type === 9 ? [{ tick, midi: data[0] as number }] : [];
      });
      return [String(event.find(({ metaType }) => metaType === 3)?.data), notes];
    })
  );
}
const BAR = 4 * 480;
const CHART = '{key: Eb}\n{tempo: 120}\n{meta: feel swing}\n| Fm7 | Bb7/D | Ebmaj7 | C7alt |';

describe('the route of the band', () => {
  it('gives a track each for bass, chords, drums and drill, and nothing at or after the end of the form', () => {
    const tracks = notesOf({ chart: CHART, rounds: 2, drill: 'up' });
    for (const name of ['bass', 'chords', 'drums', 'drill']) {
      const { length } = tracks[name]!;
      expect(length, name).toBeGreaterThan(8);
      expect(Math.max(...tracks[name]!.map(({ tick }) => tick)), name).toBeLessThan(8 * BAR);
      // The chords of swing lie a hair behind.
      expect(tracks[name]![0]!.tick, `${name} begins at once`).toBeLessThan(15);
    }
    const onBar = (bar: number) => tracks.bass!.find(({ tick }) => tick === bar * BAR)!.midi % 12;
    expect([0, 1, 2, 3, 4, 5, 6, 7].map(onBar)).toEqual([5, 2, 3, 0, 5, 2, 3, 0]);
  });

  it('gives the same file for the same seed, another for another, and other rounds', () => {
    const file = (more: object) => answerBand(parse(bandRequest, { chart: CHART, ...more })).base64;
    expect(file({ seed: 5 })).toBe(file({ seed: 5 }));
    expect(file({ seed: 5 })).not.toBe(file({ seed: 6 }));
    const { chords } = notesOf({ chart: CHART, rounds: 2 });
    const round = (n: number) =>
      chords!
        .filter(({ tick }) => Math.floor(tick / (4 * BAR)) === n)
        .map(({ tick, midi }) => `${tick % (4 * BAR)} ${midi}`);
    expect(round(0)).not.toEqual(round(1));
  });

  it('drills where it is told, in the notes it is told', () => {
    const { drill } = notesOf({ chart: CHART, drill: 'down', subdivision: 4, position: 5, feel: 'straight' });
    expect(drill!.length).toBeGreaterThan(60);
    for (const { midi } of drill!) {
      expect(midi).toBeGreaterThanOrEqual(44);
      expect(midi).toBeLessThanOrEqual(73);
    }
    const steps = drill!.slice(1).map(({ midi }, i) => Math.abs(midi - drill![i]!.midi));
    expect(Math.max(...steps)).toBeLessThanOrEqual(7);
  });

  it('gives more from round to round, and ends on the I in a bar after the form where it is asked to', () => {
    const { base64 } = answerBand(
      parse(bandRequest, { chart: CHART, rounds: 3, intensity: [0.1, 0.9], ending: true, seed: 2 })
    );
    const { track } = MidiParser.parse(new Uint8Array(Buffer.from(base64, 'base64'))) as Parsed;
    const loudness = [0, 1, 2].map((round) => {
      let [sum, count] = [0, 0];
      for (const { event } of track.slice(1)) {
        let tick = 0;
        for (const { deltaTime, type, data } of event) {
          tick += deltaTime;
          if (type !== 9 || Math.floor(tick / (4 * BAR)) !== round) continue;
          sum += data[1] as number;
          count++;
        }
      }
      return { mean: sum / count, count };
    });
    expect(loudness[1]!.mean).toBeGreaterThan(1.3 * loudness[0]!.mean);
    expect(loudness[1]!.count).toBeGreaterThan(loudness[0]!.count);
    // The last of the list holds.
    expect(loudness[2]!.mean).toBeGreaterThan(0.9 * loudness[1]!.mean);
    const tracks = notesOf({ chart: CHART, rounds: 3, ending: true, seed: 2 });
    for (const name of ['bass', 'chords', 'drums']) {
      const after = tracks[name]!.filter(({ tick }) => tick >= 12 * BAR);
      expect(after.length, name).toBeGreaterThan(0);
      expect(
        after.every(({ tick }) => tick < 12 * BAR + 20),
        name
      ).toBe(true);
      const plain = notesOf({ chart: CHART, rounds: 3, seed: 2 })[name]!;
      expect(Math.max(...plain.map(({ tick }) => tick)), name).toBeLessThan(12 * BAR);
    }
    expect(tracks.bass!.at(-1)!.midi % 12).toBe(3);
    expect(base64).toBe(
      answerBand(
        parse(bandRequest, { chart: CHART, rounds: 3, intensity: [0.1, 0.9], ending: true, seed: 2 })
      ).base64
    );
  });

  it('plays the feel of a style where the chart says none', () => {
    const file = (chart: string, more: object) => answerBand(parse(bandRequest, { chart, ...more })).base64;
    const plain = '{key: Eb}\n| Fm7 | Bb7 |';
    expect(file(plain, { style: 'jazz' })).toBe(file(plain, { feel: 'swing' }));
    expect(file(CHART, { style: 'rock' })).toBe(file(CHART, {}));
  });

  it('refuses in sentences what it does not know or cannot hold', () => {
    const refusal = (request: object) => {
      try {
        answerBand(parse(bandRequest, request));
      } catch (thrown) {
        return thrown instanceof PlayerError ? thrown.error.message : String(thrown);
      }
      return '';
    };
    expect(refusal({ chart: CHART, feel: 'polka' })).toContain('half-time rock');
    expect(refusal({ chart: CHART, drill: 'sideways' })).toContain('arpeggio-scale');
    expect(refusal({ chart: CHART, position: 40 })).toContain('off this neck');
    expect(refusal({ chart: `| ${'C | F | '.repeat(500)}`, rounds: 60 })).toContain('fewer rounds');
    expect(refusal({ chart: '' })).toContain('no chords');
    expect(refusal({ chart: CHART, rounds: 0 })).not.toBe('');
    expect(refusal({ chart: CHART, intensity: 2 })).toContain('between 0 and 1');
    expect(refusal({ chart: CHART, intensity: [0.2, -1] })).toContain('between 0 and 1');
  });
});
