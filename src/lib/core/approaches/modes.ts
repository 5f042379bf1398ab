/** The `modes` approach: a seven-note mode (or a symmetric or bebop scale) by the function of the chord. */
import { sure } from '../base/list';
import type { ChordFamily } from '../theory/chord';
import { DEGREES, type Degree } from '../theory/degree';
import { MODES } from '../theory/mode';
import { semitonesUp, pitchClass } from '../theory/note';
import { isMinorKey, isModal } from '../harmony/key';
import { isStep, type HarmonicFunction } from '../harmony/numeral';
import type { Style } from '../harmony/style';
import { modesOf, SCALE_NAMES, scaleOf, type Scale } from '../theory/scale';
import { byMerit, choiceOf, fitsSymbol, type ScaleChoice, type Said } from './choice';
import { scaleCollection, scaleNamed } from './collection';
import { isBlueTonic, type ChangeContext } from './context';

type Test = (context: ChangeContext) => boolean;

interface Rule {
  readonly when: readonly Test[];
  /** Scale names, first choice first. */
  readonly scales: string;
}

const family =
  (...names: readonly ChordFamily[]): Test =>
  (c) =>
    names.includes(c.family);
const step =
  (...names: readonly string[]): Test =>
  (c) =>
    isStep(c.change.numeral, ...names);
const has =
  (...tones: readonly Degree[]): Test =>
  (c) =>
    tones.some((tone) => c.heard.tones.includes(tone));
const does =
  (...names: readonly HarmonicFunction[]): Test =>
  (c) =>
    names.some((name) => c.change.function === name);
const not =
  (test: Test): Test =>
  (c) =>
    !test(c);
const inMinor: Test = (c) => isMinorKey(c.change.key);
const isSubstitute: Test = (c) => c.change.numeral?.isSubstitute === true;
const minorGoal: Test = (c) => c.minorGoal;
const leading: Test = (c) => c.isLeading;
const styled =
  (...styles: readonly Style[]): Test =>
  (c) =>
    styles.includes(c.style);
/** Songs whose minor is the natural one, its V borrowed from the harmonic minor. */
const sings = styled('pop or folk', 'country', 'rock', 'latin');
/** Its V has a seventh that leads: with triads alone the sixth may be raised as well. */
const singsFive: Test = (c) => c.hasCadences || c.style === 'latin';
/** The V of the key itself. */
const isOwnFive: Test = (c) => c.change.numeral?.number === 5 && c.change.numeral.of === undefined;
/** A dominant that goes nowhere. */
const rests: Test = (c) =>
  !c.isLeading || c.isStatic || c.change.function === 'tonic' || c.change.function === 'blues I';
const rocks: Test = (c) => c.language !== null || !c.hasCadences;

/** The first rule that holds decides. Source: docs/music-rules.md, the row `modes` of the approaches. */
const RULES: readonly Rule[] = [
  {
    when: [family('diminished'), inMinor, step('vii', '#vii')],
    scales: 'whole-half diminished, altered bb7, locrian bb7, locrian'
  },
  {
    when: [family('diminished'), not(has('bb7')), does('dominant', 'pre-dominant')],
    scales: 'locrian, locrian natural 2, whole-half diminished'
  },
  { when: [family('diminished')], scales: 'whole-half diminished, locrian bb7, locrian natural 6' },
  {
    when: [family('augmented'), has('7')],
    scales: 'lydian augmented, ionian augmented, lydian augmented #2'
  },
  { when: [family('augmented'), minorGoal], scales: 'whole tone, altered, lydian augmented' },
  { when: [family('augmented')], scales: 'whole tone, lydian augmented, ionian augmented' },
  {
    when: [family('half-diminished'), step('vii')],
    scales: 'locrian, locrian natural 2, locrian natural 6'
  },
  { when: [family('half-diminished')], scales: 'locrian natural 2, locrian, locrian natural 6' },

  {
    when: [family('minor'), (c) => c.isStatic],
    scales: 'dorian, aeolian, phrygian, melodic minor, harmonic minor'
  },
  { when: [family('minor'), has('7')], scales: 'melodic minor, harmonic minor, lydian b3' },
  {
    when: [family('minor'), inMinor, does('tonic'), step('i'), sings, singsFive],
    scales: 'aeolian, harmonic minor, dorian, melodic minor'
  },
  {
    when: [family('minor'), inMinor, does('tonic'), step('i'), (c) => c.hasCadences],
    scales: 'melodic minor, dorian, aeolian, harmonic minor'
  },
  {
    when: [family('minor'), inMinor, does('tonic'), step('i')],
    scales: 'aeolian, dorian, harmonic minor, melodic minor'
  },
  { when: [family('minor'), step('iii')], scales: 'phrygian, aeolian, dorian' },
  { when: [family('minor'), step('vi')], scales: 'aeolian, dorian, phrygian' },
  { when: [family('minor'), step('v'), inMinor], scales: 'phrygian, dorian, aeolian' },
  {
    when: [family('minor'), does('borrowed'), step('iv')],
    scales: 'melodic minor, dorian, aeolian, bebop minor'
  },
  { when: [family('minor')], scales: 'dorian, bebop minor, aeolian, melodic minor, phrygian' },

  { when: [family('dominant'), has('b5'), has('#5')], scales: 'altered' },
  { when: [family('dominant'), has('b5')], scales: 'whole tone, altered, lydian dominant' },
  { when: [family('dominant'), not(has('3')), has('b9')], scales: 'phrygian, dorian b2, mixolydian b2' },
  { when: [family('dominant'), not(has('3'))], scales: 'mixolydian, dorian, aeolian' },
  {
    when: [family('dominant'), minorGoal, isOwnFive, sings],
    scales: 'phrygian dominant, mixolydian b6, mixolydian, half-whole diminished, altered'
  },
  {
    when: [
      family('dominant'),
      minorGoal,
      does('secondary dominant'),
      styled('pop or folk', 'soul or funk', 'country')
    ],
    scales: 'phrygian dominant, mixolydian b6, mixolydian, half-whole diminished, altered'
  },
  { when: [family('dominant'), isBlueTonic], scales: 'mixolydian, dorian, half-whole diminished' },
  {
    when: [family('dominant'), rests, styled('soul or funk'), not(has('b9', '#5', 'b13'))],
    scales: 'mixolydian, dorian, bebop dominant, lydian dominant, half-whole diminished'
  },
  {
    when: [family('dominant'), minorGoal],
    scales: 'altered, phrygian dominant, half-whole diminished, mixolydian b6, mixolydian'
  },
  {
    when: [family('dominant'), has('b9', '#9')],
    scales: 'half-whole diminished, phrygian dominant, mixolydian b2, altered'
  },
  {
    when: [family('dominant'), has('#5', 'b13')],
    scales: 'whole tone, mixolydian b6, phrygian dominant, altered'
  },
  {
    when: [family('dominant', 'major'), not(has('7')), inMinor, step('IV'), not(does('secondary dominant'))],
    scales: 'mixolydian, lydian dominant, bebop dominant'
  },
  {
    when: [family('dominant'), does('blues IV', 'blues I', 'tonic')],
    scales: 'mixolydian, bebop dominant, lydian dominant, dorian'
  },
  { when: [family('dominant'), isSubstitute], scales: 'lydian dominant, mixolydian, half-whole diminished' },
  {
    when: [family('dominant'), step('bVII', 'bVI', 'IV')],
    scales: 'lydian dominant, mixolydian, bebop dominant'
  },
  {
    when: [family('dominant')],
    scales: 'mixolydian, bebop dominant, lydian dominant, half-whole diminished, altered'
  },

  {
    when: [family('major'), leading, minorGoal],
    scales: 'phrygian dominant, mixolydian b6, half-whole diminished, mixolydian'
  },
  { when: [family('major'), leading], scales: 'mixolydian, lydian dominant, bebop dominant' },
  { when: [family('major'), step('V')], scales: 'mixolydian, major, lydian' },
  { when: [family('major'), step('I'), rocks], scales: 'major, mixolydian, lydian, bebop major' },
  { when: [family('major'), step('I')], scales: 'major, lydian, bebop major' },
  { when: [family('major'), step('II', 'III')], scales: 'mixolydian, lydian, lydian dominant' },
  { when: [family('major'), inMinor, step('bIII')], scales: 'major, lydian, mixolydian' },
  { when: [family('major'), inMinor, step('bVII')], scales: 'mixolydian, lydian, major' },
  { when: [family('major')], scales: 'lydian, major, mixolydian, bebop major' },

  { when: [family('suspended')], scales: 'mixolydian, dorian, major' },
  { when: [inMinor], scales: 'aeolian, dorian, mixolydian' },
  { when: [() => true], scales: 'mixolydian, major, dorian' }
];

/** How the tones are used that deny a symbol and pass all the same. */
const PASSING: Readonly<Record<string, string>> = {
  'bebop dominant': 'pass it off the beat, between the ♭7 and the 1',
  'bebop minor': 'pass it off the beat, between the ♭3 and the 11',
  'harmonic minor': 'the leading tone, on the way to the V and back',
  'altered bb7': 'the diminished fourth of the harmonic minor, which falls to the ♭3'
};

/** Scales of the tonic's own family: elsewhere a major seventh against a minor one is only wrong. */
const saidOf = (scale: string, { change }: ChangeContext): Said => {
  const isOwn = scale !== 'harmonic minor' || change.function === 'tonic';
  const passing = isOwn ? PASSING[scale] : undefined;
  return passing ? { passing } : {};
};

/** Tones that a symbol writes out on purpose, and the 3 and 7: a scale without them misses the point. */
function missesThePoint(choice: ScaleChoice): boolean {
  return choice.lacks.some(
    (tone) => ['3', '7', 'tension'].includes(DEGREES[tone].slot) || ['b5', '#5'].includes(tone)
  );
}

/** Several approaches start from the modes of the same change. */
const known = new WeakMap<ChangeContext, ScaleChoice[]>();

/** The modes that suit a change, first choice first; one that denies the symbol only with a tone to pass. */
export function modes(context: ChangeContext): ScaleChoice[] {
  let choices = known.get(context);
  if (!choices) known.set(context, (choices = findModes(context)));
  return choices;
}

/** The mode of a modal key's own parent that stands on a chord, and of any key's on a power chord; null where the chord is foreign to it. */
function ownMode({ change, heard, family: own }: ChangeContext): Scale | null {
  const { key } = change;
  if ((!isModal(key) && own !== 'power') || !change.inKey) return null;
  const all = modesOf(sure(scaleOf(key.tonic, MODES[key.mode].scale), 'scaleOf'));
  const there = all.find(({ root }) => pitchClass(root) === heard.rootPc);
  // Spelled by the chord as it is written: over A in C♭ Mixolydian A Lydian, not B♭♭.
  return there ? scaleOf(heard.root, there.name) : null;
}

/** The scale that the key lends to a chord: where a modal key has one it comes first. */
function findModes(context: ChangeContext): ScaleChoice[] {
  const { heard } = context;
  const rule = sure(
    RULES.find(({ when }) => when.every((test) => test(context))),
    'RULES'
  );
  const own = ownMode(context);
  const names = rule.scales.split(', ').filter((name) => name !== own?.name);
  const fitting = [
    ...(own ? [choiceOf('modes', scaleCollection(own), context)] : []),
    ...names.map((name) => choiceOf('modes', scaleNamed(heard.root, name), context, saidOf(name, context)))
  ].filter(fitsSymbol);
  if (fitting.length === 0) return anyMode(context);
  // Bebop scales are of the music that cadences.
  const plain = fitting.filter((choice) => context.hasCadences || !isBebop(choice));
  const choices = plain.length >= FEWEST ? plain : fitting;
  // The ♯9 of a tonic at rest is a blue third, which its plain modes leave to the player.
  const isLast = (choice: ScaleChoice) =>
    (missesThePoint(choice) && !isBlueTonic(context)) || choice.against !== undefined;
  const first = choices.filter((choice) => !isLast(choice) || isBebop(choice));
  return [...first, ...choices.filter((choice) => isLast(choice) && !isBebop(choice))].slice(0, MOST);
}

/** Where the function's own scales all deny a rare symbol: those of six notes and more that do not, the fullest first. */
function anyMode(context: ChangeContext): ScaleChoice[] {
  return SCALE_NAMES.map((name) => scaleNamed(context.heard.root, name))
    .filter(({ notes }) => notes.length >= 6)
    .map((scale) => choiceOf('modes', scale, context))
    .filter((choice) => fitsSymbol(choice) && !missesThePoint(choice) && choice.blueNotes === undefined)
    .sort(byMerit(null))
    .slice(0, FEWEST);
}

/** A bebop scale stands behind the mode it adds to, though its added tone goes against the symbol. */
const isBebop = (choice: ScaleChoice) => choice.facts.type.startsWith('bebop') && !missesThePoint(choice);

/** Fewer are hardly a choice, more are none. */
const FEWEST = 3;
const MOST = 5;

/** The seven notes of a chord's first mode from its root upward, for stacking thirds; none where no mode has seven. */
export function modeNotes(context: ChangeContext): readonly string[] {
  const first = modes(context).find((choice) => choice.notes.length === 7);
  if (!first) return [];
  const at = first.notes.findIndex((note) => semitonesUp(context.heard.rootPc, pitchClass(note)) === 0);
  return at < 0 ? [] : [...first.notes.slice(at), ...first.notes.slice(0, at)];
}
