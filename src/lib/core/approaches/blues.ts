/** The `blues` approach: one blues language over the whole form, with the third changing at the IV chord. */
import { choiceOf, fitsSymbol, type ScaleChoice } from './choice';
import { scaleNamed } from './collection';
import type { ChangeContext } from './context';

interface Row {
  /** Counted from the key's tonic, or from the chord's root. */
  readonly from: 'key' | 'chord';
  readonly scale: string;
  readonly lead: string;
}

const ROWS: Readonly<Record<string, readonly Row[]>> = {
  'blues I': [
    { from: 'key', scale: 'blended blues', lead: 'Major and minor blues in one; rest on the major third.' },
    { from: 'key', scale: 'major blues', lead: 'The sweet side of the blues.' },
    { from: 'key', scale: 'minor blues', lead: 'The dark side of the blues.' }
  ],
  'blues IV': [
    {
      from: 'key',
      scale: 'minor six pentatonic',
      lead: 'The key’s minor third, which is this chord’s ♭7, in place of the major one; the 6 stays.'
    },
    { from: 'key', scale: 'minor blues', lead: 'The dark side of the blues.' }
  ],
  'blues V': [
    {
      from: 'chord',
      scale: 'augmented pentatonic',
      lead: 'This chord’s own third, with its raised fifth as colour.'
    },
    { from: 'key', scale: 'minor blues', lead: 'The dark side of the blues.' }
  ]
};

/** Elsewhere in a blues the key’s sweet side is tried. */
const ELSEWHERE: readonly Row[] = [
  { from: 'key', scale: 'major blues', lead: 'The sweet side of the blues.' },
  { from: 'key', scale: 'minor blues', lead: 'The dark side of the blues.' }
];

export function blues(context: ChangeContext): ScaleChoice[] {
  if (!context.blues) return [];
  const { change } = context;
  return (ROWS[change.function ?? ''] ?? ELSEWHERE)
    .map(({ from, scale, lead }) =>
      choiceOf('blues', scaleNamed(from === 'key' ? change.key.tonic : change.chord.root, scale), context, {
        lead
      })
    )
    .filter(fitsSymbol);
}
