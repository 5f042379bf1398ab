/** What of an item is played now, and how fast: the ladder from the first loop of a day on. */
import { nth, sure } from '../../base/list';
import type { Seconds } from '../../base/units';
import { boundedTempo, LOWEST_TEMPO } from '../ladder';
import { daysBetween } from '../log/day';
import type { Bars, PracticeItem } from '../log/model';
import { nameOf, partOf, PLATEAU, settled, wrongLately, type Standing } from './fold';
import { lengthOf } from './loops';
import { baseBefore, baseOf, RUN_BARS, tempoAfter, type Stretch } from './runs';
import { stepped } from './rungs';
import { seamsOf, type Seam } from './seams';

/** Beats of a bar where the item does not say. */
const USUAL_BEATS = 4;
/** Loops that have to fit for a day to begin with a warm-up. */
const WARM_UP_LOOPS = 4;
/** Days away for each of which the tempo comes back a rung lower, and the most rungs. */
const BREAK = { days: 4, rungs: 4 };
/** Rungs of a section: it starts so many under the whole and goes so many over it. */
const SECTION = { under: 1, over: 4 };
/** Loops that a part has time for, and its minutes. */
const [FEWEST_LOOPS, MOST_LOOPS] = [2.5, 6];
export const [LEAST_MINUTES, MOST_PART_MINUTES] = [3, 8];
/** A seam has two bars: eight loops are a run, and a warm-up would take its time. */
const NO_WARM_UP = () => 0;
/** The fewest minutes in which something is asked. */
const LEAST_HELD = 2;
/** Bars of a stretch around a stumble where a form has no sections. */
const LINE = 4;

/** Seconds of one loop. */
export function loopSeconds({ beats = USUAL_BEATS }: PracticeItem, bars: number, tempo: number): number {
  return (bars * beats * 60) / tempo;
}

/** The whole begins a day here; once it has begun it goes on. `seconds`: of the part. */
export function wholeTempo(standing: Standing, day: string, seconds: Seconds): number {
  const { item, whole, bars } = standing;
  return nextOf(whole, { ...item.tempo, day, loops: (tempo) => seconds / loopSeconds(item, bars, tempo) });
}

interface Way {
  readonly start: number;
  readonly goal: number;
  readonly step?: number | undefined;
  readonly day: string;
  /** Loops at a tempo that the part has time for. */
  readonly loops: (tempo: number) => number;
}

function nextOf(stretch: Stretch, { start, goal, step, day, loops }: Way): number {
  const last = stretch.days.at(-1);
  // Unmarked loops move nothing. A clock that was set back leaves days in the future: they count as today.
  if (!last) return boundedTempo(Math.min(start, Math.max(goal, LOWEST_TEMPO)));
  if (last.day >= day) return tempoAfter(stretch, { goal, step });
  const base = sure(baseOf(stretch, step), 'baseOf');
  const away = daysBetween(last.day, day);
  const back = Math.min(BREAK.rungs, Math.floor(away / BREAK.days));
  if (back > 0) return Math.min(goal, stepped(base, -back, step));
  return Math.min(goal, stepped(base, loops(base) >= WARM_UP_LOOPS ? -1 : 1, step));
}

/** A section at its own tempo: a rung under the whole to begin with, at most four over it. */
export function sectionTempo(standing: Standing, bars: Bars, day: string, whole: number): number {
  const { tempo } = standing.item;
  const { step } = tempo;
  const stretch = partOf(standing, bars);
  const most = Math.min(tempo.goal, stepped(whole, SECTION.over, step));
  if (stretch.days.at(-1)?.day !== day) return Math.min(most, stepped(whole, -SECTION.under, step));
  return tempoAfter(stretch, { goal: most, step });
}

function seamTempo(standing: Standing, seam: Seam, day: string): number {
  const { step } = standing.item.tempo;
  const stretch = partOf(standing, seam.loop);
  const way = { start: seam.start, goal: boundedTempo(seam.tempo), step, day, loops: NO_WARM_UP };
  // What was played of these bars before the seam opened says nothing of it.
  const isOld = (stretch.days.at(-1)?.day ?? '') < seam.since;
  return isOld ? boundedTempo(seam.start) : nextOf(stretch, way);
}

/** The seams of an item that are open. */
export const seamsIn = (standing: Standing): readonly Seam[] => seamsOf(standing.passes, standing.bars);

/** Minutes of a part: enough for two and a half to six loops, three to eight. */
export function ownMinutes(standing: Standing, day: string): number {
  const { item, bars } = standing;
  const tempo = wholeTempo(standing, day, 60 * (item.minutes ?? LEAST_MINUTES));
  const minutes = loopSeconds(item, bars, tempo) / 60;
  const wished = Math.max(item.minutes ?? 0, minutes * FEWEST_LOOPS);
  const fitting = Math.min(wished, Math.max(LEAST_MINUTES, minutes * MOST_LOOPS));
  return Math.round(Math.min(MOST_PART_MINUTES, Math.max(LEAST_MINUTES, fitting)));
}

/** Minutes in which something that is held is asked: a loop to warm up and a run at the goal. */
export function heldMinutes({ item, bars }: Standing): number {
  const loops = 1 + Math.ceil(RUN_BARS / bars);
  const minutes = (loops * loopSeconds(item, bars, item.tempo.goal)) / 60;
  return Math.round(Math.min(MOST_PART_MINUTES, Math.max(LEAST_HELD, minutes + 0.5)));
}

/** Whether the whole was clean at its goal today: the part is done, and its time flows on. */
export function isDoneToday({ whole, item }: Standing, day: string): boolean {
  const last = whole.days.at(-1);
  return last !== undefined && last.day >= day && (last.best ?? 0) >= item.tempo.goal;
}

/** A stretch of a part, and the ladder it is played on: the whole where no bars are named. */
export interface Step {
  readonly bars?: Bars;
  readonly minutes: number;
  /** Beats a minute of its first loop, what was clean before, and how far it goes. */
  readonly tempo: number;
  readonly base: number | null;
  readonly goal: number;
}

/**
 * What is played in a part, one after the other: the whole alone; whole, section, whole where a long form stumbles; a section
 * first where the whole takes over half of the time; half of it to what stumbles once nothing has become better for six days.
 */
export function stepsOf(standing: Standing, day: string, minutes: number, isWhole = false): readonly Step[] {
  const { item, bars } = standing;
  const { goal, step } = item.tempo;
  const tempo = wholeTempo(standing, day, minutes * 60);
  const whole = { tempo, base: todaysBase(standing.whole, day, step), goal };
  const loop = loopSeconds(item, bars, tempo) / 60;
  const isTight = loop > minutes / 2;
  const flat = isFlat(standing);
  const section = sectionFor(standing, isTight && !wasLeftOut(standing), flat);
  if (!section || isWhole) return [{ ...whole, minutes }];
  const part = {
    bars: section,
    tempo: sectionTempo(standing, section, day, tempo),
    base: null,
    goal: Math.min(goal, stepped(tempo, SECTION.over, step))
  };
  const third = minutes / 3;
  if (flat)
    return [
      { ...part, minutes: minutes / 2 },
      { ...whole, minutes: minutes / 2 }
    ];
  if (isTight)
    return [
      { ...part, minutes: Math.max(third, minutes - loop) },
      { ...whole, minutes: Math.min(loop, minutes - third) }
    ];
  return [
    { ...whole, minutes: third },
    { ...part, minutes: third },
    { ...whole, minutes: third }
  ];
}

/** Two bars, from four fifths of the tempo at which they fail up to that. */
export function seamStep(standing: Standing, seam: Seam, day: string, minutes: number): Step {
  const stretch = partOf(standing, seam.loop);
  return {
    bars: seam.loop,
    minutes,
    tempo: seamTempo(standing, seam, day),
    base: todaysBase(stretch, day, standing.item.tempo.step),
    goal: boundedTempo(seam.tempo)
  };
}

/** What was clean before today. */
function todaysBase(stretch: Stretch, day: string, step?: number): number | null {
  const last = stretch.days.at(-1);
  return last && last.day >= day ? baseBefore(stretch, step) : baseOf(stretch, step);
}

/** The last day that the item was played the whole was not reached: today it comes first. */
function wasLeftOut({ lastDay, lastWhole }: Standing): boolean {
  return lastDay !== null && lastDay !== lastWhole;
}

/** Six days played without a new best, and not held. */
export function isFlat(standing: Standing, { flat, held } = settled(standing)): boolean {
  return flat >= PLATEAU.section && !held.isHeld;
}

/** Twelve of them: it is left alone for five days. */
export function isResting(standing: Standing, day: string, { flat, held } = settled(standing)): boolean {
  const { lastDay } = standing;
  return (
    flat >= PLATEAU.rests && !held.isHeld && lastDay !== null && daysBetween(lastDay, day) <= PLATEAU.days
  );
}

/** The section that went wrong most in the last wholes; where one has to be taken, the next after the last one. */
function sectionFor(standing: Standing, mustHave: boolean, isStuck: boolean): Bars | null {
  const { bars, lastPart } = standing;
  const wrong = wrongLately(standing);
  const sections = sectionsOf(standing, isStuck);
  if (sections.length < 2) return null;
  const stumbles = sections.map(({ from, to }) => wrong.filter((bar) => bar >= from && bar <= to).length);
  const most = Math.max(...stumbles);
  if (most > 0) return nth(sections, stumbles.indexOf(most));
  if (!mustHave) return null;
  const before = lastPart && lengthOf(lastPart) < bars ? nameOf(lastPart) : '';
  const at = sections.findIndex((section) => nameOf(section) === before);
  return nth(sections, (at + 1) % sections.length);
}

/** Sections as the item names them; where one that is stuck has none, its lines of four bars. */
function sectionsOf({ item, bars }: Standing, isStuck: boolean): readonly Bars[] {
  const { sections = [] } = item;
  if (sections.length > 1 || !isStuck) return sections;
  return Array.from({ length: Math.ceil(bars / LINE) }, (_, i) => ({
    from: i * LINE + 1,
    to: Math.min(bars, (i + 1) * LINE)
  }));
}
