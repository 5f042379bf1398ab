/** The `modes` approach: a seven-note mode (or a symmetric scale) by the function of the chord. */
import type { Degree } from '../theory/degree';
import { DEGREES } from '../theory/degree';
import { choiceOf, fitsSymbol, type ScaleChoice } from './choice';
import { scaleNamed } from './collection';
import { isStep } from '../harmony/numeral';
import type { ChangeContext } from './context';

interface Rule {
  readonly when: (context: ChangeContext) => boolean;
  /** Scale names, first choice first. */
  readonly scales: readonly string[];
}

const family =
  (...names: ChangeContext['family'][]) =>
  (c: ChangeContext) =>
    names.includes(c.family);
const stepIs =
  (...names: readonly string[]) =>
  (c: ChangeContext) =>
    isStep(c.change.numeral, ...names);
const isSubstitute = (c: ChangeContext) => c.change.numeral?.isSubstitute === true;
const has =
  (...tones: Degree[]) =>
  (c: ChangeContext) =>
    tones.some((tone) => c.change.chord.tones.includes(tone));
const functionIs = (name: string) => (c: ChangeContext) => c.change.function === name;
const inMinor = (c: ChangeContext) => c.change.key.mode === 'minor';
const both =
  (...tests: ((c: ChangeContext) => boolean)[]) =>
  (c: ChangeContext) =>
    tests.every((test) => test(c));
const always = () => true;

/** The first rule that holds decides. Source: the `modes` row of the approaches table. */
const RULES: readonly Rule[] = [
  { when: family('diminished'), scales: ['whole-half diminished'] },
  { when: both(family('augmented'), has('7')), scales: ['lydian augmented', 'whole tone'] },
  { when: family('augmented'), scales: ['whole tone', 'lydian augmented'] },
  { when: both(family('half-diminished'), stepIs('vii')), scales: ['locrian', 'locrian natural 2'] },
  { when: family('half-diminished'), scales: ['locrian natural 2', 'locrian'] },

  {
    when: both(family('minor'), (c) => c.isStatic),
    scales: ['dorian', 'aeolian', 'phrygian', 'melodic minor']
  },
  {
    when: both(family('minor'), inMinor, functionIs('tonic'), stepIs('i')),
    scales: ['melodic minor', 'dorian', 'aeolian', 'harmonic minor']
  },
  { when: both(family('minor'), has('7')), scales: ['melodic minor', 'harmonic minor'] },
  { when: both(family('minor'), stepIs('iii')), scales: ['phrygian', 'dorian'] },
  { when: both(family('minor'), stepIs('vi')), scales: ['aeolian', 'dorian'] },
  { when: both(family('minor'), stepIs('v'), inMinor), scales: ['phrygian', 'dorian'] },
  {
    when: both(family('minor'), functionIs('borrowed'), stepIs('iv')),
    scales: ['melodic minor', 'dorian']
  },
  { when: family('minor'), scales: ['dorian', 'aeolian'] },

  { when: both(family('dominant'), has('b5'), has('#5')), scales: ['altered'] },
  {
    when: both(family('dominant'), (c) => c.minorGoal),
    scales: ['altered', 'phrygian dominant', 'half-whole diminished', 'mixolydian b6', 'mixolydian']
  },
  {
    when: both(family('dominant'), has('b9', '#9')),
    scales: ['half-whole diminished', 'phrygian dominant', 'altered', 'mixolydian b2']
  },
  {
    when: both(family('dominant'), has('#5', 'b13')),
    scales: ['whole tone', 'altered', 'mixolydian b6', 'phrygian dominant']
  },
  { when: both(family('dominant'), functionIs('blues IV')), scales: ['mixolydian', 'lydian dominant'] },
  { when: both(family('dominant'), functionIs('blues I')), scales: ['mixolydian', 'lydian dominant'] },
  { when: both(family('dominant'), isSubstitute), scales: ['lydian dominant', 'mixolydian'] },
  {
    when: both(family('dominant'), stepIs('bVII', 'bVI', 'IV')),
    scales: ['lydian dominant', 'mixolydian']
  },
  {
    when: family('dominant'),
    scales: ['mixolydian', 'lydian dominant', 'half-whole diminished', 'whole tone']
  },

  { when: both(family('major'), stepIs('V')), scales: ['mixolydian', 'major'] },
  { when: both(family('major'), stepIs('I')), scales: ['major', 'lydian'] },
  { when: both(family('major'), inMinor, stepIs('bIII')), scales: ['major', 'lydian'] },
  { when: both(family('major'), inMinor, stepIs('bVII')), scales: ['mixolydian', 'major'] },
  { when: family('major'), scales: ['lydian', 'major'] },

  { when: family('suspended'), scales: ['mixolydian', 'dorian'] },
  { when: always, scales: ['mixolydian', 'aeolian', 'dorian'] }
];

/** Tones that a symbol writes out on purpose, and the 3 and 7: a scale without them misses the point. */
function missesThePoint(choice: ScaleChoice): boolean {
  return choice.lacks.some(
    (tone) => ['3', '7', 'tension'].includes(DEGREES[tone].slot) || ['b5', '#5'].includes(tone)
  );
}

/** Several approaches start from the modes of the same change. */
const known = new WeakMap<ChangeContext, ScaleChoice[]>();

/** The modes that suit a change, first choice first; none of them contradicts the symbol. */
export function modes(context: ChangeContext): ScaleChoice[] {
  let choices = known.get(context);
  if (!choices) known.set(context, (choices = findModes(context)));
  return choices;
}

function findModes(context: ChangeContext): ScaleChoice[] {
  const { chord } = context.change;
  const rule = RULES.find(({ when }) => when(context))!;
  const choices = rule.scales
    .map((name) => choiceOf('modes', scaleNamed(chord.root, name), context))
    .filter(fitsSymbol);
  return [...choices.filter((c) => !missesThePoint(c)), ...choices.filter(missesThePoint)];
}
