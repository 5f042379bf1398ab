/** Events and a line as a Standard MIDI File: a track for each part, chord names as markers. */
import { writeMidi, type MidiData, type MidiEvent } from 'midi-file';
import type { Meter } from '../chart/model';
import { PARTS, type Part, type SoundEvent } from '../practice/events';

export interface MidiPiece {
  readonly title: string;
  /** Beats a minute. */
  readonly tempo: number;
  readonly meter: Meter;
  readonly events: readonly SoundEvent[];
  /** Chord names at their beats. */
  readonly markers: readonly { readonly start: number; readonly name: string }[];
  readonly beats: number;
}

/** Ticks of a quarter note. */
const QUARTER = 480;

/** Channel and General MIDI program of each part; drums have a channel of their own and no program. */
const VOICES: Readonly<
  Record<Part, { readonly channel: number; readonly program?: number; readonly name: string }>
> = {
  bass: { channel: 0, program: 32, name: 'Bass' },
  chords: { channel: 1, program: 0, name: 'Chords' },
  line: { channel: 2, program: 26, name: 'Line' },
  drums: { channel: 9, name: 'Drums' },
  click: { channel: 9, name: 'Click' }
};

/** Text events hold single bytes. */
function ascii(text: string): string {
  return text
    .replaceAll('♭', 'b')
    .replaceAll('♯', '#')
    .replaceAll(/[^\x20-\x7e]/g, '?');
}

interface Timed {
  readonly tick: number;
  readonly event: Record<string, unknown> & { readonly type: string };
}

/** Turns absolute ticks into the distances that a file holds; what ends comes before what starts at the same tick. */
function track(name: string, timed: readonly Timed[], end: number): MidiEvent[] {
  const rank = ({ type }: Timed['event']) => (type === 'noteOff' ? 0 : 1);
  const ordered = [...timed].sort((a, b) => a.tick - b.tick || rank(a.event) - rank(b.event));
  let last = 0;
  const events = ordered.map(({ tick, event }) => {
    const deltaTime = tick - last;
    last = tick;
    return { ...event, deltaTime };
  });
  return [
    { deltaTime: 0, meta: true, type: 'trackName', text: ascii(name) },
    ...events,
    { deltaTime: Math.max(0, end - last), meta: true, type: 'endOfTrack' }
  ] as MidiEvent[];
}

/** The bytes of a file of format 1. Parts without an event get no track. */
export function midiFile({
  title,
  tempo,
  meter,
  events,
  markers,
  beats
}: MidiPiece): Uint8Array<ArrayBuffer> {
  // The chart's tempo counts its own beat, the file's the quarter note.
  const beat = (QUARTER * 4) / meter.unit;
  const tick = (time: number) => Math.max(0, Math.round(time * beat));
  const end = tick(beats);
  const head: Timed[] = [
    {
      tick: 0,
      event: {
        type: 'setTempo',
        meta: true,
        microsecondsPerBeat: Math.round((60e6 / tempo) * (meter.unit / 4))
      }
    },
    {
      tick: 0,
      event: {
        type: 'timeSignature',
        meta: true,
        numerator: meter.beats,
        denominator: meter.unit,
        metronome: 24,
        thirtyseconds: 8
      }
    },
    ...markers.map(({ start, name }) => ({
      tick: tick(start),
      event: { type: 'marker', meta: true, text: ascii(name) }
    }))
  ];
  const parts = PARTS.filter((part) => events.some((event) => event.part === part)).map((part) => {
    const { channel, program, name } = VOICES[part];
    const notes = events
      .filter((event) => event.part === part)
      .flatMap(({ start, beats: length, midi, velocity }): Timed[] => [
        {
          tick: tick(start),
          event: {
            type: 'noteOn',
            channel,
            noteNumber: midi,
            velocity: Math.max(1, Math.round(velocity * 127))
          }
        },
        {
          tick: Math.max(tick(start) + 1, Math.min(end, tick(start + length))),
          event: { type: 'noteOff', channel, noteNumber: midi, velocity: 0 }
        }
      ]);
    const set: Timed[] =
      program === undefined
        ? []
        : [{ tick: 0, event: { type: 'programChange', channel, programNumber: program } }];
    return track(name, [...set, ...notes], end);
  });
  const tracks = [track(title, head, end), ...parts];
  const data: MidiData = { header: { format: 1, numTracks: tracks.length, ticksPerBeat: QUARTER }, tracks };
  return Uint8Array.from(writeMidi(data));
}
