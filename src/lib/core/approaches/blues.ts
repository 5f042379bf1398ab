/**
 * The `blues` approach: one blues language over the whole form. Where the blues is spoken each step has its own sound; elsewhere the
 * blues scale of the key, or else the chord's own, is a colour.
 */
import { isMinorKey } from '../harmony/key';
import { plainName, simpleSpelling } from '../theory/note';
import { choiceOf, fitsSymbol, lackCost, sameNotes, type ScaleChoice } from './choice';
import { scaleNamed } from './collection';
import type { ChangeContext } from './context';

interface Row {
  /** Counted from the key's tonic, or from the chord's root. */
  readonly from: 'key' | 'chord';
  readonly scale: string;
  readonly lead: string;
  /** How a tone that denies the symbol is used. */
  readonly passing?: string;
}

const BLENDED: Row = {
  from: 'key',
  scale: 'blended blues',
  lead: 'Major and minor blues in one; rest on the major third.'
};
const SWEET: Row = { from: 'key', scale: 'major blues', lead: 'The sweet side of the blues.' };
const DARK: Row = { from: 'key', scale: 'minor blues', lead: 'The dark side of the blues.' };
const MINOR_SIX: Row = {
  from: 'key',
  scale: 'minor six pentatonic',
  lead: 'The minor pentatonic with its 6 for the ♭7.'
};
const PENTATONIC: Row = {
  from: 'key',
  scale: 'minor pentatonic',
  lead: 'Five notes of the key for every chord.'
};
/** Over the diminished chord that rises from IV the key's ♭7 is a third too many. */
const DARK_ON_PASSING: Row = { ...DARK, passing: 'the ♭7 of the key, passing to the chord to come' };
/** Over the V the key's ♭5 is the V's major seventh. */
const DARK_ON_FIVE: Row = { ...DARK, passing: 'the ♭5 of the key, passing on the way back to the I' };
const OWN_FIVE: Row = {
  from: 'chord',
  scale: 'augmented pentatonic',
  lead: 'This chord’s own third, with its raised fifth as colour.'
};
const OWN_MAJOR: Row = { from: 'chord', scale: 'major blues', lead: 'The chord’s own sweet side.' };
const OWN_MINOR: Row = { from: 'chord', scale: 'minor blues', lead: 'The chord’s own dark side.' };

/** The sounds of a dominant blues, by function. */
const DOMINANT_BLUES: Readonly<Record<string, readonly Row[]>> = {
  'blues I': [BLENDED, SWEET, DARK],
  'blues IV': [
    {
      ...MINOR_SIX,
      lead: 'The key’s minor third, which is this chord’s ♭7, in place of the major one; the 6 stays.'
    },
    DARK,
    OWN_MAJOR
  ],
  'blues V': [OWN_FIVE, SWEET, DARK_ON_FIVE]
};

const MINOR_BLUES: readonly Row[] = [DARK, MINOR_SIX, PENTATONIC];
const ROCK: readonly Row[] = [PENTATONIC, DARK, SWEET, BLENDED];

function rowsFor({ change, language, isLeading, family, style }: ChangeContext): readonly Row[] {
  if (language !== null && family === 'diminished') return [DARK_ON_PASSING, MINOR_SIX, SWEET];
  const isFive = isLeading && change.numeral?.number === 5 && !change.numeral.of;
  switch (language) {
    case 'dominant':
      return DOMINANT_BLUES[change.function ?? ''] ?? [SWEET, DARK];
    case 'minor':
      return isFive ? [OWN_FIVE, PENTATONIC, DARK_ON_FIVE] : MINOR_BLUES;
    case 'rock':
      return isFive ? [SWEET, OWN_MAJOR, PENTATONIC, DARK_ON_FIVE] : ROCK;
    default:
      if (isMinorKey(change.key)) return [DARK, MINOR_SIX, PENTATONIC];
      // The country sings in major, and takes the minor one for a colour.
      return style === 'country' ? [SWEET, PENTATONIC, DARK] : [SWEET, DARK];
  }
}

/** What a blues player plays on a change, where blues is spoken; nothing elsewhere. Source: docs/music-rules.md, Approaches. */
export function blues(context: ChangeContext): ScaleChoice[] {
  const { change, heard } = context;
  const found: ScaleChoice[] = [];
  // The chord's own blues comes last, where the key's is against it.
  for (const { from, scale, lead, passing } of [...rowsFor(context), OWN_MAJOR, OWN_MINOR]) {
    const root = simpleSpelling(from === 'key' ? change.key.tonic : heard.root);
    const choice = choiceOf('blues', scaleNamed(root, scale), context, {
      lead,
      ...(passing ? { passing } : {})
    });
    const isOwn = scale === OWN_MAJOR.scale || scale === OWN_MINOR.scale;
    if (from === 'chord' && isOwn && found.length >= FEWEST) continue;
    if (fitsSymbol(choice) && !found.some((other) => sameNotes(other, choice))) found.push(choice);
  }
  if (found.length === 0) found.push(...nearestBlues(context));
  const isAgainst = (choice: ScaleChoice) => choice.against !== undefined;
  return [...found.filter((choice) => !isAgainst(choice)), ...found.filter(isAgainst)];
}

/** From so many on the key's blues is enough. */
const FEWEST = 2;

/** Where neither the key's nor the chord's own holds: the blues scale of the twelve that says most and clashes least. */
function nearestBlues(context: ChangeContext): ScaleChoice[] {
  const lead = 'The nearest blues scale that this chord bears.';
  return Array.from({ length: 12 }, (_, pc) => plainName(pc))
    .flatMap((root) => ['minor blues', 'major blues'].map((scale) => scaleNamed(root, scale)))
    .map((collection) => choiceOf('blues', collection, context, { lead }))
    .filter(fitsSymbol)
    .sort((a, b) => lackCost(a.lacks) - lackCost(b.lacks) || a.avoid.length - b.avoid.length)
    .slice(0, 1);
}
