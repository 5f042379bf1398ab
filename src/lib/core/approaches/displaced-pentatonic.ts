/** The `displaced-pentatonic` approach: all twelve minor pentatonics judged on the chord, the clean ones offered. */
import { degreeOf, prettyDegree } from '../theory/degree';
import { pitchClass, plainName, semitonesUp, spell } from '../theory/note';
import { byMerit, choiceOf, fitsSymbol, type ScaleChoice } from './choice';
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
    const spelled = spell(chord.root, degree);
    // A pentatonic from B double flat helps nobody.
    const name = /^[A-G][b#]?$/.test(spelled) ? spelled : plainName(pc);
    return choiceOf('displaced-pentatonic', scaleNamed(name, 'minor pentatonic'), context, {
      lead: `From the ${prettyDegree(degree)}.`
    });
  })
    .filter((choice) => fitsSymbol(choice) && choice.avoid.length <= MOST_AVOID_NOTES)
    .sort((a, b) => a.avoid.length - b.avoid.length || a.blue.length - b.blue.length || merit(a, b));
}
