/** The `chord-pentatonic` approach: a pentatonic for each chord, and the one before kept where it still says enough. */
import type { ChordFamily } from '../theory/chord';
import { simpleSpelling } from '../theory/note';
import { choiceOf, fitsSymbol, sameNotes, type ScaleChoice } from './choice';
import { scaleNamed } from './collection';
import type { ChangeContext } from './context';
import { pentatonicsFrom } from './displaced-pentatonic';

const PENTATONICS: Readonly<Partial<Record<ChordFamily, readonly string[]>>> = {
  major: ['major pentatonic'],
  minor: ['minor pentatonic', 'minor six pentatonic'],
  dominant: ['dominant pentatonic', 'major pentatonic'],
  'half-diminished': ['flat-five pentatonic'],
  diminished: ['flat-five pentatonic'],
  suspended: ['suspended pentatonic', 'major pentatonic'],
  power: ['minor pentatonic', 'major pentatonic', 'suspended pentatonic']
};

/** The pentatonics of the chord's own symbol. */
function own(context: ChangeContext): ScaleChoice[] {
  const { heard, family, isLeading } = context;
  const hasSixth = family === 'minor' && (heard.tones.includes('6') || heard.tones.includes('7'));
  const isSuspended = family === 'dominant' && !heard.tones.includes('3');
  const names = hasSixth
    ? ['minor six pentatonic', 'minor pentatonic']
    : isSuspended
      ? ['suspended pentatonic', 'minor pentatonic']
      : family === 'major' && isLeading
        ? ['major pentatonic', 'dominant pentatonic']
        : (PENTATONICS[family] ?? []);
  return names
    .map((name) => choiceOf('chord-pentatonic', scaleNamed(simpleSpelling(heard.root), name), context))
    .filter(fitsSymbol);
}

/** Under this many beats a change of pentatonic is hardly worth it. */
const SHORT = 2;
/** Fewer are filled up with pentatonics from other tones of the chord. */
const FEWEST = 3;

/** The pentatonic before on this chord; null where it does not say enough. */
function kept(context: ChangeContext, before: ScaleChoice | null): ScaleChoice | null {
  if (!before || !context.previous) return null;
  const choice = choiceOf('chord-pentatonic', before, context, { lead: 'Keep the one before.' });
  const pcs = context.previous.chord.pitchClasses;
  const common = context.change.chord.pitchClasses.filter((pc) => pcs.includes(pc)).length;
  const saysEnough = choice.lacks.every((tone) => tone === '1') && common >= 2;
  return (saysEnough || context.change.beats < SHORT) && fitsSymbol(choice) ? choice : null;
}

export function chordPentatonic(context: ChangeContext, before: ScaleChoice | null): ScaleChoice[] {
  const choices = own(context);
  const same = kept(context, before);
  if (same && !choices.some((choice) => sameNotes(choice, same))) choices.push(same);
  if (choices.length >= FEWEST) return choices;
  for (const other of pentatonicsFrom('chord-pentatonic', context, before)) {
    if (choices.length >= FEWEST) break;
    if (!choices.some((choice) => sameNotes(choice, other))) choices.push(other);
  }
  return choices;
}
