/** The order in which the bars of a chart are played: repeats, endings, and the jumps that words in the margin ask for. */
import { firstOf, lastOf, nth } from '../base/list';
import type { MarginWord } from './margin';
import type { ChartProblem, Place } from './model';

/** What the order follows from, of each bar as written. */
export interface OrderedBar {
  readonly section: string;
  readonly place: Place;
  readonly repeatStart: boolean;
  readonly repeatEnd: boolean;
  readonly ending: readonly number[];
  /** Words in the margin that stand at this bar. */
  readonly margin: readonly MarginWord[];
}

export interface Order {
  /** Indexes of the written bars. */
  readonly bars: readonly number[];
  /** There are more bars than the limit; the order stops there. */
  readonly tooLong: boolean;
}

const MAX_ROUNDS = 9;

/** A repeat with all its endings, or the plain bars before the next repeat starts. */
interface Group {
  readonly from: number;
  readonly to: number;
  readonly rounds: number;
  readonly endingOf: (bar: number) => readonly number[];
}

/** The indexes of the written bars in the order in which they are played, up to `most` of them. */
export function playOrder(bars: readonly OrderedBar[], most: number, problems: ChartProblem[]): Order {
  const groups: Group[] = [];
  for (let at = 0; at < bars.length; at = lastOf(groups).to) groups.push(groupFrom(bars, at, problems));
  const straight = played(groups, 0, most, (group) => Array.from({ length: group.rounds }, (_, i) => i + 1));
  const jump = jumpIn(bars, problems);
  if (!jump) return { bars: straight.slice(0, most), tooLong: straight.length > most };
  const before = straight.slice(0, straight.lastIndexOf(jump.from) + 1);
  // After a jump no repeat is taken, and of endings the last.
  const once = (from: number) => played(groups, from, most, ({ rounds }) => [rounds]);
  const after = once(jump.to);
  const end = jump.until === null ? after.length : after.indexOf(jump.until) + 1;
  const coda = jump.coda === null ? [] : once(jump.coda);
  const all = [...before, ...after.slice(0, end), ...coda];
  return { bars: all.slice(0, most), tooLong: all.length > most };
}

/** Bars from one on, group by group, in the rounds that are asked for; a few more than `most` where there are as many. */
function played(
  groups: readonly Group[],
  from: number,
  most: number,
  rounds: (group: Group) => readonly number[]
): number[] {
  const order: number[] = [];
  for (const group of groups) {
    for (const round of rounds(group)) {
      for (let bar = Math.max(group.from, from); bar < group.to; bar++) {
        const ending = group.endingOf(bar);
        if (ending.length === 0 || ending.includes(round)) order.push(bar);
        if (order.length > most) return order;
      }
    }
  }
  return order;
}

/** The stretch that belongs together from a bar on. */
function groupFrom(bars: readonly OrderedBar[], from: number, problems: ChartProblem[]): Group {
  const opened = nth(bars, from).repeatStart;
  let to = from;
  let ends = 0;
  let current: readonly number[] = [];
  const endings = new Map<number, readonly number[]>();
  let highest = 0;
  for (; to < bars.length; to++) {
    const bar = nth(bars, to);
    if (bar.repeatStart && to > from) break;
    if (bar.ending.length) current = bar.ending;
    // After a repeat's end only a further ending still belongs to it.
    if (to > from && nth(bars, to - 1).repeatEnd && !bar.ending.length) break;
    // The last ending reaches to a double bar at most: the next section is not part of it.
    if (ends > 0 && to > from && nth(bars, to - 1).section !== bar.section && !bar.ending.length) break;
    if (current.length) endings.set(to, current);
    highest = Math.max(highest, ...current);
    if (bar.repeatEnd) ends++;
  }
  if (opened && ends === 0) {
    problems.push({
      code: 'repeat-not-closed',
      message: 'This repeat |: is never closed; add :| where it ends. Until then it is played once.',
      place: nth(bars, from).place
    });
  }
  if (ends === 0 && highest > 0) {
    problems.push({
      code: 'ending-without-repeat',
      message: 'This ending belongs to no repeat; add :| at the end of the first ending.',
      place: nth(bars, firstOf([...endings.keys()])).place
    });
    return { from, to, rounds: 1, endingOf: () => [] };
  }
  const rounds = Math.min(MAX_ROUNDS, ends === 0 ? 1 : Math.max(2, highest));
  return { from, to, rounds, endingOf: (bar) => endings.get(bar) ?? [] };
}

/** A jump, once: after a bar to another, until a bar (null: to the end), and from there to the coda, where there is one. */
interface Jump {
  readonly from: number;
  readonly to: number;
  readonly until: number | null;
  readonly coda: number | null;
}

/** The jump of a form. Words that contradict one another are told at their bars, and lead nowhere. */
function jumpIn(bars: readonly OrderedBar[], problems: ChartProblem[]): Jump | null {
  const tell = (bar: number, code: string, message: string): null => {
    problems.push({ code, message, place: nth(bars, bar).place });
    return null;
  };
  const standing = (kind: Exclude<MarginWord['kind'], 'jump'>): number | null => {
    const all = bars.flatMap(({ margin }, i) => (margin.some((word) => word.kind === kind) ? [i] : []));
    for (const again of all.slice(1))
      tell(again, 'word-twice', `There are two bars marked ${NAMES[kind]}; the first one counts.`);
    return all[0] ?? null;
  };
  const sign = standing('sign');
  const coda = standing('coda');
  const toCoda = standing('to coda');
  const fine = standing('fine');
  const jumps = bars.flatMap(({ margin }, from) =>
    margin.flatMap((word) => (word.kind === 'jump' ? [{ ...word, from }] : []))
  );
  for (const { from } of jumps.slice(1))
    tell(from, 'second-jump', 'A form jumps once; the first D.C. or D.S. counts.');
  const jump = jumps[0];
  if (!jump) {
    if (sign !== null) tell(sign, 'no-jump', 'Nothing leads back to this segno; a D.S. does.');
    if (toCoda !== null) tell(toCoda, 'no-jump', 'No D.C. or D.S. al Coda comes before this To Coda counts.');
    if (fine !== null && fine < bars.length - 1)
      tell(fine, 'no-jump', 'No D.C. or D.S. leads back to this Fine; the form goes on behind it.');
    return null;
  }
  const { from } = jump;
  if (jump.to === 'sign' && sign === null)
    return tell(from, 'no-segno', 'This D.S. needs a segno to go back to; write Segno left of its row.');
  const to = jump.to === 'sign' ? sign! : 0;
  if (to > from) return tell(from, 'segno-ahead', 'The segno of this D.S. lies behind it.');
  if (jump.until === 'coda' || (jump.until === 'end' && coda !== null && toCoda !== null)) {
    if (toCoda === null || coda === null)
      return tell(from, 'no-coda', 'This jump needs a To Coda where it leaves and a Coda where it goes.');
    if (toCoda < to || toCoda > from || coda <= toCoda)
      return tell(from, 'coda-unreached', 'The way of this jump does not lead past To Coda to the Coda.');
    return { from, to, until: toCoda, coda };
  }
  if (jump.until === 'fine' && (fine === null || fine < to))
    return tell(from, 'no-fine', 'This jump needs a Fine on its way; write it right of the row that ends.');
  return { from, to, until: fine !== null && fine >= to ? fine : null, coda: null };
}

const NAMES = { sign: 'Segno', coda: 'Coda', 'to coda': 'To Coda', fine: 'Fine' } as const;
