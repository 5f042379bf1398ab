/** The run of a drill over one change, as a player reads it. */
import { nth } from '../base/list';
import type { PlayedChange } from '../harmony/excerpt';
import type { NotePlace } from '../line/model';
import { degreeOf, type Degree } from '../theory/degree';
import { semitonesUp } from '../theory/note';
import type { PracticeRound } from './round';

/** A note of a run as it stands over its change. */
export interface RunNote {
  /** Where in the change it is written, 0 to 1, and how much of the change it takes. */
  readonly at: number;
  readonly length: number;
  /** Against the chord of the change. */
  readonly degree: Degree;
  readonly place: NotePlace | undefined;
  readonly isTarget: boolean;
}

/** The notes of a round that are written over a change of its excerpt, in their order; none where no chord sounds. */
export function runOver(
  { notes, times, writtenAt }: Pick<PracticeRound, 'notes' | 'times' | 'writtenAt'>,
  { source, start: from, beats: total }: PlayedChange
): RunNote[] {
  const { chord } = source;
  if (!chord) return [];
  return notes.flatMap(({ midi, place, purpose }, i): RunNote[] => {
    const { start, beats } = nth(times, i);
    const [begins, ends] = [writtenAt(start), writtenAt(start + beats)];
    const at = (begins - from) / total;
    if (at < -1e-6 || at >= 1 - 1e-6) return [];
    const degree = degreeOf(semitonesUp(chord.rootPc, midi % 12), chord.tones);
    return [{ at, length: (ends - begins) / total, degree, place, isTarget: purpose === 'target' }];
  });
}
