/**
 * The path of nearest grips through a progression on one string set, voice by voice, and where the neck runs out.
 * Source: docs/music-rules.md, Triad path.
 */
import { lastOf, nth } from '../base/list';
import type { NoteName } from '../theory/note';
import { byFret, lowFret, type Grip } from './voicing';

/**
 * `nearest` goes from each grip to the one that moves least; `shortest` moves least over the whole progression, at the
 * price of a longer step here or there; `up` and `down` take the nearest grip that lies higher or lower.
 */
export const GRIP_DIRECTIONS = ['nearest', 'shortest', 'up', 'down'] as const;
export type GripDirection = (typeof GRIP_DIRECTIONS)[number];

/** How one voice moves into a grip. */
export interface VoiceMove {
  readonly from: NoteName;
  readonly to: NoteName;
  /** 0 stays, positive rises. */
  readonly semitones: number;
}

/** A change that is gripped, and every grip its chord has on the string set. */
export interface GripStage {
  readonly change: number;
  /** As told to the player where the path stops: "Fm7 in bar 3". */
  readonly where: string;
  readonly grips: readonly Grip[];
}

export interface PathGrip extends Grip {
  readonly change: number;
  /** From the bass up; empty for the first grip. */
  readonly moves: readonly VoiceMove[];
}

export interface GripPath {
  readonly grips: readonly PathGrip[];
  /** Semitones that all voices move in all. */
  readonly total: number;
  readonly ranOut?: { readonly change: number; readonly message: string };
}

/** Semitones that all voices together move from one grip to another. */
export function gripDistance(from: Grip, to: Grip): number {
  return from.cells.reduce((sum, { midi }, voice) => sum + Math.abs(nth(to.cells, voice).midi - midi), 0);
}

/** Whether a grip lies higher: no voice falls and at least one rises. */
function isHigher(from: Grip, to: Grip): boolean {
  const steps = from.cells.map(({ midi }, voice) => nth(to.cells, voice).midi - midi);
  return steps.every((step) => step >= 0) && steps.some((step) => step > 0);
}

const ALLOWED: Readonly<Record<GripDirection, (from: Grip, to: Grip) => boolean>> = {
  nearest: () => true,
  shortest: () => true,
  up: isHigher,
  down: (from, to) => isHigher(to, from)
};

/**
 * The path from a given first grip, or from the one that gives the least movement in all (the lowest of several).
 * Where no grip lies in the direction wanted the path stops and says so.
 */
export function gripPath(
  stages: readonly GripStage[],
  direction: GripDirection,
  start: Grip | null = null
): GripPath {
  const [first, ...others] = stages;
  if (!first) return { grips: [], total: 0 };
  const starts = start ? [start] : [...first.grips].sort(byFret);
  const paths = starts.map((grip) =>
    direction === 'shortest' ? shortestFrom(grip, others) : nearestFrom(grip, others, direction)
  );
  const cells = paths.reduce<readonly Grip[]>(
    (best, path) =>
      path.length > best.length || (path.length === best.length && lengthOf(path) < lengthOf(best))
        ? path
        : best,
    []
  );
  return described(stages, cells, direction);
}

/**
 * The path that goes through a given grip of one of its stages: from it on in the direction wanted, and back from it to
 * where such a path comes from.
 */
export function gripPathThrough(
  stages: readonly GripStage[],
  direction: GripDirection,
  at: number,
  grip: Grip
): GripPath {
  const after = gripPath(stages.slice(at), direction, grip);
  const before = gripPath(stages.slice(0, at + 1).reverse(), OPPOSITE[direction], grip);
  const cells = [...before.grips.slice(1).reverse(), ...after.grips];
  const first = at + 1 - before.grips.length;
  const { grips, total } = described(stages.slice(first, first + cells.length), cells, direction);
  const ranOut = after.ranOut ?? before.ranOut;
  return { grips, total, ...(ranOut ? { ranOut } : {}) };
}

const OPPOSITE: Readonly<Record<GripDirection, GripDirection>> = {
  nearest: 'nearest',
  shortest: 'shortest',
  up: 'down',
  down: 'up'
};

function lengthOf(path: readonly Grip[]): number {
  return path.slice(1).reduce((sum, grip, i) => sum + gripDistance(nth(path, i), grip), 0);
}

/** Step by step to the nearest grip allowed; lower frets on a tie. Stops where there is none. */
function nearestFrom(start: Grip, stages: readonly GripStage[], direction: GripDirection): Grip[] {
  const path = [start];
  for (const { grips } of stages) {
    const from = lastOf(path);
    const allowed = grips.filter((grip) => ALLOWED[direction](from, grip));
    const next = allowed.sort((a, b) => gripDistance(from, a) - gripDistance(from, b) || byFret(a, b))[0];
    if (!next) break;
    path.push(next);
  }
  return path;
}

/** The least movement over all stages, by dynamic programming; lower frets on a tie. Stops before a chord without grip. */
function shortestFrom(start: Grip, stages: readonly GripStage[]): Grip[] {
  let ends: { path: readonly Grip[]; total: number }[] = [{ path: [start], total: 0 }];
  for (const { grips } of stages) {
    if (grips.length === 0) break;
    ends = [...grips].sort(byFret).map((grip) => {
      const ways = ends.map(({ path, total }) => ({ path, total: total + gripDistance(lastOf(path), grip) }));
      const best = ways.reduce((a, b) => (b.total < a.total ? b : a));
      return { path: [...best.path, grip], total: best.total };
    });
  }
  return [...ends.reduce((a, b) => (b.total < a.total ? b : a)).path];
}

function described(stages: readonly GripStage[], path: readonly Grip[], direction: GripDirection): GripPath {
  const grips = path.map((grip, i): PathGrip => {
    const before = path[i - 1];
    const moves = (before?.cells ?? []).map((cell, voice): VoiceMove => {
      const to = nth(grip.cells, voice);
      return { from: cell.note, to: to.note, semitones: to.midi - cell.midi };
    });
    return { ...grip, change: nth(stages, i).change, moves };
  });
  const total = lengthOf(path);
  const missing = stages[path.length];
  if (!missing) return { grips, total };
  const last = path.at(-1);
  const message =
    missing.grips.length === 0 || !last
      ? `${missing.where} has no grip of this kind on these strings.`
      : `The neck runs out at ${missing.where}: no grip of it lies ${direction === 'up' ? 'above' : 'below'} fret ${
          direction === 'up' ? Math.max(...last.cells.map(({ fret }) => fret)) : lowFret(last)
        } on these strings. Start ${direction === 'up' ? 'lower' : 'higher'}, or turn round there.`;
  return { grips, total, ranOut: { change: missing.change, message } };
}
