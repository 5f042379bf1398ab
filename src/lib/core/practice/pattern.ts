/**
 * Patterns as text, a pulse a word, and how they are laid into the pulses of a bar. A word of one, two or four letters
 * divides its pulse so (and swings), one of three into triplets. `-` is silence, `=` holds on what was struck; every
 * other letter strikes, and its meaning is the player's own: see `feel.ts`.
 */
import { nth, sure } from '../base/list';
import { bent } from '../line/sound';
import type { PulseCell } from './pulse';

/** The words of a pattern: three or four for a bar, twice as many where it takes two bars. */
export type Pattern = readonly string[];

/** A pattern from its words, separated by spaces. */
export function pattern(text: string): Pattern {
  return text.split(' ');
}

/** A stroke of a pattern in time. */
export interface Stroke {
  readonly letter: string;
  /** Beats, as written and as it sounds. */
  readonly written: number;
  readonly start: number;
  /** Where it ends as it sounds. */
  readonly end: number;
  readonly isOnPulse: boolean;
}

/** Which words of a bar's pattern a cell of so many pulses takes, by the pulses of that bar. */
export type WordsOfCell = Readonly<Record<number, readonly number[]>>;

/** For patterns of four pulses and of three. */
export const WORDS: Readonly<Record<3 | 4, WordsOfCell>> = {
  4: { 1: [0], 2: [0, 1], 3: [0, 1, 3], 4: [0, 1, 2, 3] },
  3: { 1: [0], 2: [0, 1], 3: [0, 1, 2], 4: [0, 1, 2, 1] }
};

const TRIPLET = 3;

/** Lays a pattern into a cell: `words` tells which of its words, `bar` which half of a pattern over two bars. */
export function strokesIn(
  row: Pattern,
  cell: PulseCell,
  { words, bar, ratio }: { readonly words: WordsOfCell; readonly bar: number; readonly ratio: number }
): Stroke[] {
  const taken = sure(words[cell.length], 'words');
  const perBar = Math.max(...sure(words[4], 'words')) + 1;
  const half = (bar % Math.max(1, Math.round(row.length / perBar))) * perBar;
  const strokes: Stroke[] = [];
  cell.forEach((pulse, i) => {
    const word = pulse.isTriple ? tripled(nth(row, half + nth(taken, i))) : nth(row, half + nth(taken, i));
    const at = (part: number) => pulse.start + pulse.beats * part;
    const sounds = (part: number) => {
      if (word.length === TRIPLET) return at(part);
      return at(bent(part, pulse.isTriple ? 2 / 3 : ratio));
    };
    [...word].forEach((letter, n) => {
      const [from, to] = [n / word.length, (n + 1) / word.length];
      const last = strokes.at(-1);
      if (letter === '=' && last) strokes[strokes.length - 1] = { ...last, end: sounds(to) };
      else if (letter !== '-' && letter !== '=') {
        strokes.push({ letter, written: at(from), start: sounds(from), end: sounds(to), isOnPulse: n === 0 });
      }
    });
  });
  return strokes;
}

/** What goes through every division of a pulse goes through every third of a dotted one. */
function tripled(word: string): string {
  const isFull = word.length % 2 === 0 && !/[-=]/.test(word);
  return isFull ? word.charAt(0) + word.charAt(1) + word.charAt(1) : word;
}
