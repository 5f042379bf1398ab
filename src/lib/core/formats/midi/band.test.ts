import MidiParser from 'midi-parser-js';
import { describe, expect, it } from 'vitest';
import { excerptOf } from '../../harmony/excerpt';
import { readSheet } from '../../harmony/sheet';
import { bandEvents } from '../../practice/band';
import type { SoundEvent } from '../../practice/events';
import { chordsOn, feelNamed } from '../../practice/feel';
import { accidentalsOf } from '../../harmony/key-signature';
import { midiFile, type MidiPiece } from './band';

interface Parsed {
  formatType: number;
  timeDivision: number;
  track: {
    event: {
      deltaTime: number;
      type: number;
      metaType?: number;
      channel?: number;
      data: number | number[] | string;
    }[];
  }[];
}

function piece(text: string, more: Partial<MidiPiece> = {}): MidiPiece {
  const { form, analysis, head } = readSheet(text);
  const excerpt = excerptOf(form, analysis, { kind: 'form' })!;
  const feel = feelNamed('waltz')!;
  const line: SoundEvent[] = [0, 3, 6, 9].map((start) => ({
    part: 'line',
    start,
    beats: 1.5,
    midi: 60,
    velocity: 0.8
  }));
  const band = bandEvents({ excerpt, feel, ratio: 2 / 3, seed: 1, round: 0, isLast: true });
  return {
    title: 'Harbour lights ♭',
    tempo: 132,
    meter: head.meter,
    key: analysis.key,
    bars: excerpt.bars,
    kit: feel.kit,
    chordsOn: chordsOn(feel),
    events: [...band, ...line],
    markers: excerpt.changes.map(({ start, source }) => ({ start, name: source.symbol })),
    beats: excerpt.beats,
    ...more
  };
}

/** An independent reader of the same format; its text is bytes. */
const read = (of: MidiPiece) => MidiParser.parse(midiFile(of)) as Parsed;
const text = (bytes: unknown) => Buffer.from(String(bytes), 'latin1').toString('utf8');
const metas = ({ track }: Parsed, type: number) => {
  let tick = 0;
  return track[0]!.event.flatMap(({ deltaTime, metaType, data }) => {
    tick += deltaTime;
    return metaType === type ? [{ tick, data }] : [];
  });
};

describe('a MIDI file', () => {
  const of = piece('{key: Ab}\n{time: 3/4}\n| Bbm7 | Eb7 | Aø | F7b9 |');
  const parsed = read(of);
  const noteOns = (channel: number) =>
    parsed.track.flatMap(({ event }) => {
      let tick = 0;
      return event.flatMap(({ deltaTime, type, channel: own, data }) => {
        tick += deltaTime;
        return type === 9 && own === channel ? [{ tick, midi: (data as number[])[0]! }] : [];
      });
    });

  it('has a track for each part, named so, and one for tempo, meter, key and chord names', () => {
    expect(parsed.formatType).toBe(1);
    expect(parsed.timeDivision).toBe(480);
    const names = parsed.track.map(({ event }) => text(event.find(({ metaType }) => metaType === 3)!.data));
    expect(names).toEqual(['Harbour lights ♭', 'bass', 'chords', 'drums', 'drill', 'click']);
    expect(metas(parsed, 6).map(({ data }) => text(data))).toEqual(['Bbm7', 'Eb7', 'Aø', 'F7b9']);
    expect(metas(parsed, 81)[0]!.data).toBe(Math.round(60e6 / 132));
  });

  it('holds every note of the events at its time', () => {
    const bass = of.events.filter(({ part }) => part === 'bass');
    expect(noteOns(0).map(({ tick, midi }) => `${tick} ${midi}`)).toEqual(
      bass.map(({ start, midi }) => `${Math.round(start * 480)} ${midi}`)
    );
    expect(noteOns(2)).toHaveLength(4);
    for (const { event } of parsed.track.slice(1)) {
      const on = event.filter(({ type }) => type === 9).length;
      const off = event.filter(({ type }) => type === 8).length;
      expect(on).toBe(off);
      const length = event.reduce((sum, { deltaTime }) => sum + deltaTime, 0);
      expect(length).toBe(12 * 480);
    }
  });

  it('counts its tempo in quarter notes, whatever the beat', () => {
    const eighths = read(piece('{time: 6/8}\n| C | F |', { tempo: 120 }));
    expect(metas(eighths, 81)[0]!.data).toBe(1_000_000);
    expect(eighths.track[1]!.event.reduce((sum, { deltaTime }) => sum + deltaTime, 0)).toBe(12 * 240);
  });

  it('says every meter where it begins', () => {
    const changing = read(piece('{time: 4/4}\n| C | F |\n{time: 7/8}\n| G | G |\n{time: 3/4}\n| C |'));
    expect(
      metas(changing, 88).map(({ tick, data }) => [tick / 480, ...(data as number[]).slice(0, 2)])
    ).toEqual([
      [0, 4, 2],
      [8, 7, 3],
      [15, 3, 2]
    ]);
  });

  it('says the key by its accidentals', () => {
    const key = (name: string) => accidentalsOf(readSheet(`{key: ${name}}\n| C |`).analysis.key);
    const said = [
      'C',
      'Ab',
      'F#m',
      'Eb dorian',
      'E phrygian',
      'F lydian',
      'Bb mixolydian',
      'Gb',
      'D#m',
      'Abm'
    ];
    expect(said.map(key)).toEqual([0, -4, 3, -5, 0, 0, -3, -6, 6, -7]);
    // No key has more than seven.
    expect(accidentalsOf({ tonic: 'Fb', mode: 'minor' })).toBe(1);
    const signs = (name: string) => metas(read(piece(`{key: ${name}}\n| C |`)), 89)[0]!.data as number;
    expect([signs('Ab') >> 8, signs('Ab') & 255]).toEqual([256 - 4, 0]);
    expect(signs('F#m') & 255).toBe(1);
  });
});
