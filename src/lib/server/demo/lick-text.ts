/**
 * How the licks of the demo book are written down: bars between strokes, what stands before the first stroke leads into it; in a bar each
 * note as its beat and its name, `2.5:C5`, with what the hand does: `^2` bent up from two semitones below, `c` curled, `_` slurred, `/` slid
 * into, `~` shaken, `x` for a ghost note, `A4+C5` two at once, `(1.5)` how many beats it lasts.
 */
import { nth, sure } from '../../core/base/list';
import type { Meter } from '../../core/chart/model';
import { endOf, TICKS, ticksOf, type LineNote } from '../../core/line/model';
import { midiOf, type NoteName } from '../../core/theory/note';

const WORD = /^(\d+(?:\.\d+)?):([A-G][b#]?\d(?:\+[A-G][b#]?\d)?|x)(\^\d)?([c_/~]*)(?:\((\d*\.?\d+)\))?$/;
/** A twelfth of a beat: triplets and sixteenths lie on it. */
const GRAIN = TICKS / 12;
/** Beats that a note lasts at most where its length is not said. */
const LONGEST = 0.5;
const CURL_CENTS = 40;

interface Written {
  readonly start: number;
  readonly length: number | null;
  readonly names: readonly string[];
  readonly bend: number;
  readonly marks: string;
}

const onGrain = (beats: number) => Math.round((beats * TICKS) / GRAIN) * GRAIN;

/** The notes of a lick, timed from its first bar. Throws where a word is none of these: the book is part of the program. */
export function readLickText(text: string, { beats }: Pick<Meter, 'beats'>): LineNote[] {
  const written = text.split('|').flatMap((bar, i) =>
    bar
      .trim()
      .split(/\s+/)
      .filter(Boolean)
      .map((word): Written => {
        const match = WORD.exec(word);
        if (!match) throw new Error(`“${word}” is no note of a lick`);
        const [, beat = '', name = '', bend, marks = '', long] = match;
        return {
          start: ticksOf((i - 1) * beats) + onGrain(Number(beat) - 1),
          length: long === undefined ? null : onGrain(Number(long)),
          names: name === 'x' ? [] : name.split('+'),
          bend: Number(bend?.slice(1) ?? 0),
          marks
        };
      })
  );
  const notes: LineNote[] = [];
  written.forEach(({ start, length, names, bend, marks }, i) => {
    const next = written[i + 1]?.start ?? Infinity;
    const own = Math.min(length ?? ticksOf(LONGEST), next - start);
    const before = notes.at(-1);
    if (names.length === 0) {
      // A ghost note lies where the hand is.
      if (before) notes.push({ start, length: own, midi: before.midi, note: before.note, ghost: true });
      return;
    }
    names.forEach((name) => {
      const midi = sure(midiOf(name), 'midiOf');
      notes.push({
        start,
        length: own,
        midi,
        note: name.replace(/\d$/, '') as NoteName,
        ...(bend > 0 ? { bend: { from: midi - bend } } : {}),
        ...(marks.includes('c') ? { bend: { from: midi, cents: CURL_CENTS } } : {}),
        ...(marks.includes('_') ? { slur: true } : {}),
        ...(marks.includes('/') ? { slide: true } : {}),
        ...(marks.includes('~') ? { vibrato: true } : {})
      });
    });
  });
  if (
    notes.some(
      (note, i) =>
        notes[i + 1] && nth(notes, i + 1).start !== note.start && endOf(note) > nth(notes, i + 1).start
    )
  )
    throw new Error('notes of a lick overlap');
  return notes;
}
