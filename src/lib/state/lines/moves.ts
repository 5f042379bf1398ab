/** Moving the line that is shown: in pitch, along the neck, to other strings, through the tune, to other chords. */
import type { LineData } from '$lib/api/line';
import { nth, sure } from '$lib/core/base/list';
import type { Motif } from '$lib/core/line/find/motif';
import { ticksOf, type LineNote } from '$lib/core/line/model';
import { atPitch, byDegrees, laidOut, measureOf, type MovedWhere } from '$lib/core/line/move';
import { placeNotes } from '$lib/core/line/place';
import { changeHeardAt } from '$lib/core/line/read';
import { linesOf } from '$lib/core/plan/lines';
import { readChord } from '$lib/core/theory/chord-reader';
import { counted } from '$lib/core/theory/words';
import type { Workspace } from '../chart/workspace.svelte';
import type { CurrentLine } from './current.svelte';

/** The line that is moved, and the chart it is moved over. */
interface Moved {
  readonly workspace: Workspace;
  readonly current: CurrentLine;
}

/** A note that is struck, however it was reached before. */
function struckPlainly({ slide: _slide, slur: _slur, ...note }: LineNote): LineNote {
  return note;
}

/** Moves the line by semitones or octaves along its strings, or lays it in a position. */
export function moveLine(
  { workspace, current }: Moved,
  { semitones = 0, where, position }: { semitones?: number; where: MovedWhere; position?: number }
): void {
  const { shown } = current;
  if (!shown) return;
  const { neck } = workspace;
  const moved = shown.notes.map((note) => atPitch(note, note.midi + semitones));
  const wish = { neck, where, position, anyOctave: position !== undefined };
  const laid = laidOut(shown.notes, moved, wish);
  // What cannot be slid or slurred there on one string is struck.
  const struck = laid.notes ? laid : laidOut(shown.notes, moved.map(struckPlainly), wish);
  if (!struck.notes) {
    current.problem = struck.message;
    return;
  }
  current.show({ ...shown, notes: struck.notes });
  const how = position === undefined ? 'Line moved' : `Line in position ${position}`;
  workspace.say(laid.notes ? how : `${how}; its slides and slurs were dropped`);
}

/** Plays the same notes on some strings only, where they lie there. */
export function moveToStrings({ workspace, current }: Moved, strings: readonly number[]): void {
  const { shown } = current;
  if (!shown) return;
  const { places, noPlace } = placeNotes(shown.notes, { neck: workspace.neck, strings, alternatives: 1 });
  if (!places[0]) {
    current.problem = noPlace?.message ?? 'The line does not lie on those strings.';
    return;
  }
  current.show({ ...shown, notes: places[0].notes });
  workspace.say(`Line on strings ${strings.join(', ')}`);
}

/**
 * Carries the bar of the selected change, or it and the next, through the rest of the tune: its rhythm and contour over each next
 * stretch, shifted exactly or led to the nearest tones, each time in the next of the forms asked for. What comes before stays.
 */
export function repeatMotif(
  { workspace, current }: Moved,
  {
    bars,
    how,
    operations,
    subdivision
  }: { readonly bars: number; readonly subdivision: number } & Pick<Motif, 'how' | 'operations'>
): void {
  const { shown } = current;
  const { change, changes, chosen, sheet, arrangement } = workspace;
  const all = sheet.form.bars;
  const first = all.findIndex(({ number }) => number === change?.bar);
  const [begin, end] = [all[first], all[Math.min(all.length, first + bars) - 1]];
  if (!shown || !begin || !end) return;
  const [from, to] = [ticksOf(begin.start), ticksOf(end.start + end.beats)];
  const notes = shown.notes
    .filter(({ start }) => start >= from && start < to)
    .map((note) => ({ ...note, start: note.start - from }));
  if (notes.length === 0) {
    current.problem = 'There is nothing in this bar to repeat.';
    return;
  }
  const measureAt = (ticks: number) => {
    const at = changes.findLast(({ start, chord }) => chord && ticksOf(start) <= from + ticks);
    const sounding = at?.chord ?? sure(changes.find(({ chord }) => chord)?.chord, 'a chord of the chart');
    return measureOf(sounding, (at && chosen[at.index]) ?? null);
  };
  const { lines, noLine } = linesOf(arrangement, {
    level: 'motif',
    motif: { notes, length: to - from, measureAt, how, operations },
    subdivision,
    seed: 0,
    alternatives: 1,
    from: Math.max(
      0,
      changes.findIndex(({ start }) => ticksOf(start) >= to)
    )
  });
  if (!lines[0]) {
    current.problem = noLine?.message ?? 'The motif cannot be repeated there.';
    return;
  }
  const before = shown.notes.filter(({ start }) => start < to);
  current.show({ ...shown, notes: [...before, ...lines[0].notes.filter(({ start }) => start >= to)] });
  workspace.say(`${counted(bars, 'bar')} repeated through the tune`);
}

/** Moves the line from the chords it was written over to those that stand there now, degree by degree. */
export function moveToChords({ workspace, current }: Moved, over: LineData['over']): void {
  const { shown } = current;
  if (!shown) return;
  const { changes, chosen, neck } = workspace;
  const measures = shown.notes.map((note) => {
    const now = changes[changeHeardAt(note, changes)];
    const was = over.findLast(({ start }) => ticksOf(start) <= note.start) ?? over[0];
    const reading = was && readChord(was.symbol);
    const to = now?.chord ? measureOf(now.chord, chosen[now.index] ?? null) : null;
    const from = reading?.kind === 'chord' ? measureOf(reading.chord, null) : to;
    return from && to ? ([from, to] as const) : null;
  });
  const known = measures.filter((both) => both !== null);
  if (known.length < measures.length) {
    current.problem = 'Some of its notes have no chord under them any more; move or delete those first.';
    return;
  }
  const pitches = byDegrees(
    shown.notes.map(({ midi }) => midi),
    known
  );
  const moved = shown.notes.map((note, i) => atPitch(note, nth(pitches, i)));
  const laid = laidOut(shown.notes, moved, { neck, where: 'in place', anyOctave: true });
  current.show({ ...shown, notes: laid.notes ?? moved });
  workspace.say('Line moved to the chords that stand there now');
}
