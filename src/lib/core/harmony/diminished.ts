/**
 * The dominant that a diminished seventh stands for, by where it goes: it is that dominant with its ♭9, without its root. Source:
 * docs/music-rules.md, Where keys change.
 */
import { nth } from '../base/list';
import type { Chord } from '../theory/chord';
import { noteAbove, pitchClass, semitonesUp, simpleSpelling, type NoteName } from '../theory/note';
import type { AnalysedChange } from './analysis';

/** Whether a chord is a diminished seventh, or a triad that can be one. */
const isDiminished = ({ family }: Chord) => family === 'diminished';

/** Whether the dominant on a root, with its ♭9, holds every tone of a chord. */
function holds(root: NoteName, { pitchClasses, tones }: Chord): boolean {
  const own = pitchClasses.filter((_, i) => ['1', 'b3', 'b5', 'bb7'].includes(nth(tones, i)));
  return own.every((pc) => [4, 7, 10, 1].includes(semitonesUp(pitchClass(root), pc)));
}

/**
 * The root of the dominant that a diminished chord stands for: of its four the one that is V of the chord to come; on the seventh degree of the
 * key the key's own V; on the raised fourth of a blues its IV. Null for one that is V of nothing that comes: it passes, or has a tone in
 * common, and keeps its own name. Spelled by the chord it leads to, or by the key.
 */
export function dominantOf(
  change: Pick<AnalysedChange, 'chord' | 'key' | 'numeral'>,
  next: { readonly chord: Chord | null } | undefined,
  isBlues = false
): NoteName | null {
  const { chord, key } = change;
  if (!chord || !isDiminished(chord)) return null;
  const goal = next?.chord;
  if (goal) {
    const five = simpleSpelling(noteAbove(goal.root, '5P'));
    if (goal.rootPc !== chord.rootPc && holds(five, chord)) return five;
  }
  const distance = semitonesUp(pitchClass(key.tonic), chord.rootPc);
  if (distance === 11) return simpleSpelling(noteAbove(key.tonic, '5P'));
  if (distance === 6 && isBlues) return simpleSpelling(noteAbove(key.tonic, '4P'));
  return null;
}
