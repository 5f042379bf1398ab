/**
 * The melody of a chart: a line that is kept in the chart's text and typed as note names with lengths, bar by bar:
 * `G4:2 A4 Bb4 | r D5:3`. Source: docs/music-rules.md, The melody.
 */
import { sure } from '../base/list';
import type { Midi, Ticks } from '../base/units';
import type { Meter } from '../chart/model';
import { MELODY_NOTE } from '../chart/melody-text';
import type { Change, Form } from '../chart/unroll';
import { midiOf, pitchClass, readNote } from '../theory/note';
import { asciiAccidentals } from '../theory/typeset';
import { beatsOf, endOf, ticksOf, TICKS, type Line, type LineNote } from './model';

export interface MelodyProblem {
  /** The bar, counted from 1; 0 for the pickup. */
  readonly bar: number;
  /** A sentence a player understands. */
  readonly message: string;
}

export interface Melody {
  readonly line: Line;
  readonly problems: readonly MelodyProblem[];
}

/** The octave of a first note that says none. */
const FIRST_OCTAVE = 4;
/** Lengths beyond this are slips. */
const LONGEST = 64;

/** Reads a melody over a form. Bars fill up with rest; what does not fit or is not understood is told bar by bar. */
export function readMelody(text: string, form: Form, meter: Meter): Melody {
  const notes: LineNote[] = [];
  const problems: MelodyProblem[] = [];
  // With a pickup a bar line at the head is the first bar's own: nothing is played before it.
  const typedBars = (form.pickup > 0 ? text : text.replace(/^\s*\|/, '')).replace(/\|\s*$/, '').split('|');
  const bars = form.pickup > 0 ? [{ start: -form.pickup, beats: form.pickup }, ...form.bars] : form.bars;
  // A pickup is no bar of its own.
  const first = form.pickup > 0 ? 0 : 1;
  typedBars.forEach((typed, i) => {
    const bar = bars[i];
    const words = typed.match(/\S+/g) ?? [];
    if (!bar) {
      if (words.length)
        problems.push({ bar: i + first, message: 'The chart has no such bar; its notes are left out.' });
      return;
    }
    const tell = (message: string) => problems.push({ bar: i + first, message });
    let at = ticksOf(bar.start);
    const end = ticksOf(bar.start + bar.beats);
    for (const word of words) {
      const read = readWord(word, notes.at(-1)?.midi ?? null);
      if (!read) {
        tell(
          `“${word.slice(0, 12)}” is no note; write a name, an octave and a length in beats, such as Bb4:2, or r for a rest.`
        );
        continue;
      }
      if (at >= end) {
        tell('There are more beats in it than the bar has; the last notes are left out.');
        break;
      }
      const length = Math.min(read.length, end - at);
      if (length < read.length) tell('Its last note is longer than the bar; it ends with it.');
      const held = notes.at(-1);
      if (read.isHeld && held?.midi === read.midi && endOf(held) === at) {
        notes[notes.length - 1] = { ...held, length: held.length + length };
      } else if (read.midi !== null) notes.push({ start: at, length, midi: read.midi, note: read.note });
      at += length;
    }
  });
  return { line: { meter, notes }, problems };
}

function readWord(
  word: string,
  before: number | null
): {
  readonly midi: Midi | null;
  readonly note: string;
  readonly length: Ticks;
  readonly isHeld: boolean;
} | null {
  const match = MELODY_NOTE.exec(word);
  if (!match) return null;
  const [, stroke, name = '', octave, said = '1'] = match;
  const isHeld = stroke === '~';
  const [whole = NaN, part] = said.split('/').map(Number);
  const beats = part === undefined ? whole : whole / part;
  if (!(beats > 0 && beats <= LONGEST)) return null;
  const length = Math.max(1, ticksOf(beats));
  if (name === 'r') return octave === undefined ? { midi: null, note: '', length, isHeld } : null;
  const note = sure(readNote(asciiAccidentals(name)), 'readNote');
  const midi = octave === undefined ? nearest(note, before) : midiOf(`${note}${octave}`);
  return midi === null ? null : { midi, note, length, isHeld };
}

/** Without an octave a note is the nearest of its name to the one before. */
function nearest(note: string, before: number | null): number | null {
  const first = midiOf(`${note}${FIRST_OCTAVE}`);
  if (before === null || first === null) return first;
  const up = (((pitchClass(note) - before) % 12) + 12) % 12;
  return before + (up > 6 ? up - 12 : up);
}

/** The notes of a line that sound during a change, in order. */
export function notesOver({ notes }: Line, { start, beats }: Pick<Change, 'start' | 'beats'>): LineNote[] {
  const [from, to] = [ticksOf(start), ticksOf(start + beats)];
  return notes.filter((note) => endOf(note) > from && note.start < to);
}

/** The note of a line that a change lands on: the first that sounds at its start, or up to half a beat late; null where it is silent. */
export function landingOf(line: Line, change: Pick<Change, 'start' | 'beats'>): LineNote | null {
  const first = notesOver(line, change)[0];
  return first && beatsOf(first.start) <= change.start + TICKS / 2 / TICKS ? first : null;
}
