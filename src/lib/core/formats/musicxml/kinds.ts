/** Kinds of chords as MusicXML names them, by the tones they have and by the suffix they are written with here. */
import { nth, sure } from '../../base/list';
import type { Chord } from '../../theory/chord';
import { isChord, readChord } from '../../theory/chord-reader';
import { DEGREES, isDegree, type Degree } from '../../theory/degree';
import { pitchClass, spell } from '../../theory/note';

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

/** Kinds that are only read: those of the books, named by the tones that they sound. */
const READ_ONLY: readonly Kind[] = [
  { kind: 'major-11th', tones: ['1', '3', '5', '7', '9', '11'], suffix: 'maj11' },
  { kind: 'Neapolitan', tones: ['1', '3', '5'], suffix: '' },
  { kind: 'Italian', tones: ['1', '3', 'b7'], suffix: '7' },
  { kind: 'French', tones: ['1', '3', 'b5', 'b7'], suffix: '7b5' },
  { kind: 'German', tones: ['1', '3', '5', 'b7'], suffix: '7' },
  { kind: 'Tristan', tones: ['1', 'b3', 'b5', 'b7'], suffix: 'm7b5' },
  { kind: 'pedal', tones: ['1'], suffix: '5' },
  { kind: 'other', tones: ['1'], suffix: '' }
];
/** Of a Neapolitan the third lies in the bass, unless another tone is named. */
const INVERTED: Readonly<Record<string, number>> = { Neapolitan: 1 };

/** Suffixes that have no kind of their own, tried with those that have. */
const OTHER_SUFFIXES = [
  '7sus4',
  '9sus4',
  '13sus4',
  '7sus2',
  '69',
  'm69',
  '7b5',
  '9#5',
  'maj7#5',
  'add9',
  'madd9',
  'm11'
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
  const found =
    exact ??
    loose ??
    sure(
      KINDS.find(({ kind }) => kind === 'power'),
      'KINDS'
    );
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

/** Degrees that are added are counted against a dominant chord, whose seventh is the minor one; others against the chord's own. */
function extra(degree: Degree, type: ExtraDegree['type']): ExtraDegree {
  const value = Number(degree.replace(/\D/g, ''));
  const alter = [...degree].reduce((sum, sign) => sum + (sign === '#' ? 1 : sign === 'b' ? -1 : 0), 0);
  if (type === 'subtract') return { value, alter: 0, type };
  return { value, alter: type === 'add' && value === 7 ? alter + 1 : alter, type };
}

/** Numbers that are one tone, an octave apart. */
const SAME: Readonly<Record<number, number>> = { 2: 9, 4: 11, 8: 1, 10: 3, 12: 5, 14: 7, 15: 1 };
const numberOf = (degree: Degree) => Number(degree.replace(/\D/g, ''));
const signs = (alter: number) => (alter < 0 ? 'b' : '#').repeat(Math.abs(alter));
const folded = (value: number) => SAME[value] ?? value;

/** The degree of a number that is altered by semitones; null where there is none by that name. */
function degreeOf(value: number, alter: number): Degree | null {
  const named = `${signs(alter)}${value}`;
  return isDegree(named) ? named : null;
}

/** The tones of a kind with what is added to it, altered and left out; null where a degree is none that is known. */
function tonesWith(tones: readonly Degree[], degrees: readonly ExtraDegree[]): Degree[] | null {
  let all: Degree[] = [...tones];
  for (const { value, alter, type } of degrees) {
    const number = folded(value);
    const at = all.findIndex((tone) => numberOf(tone) === number || (number === 13 && tone === '6'));
    if (type === 'subtract') {
      if (at >= 0) all.splice(at, 1);
      continue;
    }
    if (type === 'alter' && at >= 0) {
      const own = [...nth(all, at)].reduce(
        (sum, sign) => sum + (sign === '#' ? 1 : sign === 'b' ? -1 : 0),
        0
      );
      const altered = degreeOf(number, own + alter);
      if (altered === null) return null;
      all = all.map((tone, i) => (i === at ? altered : tone));
      continue;
    }
    const added = degreeOf(number, number === 7 ? alter - 1 : alter);
    if (added === null) return null;
    if (!all.includes(added)) all.push(added);
  }
  return all;
}

const setOf = (root: number, tones: readonly Degree[]) =>
  tones.reduce((set, tone) => set | (1 << ((root + DEGREES[tone].semitones) % 12)), 0);

/** The plainest symbol over a root that sounds exactly some tones; null where none is found. */
function symbolFor(root: string, tones: readonly Degree[]): string | null {
  const rootPc = pitchClass(root);
  const wanted = setOf(rootPc, tones);
  const suffixes = [...KINDS.map(({ suffix }) => suffix), ...OTHER_SUFFIXES, 'maj11'];
  const found = suffixes.flatMap((suffix) => {
    const reading = readChord(`${root}${suffix}`);
    if (reading.kind !== 'chord') return [];
    const own = reading.chord.tones;
    const held = setOf(rootPc, own);
    const left = tones.filter((tone) => !((held >> ((rootPc + DEGREES[tone].semitones) % 12)) & 1));
    const gone = own.filter((tone) => !((wanted >> ((rootPc + DEGREES[tone].semitones) % 12)) & 1));
    if (gone.some((tone) => !['3', 'b3', '5'].includes(tone))) return [];
    const more = left.map((tone) => (/^[#b]/.test(tone) ? tone : `add${tone}`)).join('');
    const less = gone.map((tone) => `no${numberOf(tone)}`).join('');
    const symbol = `${root}${suffix}${more}${less}`;
    const again = readChord(symbol);
    const isIt = again.kind === 'chord' && again.chord.pitchSet === wanted;
    return isIt ? [symbol] : [];
  });
  return found.sort((a, b) => a.length - b.length)[0] ?? null;
}

/** A chord symbol from what a file says; null where it is none that is known here. */
export function symbolOf(
  root: string,
  said: {
    readonly kind: string;
    readonly text: string;
    readonly degrees: readonly ExtraDegree[];
    readonly bass: string;
    /** Which tone of the chord lies in the bass, 0 for the root, where no bass is named. */
    readonly inversion?: number | undefined;
  }
): string | null {
  const { kind, text, degrees, bass } = said;
  if (kind === 'none') return 'N.C.';
  const row = [...KINDS, ...READ_ONLY].find((one) => one.kind === kind);
  const tones = row ? tonesWith(row.tones, degrees) : null;
  const under = bass
    ? `/${bass}`
    : tones
      ? invertedBass(root, tones, said.inversion ?? INVERTED[kind] ?? 0)
      : '';
  // What stands on the page is the player's own way of writing it, where it can be read and sounds what the file says.
  const asWritten = `${root}${text.replaceAll(/\s/g, '')}${under}`;
  if (text && isChord(asWritten) && (tones === null || isNear(asWritten, root, tones))) return asWritten;
  // "other" without a degree says nothing but its text, and that was not understood.
  if (!row || tones === null || (kind === 'other' && degrees.length === 0)) return null;
  const plain = degrees.length === 0 && row.suffix !== '' && kind !== 'pedal' ? `${root}${row.suffix}` : null;
  const symbol = plain ?? symbolFor(root, tones) ?? (kind === 'pedal' ? `${root}5` : null);
  return symbol !== null && isChord(symbol + under) ? symbol + under : null;
}

/** What is written may leave out or add what colours a chord, never its third, its altered fifth or its seventh. */
function isNear(symbol: string, root: string, tones: readonly Degree[]): boolean {
  const reading = readChord(symbol);
  if (reading.kind !== 'chord') return false;
  const rootPc = pitchClass(root);
  const telling = tones.filter((tone) => ['3', '7'].includes(DEGREES[tone].slot) || tone === '11');
  return telling.every((tone) => (reading.chord.pitchSet >> ((rootPc + DEGREES[tone].semitones) % 12)) & 1);
}

function invertedBass(root: string, tones: readonly Degree[], inversion: number): string {
  const stacked = (['1', '3', '5', '7'] as const).flatMap(
    (slot) => tones.find((tone) => DEGREES[tone].slot === slot) ?? []
  );
  const tone = inversion > 0 ? stacked[inversion] : undefined;
  return tone ? `/${spell(root, tone)}` : '';
}
