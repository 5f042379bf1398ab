/** Events and a line as a Standard MIDI File: a track for each part, chord names as markers, every meter where it begins. */
import type { Beats } from '../../base/units';
import type { Part, SoundEvent } from '../../practice/events';
import type { ChordSound } from '../../practice/feel';
import { fileOf, headOf, track, type MidiHead, type Timed } from './file';

export interface MidiPiece extends MidiHead {
  readonly title: string;
  readonly events: readonly SoundEvent[];
  readonly beats: Beats;
  /** General MIDI program of the drums, which is their kit. */
  readonly kit: 'sticks' | 'brushes' | 'none';
  readonly chordsOn: ChordSound;
}

/** Ticks of a quarter note. */
const QUARTER = 480;
const BRUSH_KIT = 40;
/** General MIDI programs of an electric piano, a clean guitar, a drawbar organ. */
const CHORD_PROGRAMS: Readonly<Record<ChordSound, number>> = { piano: 4, guitar: 27, organ: 16 };

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

/** The bytes of a file of format 1. */
export function midiFile(piece: MidiPiece): Uint8Array<ArrayBuffer> {
  const { title, events, beats, kit, chordsOn, meter } = piece;
  const beat = (QUARTER * 4) / meter.unit;
  const tick = (time: number) => Math.max(0, Math.round(time * beat));
  const end = tick(beats);
  const parts = VOICES.flatMap(({ part, name, channel, program, isExtra }) => {
    const own = events.filter((event) => event.part === part);
    if (isExtra && own.length === 0) return [];
    const programNumber =
      part === 'drums' && kit === 'brushes'
        ? BRUSH_KIT
        : part === 'chords'
          ? CHORD_PROGRAMS[chordsOn]
          : program;
    const set: Timed = { tick: 0, event: { type: 'programChange', channel, programNumber } };
    const kits = part === 'drums' ? kitChanges(own, programNumber, channel, tick) : [];
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
    return [track(name, [...(isExtra ? [] : [set]), ...kits, ...notes], end)];
  });
  return fileOf([track(title, headOf(piece, QUARTER), end), ...parts], QUARTER);
}

/** The kit changes where brushes are taken up or laid down. */
function kitChanges(
  events: readonly SoundEvent[],
  first: number,
  channel: number,
  tick: (time: number) => number
): Timed[] {
  let now = first;
  return events.flatMap(({ start, isBrushed }): Timed[] => {
    const programNumber = isBrushed ? BRUSH_KIT : 0;
    if (programNumber === now) return [];
    now = programNumber;
    return [{ tick: tick(start), event: { type: 'programChange', channel, programNumber } }];
  });
}
