/** A chart with its lines as a Standard MIDI File: chord names as markers, a track for each line and the melody. */
import { DEFAULT_TEMPO } from '../../practice/ladder';
import { endOf, ticksOf, type LineNote } from '../../line/model';
import { quarterOf } from '../../line/notation';
import type { Piece } from '../piece';
import { fileOf, headOf, track, type Timed } from './file';

/** General MIDI program of a line: a clean guitar. */
const GUITAR = 27;
const LOUD = 96;
const GHOST = 40;
/** Drums have this channel, and no line. */
const DRUMS = 9;

export function writeMidiPiece({ title, sheet, voices }: Piece): Uint8Array<ArrayBuffer> {
  const { head, form, analysis } = sheet;
  const quarter = quarterOf(head.meter);
  const end = Math.max(ticksOf(form.beats), ...voices.flatMap(({ notes }) => notes.map(endOf)));
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
  const tracks = voices.map(({ name, notes }, i) => {
    const channel = i % 15 < DRUMS ? i % 15 : (i % 15) + 1;
    const program: Timed = { tick: 0, event: { type: 'programChange', channel, programNumber: GUITAR } };
    const sounds = struck(notes).flatMap(({ start, length, midi, ghost }): Timed[] => [
      { tick: start, event: { type: 'noteOn', channel, noteNumber: midi, velocity: ghost ? GHOST : LOUD } },
      { tick: start + length, event: { type: 'noteOff', channel, noteNumber: midi, velocity: 0 } }
    ]);
    return track(name, [program, ...sounds], end);
  });
  return fileOf([track(title, first, end), ...tracks], quarter);
}

/** What is struck: a tied note only goes on. */
function struck(notes: readonly LineNote[]): LineNote[] {
  const out: LineNote[] = [];
  for (const note of notes) {
    const held = note.tie
      ? out.findLastIndex((other) => other.midi === note.midi && endOf(other) === note.start)
      : -1;
    if (held < 0) out.push(note);
    else out[held] = { ...out[held]!, length: endOf(note) - out[held]!.start };
  }
  return out;
}
