/** The words of a pasted line: chords, bar lines and what stands between them. */
import { isChord } from '../../theory/chord-reader';
import { isNumeral } from './numerals';

/** Lines drawn as boxes are bar lines. */
export function withBarLines(line: string): string {
  return line
    .replaceAll(/[│┃┆┇┊┋╎╏┤├┼]/g, '|')
    .replaceAll(/[‖║╢╟╣╠╫╬]/g, '||')
    .replaceAll(/[\u200b\ufeff]/g, '');
}

/** Arrows, commas, semicolons and lone dashes or strokes part chords. */
const PARTING = /[,;→⇒⟶➔➜›»]|[-=]+>|(?<=\s|^)[-–—/>~+]+(?=\s|$)/g;

/** Stands where a sign has parted two chords: a sign of private use, which no chord holds. */
const PARTED = '\ue000';
const WORD = /[^\s\ue000]+/g;

/** A dash inside a word parts chords where it cannot be a minor sign: "C-F-G" does, "C-7" does not. */
function splitDashes(word: string): string[] {
  if (isChord(word) || isNumeral(word) || !/[-–—]/.test(word) || word.length > 64) return [word];
  const pieces = word.split(/[-–—]/);
  /** Ways to read the pieces from a place on, fewest chords first found. */
  const from = (at: number): string[] | null => {
    if (at === pieces.length) return [];
    for (let end = pieces.length; end > at; end--) {
      const chord = pieces.slice(at, end).join('-');
      if (!isChord(chord) && !isNumeral(chord)) continue;
      const rest = from(end);
      if (rest) return [chord, ...rest];
    }
    return null;
  };
  return pieces.length > 12 ? [word] : (from(0) ?? [word]);
}

export interface LooseWord {
  readonly text: string;
  /** A wide gap or a tab stands before it. */
  readonly isApart: boolean;
}

/** Spaces that part bars where single ones part the chords of a bar. */
const WIDE = 3;

/** The words of a line without bar lines, signs that only part them left out. */
export function looseWords(line: string): LooseWord[] {
  const words: LooseWord[] = [];
  const parted = line.replaceAll(PARTING, PARTED);
  let end = 0;
  for (const { 0: word, index } of parted.matchAll(WORD)) {
    const gap = parted.slice(end, index);
    const isWide = gap.includes('\t') || gap.length >= WIDE;
    const isApart = words.length > 0 && isWide && !gap.includes(PARTED);
    splitDashes(word).forEach((text, i) => words.push({ text, isApart: i === 0 && isApart }));
    end = index + word.length;
  }
  return words;
}

/** A word that is a chord but for a slip: it starts with a root and goes on as chords do. */
export function isNearlyChord(word: string): boolean {
  return (
    word.length <= 14 && /^[A-G]/.test(word) && /\d|[#♯♭øΔ△°]|maj|min|dim|sus|aug|add/.test(word.slice(1))
  );
}

/** How often: "x2", "×3", "2x", "(x4)"; null for any other word. */
export function timesOf(word: string): number | null {
  const match = /^[([]?(?:[x×*](\d{1,2})|(\d{1,2})[x×])[)\]]?[.,]?$/i.exec(word);
  const times = match ? Number(match[1] ?? match[2]) : 0;
  return times >= 1 && times <= MOST_TIMES ? times : null;
}
const MOST_TIMES = 32;

/** Parentheses around chords, not those inside a symbol such as C7(b9). */
export function withoutParentheses(word: string): { text: string; opens: boolean; closes: boolean } {
  const opens = /^[([]/.test(word);
  let text = opens ? word.slice(1) : word;
  const open = text.split('(').length + text.split('[').length;
  const close = text.split(')').length + text.split(']').length;
  const closes = close > open && /[)\]]$/.test(text);
  if (closes) text = text.slice(0, -1);
  return { text, opens, closes };
}
