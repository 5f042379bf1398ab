/** An item's log folded once into all that the plan and the stand ask of it. */
import { entryOf, lastOf, nth, numberAt } from '../../base/list';
import type { Seconds } from '../../base/units';
import { dayAfter, daysBetween } from '../log/day';
import { byDay, type Bars, type LogRow, type PracticeItem } from '../log/model';
import { lengthOf, loopsOf, UNKNOWN_BARS, type Loop } from './loops';
import { newStretch, playLoop, type PlayedDay, type Stretch } from './runs';
import { newPasses, passBars, type Passes } from './seams';

/** Days until something that is held is asked again: one after the other, the last of them from then on. */
const ASKED_AFTER = [3, 6, 12, 24] as const;
/** Days with a clean run at the goal after which an item is held. */
const HELD_DAYS = 2;
/** Share of the goal at which a clean run opens what stands on it. */
const OPENS_AT = 0.85;
/** Days played without a new best: half of the time goes to what stumbles, then it rests for some days. */
export const PLATEAU = { section: 6, rests: 12, days: 5 };
/** Wholes of which the stumbles are read. */
const LATEST_WHOLES = 3;

/** Whether an item is held, and when it is asked again. */
export interface Held {
  readonly isHeld: boolean;
  /** Good days since it was last lost, and the last of them. */
  readonly good: number;
  readonly lastGood: string;
  /** Place in the intervals at which it is asked. */
  readonly interval: number;
}

/** Everything that follows from the log of one item. */
export interface Standing {
  readonly item: PracticeItem;
  readonly bars: number;
  readonly whole: Stretch;
  /** Parts of it that were played alone, by "from-to". */
  readonly parts: Map<string, Stretch>;
  readonly passes: Passes;
  lastDay: string | null;
  firstDay: string | null;
  seconds: Seconds;
  /** The fastest clean run of the whole, and days of it played since the last new one. */
  best: number | null;
  flat: number;
  /** The best of the other days: what was clean on two. */
  second: number | null;
  /** Days of it that are settled, the first clean run of all, and of a form the fastest of each day. */
  settledDays: number;
  firstBest: number | null;
  readonly history: { readonly day: string; readonly best: number }[];
  /** The first day of a clean run at the share that opens what stands on it. */
  opensSince: string | null;
  held: Held;
  /** Times that the whole was played, and the latest that went wrong: which one it was, and in which bars. */
  count: number;
  wrong: { readonly whole: number; readonly at: readonly number[] }[];
  /** The stretch that was played alone last, and the day on which the whole was played last. */
  lastPart: Bars | null;
  lastWhole: string | null;
}

const NOTHING_WRONG: Standing['wrong'] = [];
const NOT_HELD: Held = { isHeld: false, good: 0, lastGood: '', interval: 0 };

/** The name of a stretch among the parts of an item. */
export const nameOf = ({ from, to }: Bars) => `${from}-${to}`;

/** An item of which nothing was played. */
export function newStanding(item: PracticeItem, bars: number): Standing {
  return {
    item,
    bars,
    whole: newStretch(),
    parts: new Map(),
    passes: newPasses(),
    lastDay: null,
    firstDay: null,
    seconds: 0,
    best: null,
    flat: 0,
    second: null,
    settledDays: 0,
    firstBest: null,
    history: [],
    opensSince: null,
    held: NOT_HELD,
    count: 0,
    wrong: NOTHING_WRONG,
    lastPart: null,
    lastWhole: null
  };
}

/** `rows`: of this item, in the order played. */
export function standingOf(item: PracticeItem, rows: readonly LogRow[]): Standing {
  return entryOf(standingsOf([item], rows), item.id);
}

/** Standings of every item, by id: one pass over the log. */
export function standingsOf(
  items: readonly PracticeItem[],
  log: readonly LogRow[]
): ReadonlyMap<string, Standing> {
  const rows = byDay(log);
  const longest = longestOf(items, rows);
  const standings = new Map<string, Standing>();
  const grouped = groupedBy(items, rows);
  items.forEach((item, i) => {
    const standing = newStanding(item, item.bars ?? longest.get(item.id) ?? UNKNOWN_BARS);
    for (const row of grouped(i)) takeRow(standing, row);
    standings.set(item.id, standing);
  });
  return standings;
}

/** The rows of each item by its place, in their order: counted and laid side by side, which is far quicker than a list each. */
function groupedBy(
  items: readonly PracticeItem[],
  rows: readonly LogRow[]
): (item: number) => readonly LogRow[] {
  const places = new Map(items.map(({ id }, i) => [id, i]));
  const of = new Int32Array(rows.length);
  const ends = new Int32Array(items.length + 1);
  rows.forEach(({ item }, i) => {
    const place = item === null ? -1 : (places.get(item) ?? -1);
    of[i] = place;
    if (place >= 0) ends[place + 1] = numberAt(ends, place + 1) + 1;
  });
  for (let i = 0; i < items.length; i++) ends[i + 1] = numberAt(ends, i) + numberAt(ends, i + 1);
  const next = ends.slice();
  const laid: LogRow[] = new Array<LogRow>(numberAt(ends, items.length));
  rows.forEach((row, i) => {
    const place = numberAt(of, i);
    if (place < 0) return;
    laid[numberAt(next, place)] = row;
    next[place] = numberAt(next, place) + 1;
  });
  return (item) => laid.slice(ends[item], ends[item + 1]);
}

/** Of items that do not say how many bars they have, the longest stretch that was played. */
function longestOf(items: readonly PracticeItem[], rows: readonly LogRow[]): ReadonlyMap<string, number> {
  const longest = new Map<string, number>();
  if (items.every(({ bars }) => bars !== undefined)) return longest;
  for (const { item, bars } of rows) {
    if (item !== null && bars) longest.set(item, Math.max(longest.get(item) ?? 0, lengthOf(bars)));
  }
  return longest;
}

/** Takes one more row. Rows come in the order played. */
export function takeRow(standing: Standing, row: LogRow): void {
  const { whole, item } = standing;
  const { day } = row;
  if (row.isTake) {
    for (const one of loopsOf(row, standing.bars)) passBars(standing.passes, one, row.bars?.from ?? 1, day);
    return;
  }
  if (standing.lastDay !== null && standing.lastDay !== day) closeDay(standing, whole.days.at(-1), day);
  standing.firstDay ??= day;
  standing.lastDay = day;
  standing.seconds += row.seconds;
  for (const one of loopsOf(row, standing.bars)) {
    const { loop, count } = one;
    const part = loop.bars === null ? null : partOf(standing, loop.bars);
    for (let i = 0; i < count; i++) {
      if (part) playLoop(part, loop, day, item.tempo);
      else takeWhole(standing, loop, day);
    }
    passBars(standing.passes, one, row.bars?.from ?? 1, day);
    standing.lastPart = loop.bars;
  }
}

/** How far some bars of an item are; they begin here where they were not played yet. */
export function partOf({ parts }: Standing, bars: Bars): Stretch {
  const name = nameOf(bars);
  const known = parts.get(name);
  if (known) return known;
  const fresh = newStretch();
  parts.set(name, fresh);
  return fresh;
}

function takeWhole(standing: Standing, loop: Loop, day: string): void {
  const { whole, item } = standing;
  playLoop(whole, loop, day, item.tempo);
  standing.lastWhole = day;
  standing.count += 1;
  if (loop.at.length > 0) {
    const latest = standing.wrong.filter(({ whole: one }) => one > standing.count - LATEST_WHOLES);
    standing.wrong = [...latest, { whole: standing.count, at: loop.at }];
  }
  if (standing.opensSince === null && (lastOf(whole.days).best ?? 0) >= item.tempo.goal * OPENS_AT)
    standing.opensSince = day;
}

/** A new day of the item begins: what the one before came to is settled. */
function closeDay(standing: Standing, last: PlayedDay | undefined, day: string): void {
  if (!last || last.day !== standing.lastDay) return;
  const { best } = last;
  standing.held = heldAfter(standing.held, last);
  standing.settledDays += 1;
  if (best !== null) standing.firstBest ??= best;
  if (best !== null && standing.item.form) standing.history.push({ day: last.day, best });
  standing.second = secondOf(standing, best);
  if (best !== null && best > (standing.best ?? 0)) {
    standing.best = best;
    standing.flat = 0;
  } else if (isAtGoal(standing)) standing.flat = 0;
  else {
    const flat = standing.flat + 1;
    // After its rest it begins to count anew.
    standing.flat = flat >= PLATEAU.rests && daysBetween(last.day, day) > PLATEAU.days ? 0 : flat;
  }
}

/** Clean at the goal once: nothing faster is asked for, so that standing there is no plateau. */
const isAtGoal = ({ best, item }: Standing): boolean => (best ?? 0) >= item.tempo.goal;

/** The second best day, once another has come: the lower of the two best. */
function secondOf({ best, second }: Standing, coming: number | null): number | null {
  if (coming === null || best === null) return second;
  return Math.max(second ?? 0, Math.min(best, coming));
}

/** What a day makes of an item's being held. */
function heldAfter(held: Held, { day, cleanAtGoal, uncleanAtGoal }: PlayedDay): Held {
  if (uncleanAtGoal > cleanAtGoal) return NOT_HELD;
  if (cleanAtGoal === 0) return held;
  const good = held.good + 1;
  if (good < HELD_DAYS) return { ...held, good, lastGood: day };
  const isAsked = held.isHeld && daysBetween(held.lastGood, day) >= nth(ASKED_AFTER, held.interval);
  const interval = isAsked ? Math.min(held.interval + 1, ASKED_AFTER.length - 1) : held.interval;
  return { isHeld: true, good, lastGood: day, interval };
}

/** The day on which something that is held is asked again. */
export const askedOn = ({ lastGood, interval }: Held): string =>
  dayAfter(lastGood, nth(ASKED_AFTER, interval));

/** Bars in which the latest wholes went wrong, one for each stumble. */
export function wrongLately({ wrong, count }: Standing): readonly number[] {
  return wrong.flatMap(({ whole, at }) => (whole > count - LATEST_WHOLES ? at : []));
}

/** As it is now, the latest day counted. */
export function settled(standing: Standing): Pick<Standing, 'held' | 'best' | 'flat' | 'second'> {
  const { whole, lastDay } = standing;
  const last = whole.days.at(-1);
  if (!last || last.day !== lastDay) return standing;
  const { best } = last;
  const isBest = best !== null && best > (standing.best ?? 0);
  return {
    held: heldAfter(standing.held, last),
    best: isBest ? best : standing.best,
    flat: isBest || isAtGoal(standing) ? 0 : standing.flat + 1,
    second: secondOf(standing, best)
  };
}
