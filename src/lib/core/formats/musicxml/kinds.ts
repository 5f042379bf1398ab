/** Kinds of chords as MusicXML names them, by the tones they have and by the suffix they are written with here. */
import type { Chord } from '../../theory/chord';
import { isChord } from '../../theory/chord-reader';
import type { Degree } from '../../theory/degree';

interface Kind {
  readonly kind: string;
  readonly tones: readonly Degree[];
  readonly suffix: string;
}

/** The richer ones first: a chord is the first kind whose tones it all has. */
export const KINDS: readonly Kind[] = [
  { kind: 'dominant-13th', tones: ['1', '3', '5', 'b7', '9', '13'], suffix: '13' },
  { kind: 'major-13th', tones: ['1', '3', '5', '7', '9', '13'], suffix: 'maj13' },
  { kind: 'minor-13th', tones: ['1', 'b3', '5', 'b7', '9', '13'], suffix: 'm13' },
  { kind: 'dominant-11th', tones: ['1', '3', '5', 'b7', '9', '11'], suffix: '11' },
  { kind: 'minor-11th', tones: ['1', 'b3', '5', 'b7', '9', '11'], suffix: 'm11' },
  { kind: 'dominant-ninth', tones: ['1', '3', '5', 'b7', '9'], suffix: '9' },
  { kind: 'major-ninth', tones: ['1', '3', '5', '7', '9'], suffix: 'maj9' },
  { kind: 'minor-ninth', tones: ['1', 'b3', '5', 'b7', '9'], suffix: 'm9' },
  { kind: 'dominant', tones: ['1', '3', '5', 'b7'], suffix: '7' },
  { kind: 'major-seventh', tones: ['1', '3', '5', '7'], suffix: 'maj7' },
  { kind: 'minor-seventh', tones: ['1', 'b3', '5', 'b7'], suffix: 'm7' },
  { kind: 'major-minor', tones: ['1', 'b3', '5', '7'], suffix: 'm(maj7)' },
  { kind: 'half-diminished', tones: ['1', 'b3', 'b5', 'b7'], suffix: 'm7b5' },
  { kind: 'diminished-seventh', tones: ['1', 'b3', 'b5', 'bb7'], suffix: 'dim7' },
  { kind: 'augmented-seventh', tones: ['1', '3', '#5', 'b7'], suffix: '7#5' },
  { kind: 'major-sixth', tones: ['1', '3', '5', '6'], suffix: '6' },
  { kind: 'minor-sixth', tones: ['1', 'b3', '5', '6'], suffix: 'm6' },
  { kind: 'major', tones: ['1', '3', '5'], suffix: '' },
  { kind: 'minor', tones: ['1', 'b3', '5'], suffix: 'm' },
  { kind: 'diminished', tones: ['1', 'b3', 'b5'], suffix: 'dim' },
  { kind: 'augmented', tones: ['1', '3', '#5'], suffix: 'aug' },
  { kind: 'suspended-fourth', tones: ['1', '11', '5'], suffix: 'sus4' },
  { kind: 'suspended-second', tones: ['1', '9', '5'], suffix: 'sus2' },
  { kind: 'power', tones: ['1', '5'], suffix: '5' }
];

/** Altered fifths that a kind without its own row of them is told with. */
const FIFTHS: readonly Degree[] = ['b5', '#5'];

/** A tone beside those of the kind: added, or in the place of one. */
export interface ExtraDegree {
  readonly value: number;
  readonly alter: number;
  readonly type: 'add' | 'alter' | 'subtract';
}

/** The kind of a chord and what it has beside; the fifth may be altered or left out. */
export function kindOf({ tones }: Pick<Chord, 'tones'>): {
  readonly kind: string;
  readonly degrees: ExtraDegree[];
} {
  const has = (tone: Degree) => tones.includes(tone);
  const exact = KINDS.find((one) => one.tones.every(has));
  const loose = KINDS.find((one) => one.tones.every((tone) => tone === '5' || has(tone)));
  const found = exact ?? loose ?? KINDS.find(({ kind }) => kind === 'power')!;
  const misses = found.tones.filter((tone) => !has(tone));
  const fifths = tones.filter((tone) => FIFTHS.includes(tone) && !found.tones.includes(tone));
  const replaced = misses.includes('5') ? fifths.slice(0, 1) : [];
  return {
    kind: found.kind,
    degrees: [
      ...replaced.map((tone) => extra(tone, 'alter')),
      ...misses
        .filter((tone) => tone !== '5' || replaced.length === 0)
        .map((tone) => extra(tone, 'subtract')),
      ...tones
        .filter((tone) => !found.tones.includes(tone) && !replaced.includes(tone))
        .map((tone) => extra(tone, 'add'))
    ]
  };
}

function extra(degree: Degree, type: ExtraDegree['type']): ExtraDegree {
  const value = Number(degree.replace(/\D/g, ''));
  const alter = [...degree].reduce((sum, sign) => sum + (sign === '#' ? 1 : sign === 'b' ? -1 : 0), 0);
  return { value, alter: type === 'subtract' ? 0 : alter, type };
}

/** A chord symbol from what a file says; null where it is none that is known here. */
export function symbolOf(
  root: string,
  said: {
    readonly kind: string;
    readonly text: string;
    readonly degrees: readonly ExtraDegree[];
    readonly bass: string;
  }
): string | null {
  const { kind, text, degrees, bass } = said;
  if (kind === 'none') return 'N.C.';
  const under = bass ? `/${bass}` : '';
  // What stands on the page is the player's own way of writing it, where it can be read.
  const asWritten = `${root}${text.replaceAll(/\s/g, '')}${under}`;
  if (text && isChord(asWritten)) return asWritten;
  const row = KINDS.find((one) => one.kind === kind);
  if (!row) return null;
  const added = degrees
    .filter(({ type }) => type !== 'subtract')
    .map(({ value, alter }) => `${alter > 0 ? '#' : alter < 0 ? 'b' : 'add'}${value}`)
    .join('');
  for (const symbol of [`${root}${row.suffix}${added}${under}`, `${root}${row.suffix}${under}`]) {
    if (isChord(symbol)) return symbol;
  }
  return null;
}
