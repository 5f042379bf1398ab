/** The `displaced-pentatonic` approach: all twelve minor pentatonics judged on the chord, the clean ones offered. */
import { prettyDegree } from '../theory/typeset';
import { degreeOf } from '../theory/degree';
import { semitonesUp, simpleSpelling, spell } from '../theory/note';
import { byMerit, choiceOf, fitsSymbol, type ScaleChoice } from './choice';
import { scaleNamed } from './collection';
import type { ChangeContext } from './context';

const MOST_AVOID_NOTES = 1;

/**
 * The minor pentatonics from the twelve tones that do not deny the chord, fewest avoid notes first, then by merit; only those with
 * one avoid note at most, unless none is so clean.
 */
export function pentatonicsFrom(
  approach: string,
  context: ChangeContext,
  before: ScaleChoice | null
): ScaleChoice[] {
  const { chord } = context.change;
  const merit = byMerit(before);
  const fitting = Array.from({ length: 12 }, (_, pc) => {
    const degree = degreeOf(semitonesUp(chord.rootPc, pc), chord.tones);
    // A pentatonic from E sharp or B double flat helps nobody, and players say ♭3 for the root of this one.
    const name = simpleSpelling(spell(chord.root, degree === '#9' ? 'b3' : degree));
    return choiceOf(approach, scaleNamed(name, 'minor pentatonic'), context, {
      lead: `From the ${prettyDegree(degree)}.`
    });
  })
    .filter(fitsSymbol)
    .sort((a, b) => a.avoid.length - b.avoid.length || a.blue.length - b.blue.length || merit(a, b));
  const clean = fitting.filter(({ avoid }) => avoid.length <= MOST_AVOID_NOTES);
  return clean.length ? clean : fitting.slice(0, 1);
}

export function displacedPentatonic(context: ChangeContext, before: ScaleChoice | null): ScaleChoice[] {
  return pentatonicsFrom('displaced-pentatonic', context, before);
}
