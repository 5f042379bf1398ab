/** The `substitution` approach: think one chord over another, or two triads a step apart, and hear what it really gives. */
import { nth } from '../base/list';
import type { ChordFamily } from '../theory/chord';
import type { Degree } from '../theory/degree';
import { noteAbove, simpleSpelling, type NoteName } from '../theory/note';
import { dominantOf } from '../harmony/diminished';
import { isMinorKey } from '../harmony/key';
import { isStep } from '../harmony/numeral';
import { choiceOf, fitsSymbol, judgedOn, type ScaleChoice } from './choice';
import type { Judgement } from './judge';
import { arpeggioOf, chordNamed, triadOf, triadPairOf, type Collection } from './collection';
import type { ChangeContext } from './context';
import { modeNotes } from './modes';

type Test = (context: ChangeContext) => boolean;

interface Thought {
  readonly when: readonly Test[];
  readonly symbol: (context: ChangeContext) => string;
  readonly lead: string;
  /** The thought chord's own root is left out. */
  readonly isRootless?: true;
}

const family =
  (...names: readonly ChordFamily[]): Test =>
  (c) =>
    names.includes(c.family);
/** The symbol says nothing beyond these tones. */
const saysOnly =
  (...tones: readonly Degree[]): Test =>
  (c) =>
    c.heard.tones.every((tone) => tones.includes(tone));
const has =
  (...tones: readonly Degree[]): Test =>
  (c) =>
    tones.some((tone) => c.heard.tones.includes(tone));
/** The chord is one of some steps of a key with a major third, and the V or ii of nothing else. */
const step =
  (...names: readonly string[]): Test =>
  ({ change: { numeral, key } }) =>
    !isMinorKey(key) && isStep(numeral, ...names) && !numeral?.of;
const not =
  (test: Test): Test =>
  (c) =>
    !test(c);
const minorGoal: Test = (c) => c.minorGoal;
const leading: Test = (c) => c.isLeading;

const plainDominant = saysOnly('1', '3', '5', 'b7', '9', '13');
const plainMinor = saysOnly('1', 'b3', '5', 'b7', '9', '11', '13');

const above = (root: NoteName, interval: string) => simpleSpelling(noteAbove(root, interval));
const onChord = (interval: string, suffix: string) => (c: ChangeContext) =>
  above(c.heard.root, interval) + suffix;
const onKey = (interval: string, suffix: string) => (c: ChangeContext) =>
  above(c.change.key.tonic, interval) + suffix;

/** The dominant that a diminished seventh stands for where it goes. */
const dominantIn = ({ change, next, language }: ChangeContext) => dominantOf(change, next, language !== null);
const standsForDominant: Test = (c) => c.heard.tones.includes('bb7') && dominantIn(c) !== null;

/** Each said only where the chord is what the thought is for. Source: docs/music-rules.md, the row `substitution`. */
const THOUGHTS: readonly Thought[] = [
  {
    when: [step('ii'), family('minor'), plainMinor],
    symbol: onKey('4P', 'maj7'),
    lead: 'The IV major seventh serves ii and V alike.'
  },
  {
    when: [step('V'), family('dominant'), plainDominant, not(minorGoal)],
    symbol: onKey('4P', 'maj7'),
    lead: 'The IV major seventh serves ii and V alike.'
  },
  {
    when: [step('V'), family('dominant'), plainDominant, not(minorGoal), leading],
    symbol: onKey('1P', 'maj7'),
    lead: 'The I major seventh, as early within the V as you like.'
  },
  {
    when: [family('dominant'), plainDominant, not(minorGoal)],
    symbol: onChord('5P', 'm7'),
    lead: 'The V played as its ii.'
  },
  {
    when: [family('dominant'), minorGoal],
    symbol: onChord('5P', 'm7b5'),
    lead: 'The V played as its ii.'
  },
  {
    when: [family('dominant'), minorGoal],
    symbol: onChord('3M', 'dim7'),
    lead: 'The diminished seventh on the 3: the V with its ♭9, without its root.'
  },
  {
    when: [family('dominant'), not(has('3'))],
    symbol: onChord('-2M', ''),
    lead: 'The major triad a tone below, which is how the suspension is heard.'
  },
  {
    when: [family('half-diminished')],
    symbol: onChord('3m', 'm6'),
    lead: 'A minor sixth chord a minor third up: the same four notes.'
  },
  {
    when: [family('half-diminished')],
    symbol: onChord('-3M', '9'),
    lead: 'A ninth chord a major third down, its root left out.',
    isRootless: true
  },
  {
    when: [family('dominant'), leading, has('3')],
    symbol: onChord('5d', '7'),
    lead: 'The dominant a tritone away shares the 3 and 7.'
  },
  {
    when: [family('major'), saysOnly('1', '3', '5', '6', '7', '9', '13')],
    symbol: onChord('3M', 'm7'),
    lead: 'A minor seventh on the 3: the major ninth without its root.'
  },
  {
    when: [family('major'), not(has('7'))],
    symbol: onChord('-3m', 'm7'),
    lead: 'The relative minor seventh: the sixth chord by another name.'
  },
  {
    when: [family('minor'), plainMinor],
    symbol: onChord('3m', 'maj7'),
    lead: 'A major seventh on the ♭3: the minor ninth without its root.'
  },
  {
    when: [family('minor'), has('6')],
    symbol: onChord('-3m', 'm7b5'),
    lead: 'A half-diminished a minor third down: the same four notes.'
  },
  {
    when: [family('minor'), has('7')],
    symbol: onChord('3m', 'maj7#5'),
    lead: 'An augmented major seventh on the ♭3: the minor major ninth without its root.'
  },
  {
    when: [family('minor'), has('#5')],
    symbol: onChord('-3M', ''),
    lead: 'The major triad whose third is this root: the same three notes.'
  },
  {
    when: [standsForDominant],
    symbol: (c) => `${dominantIn(c)}7b9`,
    lead: 'The dominant it stands for, with its ♭9 and without its root.',
    isRootless: true
  },
  {
    when: [family('augmented')],
    symbol: onChord('3M', 'aug'),
    lead: 'The augmented triad on its 3: the same three notes.'
  }
];

/** "Think X over Y": what stands in for a change where its function allows it. Source: docs/music-rules.md, Approaches. */
export function substitution(context: ChangeContext): ScaleChoice[] {
  const { chord } = context.change;
  const thoughts = THOUGHTS.filter(({ when }) => when.every((test) => test(context))).flatMap(
    ({ symbol, lead, isRootless }) => {
      const thought = chordNamed(symbol(context));
      if (!thought) return [];
      const name = `${thought.root}${thought.suffix}`;
      const collection = arpeggioOf(thought);
      const notes = isRootless ? collection.notes.slice(1) : collection.notes;
      const said = { over: `${name} over ${chord.symbol}`, lead };
      return [choiceOf('substitution', { ...collection, notes }, context, said)];
    }
  );
  const isItself = ({ facts, notes }: ScaleChoice) =>
    facts.root === chord.root && notes.join() === chord.notes.join();
  const isNew = (choice: ScaleChoice, i: number) =>
    !isItself(choice) && thoughts.findIndex(({ over }) => over === choice.over) === i;
  const pair = triadPair(context);
  return [
    ...thoughts.filter((choice, i) => fitsSymbol(choice) && isNew(choice, i)).slice(0, MOST - 1),
    ...(pair ? [pair] : [])
  ];
}

/** More are no choice; the last is the pair of triads. */
const MOST = 5;

/** The cleanest two triads a step apart inside the chord's first mode. */
function triadPair(context: ChangeContext): ScaleChoice | null {
  const notes = modeNotes(context);
  const triads = notes.map((_, i) =>
    triadOf([0, 2, 4].map((third) => nth(notes, (i + third) % notes.length)))
  );
  const pairs = triads.flatMap((lower, i): Collection[] => {
    const upper = triads[(i + 1) % triads.length];
    const pair = lower && upper ? triadPairOf(lower, upper) : null;
    return pair ? [pair] : [];
  });
  const clash = ({ avoid, lacks }: Judgement) => avoid.length * 10 + lacks.length;
  const best = pairs
    .map((pair) => ({ pair, judgement: judgedOn(pair, context) }))
    .filter(({ judgement }) => fitsSymbol(judgement))
    .sort((a, b) => clash(a.judgement) - clash(b.judgement))[0];
  const lead = 'Two triads a step apart, six notes of the scale and no more.';
  return best ? choiceOf('substitution', best.pair, context, { lead }) : null;
}
