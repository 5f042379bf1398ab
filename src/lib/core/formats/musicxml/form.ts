/**
 * The way through a score: repeats, endings, signs and jumps as they stand at its bars, and the bars in the order in which they are
 * played. After a jump no repeat is taken, and of endings the last.
 */

import { nth } from '../../base/list';

/** What stands at one bar. */
export interface BarMarks {
  readonly opensRepeat?: true;
  /** How often what ends here is played in all; absent where no repeat ends. */
  readonly times?: number;
  /** The passes that this ending is for, where one begins here; and whether one ends. */
  readonly ending?: readonly number[];
  readonly endsEnding?: true;
  readonly segno?: true;
  readonly coda?: true;
  readonly toCoda?: true;
  readonly fine?: true;
  readonly jump?: 'head' | 'sign';
}

/** Bars that a score is played through at most. */
const MOST_PLAYED = 4000;

/** The bars in the order in which they are played, by their place on the page. */
export function playOrder(marks: readonly BarMarks[]): number[] {
  const order: number[] = [];
  const endings = endingsOf(marks);
  const signAt = marks.findIndex(({ segno }) => segno);
  const leaves = marks.findIndex(({ toCoda }) => toCoda);
  const codaAt = marks.findIndex(({ coda }, i) => coda && i > leaves);
  let [at, from, pass, hasJumped] = [0, 0, 1, false];
  while (at < marks.length && order.length < MOST_PLAYED) {
    const bar = nth(marks, at);
    if (bar.opensRepeat && at !== from) [from, pass] = [at, 1];
    const ending = endings.get(at);
    if (ending && !isTaken(ending, pass, hasJumped)) {
      at = ending.to + 1;
      continue;
    }
    order.push(at);
    if (hasJumped && bar.fine) break;
    if (hasJumped && bar.toCoda && codaAt > at) {
      at = codaAt;
      continue;
    }
    if (bar.times !== undefined && !hasJumped && pass < bar.times) {
      pass += 1;
      at = from;
      continue;
    }
    // An ending that goes on to the next one leaves its repeat open.
    if (bar.times !== undefined) [from, pass] = [at + 1, 1];
    else if (bar.endsEnding && ending === undefined) [from, pass] = [at + 1, 1];
    if (bar.jump && !hasJumped) {
      hasJumped = true;
      [at, from, pass] = [bar.jump === 'sign' && signAt >= 0 ? signAt : 0, 0, 1];
      continue;
    }
    at += 1;
  }
  return order;
}

interface Ending {
  readonly passes: readonly number[];
  /** Its last bar. */
  readonly to: number;
  /** No other ending of the same repeat comes after it. */
  readonly isLast: boolean;
}

/** Endings by the bar that they begin in. */
function endingsOf(marks: readonly BarMarks[]): ReadonlyMap<number, Ending> {
  const found = new Map<number, Ending>();
  marks.forEach(({ ending }, i) => {
    if (!ending) return;
    const next = marks.findIndex((mark, n) => n > i && mark.ending !== undefined);
    const stop = marks.findIndex((mark, n) => n >= i && mark.endsEnding);
    const to = stop >= 0 && (next < 0 || stop < next) ? stop : next >= 0 ? next - 1 : i;
    found.set(i, { passes: ending, to, isLast: marks[to + 1]?.ending === undefined });
  });
  return found;
}

const isTaken = ({ passes, isLast }: Ending, pass: number, hasJumped: boolean) =>
  hasJumped ? isLast : passes.includes(pass) || (isLast && passes.every((one) => one < pass));
