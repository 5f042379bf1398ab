/** Bar lines and the words between them, scanned once from left to right. */
import { firstOf, lastOf } from '../base/list';
import type { BarLine } from './model';
import { isSpace } from './space';

export interface BarLineMark {
  /** Where it begins and ends in the line, in UTF-16 units. */
  readonly at: number;
  readonly end: number;
  readonly barLine: BarLine;
}

function afterSpace(source: string, at: number): number {
  while (isSpace(source[at])) at++;
  return at;
}

/** The next bar line from a place on: strokes, a dot or the signs of a repeat, the rounds of an ending. */
export function nextBarLine(source: string, from: number): BarLineMark | null {
  const stroke = source.indexOf('|', from);
  if (stroke < 0) return null;
  const repeatEnd = stroke > from && source[stroke - 1] === ':';
  const isDouble = source[stroke + 1] === '|';
  const behind = stroke + (isDouble ? 2 : 1);
  const repeatStart = source[behind] === ':';
  const isFinal = source[behind] === '.';
  const marked = repeatStart || isFinal ? behind + 1 : behind;
  const ending = readEnding(source, marked);
  return {
    at: repeatEnd ? stroke - 1 : stroke,
    end: ending?.end ?? marked,
    barLine: {
      style: isFinal ? 'final' : isDouble && !(repeatEnd && repeatStart) ? 'double' : 'single',
      repeatEnd,
      repeatStart,
      ending: ending?.rounds ?? []
    }
  };
}

/** The rounds that stand behind a bar line: "1", "1.", "1,3", "1-3"; null where a bar begins there. */
function readEnding(source: string, from: number): { rounds: number[]; end: number } | null {
  /** A number of rounds ends where the bar's first word could begin. */
  const ends = (at: number) =>
    at >= source.length || isSpace(source[at]) || source[at] === '|' || source.startsWith(':|', at);
  let found: { text: string; end: number } | null = null;
  let text = '';
  let at = afterSpace(source, from);
  while (/[1-9]/.test(source[at] ?? '')) {
    text += source[at++];
    const end = [source[at] === '.' ? at + 1 : at, at].find(ends);
    if (end !== undefined) found = { text, end };
    const sign = afterSpace(source, at);
    if (source[sign] !== ',' && source[sign] !== '-') break;
    text += source[sign];
    at = afterSpace(source, sign + 1);
  }
  if (!found) return null;
  const rounds = readRounds(found.text);
  return rounds && { rounds, end: found.end };
}

/** "1" → [1], "3,1" → [1, 3], "1-3" → [1, 2, 3]; null where a range runs backwards. */
function readRounds(text: string): number[] | null {
  const rounds = new Set<number>();
  for (const part of text.split(',')) {
    const numbers = part.split('-').map(Number);
    const [first, last] = [firstOf(numbers), lastOf(numbers)];
    if (last < first) return null;
    for (let round = first; round <= last; round++) rounds.add(round);
  }
  return [...rounds].sort((a, b) => a - b);
}

export interface Word {
  readonly text: string;
  readonly at: number;
}

/** The words of a bar: parted by space, but for space inside parentheses, where players write "7(b9, #11)". */
export function wordsOf(text: string): Word[] {
  const words: Word[] = [];
  if (/^\S+$/.test(text)) return [{ text, at: 0 }];
  let at = afterSpace(text, 0);
  while (at < text.length) {
    const from = at;
    while (at < text.length && !isSpace(text[at]))
      at = text[at] === '(' && at > from ? pastGroup(text, at) : at + 1;
    words.push({ text: text.slice(from, at), at: from });
    at = afterSpace(text, at);
  }
  return words;
}

/** Behind the parenthesis that closes the one at `open`; right behind that one where another opens first or none closes. */
function pastGroup(text: string, open: number): number {
  for (let at = open + 1; at < text.length; at++) {
    if (text[at] === ')') return at + 1;
    if (text[at] === '(') break;
  }
  return open + 1;
}
