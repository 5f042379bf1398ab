/**
 * The style of a chart: what kind of music its symbols, its form and its feel speak of. It decides which row of the phrase engine a line
 * takes, and what is offered first. Source: docs/music-rules.md, Style.
 */
import { type Chord } from '../theory/chord';
import type { ChartHead } from '../chart/model';
import { type Change, hasChord } from '../chart/unroll';
import type { Cadence } from './cadence-model';
import { isMinorKey, type Key } from './key';
import { isStep, type Numeral } from './numeral';

/** `approach`: the id of the approach that a new chart of the style opens with. */
export const STYLES = [
  { id: 'jazz', name: 'Jazz', approach: 'modes' },
  { id: 'blues', name: 'Blues', approach: 'blues' },
  { id: 'rock', name: 'Rock', approach: 'key-centre' },
  { id: 'pop or folk', name: 'Pop or folk', approach: 'key-centre' },
  { id: 'country', name: 'Country', approach: 'key-centre' },
  { id: 'soul or funk', name: 'Soul or funk', approach: 'key-centre' },
  { id: 'latin', name: 'Latin', approach: 'modes' },
  { id: 'modal', name: 'Modal', approach: 'modes' }
] as const satisfies readonly {
  readonly id: string;
  readonly name: string;
  readonly approach: string;
}[];

export type Style = (typeof STYLES)[number]['id'];

/** Words that players write, and the style they mean; the first that is found counts. */
const WORDS: readonly (readonly [RegExp, Style])[] = [
  [/jazz|be-?bop|\bbop\b|bossa|samba|swing/i, 'jazz'],
  [/country|bluegrass|honky|train beat|two.?step/i, 'country'],
  [/funk|soul|r\s*&\s*b|gospel|reggae|one.?drop/i, 'soul or funk'],
  [/latin|bolero|montuno|tango|salsa|mambo|cha.?cha|\bson\b/i, 'latin'],
  [/blues|shuffle|boogie/i, 'blues'],
  [/rock|punk|metal|grunge/i, 'rock'],
  [/modal|drone/i, 'modal'],
  [/pop|folk|singer/i, 'pop or folk']
];

/** Reads a style as players write it; null where it is none. */
export function readStyle(text: string): Style | null {
  const plain = text.trim().toLowerCase();
  return STYLES.find(({ id }) => id === plain)?.id ?? WORDS.find(([word]) => word.test(plain))?.[1] ?? null;
}

/** Whether one of some words, the tags of a lick, names a style: "swing" is jazz. */
export const isOfStyle = (words: readonly string[], style: Style): boolean =>
  words.some((word) => readStyle(word) === style);

/** What a style is heard in. */
interface Read {
  readonly key: Key;
  readonly blues: boolean;
  readonly cadences: readonly Pick<Cadence, 'kind'>[];
  readonly changes: readonly (Change & { readonly numeral: Numeral | null })[];
}

/** The style that a chart declares, else the one that is heard in it. */
export function styleOf({ style, feel }: Pick<ChartHead, 'style' | 'feel'>, read: Read): Style {
  const said = style === null ? null : readStyle(style);
  return said ?? heardStyle(feel, read);
}

/** What the symbols of a chart are, as shares of its time. */
interface Symbols {
  readonly triads: number;
  readonly powers: number;
  /** Sevenths of any kind, sixths and what is built on them. */
  readonly sevenths: number;
  readonly majorSevenths: number;
  readonly dominants: number;
  /** Half-diminished, diminished and altered chords: colours of functional harmony. */
  readonly bent: number;
  /** Different roots. */
  readonly roots: number;
  /** The longest stay on one root, in beats. */
  readonly longest: number;
}

function symbolsOf({ changes }: Read): Symbols {
  const all = changes.filter(hasChord);
  const beats = all.reduce((sum, change) => sum + change.beats, 0) || 1;
  const share = (test: (chord: Chord) => boolean) =>
    all.reduce((sum, { chord, beats: own }) => sum + (test(chord) ? own : 0), 0) / beats;
  const roots = new Set(all.map(({ chord }) => chord.rootPc));
  let [longest, stay, root] = [0, 0, -1];
  for (const { chord, beats: own } of all) {
    stay = chord.rootPc === root ? stay + own : own;
    root = chord.rootPc;
    longest = Math.max(longest, stay);
  }
  return {
    triads: share(({ family, tones }) => family !== 'power' && tones.length <= 3),
    powers: share(({ family }) => family === 'power'),
    sevenths: share(({ tones }) => tones.length > 3),
    majorSevenths: share(({ tones }) => tones.includes('7')),
    dominants: share(({ family, tones }) => family === 'dominant' && tones.includes('3')),
    bent: share(
      ({ family, tones }) =>
        family === 'half-diminished' ||
        tones.includes('bb7') ||
        (family === 'dominant' && (tones.includes('b9') || tones.includes('#5') || tones.includes('b13')))
    ),
    roots: roots.size,
    longest
  };
}

/** Bars of four that a chord stands for a plateau. */
const PLATEAU = 16;

function heardStyle(feel: string | null, read: Read): Style {
  const { key, blues, cadences, changes } = read;
  const isBlues =
    blues || cadences.some(({ kind }) => ['eight-bar', 'twelve-bar', 'sixteen-bar'].includes(kind));
  const said = feel === null ? null : readStyle(feel);
  // A blues that swings is a blues all the same.
  if (said && !(said === 'jazz' && isBlues)) return said;
  if (isBlues) return 'blues';
  const symbols = symbolsOf(read);
  const cadential = cadences.filter(({ kind }) =>
    ['two-five-one', 'two-five', 'chain', 'backdoor', 'turnaround'].includes(kind)
  ).length;
  if (symbols.roots <= 2 && symbols.sevenths > 0.5) {
    // A vamp: dominants are funk, what rests is modal.
    if (symbols.dominants > 0.3) return 'soul or funk';
    return 'modal';
  }
  if (symbols.powers > 0.3) return 'rock';
  if (symbols.sevenths > 0.5) {
    if (cadential === 0 && symbols.bent < 0.1 && symbols.longest >= PLATEAU && symbols.roots <= 4)
      return 'modal';
    if (cadential > 0 || symbols.bent >= 0.1 || symbols.majorSevenths > 0.6) return 'jazz';
    return 'soul or funk';
  }
  // Songs in triads, with a seventh here and there.
  const borrowed = changes.some(
    ({ numeral, chord }) => chord && isStep(numeral, 'bVII', 'bIII', 'bVI') && !isMinorKey(key)
  );
  if (symbols.sevenths > 0.25 && (cadential > 0 || symbols.bent > 0.05)) return 'jazz';
  if (isMinorKey(key) ? !hasLeadingDominant(read) : borrowed) return 'rock';
  return 'pop or folk';
}

/** Whether a minor key has its V with a leading tone: a song, rather than a riff. */
function hasLeadingDominant({ changes }: Read): boolean {
  return changes.some(({ numeral, chord }) => isStep(numeral, 'V') && chord?.tones.includes('3'));
}
