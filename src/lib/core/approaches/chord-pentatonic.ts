/** The `chord-pentatonic` approach: a pentatonic for each chord, and the one before kept where it still says enough. */
import { type ChordFamily } from '../theory/chord';
import { choiceOf, fitsSymbol, sameNotes, type ScaleChoice } from './choice';
import { scaleNamed } from './collection';
import type { ChangeContext } from './context';

const PENTATONICS: Readonly<Partial<Record<ChordFamily, readonly string[]>>> = {
  major: ['major pentatonic'],
  minor: ['minor pentatonic', 'minor six pentatonic'],
  dominant: ['dominant pentatonic', 'major pentatonic'],
  'half-diminished': ['flat-five pentatonic'],
  suspended: ['suspended pentatonic'],
  power: ['minor pentatonic', 'major pentatonic']
};

function own(context: ChangeContext, family: ChordFamily = context.family): ScaleChoice[] {
  const { chord } = context.change;
  const hasSixth = family === 'minor' && (chord.tones.includes('6') || chord.tones.includes('7'));
  const isSuspended = family === 'dominant' && !chord.tones.includes('3');
  const names = hasSixth
    ? ['minor six pentatonic', 'minor pentatonic']
    : isSuspended
      ? ['suspended pentatonic']
      : (PENTATONICS[family] ?? []);
  return names
    .map((name) => choiceOf('chord-pentatonic', scaleNamed(chord.root, name), context))
    .filter(fitsSymbol);
}

/** Under this many beats a change of pentatonic is hardly worth it. */
const SHORT = 2;

export function chordPentatonic(context: ChangeContext, before: ScaleChoice | null): ScaleChoice[] {
  const choices = own(context);
  if (!before || !context.previous || choices.some((choice) => sameNotes(choice, before))) return choices;
  const kept = choiceOf('chord-pentatonic', before, context, { lead: 'Keep the one before.' });
  const pcs = context.previous.chord.pitchClasses;
  const common = context.change.chord.pitchClasses.filter((pc) => pcs.includes(pc)).length;
  const saysEnough = kept.lacks.every((tone) => tone === '1') && common >= 2;
  const mayStay = saysEnough || context.change.beats < SHORT;
  return mayStay && fitsSymbol(kept) ? [...choices, kept] : choices;
}
