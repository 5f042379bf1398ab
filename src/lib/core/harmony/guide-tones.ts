/** Guide-tone lines: the chords' tones read down a column, and threads that follow the nearest motion. */
import { firstOf, nth } from '../base/list';
import { type Chord } from '../theory/chord';
import { DEGREES, type Degree } from '../theory/degree';
import { pitchClass, semitonesUp, type NoteName } from '../theory/note';
import type { AnalysedChange } from './analysis';

export const COLUMNS = ['1', '3', '5', '7'] as const;
export type ColumnDegree = (typeof COLUMNS)[number];

export interface GuideColumn {
  readonly degree: ColumnDegree;
  /** Change by change; null where the chord has no such tone. */
  readonly notes: readonly (NoteName | null)[];
  /** Semitones to the note of the next change, −5 to +6; null where either is missing. */
  readonly steps: readonly (number | null)[];
}

export interface GuideThread {
  /** Change by change; null where no chord sounds. */
  readonly notes: readonly (NoteName | null)[];
  readonly degrees: readonly (Degree | null)[];
  /** Semitones from each note to the next, over changes without a chord too. */
  readonly steps: readonly number[];
  /** Semitones in all, up or down. */
  readonly total: number;
}

/** The nearer way from one pitch class to another: −5 to +6 semitones. */
export function nearestStep(from: NoteName, to: NoteName): number {
  const up = semitonesUp(pitchClass(from), pitchClass(to));
  return up > 6 ? up - 12 : up;
}

/** A chord's tone in a column: its own third whatever the quality. */
export function columnTone(chord: Chord, column: ColumnDegree): { degree: Degree; note: NoteName } | null {
  const at = chord.tones.findIndex((tone) => DEGREES[tone].slot === column);
  return at < 0 ? null : { degree: nth(chord.tones, at), note: nth(chord.notes, at) };
}

/** The roots, thirds, fifths and sevenths of all changes, each as a column with its steps in semitones. */
export function guideColumns(changes: readonly AnalysedChange[]): GuideColumn[] {
  return COLUMNS.map((degree) => {
    const notes = changes.map(({ chord }) => (chord ? (columnTone(chord, degree)?.note ?? null) : null));
    const steps = notes.slice(1).map((note, i) => (note && notes[i] ? nearestStep(notes[i], note) : null));
    return { degree, notes, steps };
  });
}

/** One thread from each tone of the first chord: always to the nearest tone of the next, downward on a tie. */
export function guideThreads(changes: readonly AnalysedChange[]): GuideThread[] {
  const first = changes.find(({ chord }) => chord)?.chord;
  if (!first) return [];
  return first.notes.map((start) => {
    let current = start;
    const notes: (NoteName | null)[] = [];
    const degrees: (Degree | null)[] = [];
    const steps: number[] = [];
    let isFirst = true;
    for (const { chord } of changes) {
      if (!chord) {
        notes.push(null);
        degrees.push(null);
        continue;
      }
      const own = chord.notes;
      const to = isFirst ? start : nearestOf(current, own);
      if (!isFirst) steps.push(nearestStep(current, to));
      isFirst = false;
      current = to;
      notes.push(to);
      degrees.push(nth(chord.tones, own.indexOf(to)));
    }
    return { notes, degrees, steps, total: steps.reduce((sum, step) => sum + Math.abs(step), 0) };
  });
}

function nearestOf(from: NoteName, notes: readonly NoteName[]): NoteName {
  const by = (note: NoteName) => nearestStep(from, note);
  return firstOf([...notes].sort((a, b) => Math.abs(by(a)) - Math.abs(by(b)) || by(a) - by(b)));
}
