/**
 * When the chords of a feel are struck that comps: around the beat, with air, and with the chord to come on the last off-beat before it.
 * Source: docs/music-rules.md, The band.
 */
import { lastOf, nth, sure } from '../base/list';
import type { Chance } from '../line/chance';
import type { Comping } from './feel';
import type { Stroke } from './pattern';
import { bent } from '../line/sound';
import { likelierAt, rarerAt } from './intensity';
import { isClosing, ratioIn, strokesInBar, type Stage, type StageBar } from './stage';

export interface CompStroke {
  readonly start: number;
  readonly end: number;
  /** The change whose chord is sounded. */
  readonly change: number;
  readonly letter: string;
  readonly isOnPulse: boolean;
}

interface Struck extends Stroke {
  readonly change: number;
  readonly bar: StageBar;
}

const NEAR = 1e-6;
/** Beats that a stroke is held where nothing follows. */
const HELD = 1;
/** What is shorter is not struck. */
const SHORTEST = 0.06;

/** What a stage is comped with: asked for by the chords, and by the drums that go along. */
const comped = new WeakMap<Stage, readonly CompStroke[]>();

/** When the chords are struck in a round, and over which change. The same seed gives the same strokes. */
export function compStrokes(stage: Stage, comping: Comping, player: number): readonly CompStroke[] {
  const known = comped.get(stage);
  if (known) return known;
  const strokes = madeFor(stage, comping, player);
  comped.set(stage, strokes);
  return strokes;
}

function madeFor(stage: Stage, comping: Comping, player: number): CompStroke[] {
  const { excerpt, bars, intensity } = stage;
  const { onOne } = comping;
  const room = stage.room ?? 0;
  // A busy soloist is left room, a silent one answered.
  const air = rarerAt(comping.air, intensity) * (room > 0 ? 1 + 1.5 * room : 1 + room);
  const push = likelierAt(comping.push, intensity) * (1 - 0.5 * room);
  const { changes } = excerpt;
  const chance = stage.chance(player, -3);
  const at = (beat: number) => changes.findLastIndex(({ start }) => start <= beat + NEAR);
  let wasAir = false;
  let struck: Struck[] = bars.flatMap((bar) => {
    const own = strokesInBar(stage, bar, stage.feel.chords, player).flatMap((stroke): Struck[] => {
      const change = at(stroke.written);
      // Nothing is struck before the first chord of all.
      if (change < 0) return [];
      const coming = pushedInto(stage, stroke, change, bar);
      return [{ ...stroke, change: coming ?? change, bar }];
    });
    const here = changes.filter(
      ({ start }) => start > bar.start - NEAR && start < bar.start + bar.beats - NEAR
    );
    const isAir = !wasAir && !bar.opens && !bar.ends && here.length <= 1 && chance() < air;
    wasAir = isAir;
    // A push at its end belongs to what comes.
    return isAir ? own.filter(({ change }) => change !== at(bar.start)) : own;
  });
  struck = withPushes(stage, struck, push, chance);
  struck = withChanges(stage, struck, onOne, chance);
  return ended(stage, closed(stage, struck));
}

/** The ending is struck once, on its first beat, and rings. */
function closed(stage: Stage, struck: readonly Struck[]): Struck[] {
  const { changes, beats } = stage.excerpt;
  const change = changes.length - 1;
  const { start } = nth(changes, change);
  if (!isClosing(stage, start)) return [...struck];
  const bar = lastOf(stage.bars);
  const home: Struck = { letter: 'X', written: start, start, end: beats, isOnPulse: true, change, bar };
  return [...struck.filter((one) => one.change !== change), home];
}

/** When the chords push into a change: what the drums may mark as well. */
export function pushesIn(stage: Stage, player: number): number[] {
  const { comping } = stage.feel;
  if (!comping) return [];
  const { changes } = stage.excerpt;
  return compStrokes(stage, comping, player)
    .filter(({ start, change, isOnPulse }) => {
      const own = nth(changes, change);
      // The first chord is pushed into at the end of the round before.
      return !isOnPulse && (start < own.start || start >= own.start + own.beats);
    })
    .map(({ start }) => start);
}

/** The change that an off-beat just before it sounds already; null for any other stroke. */
function pushedInto(
  { excerpt: { changes }, isLast }: Stage,
  { written, isOnPulse }: Stroke,
  change: number,
  bar: StageBar
): number | null {
  const own = changes[change];
  if (!own?.source.chord || isOnPulse) return null;
  const end = own.start + own.beats;
  const pulse = bar.pulses.findLast(({ start }) => start <= written + NEAR)?.beats ?? 1;
  if (end - written > pulse / 2 + NEAR) return null;
  const isOver = change === changes.length - 1;
  if (isOver && isLast) return null;
  const coming = isOver ? 0 : change + 1;
  return changes[coming]?.source.chord ? coming : null;
}

/** Chords that come with a bar are now and then said on the off-beat before it. */
function withPushes(stage: Stage, struck: readonly Struck[], push: number, chance: Chance): Struck[] {
  const { changes } = stage.excerpt;
  const added = stage.bars.flatMap((bar, i): Struck[] => {
    const next = stage.bars[i + 1];
    const pulse = lastOf(bar.pulses);
    const from = changes.findLast(({ start }) => start < bar.start + bar.beats - NEAR);
    const to = next && changes.findIndex(({ start }) => Math.abs(start - next.start) < NEAR);
    if (!next || to === undefined || to < 0 || !from?.source.chord || !nth(changes, to).source.chord)
      return [];
    if (from.source.symbol === nth(changes, to).source.symbol || chance() >= push) return [];
    const written = pulse.start + pulse.beats / 2;
    if (struck.some((one) => one.written > pulse.start + NEAR && one.bar === bar)) return [];
    const start = pulse.start + pulse.beats * bent(0.5, ratioIn(stage, bar));
    return [{ letter: 'x', written, start, end: next.start + HELD / 2, isOnPulse: false, change: to, bar }];
  });
  return [...struck, ...added].sort((a, b) => a.start - b.start);
}

/** Each change is heard: on its first beat as often as the feel has it, else pushed into, else somewhere in it. */
function withChanges(stage: Stage, struck: readonly Struck[], onOne: number, chance: Chance): Struck[] {
  const { changes } = stage.excerpt;
  let all = [...struck];
  changes.forEach(({ start, beats, source }, change) => {
    if (!source.chord) {
      all = all.filter((one) => one.change !== change || one.written < start - NEAR);
      return;
    }
    const bar = sure(
      stage.bars.findLast((one) => one.start <= start + NEAR),
      'stage.bars'
    );
    const isAtBar = Math.abs(bar.start - start) < NEAR;
    const isPushed = all.some(
      (one) => one.change === change && one.written < start - NEAR && start - one.written < 2
    );
    const own = all.find((one) => Math.abs(one.written - start) < NEAR);
    const later = all.some(
      (one) => one.change === change && one.written > start + NEAR && one.written < start + beats - NEAR
    );
    // The first chord of all is said at once.
    const isVeryFirst = change === 0 && stage.round === 0 && onOne > 0;
    // Where the first beat is nearly always struck, a push before it changes nothing.
    const isFree = !isPushed || onOne > 0.8;
    const wants = isVeryFirst || (isFree && chance() < (isAtBar ? onOne : 0.5));
    if (own && !wants && (isPushed || later)) all = all.filter((one) => one !== own);
    if (!own && (wants || !(isPushed || later || isEmpty(all, bar)))) {
      const first: Struck = {
        letter: 'x',
        written: start,
        start,
        end: Math.min(start + HELD, start + beats),
        isOnPulse: true,
        change,
        bar
      };
      all.push(first);
    }
  });
  // Inside a change that lasts, the first beat of a bar is no more often struck.
  all = all.filter((one) => {
    const isOne = Math.abs(one.written - one.bar.start) < NEAR;
    const isInside = nth(changes, one.change).start < one.bar.start - NEAR;
    return !(isOne && isInside) || chance() < onOne;
  });
  return all.sort((a, b) => a.start - b.start);
}

/** A bar that was left empty on purpose. */
const isEmpty = (all: readonly Struck[], bar: StageBar) =>
  bar.index > 0 && !all.some((one) => one.bar === bar);

/** Each stroke is over before the next and before its chord is; where the music ends all stop on its last pulse. */
function ended(stage: Stage, struck: readonly Struck[]): CompStroke[] {
  const { excerpt } = stage;
  const { changes } = excerpt;
  const last = stage.bars.at(-1);
  const final = last?.ends ? lastOf(last.pulses).start : null;
  const before = final === null ? struck : struck.filter(({ start }) => start < final - NEAR);
  const strokes = before.flatMap((one, i): CompStroke[] => {
    const { start, change, letter, isOnPulse } = one;
    const { start: from, beats } = nth(changes, change);
    // A push at the very end sounds the first chord of the next round.
    const until = change === 0 && start > from + beats ? excerpt.beats : from + beats;
    const next = before[i + 1]?.start ?? final ?? excerpt.beats;
    const rings = one.written < from - NEAR ? Math.max(one.end, from + HELD / 2) : one.end;
    const end = Math.min(rings, next, until);
    return end - start >= SHORTEST ? [{ start, end, change, letter, isOnPulse }] : [];
  });
  const lastChange = changes.findLastIndex(({ source }) => source.chord);
  const ending = changes[lastChange];
  const sounds = final !== null && ending && ending.start + ending.beats > final + NEAR;
  if (!sounds) return strokes;
  return [...strokes, { start: final, end: excerpt.beats, change: lastChange, letter: 'x', isOnPulse: true }];
}
