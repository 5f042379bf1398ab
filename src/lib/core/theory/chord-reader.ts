/**
 * The chord-symbol reader: what players write, in, and the chord's tones as degrees, out. Case matters only for m and M.
 * Source: docs/music-rules.md, Chord symbols.
 */
import { nth, sure } from '../base/list';
import { chordOf, type Chord } from './chord';
import { readNote } from './note';
import { emptyDraft, tonesOf } from './symbol/draft';
import { suggest } from './symbol/suggest';
import { readSuffix } from './symbol/suffix';

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
