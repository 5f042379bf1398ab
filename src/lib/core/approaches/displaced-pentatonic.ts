/** The `displaced-pentatonic` approach: all twelve minor pentatonics judged on the chord, the clean ones offered. */
import { prettyDegree } from '../theory/typeset';
import { degreeOf } from '../theory/degree';
import { pitchClass, semitonesUp, simpleSpelling, spell } from '../theory/note';
import { byMerit, choiceOf, fitsSymbol, judgedOn, type ScaleChoice } from './choice';
import { scaleNamed } from './collection';
import type { ChangeContext } from './context';
import { modes } from './modes';

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
  // The choices on one dominant agree: an altered one takes those of its altered scale, a plain one those of its mode.
  const first = context.family === 'dominant' && context.isLeading ? modes(context)[0] : undefined;
  const held = first?.notes.map(pitchClass);
  const outside = ({ notes }: ScaleChoice) =>
    held ? notes.filter((note) => !held.includes(pitchClass(note))).length : 0;
  const judged = Array.from({ length: 12 }, (_, pc) => {
    const degree = degreeOf(semitonesUp(chord.rootPc, pc), chord.tones);
    // A pentatonic from E sharp or B double flat helps nobody, and players say ♭3 for the root of this one.
    const name = simpleSpelling(spell(chord.root, degree === '#9' ? 'b3' : degree));
    const collection = scaleNamed(name, 'minor pentatonic');
    return { degree, collection, ...judgedOn(collection, context) };
  })
    .filter(fitsSymbol)
    .sort((a, b) => a.avoid.length - b.avoid.length || a.blue.length - b.blue.length);
  const clean = judged.filter(({ avoid }) => avoid.length <= MOST_AVOID_NOTES);
  return (clean.length ? clean : judged.slice(0, 1))
    .map(({ degree, collection }) =>
      choiceOf(approach, collection, context, { lead: `From the ${prettyDegree(degree)}.` })
    )
    .sort(
      (a, b) =>
        outside(a) - outside(b) ||
        a.avoid.length - b.avoid.length ||
        a.blue.length - b.blue.length ||
        merit(a, b)
    );
}

/** The minor pentatonics that fit a change, fewest avoid notes first. Source: docs/music-rules.md, Approaches. */
export function displacedPentatonic(context: ChangeContext, before: ScaleChoice | null): ScaleChoice[] {
  return pentatonicsFrom('displaced-pentatonic', context, before);
}
