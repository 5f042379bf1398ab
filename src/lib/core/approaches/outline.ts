/** How many changes to outline: from one scale of the key over everything to a new one at every chord. */
import { firstOf, sure } from '../base/list';
import type { Analysis } from '../harmony/analysis';
import { pitchClass } from '../theory/note';
import { numberWord } from '../theory/words';
import { SCALE_NAMES, scaleOf } from '../theory/scale';
import { lackCost, type ScaleChoice } from './choice';
import type { Collection } from './collection';
import { contextOf, questionOf, type ChangeContext } from './context';
import { judgedKeyScales } from './key-centre';

/** What a tone that denies the symbol costs, beside the lacks. */
const DENIAL_COST = 10;

/**
 * The changes in the order in which outlining them tells most: first the chords that the scale of the home key
 * serves worst. Changes without a chord are left out.
 */
export function outlineOrder(analysis: Analysis): number[] {
  const home = { ...analysis, changes: analysis.changes.map((c) => ({ ...c, key: analysis.key })) };
  const known = new Map<string, number>();
  return analysis.changes
    .flatMap(({ index }) => {
      const context = contextOf(home, index);
      if (!context) return [];
      const question = questionOf(context);
      const cost = known.get(question) ?? costOfPlain(context);
      known.set(question, cost);
      return [{ index, cost }];
    })
    .sort((a, b) => b.cost - a.cost || a.index - b.index)
    .map(({ index }) => index);
}

/** What the scale of the key costs on a change. */
function costOfPlain(context: ChangeContext): number {
  const plain = firstOf(judgedKeyScales(context));
  return lackCost(plain.lacks) + DENIAL_COST * plain.contradicts.length + plain.avoid.length;
}

/** What the union of everything chosen amounts to, as a sentence. */
export function unionOf(collections: readonly Collection[]): string {
  const notes = new Map(collections.flatMap((c) => c.notes.map((note) => [pitchClass(note), note] as const)));
  const size = notes.size;
  if (size === 0) return 'Nothing chosen yet.';
  if (size === 12) return 'Together: all twelve notes.';
  const preferred = ['major', 'harmonic minor', 'melodic minor', 'major pentatonic', 'minor blues'];
  const names = [...preferred, ...SCALE_NAMES.filter((name) => !preferred.includes(name))];
  for (const name of names) {
    for (const root of notes.values()) {
      const scale = sure(scaleOf(root, name), 'scaleOf');
      const isSame =
        new Set(scale.notes.map(pitchClass)).size === size &&
        scale.notes.every((n) => notes.has(pitchClass(n)));
      if (isSame) return `Together: all ${numberWord(size)} notes of ${root} ${name}.`;
    }
  }
  return `Together: ${numberWord(size)} different notes, of no single scale.`;
}

/** What to look out for when this is played on that chord. */
export function warningsOf(choice: ScaleChoice, analysis: Analysis, index: number): string[] {
  const context = contextOf(analysis, index);
  if (!context) return [];
  const { chord } = context.change;
  const pcs = choice.degrees;
  const warnings: string[] = [];
  if (choice.contradicts.length) warnings.push('It contradicts the chord symbol.');
  if (context.family === 'half-diminished' && pcs.includes('b9')) {
    warnings.push('Its ♭9 clashes on a half-diminished chord.');
  }
  const isBlues = choice.blueNotes !== undefined;
  if (choice.blue.includes('b3') && pcs.includes('3') && !isBlues) {
    warnings.push('It holds both thirds: let the ♭3 rise to the 3, never the other way.');
  }
  if (chord.tones.includes('3') && choice.blue.includes('b3') && !pcs.includes('3')) {
    warnings.push('It has the ♭3 without the 3: bend it up, and do not fall to it from the 3.');
  }
  return warnings;
}
