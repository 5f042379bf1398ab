/** The `displaced-pentatonic` approach: all twelve minor pentatonics judged on the chord, the clean ones offered. */
import { prettyDegree } from '../theory/typeset';
import { degreeOf } from '../theory/degree';
import { pitchClass, semitonesUp, simpleSpelling, spell } from '../theory/note';
import { byMerit, choiceOf, fitsSymbol, judgedOn, type ScaleChoice } from './choice';
import { scaleNamed } from './collection';
import type { ChangeContext } from './context';

const MOST_AVOID_NOTES = 1;

/** Fewest avoid notes first, then by merit. */
export function displacedPentatonic(context: ChangeContext, before: ScaleChoice | null): ScaleChoice[] {
  const { chord } = context.change;
  const root = pitchClass(chord.root);
  const merit = byMerit(before);
  return Array.from({ length: 12 }, (_, pc) => {
    const degree = degreeOf(semitonesUp(root, pc), chord.tones);
    // A pentatonic from E sharp or B double flat helps nobody, and players say ♭3 for the root of this one.
    const name = simpleSpelling(spell(chord.root, degree === '#9' ? 'b3' : degree));
    return { degree, collection: scaleNamed(name, 'minor pentatonic') };
  })
    .filter(({ collection }) => {
      const judgement = judgedOn(collection, context);
      return fitsSymbol(judgement) && judgement.avoid.length <= MOST_AVOID_NOTES;
    })
    .map(({ degree, collection }) =>
      choiceOf('displaced-pentatonic', collection, context, { lead: `From the ${prettyDegree(degree)}.` })
    )
    .sort((a, b) => a.avoid.length - b.avoid.length || a.blue.length - b.blue.length || merit(a, b));
}
