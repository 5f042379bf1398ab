/** What a round is played on: its bars with their pulses and their place in the form, and the hand of chance. */
import { firstOf, lastOf, nth } from '../base/list';
import type { Excerpt, ExcerptBar, PlayedChange } from '../harmony/excerpt';
import { chanceOf, oftenFirst, type Chance } from '../line/chance';
import type { Feel } from './feel';
import { strokesIn, type Pattern, type Stroke } from './pattern';
import type { Pulse } from '../chart/pulses';
import { PLAIN_INTENSITY } from './intensity';
import { cellsOf, type PulseCell } from './pulse';

/** One time through an excerpt. */
export interface Pass {
  readonly excerpt: Excerpt;
  readonly feel: Feel;
  /** Where the second eighth of a beat falls. */
  readonly ratio: number;
  readonly seed: number;
  readonly round: number;
  /** Nothing comes after it: it ends. */
  readonly isLast: boolean;
  /** Its last bar is an ending: struck once, and left to ring. */
  readonly closes?: boolean | undefined;
  /** How much the band gives, 0 to 1; a half unless said otherwise. */
  readonly intensity?: number | undefined;
  /** From −1, where a soloist is silent and is answered, to 1, where room is left for a busy one. */
  readonly room?: number | undefined;
}

export interface StageBar extends ExcerptBar {
  readonly index: number;
  /** Its place in its section. */
  readonly inSection: number;
  readonly cells: readonly PulseCell[];
  readonly pulses: readonly Pulse[];
  /** A section begins with it. */
  readonly opens: boolean;
  /** Another section, or the next round, begins after it. */
  readonly leads: boolean;
  /** The last stroke of all stands on the last pulse of this bar. */
  readonly ends: boolean;
  /** It is struck once, on its first beat. */
  readonly closes: boolean;
}

export interface Stage extends Pass {
  readonly intensity: number;
  readonly bars: readonly StageBar[];
  /** A sequence for one player and one moment. */
  readonly chance: (player: number, moment: number) => Chance;
}

/** What the parts of the band have to know of a pass through the excerpt. */
export function stageOf(pass: Pass): Stage {
  const { bars } = pass.excerpt;
  let since = 0;
  const staged = bars.map((bar, index): StageBar => {
    const opens = index === 0 || bar.section !== nth(bars, index - 1).section;
    since = opens ? 0 : since + 1;
    const isEnd = index === bars.length - 1;
    const cells = cellsOf(bar);
    return {
      ...bar,
      index,
      inSection: since,
      cells,
      pulses: cells.flat(),
      opens,
      leads: isEnd ? !pass.isLast : nth(bars, index + 1).section !== bar.section,
      ends: isEnd && pass.isLast && !pass.closes,
      closes: isEnd && pass.closes === true
    };
  });
  return {
    ...pass,
    intensity: pass.intensity ?? PLAIN_INTENSITY,
    bars: staged,
    chance: (player, moment) => chanceOf(pass.seed, pass.round, player, moment)
  };
}

/** Where the second eighth falls in a bar: eighths are even where the meter counts them. */
export function ratioIn(stage: Stage, { meter }: StageBar): number {
  return meter.unit >= 8 ? 0.5 : stage.ratio;
}

/** The strokes of one of some patterns in a bar, chosen anew for each bar or pair of bars. */
export function strokesInBar(
  stage: Stage,
  bar: StageBar,
  patterns: readonly Pattern[],
  player: number
): Stroke[] {
  const { words } = stage.feel;
  if (bar.closes) return [];
  // Patterns over two bars are chosen for both.
  const isLong = patterns.some(({ length }) => length > 5);
  const moment = isLong ? bar.index - (bar.inSection % 2) : bar.index;
  const row = oftenFirst(stage.chance(player, moment), patterns);
  return bar.cells.flatMap((cell) =>
    strokesIn(row, cell, { words, bar: bar.inSection, ratio: ratioIn(stage, bar) })
  );
}

/** A stroke inside a change. */
export interface ChangeStroke extends Stroke {
  /** It stands where the chord changes, or where all stop together. */
  readonly isFirst: boolean;
}

/** Beats under which nothing is worth striking. */
const SHORTEST = 0.06;
/** Beats that what the pattern leaves out at a change's start is held at most. */
const FIRST_HELD = 1;

/**
 * What a player strikes in each change, each stroke over before the next one and before the change is: swing never carries one
 * past its chord, and none is of length nought. A change's start is struck whatever the pattern says, with `letter` where it
 * says nothing; without a pattern it is held as long as the chord lasts. Where the music ends all stop on its last stroke.
 */
export function strokesByChange(
  stage: Stage,
  patterns: readonly Pattern[],
  player: number,
  letter: string
): ChangeStroke[][] {
  const { changes } = stage.excerpt;
  const last = lastStrokeOf(stage);
  if (patterns.length === 0) return changes.map((change) => ended([heldOver(change, letter)], change, last));
  const strokes = stage.bars.flatMap((bar) => strokesInBar(stage, bar, patterns, player));
  let at = 0;
  return changes.map((change) => {
    const end = change.start + change.beats;
    const inside: Stroke[] = [];
    for (; at < strokes.length && nth(strokes, at).written < end - 1e-6; at++) inside.push(nth(strokes, at));
    if (isClosing(stage, change.start)) return [heldOver(change, letter)];
    return ended(strokesOf(change, inside, letter), change, last);
  });
}

/** Whether a change is the ending. */
export const isClosing = ({ bars }: Stage, start: number): boolean =>
  bars.at(-1)?.closes === true && start >= lastOf(bars).start - 1e-6;

function heldOver({ start, beats }: PlayedChange, letter: string): ChangeStroke {
  return { letter, written: start, start, end: start + beats, isOnPulse: true, isFirst: true };
}

function strokesOf(change: PlayedChange, strokes: readonly Stroke[], letter: string): ChangeStroke[] {
  const end = change.start + change.beats;
  const isAtStart = ({ written }: Stroke) => written <= change.start + 1e-6;
  const own = strokes.find(isAtStart);
  const first: ChangeStroke = {
    ...heldOver(change, own?.letter ?? letter),
    end: own?.end ?? change.start + FIRST_HELD
  };
  const rest = strokes
    .filter((stroke) => !isAtStart(stroke))
    .filter(({ start }) => start >= change.start + SHORTEST && end - start >= SHORTEST)
    .map((stroke): ChangeStroke => ({ ...stroke, isFirst: false }));
  const all = [first, ...rest];
  return all
    .map((stroke, i) => ({ ...stroke, end: Math.min(stroke.end, all[i + 1]?.start ?? end, end) }))
    .filter(({ start, end: until }) => until - start >= SHORTEST / 2);
}

/** The beat of the last stroke of all; null where the music goes on. */
function lastStrokeOf({ bars }: Stage): number | null {
  const last = bars.at(-1);
  return last?.ends ? lastOf(last.pulses).start : null;
}

/** Nothing is struck after the last stroke of all, which rings to the end. */
function ended(strokes: readonly ChangeStroke[], change: PlayedChange, last: number | null): ChangeStroke[] {
  const end = change.start + change.beats;
  if (last === null || end <= last + 1e-6 || change.start > last + 1e-6) return [...strokes];
  if (last <= change.start + 1e-6) return [{ ...firstOf(strokes), end }];
  const final: ChangeStroke = { ...firstOf(strokes), written: last, start: last, end };
  const before = strokes.filter(({ start }) => start < last - 1e-6);
  return [...before.map((stroke) => ({ ...stroke, end: Math.min(stroke.end, last) })), final];
}
