/**
 * The chord-symbol reader: what players write, in, and the chord's tones as degrees, out. Case matters only for m and M.
 * Source: docs/music-rules.md, Chord symbols.
 */
import { distance } from 'fastest-levenshtein';
import { chordOf, type Chord } from './chord';
import { DEGREES, type Degree, type Slot } from './degree';
import { readNote } from './note';
import { asciiAccidentals } from './typeset';

/** Why a symbol was not understood. */
export interface ChordProblem {
  /** 0-based place in the symbol where reading stopped. */
  readonly at: number;
  readonly message: string;
  /** A symbol that is near and would be understood. */
  readonly suggestion?: string;
}

export type ChordReading =
  | { readonly kind: 'chord'; readonly chord: Chord }
  | { readonly kind: 'none' }
  | { readonly kind: 'problem'; readonly problem: ChordProblem };

/** What has been read of a symbol so far. */
interface Draft {
  third: Degree | null;
  suspensions: Degree[];
  fifths: Degree[];
  sixth: boolean;
  seventh: Degree | null;
  /** The seventh that a following 7, 9, 11 or 13 stands for. */
  seventhMeant: Degree;
  tensions: Set<Degree>;
  omitted: Set<Slot>;
  /** Nothing but the root has been read. */
  bare: boolean;
  depth: number;
}

interface Token {
  readonly pattern: RegExp;
  /** Returns false where what was matched is no tone of any chord, such as a ♯13; reading stops there. */
  readonly apply: (draft: Draft, match: RegExpExecArray) => void | false;
}

const MAJOR_WORD = String.raw`(?:[mM][aA][jJ]|M[aA](?!dd|DD|Dd)|ma(?!dd)|M(?![iI]))`;
export const MINOR_WORD = String.raw`(?:[mM][iI][nN]?|m|-|–|−)`;

/** What may stand right after the root; at most one of them is read. */
const QUALITIES: readonly Token[] = [
  {
    pattern: new RegExp(MAJOR_WORD, 'y'),
    apply: (d) => {
      d.seventhMeant = '7';
    }
  },
  {
    pattern: /[Δ△]/y,
    apply: (d) => {
      d.seventhMeant = '7';
      d.seventh = '7';
    }
  },
  {
    pattern: new RegExp(MINOR_WORD, 'y'),
    apply: (d) => {
      d.third = 'b3';
    }
  },
  {
    pattern: /dim|°|º|o(?!mit)/iy,
    apply: (d) => {
      d.third = 'b3';
      d.fifths = ['b5'];
      d.seventhMeant = 'bb7';
    }
  },
  {
    pattern: /ø/iy,
    apply: (d) => {
      d.third = 'b3';
      d.fifths = ['b5'];
      d.seventh = 'b7';
    }
  },
  {
    pattern: /aug|\+/iy,
    apply: (d) => {
      d.fifths = ['#5'];
    }
  }
];

/** The number that says how far the thirds are stacked; at most one of them is read. */
const STACKS: readonly Token[] = [
  {
    pattern: /6\s*\/?\s*9/y,
    apply: (d) => {
      d.sixth = true;
      d.tensions.add('9');
    }
  },
  {
    pattern: /6/y,
    apply: (d) => {
      d.sixth = true;
    }
  },
  {
    pattern: /13|11|9|7/y,
    apply: (d, [size]) => {
      d.seventh ??= d.seventhMeant;
      if (size !== '7') d.tensions.add('9');
      // A thirteenth leaves out the 11, which clashes with a major third; a minor one holds it.
      if (size === '11' || (size === '13' && d.third === 'b3')) d.tensions.add('11');
      if (size === '13') d.tensions.add('13');
    }
  }
];

/** Numbers that are chords only when they stand alone behind the root. */
const BARE_STACKS: readonly Token[] = [
  {
    pattern: /5(?!\d)/y,
    apply: (d) => {
      d.third = null;
    }
  },
  { pattern: /2/y, apply: (d) => void d.tensions.add('9') }
];

const ALTERED_TONE: Readonly<Record<string, (d: Draft) => void>> = {
  b5: (d) => alterFifth(d, 'b5'),
  '#5': (d) => alterFifth(d, '#5'),
  b9: (d) => alterTension(d, '9', 'b9'),
  '#9': (d) => alterTension(d, '9', '#9'),
  '#11': (d) => alterTension(d, '11', '#11'),
  '#4': (d) => alterTension(d, '11', '#11'),
  b13: (d) => alterTension(d, '13', 'b13'),
  b6: (d) => alterTension(d, '13', 'b13')
};

const ADDED_TONE: Readonly<Record<string, Degree>> = {
  '2': '9',
  b2: 'b9',
  '#2': '#9',
  '9': '9',
  b9: 'b9',
  '#9': '#9',
  '4': '11',
  '#4': '#11',
  '11': '11',
  '#11': '#11',
  '6': '6',
  b6: 'b13',
  '13': '13',
  b13: 'b13'
};

/** What may follow, any number of times, with or without parentheses and commas. */
const MODIFIERS: readonly Token[] = [
  {
    pattern: /sus\s*(24|42|2|4)?/iy,
    apply: (d, [, size = '4']) => {
      d.third = null;
      if (size.includes('2')) d.suspensions.push('9');
      if (size.includes('4')) d.suspensions.push('11');
    }
  },
  {
    pattern: /alt/iy,
    apply: (d) => {
      d.seventh = 'b7';
      d.fifths = ['b5', '#5'];
      d.tensions = new Set<Degree>(['b9', '#9']);
    }
  },
  {
    pattern: /(?:no|omit)\s*(?:(1|root)|(3)|(5))(?:rd|th)?/iy,
    apply: (d, [, root, third]) => void d.omitted.add(root ? '1' : third ? '3' : '5')
  },
  {
    pattern: /add\s*([b#♭♯]?(?:13|11|9|6|4|2))/iy,
    apply: (d, [, tone]) => addTone(d, ascii(tone!))
  },
  {
    pattern: new RegExp(`(?:${MAJOR_WORD}|[Δ△])(7|9|11|13)?`, 'y'),
    apply: (d, [, size]) => {
      d.seventh = '7';
      if (size && size !== '7') d.tensions.add('9');
    }
  },
  {
    pattern: /([b#♭♯+–−-])(5|9|11|13|6|4)/y,
    apply: (d, [, sign, number]) => {
      const alter = ALTERED_TONE[ascii(sign!) + number!];
      if (!alter) return false;
      alter(d);
    }
  },
  { pattern: /\+/y, apply: (d) => alterFifth(d, '#5') }
];

/** A plain number inside parentheses adds its tone: "7(9, 13)". */
const BRACKETED_NUMBER: Token = {
  pattern: /13|11|9|6/y,
  apply: (d, [number]) => addTone(d, number)
};

function ascii(sign: string): string {
  return asciiAccidentals(sign)
    .replace(/^[–−-]/, 'b')
    .replace(/^\+/, '#');
}

function addTone(draft: Draft, name: string): void | false {
  const tone = ADDED_TONE[name];
  if (!tone) return false;
  if (tone === '6') draft.sixth = true;
  else draft.tensions.add(tone);
}

function alterFifth(draft: Draft, fifth: Degree): void {
  draft.fifths = [...draft.fifths.filter((f) => f !== '5' && f !== fifth), fifth];
}

function alterTension(draft: Draft, natural: Degree, altered: Degree): void {
  draft.tensions.delete(natural);
  draft.tensions.add(altered);
}

function tonesOf(draft: Draft): Degree[] {
  const tones: Degree[] = ['1'];
  if (draft.third) tones.push(draft.third);
  tones.push(...draft.suspensions, ...draft.fifths);
  if (draft.sixth) tones.push('6');
  if (draft.seventh) tones.push(draft.seventh);
  tones.push(...draft.tensions);
  const order = (tone: Degree) =>
    draft.suspensions.includes(tone) ? 3 : Number.parseInt(DEGREES[tone].interval) || 0;
  const rank = (tone: Degree) => {
    if (tone === '6') return 6;
    const number = order(tone);
    return draft.tensions.has(tone) && !draft.suspensions.includes(tone) ? number + 7 : number;
  };
  return [...new Set(tones)]
    .filter((tone) => !draft.omitted.has(DEGREES[tone].slot))
    .sort((a, b) => rank(a) - rank(b) || DEGREES[a].semitones - DEGREES[b].semitones);
}

/** Suffixes offered as suggestions when a symbol was nearly one of them. */
const KNOWN_SUFFIXES: readonly string[] = (
  'm 6 69 m6 m69 7 9 11 13 m7 m9 m11 m13 maj7 maj9 maj13 m(maj7) m7b5 dim dim7 aug 7#5 sus2 sus4 7sus4 9sus4 ' +
  '13sus4 add9 madd9 5 maj7#11 maj7#5 7b5 7b9 7#9 7#11 7b13 7alt 7b9b13 13#11'
).split(' ');

function suggest(root: string, suffix: string): string | undefined {
  const ranked = KNOWN_SUFFIXES.map((known) => ({ known, d: distance(known, suffix) })).sort(
    // Of two as near, the plainer one.
    (a, b) => a.d - b.d || a.known.length - b.known.length
  );
  const best = ranked[0]!;
  return best.d <= Math.max(1, Math.floor(suffix.length / 2)) ? root + best.known : undefined;
}

const NO_CHORD = /^n\.?\s?c\.?$/i;
const ROOT = /^([A-Ga-g])(##|bb|♯♯|♭♭|𝄪|𝄫|x|#|b|♯|♭)?/u;
const BASS = /\/\s*([A-Ga-g](?:##|bb|♯♯|♭♭|#|b|♯|♭)?)\s*$/u;
/** Letters of the longest symbol that is read; the fullest ones in use have less than half of them. */
const LONGEST_SYMBOL = 64;

/** Symbols repeat in every chart; a reading never changes. */
const MOST_REMEMBERED = 4096;
const readings = new Map<string, ChordReading>();
/** Whether words are chords, asked again and again of a pasted text. */
const verdicts = new Map<string, boolean>();

/** Reads one chord symbol. Never throws: what is not understood comes back as a problem with its place. */
export function readChord(text: string): ChordReading {
  const known = readings.get(text);
  if (known) return known;
  const parsed = parse(text);
  const reading: ChordReading =
    'stopped' in parsed ? { kind: 'problem', problem: problemOf(text.trim(), parsed) } : parsed;
  if (text.length > LONGEST_SYMBOL) return reading;
  if (readings.size >= MOST_REMEMBERED) readings.clear();
  readings.set(text, reading);
  return reading;
}

/** Whether a text is a chord symbol or says that none sounds. */
export function isChord(text: string): boolean {
  if (text.length > LONGEST_SYMBOL) return NO_CHORD.test(text.trim());
  const known = verdicts.get(text);
  if (known !== undefined) return known;
  const verdict = !('stopped' in parse(text));
  if (verdicts.size >= MOST_REMEMBERED) verdicts.clear();
  verdicts.set(text, verdict);
  return verdict;
}

/** Where reading stopped; `root` as typed, null where there is none. */
interface Stopped {
  readonly stopped: number;
  readonly root: string | null;
}

function parse(text: string): Exclude<ChordReading, { kind: 'problem' }> | Stopped {
  const symbol = text.trim();
  if (NO_CHORD.test(symbol)) return { kind: 'none' };
  const typedRoot = ROOT.exec(symbol)?.[0];
  if (typedRoot === undefined) return { stopped: 0, root: null };
  if (symbol.length > LONGEST_SYMBOL) return { stopped: typedRoot.length, root: typedRoot };
  const bassMatch = BASS.exec(symbol.slice(typedRoot.length));
  const end = bassMatch ? typedRoot.length + bassMatch.index : symbol.length;
  const suffix = symbol.slice(typedRoot.length, end);
  const draft: Draft = {
    third: '3',
    suspensions: [],
    fifths: ['5'],
    sixth: false,
    seventh: null,
    seventhMeant: 'b7',
    tensions: new Set(),
    omitted: new Set(),
    bare: true,
    depth: 0
  };
  const stopped = readSuffix(suffix, draft);
  if (stopped !== null) return { stopped: typedRoot.length + stopped, root: typedRoot };
  const bass = bassMatch ? readNote(bassMatch[1]!) : null;
  const root = readNote(typedRoot)!;
  const chord = chordOf({ symbol, root, suffix, tones: tonesOf(draft), ...(bass ? { bass } : {}) });
  return { kind: 'chord', chord };
}

/** Letters of a symbol that are quoted in a sentence. */
const QUOTED = 24;
const quoted = (text: string) => `“${text.length > QUOTED ? `${text.slice(0, QUOTED)}…` : text}”`;

function problemOf(symbol: string, { stopped: at, root }: Stopped): ChordProblem {
  if (root === null) {
    return { at, message: `A chord starts with its root, a letter from A to G; ${quoted(symbol)} does not.` };
  }
  if (symbol.length > LONGEST_SYMBOL) {
    return {
      at,
      message: `${quoted(symbol)} is longer than any chord symbol; is a space or a bar line missing?`
    };
  }
  const suggestion = suggest(root, symbol.slice(root.length));
  return {
    at,
    message:
      `${quoted(symbol.slice(at))} in ${quoted(symbol)} is not understood; expected a quality (m, maj, dim, sus …), a number or an alteration such as b9.` +
      (suggestion ? ` Did you mean ${suggestion}?` : ''),
    ...(suggestion ? { suggestion } : {})
  };
}

/** Reads a suffix into the draft; returns where it stopped, or null when all of it was read. */
function readSuffix(suffix: string, draft: Draft): number | null {
  let at = 0;
  const take = (tokens: readonly Token[]): boolean => {
    for (const token of tokens) {
      token.pattern.lastIndex = at;
      const match = token.pattern.exec(suffix);
      if (!match) continue;
      const end = token.pattern.lastIndex;
      if (token.apply(draft, match) === false) return false;
      at = end;
      draft.bare = false;
      return true;
    }
    return false;
  };
  const skip = (pattern: RegExp): string => {
    pattern.lastIndex = at;
    const found = pattern.exec(suffix)?.[0] ?? '';
    at += found.length;
    return found;
  };
  take(QUALITIES);
  skip(/\s*/y);
  if (!take(STACKS) && draft.bare) take(BARE_STACKS);
  let opened = 0;
  while (at < suffix.length) {
    const separator = skip(/[\s,(]+|\)/y);
    if (separator) {
      draft.depth += separator.split('(').length - 1 - (separator === ')' ? 1 : 0);
      opened = separator.includes('(') ? at - separator.length : opened;
      if (draft.depth < 0) return at - 1;
      continue;
    }
    if (take(MODIFIERS)) continue;
    if (draft.depth > 0 && take([BRACKETED_NUMBER])) continue;
    return at;
  }
  return draft.depth === 0 ? null : opened;
}
