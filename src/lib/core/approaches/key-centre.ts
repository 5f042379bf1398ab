/** The `key-centre` approach, horizontal: the scale of the key of the moment, its pentatonics and its blues scales. */
import { isMinorKey, lenderOf, type Key } from '../harmony/key';
import type { Mode } from '../theory/mode';
import { noteAbove, plainName, type NoteName } from '../theory/note';
import { choiceOf, fitsSymbol, type Said, type ScaleChoice } from './choice';
import { scaleNamed, type Collection } from './collection';
import type { ChangeContext } from './context';
import { modes } from './modes';

/** The scales of a key, the plain one first. */
const SCALES: Readonly<Record<Mode, readonly string[]>> = {
  major: ['major', 'major pentatonic', 'major blues'],
  minor: ['aeolian', 'minor pentatonic', 'minor blues', 'harmonic minor'],
  dorian: ['dorian', 'minor pentatonic', 'minor six pentatonic', 'minor blues'],
  phrygian: ['phrygian', 'minor pentatonic', 'minor blues'],
  lydian: ['lydian', 'major pentatonic', 'major blues'],
  mixolydian: ['mixolydian', 'major pentatonic', 'minor pentatonic', 'major blues', 'minor blues']
};

const BLUES_SCALES = [
  'minor blues',
  'major blues',
  'minor pentatonic',
  'major pentatonic',
  'mixolydian',
  'dorian'
];
/** What a rock loop round a major tonic takes beside its own. */
const ROCK_SCALES = ['major', 'major pentatonic', 'major blues', 'minor pentatonic', 'minor blues'];

/** How the one note of a scale of the key that denies a symbol is used. */
const PASSING: Readonly<Record<string, string>> = {
  'harmonic minor': 'the leading tone, on the way to the V and back',
  diminished: 'its third, a diminished fourth above this root, falls to the ♭3',
  'minor blues': 'the ♭5 of the key, passing on the way back to the I'
};

interface KeyScale {
  readonly tonic: NoteName;
  readonly scale: string;
  readonly said?: Said;
}

const scalesOf = (key: Key, lead?: string): KeyScale[] =>
  SCALES[key.mode].map((scale) => ({ tonic: key.tonic, scale, ...(lead ? { said: { lead } } : {}) }));

/** The scales of the home key on a change, in their order there. */
function ownScales({ change, blues, language, minorGoal, family }: ChangeContext): KeyScale[] {
  const { key } = change;
  const { tonic } = key;
  const isTonic = change.function === 'tonic';
  const isBluesFive = change.function === 'blues V' || (language !== null && change.numeral?.number === 5);
  const names = blues
    ? BLUES_SCALES
    : language === 'rock' && key.mode === 'major'
      ? ROCK_SCALES
      : minorGoal && isMinorKey(key) && change.function === 'dominant'
        ? ['harmonic minor', ...SCALES[key.mode].filter((name) => name !== 'harmonic minor')]
        : SCALES[key.mode];
  const passes = (scale: string) =>
    (scale === 'harmonic minor' && ((isTonic && family === 'minor') || family === 'diminished')) ||
    (scale === 'minor blues' && isBluesFive);
  return names.map((scale) => ({
    tonic,
    scale,
    ...(passes(scale) ? { said: { passing: PASSING[family === 'diminished' ? family : scale]! } } : {})
  }));
}

/** What the chord asks for that the home key has not: the parallel key's scales, or those of the key a dominant leads to. */
function lentScales({ change, heard, minorGoal, isLeading }: ChangeContext): KeyScale[] {
  if (change.inKey) return [];
  const { key } = change;
  if (isLeading && change.function === 'secondary dominant') {
    const tonic = noteAbove(heard.root, '4P');
    const scale = minorGoal ? 'harmonic minor' : 'major';
    return [{ tonic, scale, said: { lead: 'The key that this dominant leads to.' } }];
  }
  if (heard.family === 'diminished') {
    const tonic = plainName((heard.rootPc + 1) % 12);
    const said = { lead: 'The key whose leading tone it stands on.', passing: PASSING.diminished! };
    return [{ tonic, scale: 'harmonic minor', said }];
  }
  const lender = lenderOf(heard, key);
  return lender ? scalesOf(lender, `Borrowed from ${lender.tonic} ${lender.mode}.`) : [];
}

export function keyCentre(context: ChangeContext): ScaleChoice[] {
  const judged = (scales: readonly KeyScale[]) =>
    scales
      .map(({ tonic, scale, said }) => choiceOf('key-centre', scaleNamed(tonic, scale), context, said))
      .filter(fitsSymbol);
  const own = judged(ownScales(context));
  const lent = judged(lentScales(context));
  // A borrowed chord is not served by a scale that only misses what makes it borrowed.
  const isServed = (choice: ScaleChoice) => choice.lacks.length === 0;
  const found = [
    ...lent.filter(isServed),
    ...own.filter((choice) => choice.against === undefined),
    ...lent.filter((choice) => !isServed(choice)),
    ...own.filter((choice) => choice.against !== undefined)
  ].slice(0, MOST);
  return found.length ? found : parentsOfModes(context);
}

/** More are no choice. */
const MOST = 5;

/** Where no scale of the key or its neighbours holds: the parents of the chord's own modes. */
function parentsOfModes(context: ChangeContext): ScaleChoice[] {
  const lead = 'Foreign to the key: the scale that the chord comes from.';
  return modes(context)
    .filter(({ against }) => against === undefined)
    .slice(0, 2)
    .map(({ parent, root, facts }) =>
      choiceOf(
        'key-centre',
        parent ? scaleNamed(parent.tonic, parent.scale) : scaleNamed(root, facts.type),
        context,
        { lead }
      )
    );
}

/** Every scale of the key on the change, those that deny its symbol among them: what the horizontal choice costs. */
export function judgedKeyScales(context: ChangeContext): ScaleChoice[] {
  const collections: Collection[] = ownScales(context).map(({ tonic, scale }) => scaleNamed(tonic, scale));
  return collections.map((collection) => choiceOf('key-centre', collection, context));
}
