/**
 * The chord-symbol reader: what players write, in, and the chord's tones as degrees, out. Case matters only for m and M.
 * Source: docs/music-rules.md, Chord symbols.
 */
import { firstOf, nth, sure } from '../base/list';
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
  /** The quality itself has settled the fifth: dim, ø, aug. */
  fifthSettled: boolean;
  sixth: boolean;
  seventh: Degree | null;
  /** The seventh that a following 7, 9, 11 or 13 stands for. */
  seventhMeant: Degree;
  /** How far the thirds are stacked: 7, 9, 11 or 13; 0 where no such number was read. */
  stack: number;
  tensions: Set<Degree>;
  omitted: Set<Slot>;
  /** Nothing but the root has been read. */
  bare: boolean;
  depth: number;
}

interface Token {
  readonly pattern: RegExp;
  /**
   * Returns false where what was matched is no tone of any chord, such as a ♯13, or denies what was read before, such
   * as a minor chord suspended; reading stops there.
   */
  readonly apply: (draft: Draft, match: RegExpExecArray) => void | false;
}

const MAJOR_WORD = String.raw`(?:[mM][aA][jJ](?:[oO][rR])?|M[aA](?!dd|DD|Dd)|ma(?!dd)|j(?=7|9|1[13])|M(?![iI]))`;
export const MINOR_WORD = String.raw`(?:[mM][iI](?:[nN](?:[oO][rR])?)?|m|-|–|−)`;
/** Both Greek and geometric triangles, and what stands for one on a keyboard. */
const TRIANGLE = '[Δ△∆^]';

/** What may stand right after the root; at most one of them is read. */
const QUALITIES: readonly Token[] = [
  {
    pattern: new RegExp(`${MAJOR_WORD}(?:[-–−](?=7|9|1[13]))?`, 'y'),
    apply: (d) => {
      d.seventhMeant = '7';
    }
  },
  {
    pattern: new RegExp(TRIANGLE, 'y'),
    apply: (d) => {
      d.seventhMeant = '7';
      d.seventh = '7';
    }
  },
  {
    pattern: /dom(?:inant)?\s*(?=7|9|1[13])/iy,
    apply: () => undefined
  },
  {
    pattern: new RegExp(MINOR_WORD, 'y'),
    apply: (d) => {
      d.third = 'b3';
    }
  },
  {
    pattern: /half-?\s?dim(?:inished)?|[ø∅⌀]/iy,
    apply: (d) => {
      d.third = 'b3';
      d.fifths = ['b5'];
      d.fifthSettled = true;
      d.seventh = 'b7';
    }
  },
  {
    pattern: /dim(?:inished)?|°|º|˚|o(?!mit)/iy,
    apply: (d) => {
      d.third = 'b3';
      d.fifths = ['b5'];
      d.fifthSettled = true;
      d.seventhMeant = 'bb7';
    }
  },
  {
    pattern: /aug(?:mented)?|\+(?:5(?!\d))?/iy,
    apply: (d) => {
      d.fifths = ['#5'];
      d.fifthSettled = true;
    }
  }
];

/** A sixth goes with no stacked thirds but a major seventh. */
function addSixth(d: Draft): void | false {
  if (d.tensions.has('b13')) return false;
  if (d.seventh) return addTension(d, '13');
  d.sixth = true;
}

/** The number that says how far the thirds are stacked; at most one of them is read. */
const STACKS: readonly Token[] = [
  {
    pattern: /6\s*\/?\s*9|9\s*\/\s*6/y,
    apply: (d) => {
      d.sixth = true;
      d.tensions.add('9');
    }
  },
  { pattern: /6/y, apply: addSixth },
  {
    // The major sign behind its number, as some countries write it.
    pattern: /(13|11|9|7)M(?![aiAI])/y,
    apply: (d, [, size]) => {
      if (raiseSeventh(d) === false) return false;
      stackThirds(d, Number(size));
    }
  },
  { pattern: /13|11|9|7/y, apply: (d, [size]) => stackThirds(d, Number(size)) }
];

function stackThirds(d: Draft, size: number): void {
  d.seventh ??= d.seventhMeant;
  d.stack = size;
  if (size > 7) d.tensions.add('9');
  // A thirteenth leaves out the 11, which clashes with a major third; a minor one holds it.
  if (size === 11 || (size === 13 && d.third === 'b3')) d.tensions.add('11');
  if (size === 13) d.tensions.add('13');
}

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

const ALTERED_TONE: Readonly<Record<string, (d: Draft) => void | false>> = {
  b5: (d) => alterFifth(d, 'b5'),
  '#5': (d) => alterFifth(d, '#5'),
  b9: (d) => alterTension(d, '9', 'b9'),
  '#9': (d) => alterTension(d, '9', '#9'),
  '#11': (d) => alterTension(d, '11', '#11'),
  '#4': (d) => alterTension(d, '11', '#11'),
  b13: (d) => alterTension(d, '13', 'b13'),
  b6: (d) => alterTension(d, '13', 'b13'),
  // Only a minor chord has a seventh to raise: C+7 and C7+ are augmented.
  '#7': (d) => (d.third === 'b3' ? raiseSeventh(d) : false)
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

/** What may follow, any number of times, with or without parentheses, commas and strokes. */
const MODIFIERS: readonly Token[] = [
  {
    pattern: /sus(?:pended)?\s*(?:\(([24])\)|(2\/?4|4\/?2|13|2|4|7|9))?/iy,
    apply: (d, [, inside, size]) => suspend(d, inside ?? size ?? '4')
  },
  { pattern: /alt(?:ered)?\.?/iy, apply: (d) => alterAll(d) },
  {
    pattern: /(?:no|omit)\s*(?:(1|root)|(3)|(5))(?:rd|th)?/iy,
    apply: (d, [, root, third]) => omit(d, root ? '1' : third ? '3' : '5')
  },
  {
    pattern: /add\s*([b#♭♯]?(?:13|11|9|6|4|2))/iy,
    apply: (d, [, tone = '']) => addTone(d, ascii(tone))
  },
  {
    pattern: new RegExp(`(?:${MAJOR_WORD}|${TRIANGLE})\\s*(7|9|11|13)?`, 'y'),
    apply: (d, [, size]) => {
      if (raiseSeventh(d) === false) return false;
      if (size) stackThirds(d, Number(size));
    }
  },
  {
    pattern: /([b#♭♯+–−-])(5|9|11|13|6|4|7)/y,
    apply: (d, [, sign = '', number = '']) => {
      const alter = ALTERED_TONE[ascii(sign) + number];
      return alter ? alter(d) : false;
    }
  },
  {
    pattern: /aug|\+/iy,
    apply: (d) => alterFifth(d, '#5')
  }
];

/** A plain number inside parentheses or after a stroke adds its tone: "7(9, 13)", "7/13". */
const ADDED_NUMBERS: readonly Token[] = [
  {
    pattern: /7/y,
    apply: (d) => {
      if (d.seventh) return false;
      d.seventh = d.seventhMeant;
    }
  },
  { pattern: /13|11|9|6/y, apply: (d, [number]) => addTone(d, number) }
];

function ascii(sign: string): string {
  return asciiAccidentals(sign)
    .replace(/^[–−-]/, 'b')
    .replace(/^\+/, '#');
}

function addTone(draft: Draft, name: string): void | false {
  const tone = ADDED_TONE[name];
  if (!tone) return false;
  return tone === '6' ? addSixth(draft) : addTension(draft, tone);
}

/** A ninth, eleventh or thirteenth and the alterations of it. */
const ALTERATIONS: Readonly<Record<string, readonly Degree[]>> = {
  '9': ['b9', '#9'],
  '11': ['#11'],
  '13': ['b13']
};

/** Adds a tension, unless the natural and the altered tone of one number would meet. */
function addTension(draft: Draft, tone: Degree): void | false {
  const natural = tone.replace(/^[b#]/, '') as Degree;
  const others = tone === natural ? sure(ALTERATIONS[natural], 'ALTERATIONS') : [natural];
  if (others.some((other) => draft.tensions.has(other))) return false;
  draft.tensions.add(tone);
}

/** Alters a tension; the natural one goes, where it was only implied by a higher number. */
function alterTension(draft: Draft, natural: Degree, altered: Degree): void | false {
  const saysNatural = draft.tensions.has(natural) && draft.stack <= Number(natural);
  if (saysNatural || (natural === '11' && draft.suspensions.includes('11'))) return false;
  if (altered === 'b13' && draft.sixth) return false;
  draft.tensions.delete(natural);
  draft.tensions.add(altered);
}

function alterFifth(draft: Draft, fifth: Degree): void | false {
  if (draft.omitted.has('5')) return false;
  if (draft.fifthSettled) return draft.fifths.includes(fifth) ? undefined : false;
  draft.fifths = [...draft.fifths.filter((f) => f !== '5' && f !== fifth), fifth];
}

/** A major seventh, or the one that a number to come will stand for: m9(maj7) raises what its 9 implied. */
function raiseSeventh(draft: Draft): void | false {
  const isImplied = draft.seventh === 'b7' && draft.third === 'b3' && draft.stack > 7 && !draft.fifthSettled;
  if (draft.seventh && draft.seventh !== '7' && !isImplied) return false;
  draft.seventh = '7';
  draft.seventhMeant = '7';
}

function suspend(draft: Draft, size: string): void | false {
  const isFree = draft.third === '3' || draft.suspensions.length > 0;
  if (!isFree || draft.omitted.has('3') || draft.tensions.has('#11')) return false;
  draft.third = null;
  if (size.includes('2')) draft.suspensions.push('9');
  if (size !== '2') draft.suspensions.push('11');
  if (['7', '9', '13'].includes(size)) stackThirds(draft, Number(size));
}

/** An altered dominant: nothing but the root, third and minor seventh stays natural. */
function alterAll(draft: Draft): void | false {
  const isPlain = draft.third === '3' && draft.seventhMeant === 'b7' && !draft.fifthSettled && !draft.sixth;
  if (!isPlain || draft.stack > 7) return false;
  draft.seventh = 'b7';
  draft.fifths = ['b5', '#5'];
  draft.tensions = new Set<Degree>(['b9', '#9', ...[...draft.tensions].filter((tone) => /^[b#]/.test(tone))]);
}

function omit(draft: Draft, slot: Slot): void | false {
  const isSaid = slot === '3' ? draft.third !== '3' : slot === '5' && draft.fifths[0] !== '5';
  if (isSaid) return false;
  draft.omitted.add(slot);
}

/** What the bare root says: a major triad. */
function emptyDraft(): Draft {
  return {
    third: '3',
    suspensions: [],
    fifths: ['5'],
    fifthSettled: false,
    sixth: false,
    seventh: null,
    seventhMeant: 'b7',
    stack: 0,
    tensions: new Set(),
    omitted: new Set(),
    bare: true,
    depth: 0
  };
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
  'm min maj 6 69 m6 m69 7 9 11 13 m7 min7 m9 min9 m11 m13 maj7 maj9 maj13 m(maj7) mMaj7 m7b5 dim dim7 aug aug7 7#5 ' +
  'sus sus2 sus4 7sus 7sus4 9sus4 13sus4 add9 madd9 5 maj7#11 maj7#5 7b5 7b9 7#9 7#11 7b13 7alt alt 7b9b13 9#11 13#11 13b9'
).split(' ');

/** What a chord is at heart: the third or what stands for it, the fifth, the seventh. */
function qualityOf({ tones }: Pick<Chord, 'tones'>): string {
  const third = tones.find((tone) => tone === '3' || tone === 'b3');
  const suspension = tones.includes('11') ? '11' : '9';
  const rest = tones.filter((tone) => ['5', '7'].includes(DEGREES[tone].slot) || tone === '6');
  return [third ?? suspension, ...rest].join(' ');
}

/** The quality of each of them, worked out when first asked for. */
let knownQualities: readonly string[] | undefined;

/**
 * The nearest spelling that is understood. A suggestion never changes the quality: where the nearest ones differ in it, or it
 * denies what has been read so far, none is made.
 */
function suggest(root: string, suffix: string): string | undefined {
  knownQualities ??= KNOWN_SUFFIXES.map((known) => {
    const parsed = parse(`C${known}`);
    return 'chord' in parsed ? qualityOf(parsed.chord) : '';
  });
  const draft = emptyDraft();
  const stopped = readSuffix(suffix, draft) ?? 0;
  // An m alone settles nothing: that of a mistyped maj7 is no minor chord.
  const isSettled = stopped > 0 && !/^m$/i.test(suffix.slice(0, stopped));
  const ranked = KNOWN_SUFFIXES.map((known, i) => ({
    known,
    quality: nth(knownQualities!, i),
    d: isSwapOf(known, suffix) ? 1 : distance(known, suffix)
  })).sort(
    // Of two as near, the plainer one.
    (a, b) => a.d - b.d || a.known.length - b.known.length
  );
  const best = firstOf(ranked);
  if (best.d > Math.max(1, Math.floor(suffix.length / 2))) return undefined;
  const nearest = ranked.filter(({ d }) => d === best.d);
  const keeps = ({ quality }: { readonly quality: string }) => keepsQuality(quality.split(' '), draft);
  const fitting = isSettled ? nearest.filter(keeps) : nearest;
  const isSure = fitting.length > 0 && fitting.every(({ quality }) => quality === firstOf(fitting).quality);
  return isSure ? root + firstOf(fitting).known : undefined;
}

/** Whether two words differ by two neighbouring letters changed over. */
function isSwapOf(a: string, b: string): boolean {
  const at = [...a].findIndex((letter, i) => letter !== b[i]);
  return at >= 0 && a.slice(0, at) + a.charAt(at + 1) + a.charAt(at) + a.slice(at + 2) === b;
}

/** Whether a quality holds everything that a draft has settled. */
function keepsQuality(quality: readonly string[], draft: Draft): boolean {
  const seventh = draft.seventh ?? (draft.seventhMeant === 'b7' ? null : draft.seventhMeant);
  const third = draft.third ?? draft.suspensions[0];
  return (
    (third === undefined || quality[0] === third) &&
    (seventh === null || quality.includes(seventh)) &&
    (draft.fifths[0] === '5' || draft.fifths.every((fifth) => quality.includes(fifth))) &&
    (!draft.sixth || quality.includes('6'))
  );
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
  const draft = emptyDraft();
  const stopped = readSuffix(suffix, draft);
  if (stopped !== null) return { stopped: typedRoot.length + stopped, root: typedRoot };
  const bass = bassMatch ? readNote(nth(bassMatch, 1)) : null;
  const root = sure(readNote(typedRoot), 'readNote');
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
  skip(/\s*/y);
  take(QUALITIES);
  skip(/\s*/y);
  if (!take(STACKS) && draft.bare) take(BARE_STACKS);
  let opened = 0;
  /** Right behind a stroke a plain number adds its tone, as it does in parentheses. */
  let isAdding = false;
  while (at < suffix.length) {
    const separator = skip(/[\s,(]+|\)/y);
    if (separator) {
      draft.depth += separator.split('(').length - 1 - (separator === ')' ? 1 : 0);
      opened = separator.includes('(') ? at - separator.length : opened;
      if (draft.depth < 0) return at - 1;
      continue;
    }
    if (skip(/\/\s*(?=\S)/y)) {
      if (isAdding) return at - 1;
      isAdding = true;
      continue;
    }
    if (!take(MODIFIERS) && !((isAdding || draft.depth > 0) && take(ADDED_NUMBERS))) return at;
    isAdding = false;
  }
  if (isAdding) return at - 1;
  return draft.depth === 0 ? null : opened;
}
