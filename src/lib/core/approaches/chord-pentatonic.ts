/** The `chord-pentatonic` approach: a pentatonic for each chord, and the one before kept where it still says enough. */
import type { ChordFamily } from '../theory/chord';
import { MODES } from '../theory/mode';
import { pitchClass, simpleSpelling } from '../theory/note';
import { choiceOf, fitsSymbol, sameNotes, type ScaleChoice } from './choice';
import { scaleNamed } from './collection';
import { isBlueTonic, type ChangeContext } from './context';
import { pentatonicsFrom } from './displaced-pentatonic';

const PENTATONICS: Readonly<Partial<Record<ChordFamily, readonly string[]>>> = {
  major: ['major pentatonic'],
  minor: ['minor pentatonic', 'minor six pentatonic'],
  dominant: ['dominant pentatonic', 'major pentatonic'],
  'half-diminished': ['flat-five pentatonic'],
  diminished: ['flat-five pentatonic'],
  suspended: ['suspended pentatonic', 'major pentatonic']
};

/** A power chord takes its third from the key; where the key has none on its root, the minor one. */
function powerPentatonics({ change, heard }: ChangeContext): readonly string[] {
  const steps = MODES[change.key.mode].steps.map((step) => (pitchClass(change.key.tonic) + step) % 12);
  const isMajor = steps.includes((heard.rootPc + 4) % 12) && !steps.includes((heard.rootPc + 3) % 12);
  return isMajor
    ? ['major pentatonic', 'minor pentatonic', 'suspended pentatonic']
    : ['minor pentatonic', 'suspended pentatonic', 'major pentatonic'];
}

/** The pentatonics of the chord's own symbol. */
function own(context: ChangeContext): ScaleChoice[] {
  const { heard, family, isLeading } = context;
  const hasSixth = family === 'minor' && (heard.tones.includes('6') || heard.tones.includes('7'));
  const isSuspended = family === 'dominant' && !heard.tones.includes('3');
  const names = isBlueTonic(context)
    ? ['minor pentatonic', 'dominant pentatonic']
    : hasSixth
      ? ['minor six pentatonic', 'minor pentatonic']
      : isSuspended
        ? ['suspended pentatonic', 'minor pentatonic']
        : family === 'major' && isLeading
          ? ['major pentatonic', 'dominant pentatonic']
          : family === 'power'
            ? powerPentatonics(context)
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

/** The pentatonic of each chord, and the one before it where it may stay. Source: docs/music-rules.md, Approaches. */
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
