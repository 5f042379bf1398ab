/** The `key-centre` approach, horizontal: the scale of the key of the moment, its pentatonics and its blues scales. */
import { sure } from '../base/list';
import { dominantOf } from '../harmony/diminished';
import { isMinorKey, lenderOf, type Key } from '../harmony/key';
import type { Style } from '../harmony/style';
import type { Mode } from '../theory/mode';
import { noteAbove, simpleSpelling, type NoteName } from '../theory/note';
import { choiceOf, fitsSymbol, type Said, type ScaleChoice } from './choice';
import { scaleNamed, type Collection } from './collection';
import type { ChangeContext } from './context';
import { modes } from './modes';

/** The scales of a key, the plain one first. */
const SCALES: Readonly<Record<Mode, readonly [string, ...string[]]>> = {
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
/** A static dominant of soul and funk. */
const FUNK_SCALES = ['minor pentatonic', 'mixolydian', 'dorian', 'minor blues', 'major pentatonic'];
/** What a rock loop round a major tonic takes beside its own. */
const ROCK_SCALES = ['major', 'major pentatonic', 'major blues', 'minor pentatonic', 'minor blues'];

/** What comes first where a style has its own order; the first row that holds decides. Source: docs/music-rules.md, Style. */
const STYLED: readonly {
  readonly styles: readonly Style[];
  readonly modes: readonly Mode[];
  readonly scales: readonly string[];
}[] = [
  {
    styles: ['country', 'pop or folk'],
    modes: ['major'],
    scales: ['major pentatonic', 'major blues', 'major', 'minor blues', 'minor pentatonic']
  },
  {
    styles: ['rock'],
    modes: ['minor'],
    scales: ['minor pentatonic', 'minor blues', 'own']
  },
  {
    styles: ['rock'],
    modes: ['major'],
    scales: ['minor pentatonic', 'minor blues', 'own', 'major pentatonic', 'major blues']
  },
  {
    // A loop that has its mode says that first.
    styles: ['rock'],
    modes: ['mixolydian', 'dorian', 'phrygian', 'lydian'],
    scales: ['own', 'minor pentatonic', 'minor blues', 'major pentatonic']
  },
  {
    styles: ['soul or funk'],
    modes: ['mixolydian'],
    scales: FUNK_SCALES
  }
];

/** The scales of a key in the order of a style; null where the style has none of its own. */
function styledScales(style: Style, mode: Mode): readonly string[] | null {
  const row = STYLED.find(({ styles, modes: own }) => styles.includes(style) && own.includes(mode));
  const [plain, ...rest] = SCALES[mode];
  return row ? [...new Set([...row.scales.map((name) => (name === 'own' ? plain : name)), ...rest])] : null;
}

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
function ownScales({ change, blues, language, minorGoal, family, style }: ChangeContext): KeyScale[] {
  const { key } = change;
  const { tonic } = key;
  const isTonic = change.function === 'tonic';
  const isBluesFive = change.function === 'blues V' || (language !== null && change.numeral?.number === 5);
  const isMinorFive = minorGoal && isMinorKey(key) && change.function === 'dominant';
  const usual =
    styledScales(style, key.mode) ??
    (language === 'rock' && key.mode === 'major' ? ROCK_SCALES : SCALES[key.mode]);
  const names = blues
    ? style === 'soul or funk'
      ? FUNK_SCALES
      : BLUES_SCALES
    : isMinorFive
      ? ['harmonic minor', ...usual.filter((name) => name !== 'harmonic minor')]
      : usual;
  const passes = (scale: string) =>
    (scale === 'harmonic minor' && ((isTonic && family === 'minor') || family === 'diminished')) ||
    (scale === 'minor blues' && isBluesFive);
  return names.map((scale) => ({
    tonic,
    scale,
    ...(passes(scale)
      ? { said: { passing: sure(PASSING[family === 'diminished' ? family : scale], 'PASSING') } }
      : {})
  }));
}

/** What the chord asks for that the home key has not: the parallel key's scales, or those of the key a dominant leads to. */
function lentScales({ change, next, heard, minorGoal, isLeading, language }: ChangeContext): KeyScale[] {
  if (change.inKey) return [];
  const { key } = change;
  if (isLeading && change.function === 'secondary dominant') {
    const tonic = noteAbove(heard.root, '4P');
    const scale = minorGoal ? 'harmonic minor' : 'major';
    return [{ tonic, scale, said: { lead: 'The key that this dominant leads to.' } }];
  }
  if (heard.family === 'diminished') {
    // One that is the V of nothing that comes borrows from nowhere.
    const five = dominantOf(change, next, language !== null);
    if (five === null) return [];
    const said = {
      lead: 'The key of the dominant it stands for.',
      passing: sure(PASSING.diminished, 'PASSING')
    };
    return [{ tonic: simpleSpelling(noteAbove(five, '4P')), scale: 'harmonic minor', said }];
  }
  const lender = lenderOf(heard, key);
  return lender ? scalesOf(lender, `Borrowed from ${lender.tonic} ${lender.mode}.`) : [];
}

/** A scale of a key; by the plainer name of its tonic where its parent would have two signs: B minor pentatonic, not C♭. */
function named(tonic: NoteName, scale: string): Collection {
  const own = scaleNamed(tonic, scale);
  return /##|bb/.test(own.parent?.tonic ?? '') ? scaleNamed(simpleSpelling(tonic), scale) : own;
}

/** The scales of the key around a change, and over a borrowed chord those of the parallel key. Source: docs/music-rules.md, Approaches. */
export function keyCentre(context: ChangeContext): ScaleChoice[] {
  const judged = (scales: readonly KeyScale[]) =>
    scales
      .map(({ tonic, scale, said }) => choiceOf('key-centre', named(tonic, scale), context, said))
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
        parent ? scaleNamed(simpleSpelling(parent.tonic), parent.scale) : scaleNamed(root, facts.type),
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
