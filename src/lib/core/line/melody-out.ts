/** A line as the melody of a chart is typed; the other way round is `melody.ts`. */
import type { Ticks } from '../base/units';
import { withDeclaration } from '../chart/directives';
import type { Form } from '../chart/unroll';
import { beatsOf, endOf, fractionOf, ticksOf, TICKS, type LineNote } from './model';
import { staffPitch } from './staff';

/** A time in beats as a melody has it: "2", "1/2", "1/3"; decimals where a fraction would be long. */
function beatsText(ticks: Ticks): string {
  const { above, below } = fractionOf(ticks);
  if (below === 1) return String(above);
  return above < 100 && below < 100 ? `${above}/${below}` : beatsOf(ticks).toFixed(4);
}

/** Writes a line as the melody of a form, bar by bar, its pickup before them; of two notes at once the higher one, and no way of playing. */
export function melodyText(notes: readonly LineNote[], form: Pick<Form, 'bars' | 'pickup'>): string {
  const highest = notes.filter((note, i) => notes[i + 1]?.start !== note.start);
  const word = (name: string, ticks: Ticks) => (ticks === TICKS ? name : `${name}:${beatsText(ticks)}`);
  const pickup = form.pickup > 0 ? [{ start: -form.pickup, beats: form.pickup }] : [];
  const bars = [...pickup, ...form.bars].map(({ start, beats }) => {
    const [from, to] = [ticksOf(start), ticksOf(start + beats)];
    const words: string[] = [];
    let at = from;
    for (const note of highest) {
      if (endOf(note) <= from || note.start >= to) continue;
      const begin = Math.max(from, note.start);
      const end = Math.min(to, endOf(note));
      if (begin > at) words.push(word('r', begin - at));
      const { letter, alter, octave } = staffPitch(note);
      const isHeld = note.start < from || note.tie === true;
      const name = `${letter}${(alter < 0 ? 'b' : '#').repeat(Math.abs(alter))}${octave}`;
      words.push(word(`${isHeld ? '~' : ''}${name}`, end - begin));
      at = end;
    }
    return words.join(' ');
  });
  while (bars.at(-1) === '') bars.pop();
  return bars.join(' | ');
}

/** The form with room before its first bar for all of these notes. */
export function withRoomFor<Own extends Pick<Form, 'bars' | 'pickup'>>(
  notes: readonly LineNote[],
  form: Own
): Own {
  const lead = Math.ceil(-beatsOf(Math.min(0, ...notes.map(({ start }) => start))));
  return lead > form.pickup ? { ...form, pickup: lead } : form;
}

/** A chart's text with these notes as its melody, and a pickup that is long enough for them. */
export function withMelody(
  source: string,
  notes: readonly LineNote[],
  form: Pick<Form, 'bars' | 'pickup'>
): string {
  const room = withRoomFor(notes, form);
  const declared =
    room.pickup === form.pickup ? source : withDeclaration(source, 'pickup', String(room.pickup));
  return withDeclaration(declared, 'melody', melodyText(notes, room));
}
