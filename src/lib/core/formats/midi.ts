/** Events and a line as a Standard MIDI File: a track for each part, chord names as markers, every meter where it begins. */
import { writeMidi, type MidiData, type MidiEvent } from 'midi-file';
import type { Meter } from '../chart/model';
import type { ExcerptBar } from '../harmony/excerpt';
import type { Key } from '../harmony/key';
import { accidentalsOf } from '../harmony/key-signature';
import type { Part, SoundEvent } from '../practice/events';

export interface MidiPiece {
  readonly title: string;
  /** Beats a minute, of the chart's own beat. */
  readonly tempo: number;
  /** The chart's meter: what its beat is. */
  readonly meter: Meter;
  readonly key: Key;
  readonly bars: readonly Pick<ExcerptBar, 'start' | 'meter'>[];
  readonly events: readonly SoundEvent[];
  /** Chord names at their beats. */
  readonly markers: readonly { readonly start: number; readonly name: string }[];
  readonly beats: number;
  /** General MIDI program of the drums, which is their kit. */
  readonly kit: 'sticks' | 'brushes' | 'none';
}

/** Ticks of a quarter note. */
const QUARTER = 480;
const BRUSH_KIT = 40;

interface Voice {
  readonly part: Part;
  readonly name: string;
  readonly channel: number;
  /** General MIDI program. */
  readonly program: number;
  /** It has a track only where it sounds. */
  readonly isExtra?: true;
}

/** The parts in the order of their tracks; drums and click have a channel of their own. */
const VOICES: readonly Voice[] = [
  { part: 'bass', name: 'bass', channel: 0, program: 32 },
  { part: 'chords', name: 'chords', channel: 1, program: 4 },
  { part: 'drums', name: 'drums', channel: 9, program: 0 },
  { part: 'line', name: 'drill', channel: 2, program: 26 },
  { part: 'click', name: 'click', channel: 9, program: 0, isExtra: true }
];

/** Text events hold bytes: names keep their ø, Δ, ♭ as UTF-8, a letter a byte. */
function bytesOf(text: string): string {
  return encodeURIComponent(text).replaceAll(/%([0-9A-F]{2})/g, (_, hex: string) =>
    String.fromCharCode(parseInt(hex, 16))
  );
}

interface Timed {
  readonly tick: number;
  readonly event: Record<string, unknown> & { readonly type: string };
}

/** Turns absolute ticks into the distances that a file holds; what ends comes before what starts at the same tick. */
function track(name: string, timed: readonly Timed[], end: number): MidiEvent[] {
  const rank = ({ type }: Timed['event']) => (type === 'noteOff' ? 0 : type === 'noteOn' ? 2 : 1);
  const ordered = [...timed].sort((a, b) => a.tick - b.tick || rank(a.event) - rank(b.event));
  let last = 0;
  const events = ordered.map(({ tick, event }) => {
    const deltaTime = tick - last;
    last = tick;
    return { ...event, deltaTime };
  });
  return [
    { deltaTime: 0, meta: true, type: 'trackName', text: bytesOf(name) },
    ...events,
    { deltaTime: Math.max(0, end - last), meta: true, type: 'endOfTrack' }
  ] as MidiEvent[];
}

/** The meters where they begin. */
function metersOf(bars: MidiPiece['bars']): readonly { readonly start: number; readonly meter: Meter }[] {
  return bars.filter(({ meter }, i) => {
    const before = bars[i - 1]?.meter;
    return !before || before.beats !== meter.beats || before.unit !== meter.unit;
  });
}

/** The bytes of a file of format 1. */
export function midiFile(piece: MidiPiece): Uint8Array<ArrayBuffer> {
  const { title, tempo, meter, key, bars, events, markers, beats, kit } = piece;
  // The chart's tempo counts its own beat, the file's the quarter note.
  const beat = (QUARTER * 4) / meter.unit;
  const tick = (time: number) => Math.max(0, Math.round(time * beat));
  const end = tick(beats);
  const meta = (start: number, event: Timed['event']): Timed => ({
    tick: tick(start),
    event: { ...event, meta: true }
  });
  const head: Timed[] = [
    meta(0, {
      type: 'setTempo',
      microsecondsPerBeat: Math.round((60e6 / tempo) * (meter.unit / 4))
    }),
    // Major or minor is all that a file can say; a mode has the accidentals of its own scale.
    meta(0, { type: 'keySignature', key: accidentalsOf(key), scale: key.mode === 'minor' ? 1 : 0 }),
    ...metersOf(bars).map(({ start, meter: { beats: numerator, unit: denominator } }) =>
      meta(start, {
        type: 'timeSignature',
        numerator,
        denominator,
        metronome: denominator >= 8 && numerator % 3 === 0 ? 36 : 96 / denominator,
        thirtyseconds: 8
      })
    ),
    ...markers.map(({ start, name }) => meta(start, { type: 'marker', text: bytesOf(name) }))
  ];
  const parts = VOICES.flatMap(({ part, name, channel, program, isExtra }) => {
    const own = events.filter((event) => event.part === part);
    if (isExtra && own.length === 0) return [];
    const programNumber = part === 'drums' && kit === 'brushes' ? BRUSH_KIT : program;
    const set: Timed = { tick: 0, event: { type: 'programChange', channel, programNumber } };
    const notes = own.flatMap(({ start, beats: length, midi, velocity }): Timed[] => {
      const from = Math.min(tick(start), end - 1);
      const note = { channel, noteNumber: midi };
      const loudness = Math.max(1, Math.round(velocity * 127));
      return [
        { tick: from, event: { type: 'noteOn', ...note, velocity: loudness } },
        {
          tick: Math.max(from + 1, Math.min(end, tick(start + length))),
          event: { type: 'noteOff', ...note, velocity: 0 }
        }
      ];
    });
    return [track(name, [...(isExtra ? [] : [set]), ...notes], end)];
  });
  const tracks = [track(title, head, end), ...parts];
  const data: MidiData = { header: { format: 1, numTracks: tracks.length, ticksPerBeat: QUARTER }, tracks };
  return Uint8Array.from(writeMidi(data));
}
