import MidiParser from 'midi-parser-js';
import { describe, expect, it } from 'vitest';
import { bandRequest } from '../../api/requests';
import { PlayerError } from '../../api/errors';
import { parse } from '../body';
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
      expect(tracks[name]![0]!.tick, `${name} begins at once`).toBe(0);
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
  });
});
