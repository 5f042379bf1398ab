/** The `substitution` approach: think one chord over another, and hear what it really gives. */
import { noteAbove, simpleSpelling, type NoteName } from '../theory/note';
import { romanText } from '../harmony/numeral';
import { choiceOf, fitsSymbol, type ScaleChoice } from './choice';
import { arpeggioOf, chordNamed } from './collection';
import type { ChangeContext } from './context';

interface Thought {
  readonly when: (context: ChangeContext) => boolean;
  readonly symbol: (context: ChangeContext) => string;
  readonly lead: string;
}

/** The chord is one of some steps of a major key, written out with its quality. */
const isDiatonic =
  (...names: readonly string[]) =>
  ({ change: { numeral, key } }: ChangeContext) =>
    key.mode === 'major' && numeral !== null && names.includes(romanText(numeral));
const above = (root: NoteName, interval: string) => simpleSpelling(noteAbove(root, interval));
const onChord = (interval: string, suffix: string) => (c: ChangeContext) =>
  above(c.change.chord.root, interval) + suffix;
const onKey = (interval: string, suffix: string) => (c: ChangeContext) =>
  above(c.change.key.tonic, interval) + suffix;

const THOUGHTS: readonly Thought[] = [
  {
    when: isDiatonic('ii7', 'V7'),
    symbol: onKey('4P', 'maj7'),
    lead: 'The IV major seventh serves ii and V alike.'
  },
  {
    when: isDiatonic('V7', 'Imaj7', 'I6', 'I'),
    symbol: onKey('1P', 'maj7'),
    lead: 'The I major seventh, as early within the V as you like.'
  },
  {
    when: (c) => c.family === 'dominant' && !c.minorGoal,
    symbol: onChord('5P', 'm7'),
    lead: 'The V played as its ii.'
  },
  {
    when: (c) => c.family === 'dominant' && c.minorGoal,
    symbol: onChord('5P', 'm7b5'),
    lead: 'The V played as its ii.'
  },
  {
    when: (c) => c.family === 'half-diminished',
    symbol: onChord('3m', 'm6'),
    lead: 'A minor sixth chord a minor third up: the same four notes.'
  },
  {
    when: (c) => c.family === 'half-diminished',
    symbol: onChord('6m', '9'),
    lead: 'A ninth chord a major third down, its root left out.'
  },
  {
    when: (c) => c.family === 'dominant',
    symbol: onChord('5d', '7'),
    lead: 'The dominant a tritone away shares the 3 and 7.'
  }
];

export function substitution(context: ChangeContext): ScaleChoice[] {
  const { chord } = context.change;
  return THOUGHTS.filter(({ when }) => when(context))
    .flatMap(({ symbol, lead }) => {
      const thought = chordNamed(symbol(context));
      if (!thought) return [];
      const name = `${thought.root}${thought.suffix}`;
      const isRootless = chord.family === 'half-diminished' && thought.suffix === '9';
      const collection = arpeggioOf(thought);
      const notes = isRootless ? collection.notes.slice(1) : collection.notes;
      const said = { over: `${name} over ${chord.symbol}`, lead };
      return [choiceOf('substitution', { ...collection, notes }, context, said)];
    })
    .filter(fitsSymbol);
}
