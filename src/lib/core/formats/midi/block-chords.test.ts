import { writeMidi, type MidiEvent } from 'midi-file';
import { describe, expect, it } from 'vitest';
import { readSheet } from '../../harmony/sheet';
import { readMidi } from './read';

/** A track of chords, a bar each in 4/4, struck twice in every bar. */
function fileOf(
  tracks: readonly { readonly name: string; readonly strokes: readonly (readonly number[])[] }[]
): Uint8Array {
  const beat = 480;
  const events = tracks.map(({ name, strokes }): MidiEvent[] => {
    const out: MidiEvent[] = [{ deltaTime: 0, meta: true, type: 'trackName', text: name }];
    for (const midis of strokes) {
      for (let half = 0; half < 2; half++) {
        midis.forEach((noteNumber, i) =>
          out.push({ deltaTime: i === 0 ? 0 : 2, type: 'noteOn', channel: 0, noteNumber, velocity: 80 })
        );
        const held = 2 * beat - 2 * (midis.length - 1);
        midis.forEach((noteNumber, i) =>
          out.push({ deltaTime: i === 0 ? held : 0, type: 'noteOff', channel: 0, noteNumber, velocity: 0 })
        );
      }
    }
    return [...out, { deltaTime: 0, meta: true, type: 'endOfTrack' }];
  });
  return Uint8Array.from(
    writeMidi({ header: { format: 1, numTracks: events.length, ticksPerBeat: beat }, tracks: events })
  );
}
const symbols = (chart: string | null) => readSheet(chart!).form.changes.map(({ symbol }) => symbol);

// A minor cadence in F, a half-diminished chord among it.
const CHORDS = [
  [43, 58, 61, 65],
  [48, 58, 64, 67],
  [41, 56, 60, 65],
  [53, 56, 60, 65]
];

describe('chords of a track that plays them', () => {
  it('are named by their notes, struck again or not, and that is told', () => {
    const { chart, left } = readMidi(fileOf([{ name: 'Keys', strokes: CHORDS }]));
    expect(symbols(chart)).toEqual(['Gm7b5', 'C7', 'Fm', 'Fm'].slice(0, symbols(chart).length));
    expect(readSheet(chart!).form.bars).toHaveLength(4);
    expect(left).toContainEqual({
      text: 'Keys',
      why: 'has chords without names; they were named by their notes'
    });
  });

  it('stand beside a melody on a track of its own', () => {
    const melody = [65, 67, 68, 70].map((midi) => [midi]);
    const read = readMidi(
      fileOf([
        { name: 'Tune', strokes: melody },
        { name: 'Keys', strokes: CHORDS }
      ])
    );
    expect(read.melody!.map(({ midi }) => midi)).toEqual([65, 65, 67, 67, 68, 68, 70, 70]);
    expect(symbols(read.chart)[0]).toBe('Gm7b5');
  });

  it('are none where a track has clusters, and then it says so', () => {
    const { chart, left } = readMidi(
      fileOf([
        {
          name: 'Noise',
          strokes: [
            [60, 61, 62, 63],
            [50, 51, 52, 53]
          ]
        }
      ])
    );
    expect(chart).toBeNull();
    expect(left.map(({ why }) => why).join()).toContain('There is no chord in it');
  });
});
