/** The player's rules for a target path, and the weights of its cost. */
import { firstOf, lastOf } from '../base/list';
import type { Fret, StringNumber } from '../base/units';
import type { Degree } from '../theory/degree';
import { STANDARD, type Instrument } from '../neck/tuning';

/** A degree wish: a chord degree whatever its quality, or a tension by name. */
export type DegreeWish = '1' | '3' | '5' | '7' | Degree;

export interface Weights {
  readonly degree: Readonly<Record<'1' | '3' | '5' | '7' | 'tension', number>>;
  /** Per semitone. */
  readonly pitch: number;
  /** Per fret beyond three. */
  readonly hand: number;
  /** Per string crossed. */
  readonly string: StringNumber;
  /** Once where a pitch is repeated. */
  readonly repeat: number;
  /** Once where a pitch is held although another 3 or 7 of the two chords moves by a step. */
  readonly held: number;
  /** Per semitone outside the solo register; where the player names no place on the neck. */
  readonly register: number;
  /** On the fifth string or a lower one; where the player names no place on the neck. */
  readonly low: number;
}

/** Source: docs/music-rules.md, Targets and the path. */
export const DEFAULT_WEIGHTS: Weights = {
  degree: { '3': 0, '7': 0.5, '1': 1, '5': 1.5, tension: 2 },
  pitch: 1,
  hand: 2,
  string: 0.25,
  repeat: 0,
  held: 1.25,
  register: 0.5,
  low: 0.75
};

/** Frets between two targets that the hand covers without a charge. */
export const FREE_FRETS = 3;

/**
 * A rising line goes up at every target, a falling one down; an arch rises to the middle of its targets and falls from there, and may stay on
 * its way.
 */
export const DIRECTIONS = ['free', 'rising', 'falling', 'arch'] as const;
export type Direction = (typeof DIRECTIONS)[number];

/** Which changes get a target: all, one a bar, those in cadences, those that last, or those that are named. */
export type Which =
  | 'all'
  | 'first-of-bar'
  | 'cadences'
  | { readonly longerThan: number }
  | { readonly only: readonly number[] };

/** MIDI numbers from the lowest to the highest, both in. */
export interface Register {
  readonly low: number;
  readonly high: number;
}

export interface FixedTarget {
  readonly change: number;
  /** Beat within the change; 1, its start, where none is said. */
  readonly beat?: number | undefined;
  readonly string: StringNumber;
  readonly fret: Fret;
}

export interface TargetOptions {
  readonly neck: Instrument;
  readonly degrees: readonly DegreeWish[];
  /**
   * Where a chord lacks a wished degree, others may stand in: the 6 of a sixth chord for its seventh, root and fifth
   * where it has none of the wished degrees at all.
   */
  readonly standIn: boolean;
  /** One degree throughout; wins over `degrees`. */
  readonly column: DegreeWish | null;
  /** Thirds and sevenths in turn; wins over `degrees`. */
  readonly alternate: boolean;
  readonly direction: Direction;
  readonly fixed: readonly FixedTarget[];
  readonly which: Which;
  /** The step from the last target back to the first counts. */
  readonly loop: boolean;
  readonly weights: Weights;
  /** Where the hand is: one position for all changes, or one for each (a window that travels). */
  readonly position: number | readonly number[] | null;
  /** The hand was put there as it is easiest, and not by the player: the line sings in the solo register all the same. */
  readonly isHandFree: boolean;
  readonly window: { readonly from: number; readonly to: number } | null;
  readonly strings: readonly number[] | null;
  readonly range: Register | null;
  /** Registers that no target may lie in. */
  readonly avoid: readonly Register[];
  /** Beats from one target to the next inside a change; null for one at its start. The later ones take another tone. */
  readonly every: number | null;
  /** Number of paths wanted. */
  readonly alternatives: number;
}

/** From the fret 5 of the fourth string to the fret 12 of the first one: where a solo sings. Source: docs/music-rules.md, Targets. */
export function soloRegister({ strings }: Instrument): Register {
  const [first, fourth] = [firstOf(strings), strings[3] ?? lastOf(strings)];
  return { low: fourth + 5, high: first + 12 };
}

/** The lowest string that a target is not charged for. */
export const LOWEST_FREE_STRING = 4;

/** A path over the whole neck through any chord degree, with no further wish. */
export const FREE_PATH: TargetOptions = {
  neck: STANDARD,
  degrees: ['1', '3', '5', '7'],
  standIn: false,
  column: null,
  alternate: false,
  direction: 'free',
  fixed: [],
  which: 'all',
  loop: false,
  weights: DEFAULT_WEIGHTS,
  position: null,
  isHandFree: false,
  window: null,
  strings: null,
  range: null,
  avoid: [],
  every: null,
  alternatives: 1
};
