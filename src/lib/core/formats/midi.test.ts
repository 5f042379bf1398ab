import { excerptOf } from '../harmony/excerpt';
import MidiParser from 'midi-parser-js';
import { describe, expect, it } from 'vitest';
import { readSheet } from '../harmony/sheet';
import { bandEvents } from '../practice/band';
import { FEELS } from '../practice/feel';
import type { SoundEvent } from '../practice/events';
import { midiFile } from './midi';

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

const { form, analysis } = readSheet('{key: Ab}\n{time: 3/4}\n| Bbm7 | Eb7 | Abmaj7 | F7b9 |');
const excerpt = excerptOf(form, analysis, { kind: 'form' })!;
const line: SoundEvent[] = [0, 3, 6, 9].map((start) => ({
  part: 'line',
  start,
  beats: 1.5,
  midi: 60,
  velocity: 0.8
}));
const events = [...bandEvents(excerpt, FEELS[4]!), ...line];
const bytes = midiFile({
  title: 'Harbour lights ♭',
  tempo: 132,
  meter: { beats: 3, unit: 4 },
  events,
  markers: excerpt.changes.map(({ start, source }) => ({ start, name: source.symbol })),
  beats: excerpt.beats
});

describe('a MIDI file', () => {
  // An independent reader of the same format.
  const parsed = MidiParser.parse(bytes) as Parsed;
  const noteOns = (channel: number) =>
    parsed.track.flatMap(({ event }) => {
      let tick = 0;
      return event.flatMap(({ deltaTime, type, channel: own, data }) => {
        tick += deltaTime;
        return type === 9 && own === channel ? [{ tick, midi: (data as number[])[0]! }] : [];
      });
    });

  it('has a track for each part and one for tempo, meter and chord names', () => {
    expect(parsed.formatType).toBe(1);
    expect(parsed.timeDivision).toBe(480);
    expect(parsed.track).toHaveLength(6);
    const markers = parsed.track[0]!.event.filter(({ metaType }) => metaType === 6).map(({ data }) => data);
    expect(markers).toEqual(['Bbm7', 'Eb7', 'Abmaj7', 'F7b9']);
    const tempo = parsed.track[0]!.event.find(({ metaType }) => metaType === 81)!;
    expect(tempo.data).toBe(Math.round(60e6 / 132));
  });

  it('holds every note of the events at its time', () => {
    const bass = events.filter(({ part }) => part === 'bass');
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
    const eighths = MidiParser.parse(
      midiFile({ title: '', tempo: 120, meter: { beats: 6, unit: 8 }, events: line, markers: [], beats: 12 })
    ) as Parsed;
    expect(eighths.track[0]!.event.find(({ metaType }) => metaType === 81)!.data).toBe(1_000_000);
    expect(eighths.track[1]!.event.reduce((sum, { deltaTime }) => sum + deltaTime, 0)).toBe(12 * 240);
  });
});
