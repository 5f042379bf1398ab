/** An item's log folded once into all that the plan and the stand ask of it. */
import { dayAfter, daysBetween } from '../log/day';
import { byDay, type Bars, type LogRow, type PracticeItem } from '../log/model';
import { barsOf, loopsOf, type Loop } from './loops';
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
  /** Good days since it was last lost. */
  readonly good: number;
  /** Place in the intervals at which it is asked. */
  readonly interval: number;
  readonly askOn: string;
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
  seconds: number;
  /** The fastest clean run of the whole, and days of it played since the last new one. */
  best: number | null;
  flat: number;
  /** The highest tempo that was clean on two days. */
  bests: readonly { readonly day: string; readonly tempo: number }[];
  /** The fastest clean run of each day that had one. */
  readonly history: { readonly day: string; readonly best: number }[];
  /** The first day of a clean run at the share that opens what stands on it. */
  opensSince: string | null;
  held: Held;
  /** Bars in which the latest wholes went wrong. */
  readonly wholes: (readonly number[])[];
  /** The stretch that was played alone last, and the day on which the whole was played last. */
  lastPart: Bars | null;
  lastWhole: string | null;
}

const NOT_HELD: Held = { isHeld: false, good: 0, interval: 0, askOn: '' };

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
    bests: [],
    history: [],
    opensSince: null,
    held: NOT_HELD,
    wholes: [],
    lastPart: null,
    lastWhole: null
  };
}

/** `rows`: of this item, in the order played. */
export function standingOf(item: PracticeItem, rows: readonly LogRow[]): Standing {
  const standing = newStanding(item, barsOf(item, rows));
  for (const row of rows) takeRow(standing, row);
  return standing;
}

/** Standings of every item, by id. */
export function standingsOf(
  items: readonly PracticeItem[],
  log: readonly LogRow[]
): ReadonlyMap<string, Standing> {
  const rows = new Map<string, LogRow[]>(items.map(({ id }) => [id, []]));
  for (const row of log) if (row.item !== null) rows.get(row.item)?.push(row);
  return new Map(items.map((item) => [item.id, standingOf(item, byDay(rows.get(item.id)!))]));
}

/** Takes one more row. Rows come in the order played. */
export function takeRow(standing: Standing, row: LogRow): void {
  const { whole, item } = standing;
  const { day } = row;
  if (row.isTake) {
    for (const loop of loopsOf(row, standing.bars)) passBars(standing.passes, loop, row.bars?.from ?? 1, day);
    return;
  }
  if (standing.lastDay !== null && standing.lastDay !== day) closeDay(standing, whole.days.at(-1), day);
  standing.firstDay ??= day;
  standing.lastDay = day;
  standing.seconds += row.seconds;
  for (const loop of loopsOf(row, standing.bars)) {
    const isWhole = loop.bars === null;
    if (isWhole) takeWhole(standing, loop, day);
    else playLoop(partOf(standing, loop.bars), loop, day, item.tempo);
    passBars(standing.passes, loop, row.bars?.from ?? 1, day);
    standing.lastPart = loop.bars;
  }
}

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
  const before = whole.runs.length && whole.days.at(-1)?.day === day ? whole.runs.length : 0;
  playLoop(whole, loop, day, item.tempo);
  standing.lastWhole = day;
  standing.wholes.push(loop.at);
  if (standing.wholes.length > LATEST_WHOLES) standing.wholes.shift();
  const run = whole.runs.at(-1);
  if (whole.runs.length === before || !run?.isClean) return;
  if (run.tempo >= item.tempo.goal * OPENS_AT) standing.opensSince ??= day;
}

/** A new day of the item begins: what the one before came to is settled. */
function closeDay(standing: Standing, last: PlayedDay | undefined, day: string): void {
  if (!last || last.day !== standing.lastDay) return;
  const { best } = last;
  standing.held = heldAfter(standing.held, last);
  if (best !== null) standing.history.push({ day: last.day, best });
  if (best !== null) standing.bests = twoBest(standing.bests, { day: last.day, tempo: best });
  if (best !== null && best > (standing.best ?? 0)) {
    standing.best = best;
    standing.flat = 0;
  } else {
    const flat = standing.flat + 1;
    // After its rest it begins to count anew.
    standing.flat = flat >= PLATEAU.rests && daysBetween(last.day, day) > PLATEAU.days ? 0 : flat;
  }
}

/** The two best days, the better first; a day counts once. */
function twoBest(bests: Standing['bests'], one: Standing['bests'][number]): Standing['bests'] {
  const [first, second] = bests;
  if (!first) return [one];
  if (one.tempo >= first.tempo) return first.day === one.day ? [one, ...bests.slice(1)] : [one, first];
  return second && one.tempo <= second.tempo ? bests : [first, one];
}

/** What a day makes of an item's being held. */
function heldAfter(held: Held, { day, cleanAtGoal, uncleanAtGoal }: PlayedDay): Held {
  if (uncleanAtGoal > cleanAtGoal) return NOT_HELD;
  if (cleanAtGoal === 0) return held;
  const good = held.good + 1;
  if (good < HELD_DAYS) return { ...held, good };
  const isAsked = held.isHeld && day >= held.askOn;
  const interval = isAsked ? Math.min(held.interval + 1, ASKED_AFTER.length - 1) : held.interval;
  return { isHeld: true, good, interval, askOn: dayAfter(day, ASKED_AFTER[interval]!) };
}

/** As it is now, the latest day counted. */
export function settled(standing: Standing): Pick<Standing, 'held' | 'best' | 'flat' | 'bests'> {
  const { whole, lastDay } = standing;
  const last = whole.days.at(-1);
  if (!last || last.day !== lastDay) return standing;
  const { best, day } = last;
  const isBest = best !== null && best > (standing.best ?? 0);
  return {
    held: heldAfter(standing.held, last),
    best: isBest ? best : standing.best,
    flat: isBest ? 0 : standing.flat + 1,
    bests: best === null ? standing.bests : twoBest(standing.bests, { day, tempo: best })
  };
}
