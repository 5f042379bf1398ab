/** A Standard MIDI File of format 1: its tracks, and the head that says title, tempo, key, meters and chord names. */
import type { Beats } from '../../base/units';
import { writeMidi, type MidiData, type MidiEvent } from 'midi-file';
import type { Meter } from '../../chart/model';
import type { ExcerptBar } from '../../harmony/excerpt';
import type { Key } from '../../harmony/key';
import { accidentalsOf } from '../../harmony/key-signature';

/** What stands at the head of a file; times are in beats. */
export interface MidiHead {
  /** Beats a minute, of the chart's own beat. */
  readonly tempo: number;
  /** Where it changes. */
  readonly tempos?: readonly { readonly start: number; readonly tempo: number }[];
  /** The chart's meter: what its beat is. */
  readonly meter: Meter;
  readonly key: Key;
  readonly bars: readonly Pick<ExcerptBar, 'start' | 'meter'>[];
  /** Chord names at their beats. */
  readonly markers: readonly { readonly start: number; readonly name: string }[];
}

/** Text events hold bytes: names keep their ø, Δ, ♭ as UTF-8, a letter a byte. */
function bytesOf(text: string): string {
  return encodeURIComponent(text).replaceAll(/%([0-9A-F]{2})/g, (_, hex: string) =>
    String.fromCharCode(parseInt(hex, 16))
  );
}

/** The marker of bar 1, where bars of a pickup stand before it. */
export const FIRST_BAR = 'bar 1';

/** An event at its tick. */
export interface Timed {
  readonly tick: number;
  readonly event: Record<string, unknown> & { readonly type: string };
}

/** Turns absolute ticks into the distances that a file holds; what ends comes before what starts at the same tick. */
export function track(name: string, timed: readonly Timed[], end: number): MidiEvent[] {
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
function metersOf(bars: MidiHead['bars']): readonly { readonly start: number; readonly meter: Meter }[] {
  return bars.filter(({ meter }, i) => {
    const before = bars[i - 1]?.meter;
    return !before || before.beats !== meter.beats || before.unit !== meter.unit;
  });
}

/** The events of the head; `quarter` is how many ticks the file gives a quarter. */
export function headOf(
  { tempo, tempos = [], meter, key, bars, markers }: MidiHead,
  quarter: number
): Timed[] {
  // The chart's tempo counts its own beat, the file's the quarter note.
  const beat = (quarter * 4) / meter.unit;
  const meta = (start: number, event: Timed['event']): Timed => ({
    tick: Math.max(0, Math.round(start * beat)),
    event: { ...event, meta: true }
  });
  const tempoAt = (start: number, beats: Beats): Timed =>
    meta(start, {
      type: 'setTempo',
      microsecondsPerBeat: Math.round((60e6 / beats) * (meter.unit / 4))
    });
  return [
    tempoAt(0, tempo),
    ...tempos.map((one) => tempoAt(one.start, one.tempo)),
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
}

/** The bytes of a file. */
export function fileOf(tracks: MidiEvent[][], quarter: number): Uint8Array<ArrayBuffer> {
  const data: MidiData = { header: { format: 1, numTracks: tracks.length, ticksPerBeat: quarter }, tracks };
  return Uint8Array.from(writeMidi(data));
}
