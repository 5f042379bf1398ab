/**
 * Stretches of bars that come again, as sections: equal ones have the same letter, and two in a row are written once between repeat signs.
 * What is played stays the same bar for bar.
 */

import { nth } from '../../base/list';

/** Bars of a chart from one to another (not in), counted from 0. */
export interface FoundSection {
  readonly from: number;
  readonly to: number;
  /** "A", "B" …; equal sections have the same. */
  readonly label: string;
  /** It is played twice: the bars that follow are the same, and are not written. */
  readonly isTwice: boolean;
}

/** Bars that a section has at least and at most, and a form of sections. */
const FEWEST = 4;
const MOST = 64;
const FEWEST_IN_ALL = 12;

/**
 * The sections of some bars; none where nothing comes again.
 * @param contents what stands in each bar, so that equal bars have equal texts
 */
export function sectionsOf(contents: readonly string[]): FoundSection[] {
  const count = contents.length;
  if (count < FEWEST_IN_ALL) return [];
  const blocks: { from: number; to: number }[] = [];
  const known: { from: number; to: number }[] = [];
  const same = (a: number, b: number, length: number) => {
    for (let i = 0; i < length; i++) if (contents[a + i] !== contents[b + i]) return false;
    return true;
  };
  let rest = 0;
  const close = (at: number) => {
    if (at > rest) blocks.push({ from: rest, to: at });
  };
  for (let at = 0; at < count;) {
    const again = known
      .filter(({ from, to }) => at + to - from <= count && same(from, at, to - from))
      .sort((a, b) => b.to - b.from - (a.to - a.from))[0];
    // What lies between sections is counted in fours as well.
    const length = again ? again.to - again.from : (at - rest) % FEWEST ? 0 : comesAgain(contents, at, same);
    if (length === 0) {
      at++;
      continue;
    }
    close(at);
    if (!again) known.push({ from: at, to: at + length });
    blocks.push({ from: at, to: at + length });
    rest = at += length;
  }
  close(count);
  if (known.length === 0) return [];
  const letters = new Map<string, string>();
  const named = blocks.map((block) => {
    const text = contents.slice(block.from, block.to).join('\n');
    const label = letters.get(text) ?? letterOf(letters.size);
    letters.set(text, label);
    return { ...block, label };
  });
  const out: FoundSection[] = [];
  for (let i = 0; i < named.length; i++) {
    const isTwice = named[i + 1]?.label === nth(named, i).label;
    out.push({ ...nth(named, i), isTwice });
    if (isTwice) i++;
  }
  return out;
}

/** How many bars from here on come again further on: the most, but the shortest stretch where they are the same one over and over. */
function comesAgain(
  contents: readonly string[],
  at: number,
  same: (a: number, b: number, length: number) => boolean
): number {
  const most = Math.min(MOST, Math.floor((contents.length - at) / 2));
  for (let length = most; length >= FEWEST; length--) {
    let again = at + length;
    while (again + length <= contents.length && !same(at, again, length)) again++;
    if (again + length > contents.length) continue;
    for (let part = FEWEST; part <= length / 2; part++)
      if (length % part === 0 && same(at, at + part, length - part)) return part;
    return length;
  }
  return 0;
}

const letterOf = (n: number): string =>
  n < 26 ? String.fromCharCode(65 + n) : `${letterOf(Math.floor(n / 26) - 1)}${letterOf(n % 26)}`;
