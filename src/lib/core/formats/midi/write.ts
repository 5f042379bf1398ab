/** A chart with its lines as a Standard MIDI File: chord names as markers, a track for each line and the melody. */
import { nth } from '../../base/list';
import { DEFAULT_TEMPO } from '../../practice/ladder';
import { endOf, ticksOf, type LineNote } from '../../line/model';
import { quarterOf } from '../../line/notation';
import type { Piece } from '../piece';
import { bendRange, bendValue, bentOver } from './bends';
import { fileOf, FIRST_BAR, headOf, track, type Timed } from './file';

/** General MIDI program of a line: a clean guitar. */
const GUITAR = 27;
const LOUD = 96;
const GHOST = 40;
/** Drums have this channel, and no line. */
const DRUMS = 9;

/** A piece as a Standard MIDI File: chords as markers, a track for each voice. */
export function writeMidiPiece({ title, sheet, voices }: Piece): Uint8Array<ArrayBuffer> {
  const { head, form, analysis } = sheet;
  const quarter = quarterOf(head.meter);
  const end = Math.max(ticksOf(form.beats), ...voices.flatMap(({ notes }) => notes.map(endOf)));
  // A file has no time before its start: with a pickup, whole bars stand before bar 1, which is marked.
  const earliest = Math.min(0, ...voices.flatMap(({ notes }) => notes.map(({ start }) => start)));
  const bar = ticksOf(form.bars[0]?.beats ?? head.meter.beats);
  const lead = Math.ceil(-earliest / bar) * bar;
  const first = headOf(
    {
      tempo: head.tempo ?? DEFAULT_TEMPO,
      meter: head.meter,
      key: analysis.key,
      bars: form.bars,
      markers: analysis.changes.map(({ start, symbol }) => ({ start, name: symbol }))
    },
    quarter
  );
  const marked: Timed[] =
    lead > 0 ? [{ tick: lead, event: { type: 'marker', meta: true, text: FIRST_BAR } }] : [];
  const later = (timed: readonly Timed[]) => timed.map((one) => ({ ...one, tick: one.tick + lead }));
  // What is said of the whole file stands at its start.
  const headed = first.map((one) =>
    one.tick === 0 && one.event.type !== 'marker' ? one : { ...one, tick: one.tick + lead }
  );
  const tracks = voices.map(({ name, notes }, i) => {
    const channel = i % 15 < DRUMS ? i % 15 : (i % 15) + 1;
    const program: Timed = { tick: 0, event: { type: 'programChange', channel, programNumber: GUITAR } };
    const own = struck(notes);
    const sounds = own.flatMap((note, n): Timed[] => {
      const { start, length, ghost, bend } = note;
      const noteNumber = bend?.from ?? note.midi;
      return [
        { tick: start, event: { type: 'noteOn', channel, noteNumber, velocity: ghost ? GHOST : LOUD } },
        ...bentOver(note, own[n - 1], quarter).map(({ after, cents }): Timed => ({
          tick: start + after,
          event: { type: 'pitchBend', channel, value: bendValue(cents) }
        })),
        { tick: start + length, event: { type: 'noteOff', channel, noteNumber, velocity: 0 } }
      ];
    });
    const range = own.some((note, n) => bentOver(note, own[n - 1], quarter).length > 0)
      ? bendRange(channel)
      : [];
    return track(name, [program, ...range, ...later(sounds)], end + lead);
  });
  return fileOf([track(title, [...headed, ...marked], end + lead), ...tracks], quarter);
}

/** What is struck: a tied note only goes on. */
function struck(notes: readonly LineNote[]): LineNote[] {
  const out: LineNote[] = [];
  for (const note of notes) {
    const held = note.tie
      ? out.findLastIndex((other) => other.midi === note.midi && endOf(other) === note.start)
      : -1;
    if (held < 0) out.push(note);
    else out[held] = { ...nth(out, held), length: endOf(note) - nth(out, held).start };
  }
  return out;
}
