/**
 * Stretches of a form in which a key of its own may begin: sections, by their labels, and loops, by their being played again. Source:
 * docs/music-rules.md, Where keys change.
 */
import { firstOf, nth } from '../base/list';
import type { Change } from '../chart/unroll';
import type { Chord } from '../theory/chord';
import { semitonesUp } from '../theory/note';
import type { Step } from './steps';

export interface Span {
  /** First and last step. */
  readonly from: number;
  readonly to: number;
  /** Roots counted from the first one, and qualities, of one pass: the same for a span that is another one transposed. */
  readonly shape: string;
  /** Different roots. */
  readonly roots: number;
}

/** Steps of the longest loop that is looked for. */
const LONGEST_LOOP = 16;

/** What is the same of two chords that do the same in two keys. */
function qualityOf({ family, tones }: Chord): string {
  const seventh = tones.includes('7') ? '7' : tones.includes('b7') ? 'b7' : '';
  return family + seventh;
}

function spanOf(steps: readonly Step[], from: number, to: number, pass = to - from + 1): Span {
  const own = steps.slice(from, from + pass);
  const shape = own.map(({ root, chord }) => `${semitonesUp(firstOf(own).root, root)}${qualityOf(chord)}`);
  return { from, to, shape: shape.join(' '), roots: new Set(own.map(({ root }) => root)).size };
}

/** The sections of a form by their labels; none where there is only one. */
export function sectionsOf(steps: readonly Step[], changes: readonly Change[]): Span[] {
  const sectionAt = (i: number) => nth(changes, nth(steps, i).from).section;
  const starts = steps.flatMap((_, i) => (i === 0 || sectionAt(i) !== sectionAt(i - 1) ? [i] : []));
  if (starts.length < 2) return [];
  return starts.map((from, n) => spanOf(steps, from, (starts[n + 1] ?? steps.length) - 1));
}

/** Loops of at least two chords that begin with a bar and are played at least twice running, one behind the other. */
export function loopsOf(steps: readonly Step[], changes: readonly Change[]): Span[] {
  const isSame = (a: number, b: number) =>
    nth(steps, a).root === nth(steps, b).root &&
    qualityOf(nth(steps, a).chord) === qualityOf(nth(steps, b).chord);
  const startingAt = (at: number): Span | null => {
    if (at >= steps.length || nth(changes, nth(steps, at).from).beat !== 1) return null;
    const loop = loopFrom(steps.length, at, isSame);
    return loop && spanOf(steps, at, at + loop.length - 1, loop.pass);
  };
  const found: Span[] = [];
  let at = 0;
  while (at < steps.length) {
    // Behind a chord that leads to it a loop that was played before begins anew, not another one with that chord.
    const known = [0, 1, 2]
      .map((ahead) => startingAt(at + ahead))
      .find((span) => span && found.some(({ shape }) => shape === span.shape));
    const loop = known ?? startingAt(at);
    if (loop) found.push(loop);
    at = loop ? loop.to + 1 : at + 1;
  }
  return found;
}

/** The shortest loop that begins at a step, with how many steps its whole passes take in all. */
function loopFrom(
  count: number,
  at: number,
  isSame: (a: number, b: number) => boolean
): { readonly pass: number; readonly length: number } | null {
  for (let pass = 2; pass <= LONGEST_LOOP && at + 2 * pass <= count; pass++) {
    let length = pass;
    while (at + length < count && isSame(at + length, at + length - pass)) length++;
    // The last pass may end early: its last chord often leads on.
    if (length >= 2 * pass) return { pass, length };
  }
  return null;
}
