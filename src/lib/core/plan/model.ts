/** The plan: a guitarist's decisions for one chart. What is not decided follows from the chart and the rules. */
import type { Fret, StringNumber } from '../base/units';
import type { CollectionFacts } from '../approaches/collection';
import type { HarmonicFunction } from '../harmony/numeral';
import { DEFAULT_WEIGHTS, type Direction, type Register, type Weights } from '../targets/options';
import type { ApproachWish } from '../line/approach-notes';

/** How the target line is led: freely through the allowed degrees, down one column, or thirds and sevenths in turn. */
export const THREAD_RULES = ['free', '1', '3', '5', '7', 'alternate'] as const;
export type ThreadRule = (typeof THREAD_RULES)[number];

/** Which changes get a target; `long` are those over two beats, `outlined` those that the dial outlines. */
export const WHICH = ['all', 'first-of-bar', 'cadences', 'long', 'outlined'] as const;
export type WhichChanges = (typeof WHICH)[number];

export const CHORD_SLOTS = ['1', '3', '5', '7'] as const;
export type ChordSlot = (typeof CHORD_SLOTS)[number];

/** Targets under the hand, or anywhere on the neck. */
export const REACHES = ['hand', 'neck'] as const;

export type ApproachNoteWish = ApproachWish | 'none';

/** What is played over a change, as an approach offered it. */
export interface TakenChoice {
  readonly approach: string;
  readonly collection: CollectionFacts;
  /** Within the change the player goes over to another collection, from this beat of it on (1 is its start). */
  readonly then?: { readonly beat: number; readonly collection: CollectionFacts } | undefined;
}

/** When a pinned target is met in a phrase: a push early, on the change, a push late, or as the phrase has it. */
export const PIN_TIMES = ['on', 'early', 'late', 'any'] as const;
export type PinTime = (typeof PIN_TIMES)[number];

/** A target held to one cell. */
export interface Pin {
  /** Beat within the change, 1 its start; for a target inside a long change. */
  readonly beat?: number | undefined;
  readonly string: StringNumber;
  readonly fret: Fret;
  /** On the change where nothing is said. */
  readonly when?: PinTime | undefined;
}

/** What the player knows better about a change than what was found. */
export interface ReadingWish {
  readonly key?: string | undefined;
  readonly function?: HarmonicFunction | undefined;
}

/** All that was decided about one change; what is left out follows the plan. */
export interface Decision {
  /** Index of the change. */
  readonly change: number;
  /** Where the hand is, elsewhere than the plan says. */
  readonly position?: number | undefined;
  readonly choice?: TakenChoice | undefined;
  readonly reading?: ReadingWish | undefined;
  readonly approachNote?: ApproachNoteWish | undefined;
  readonly pins?: readonly Pin[] | undefined;
}

export interface Plan {
  /** Where the hand is, unless a change has a position of its own; null for the place that is easiest for it. */
  readonly position: number | null;
  /** In the order of the changes, one for each change that has any. */
  readonly decisions: readonly Decision[];
  readonly thread: ThreadRule;
  /** Chord degrees that the free line may land on. */
  readonly degrees: readonly ChordSlot[];
  readonly loop: boolean;
  /** How many changes are outlined, the most telling first; null for all of them. */
  readonly outline: number | null;
  /** The approach that outlined changes take their first choice from. */
  readonly approach: string;
  /** The player's style: what a path is charged for. */
  readonly weights: Weights;
  readonly direction: Direction;
  readonly which: WhichChanges;
  /** Beats from one target to the next inside a change; null for one at its start. */
  readonly every: number | null;
  readonly reach: (typeof REACHES)[number];
  readonly strings: readonly number[] | null;
  readonly range: Register | null;
  /** Ranges that no target lies in. */
  readonly avoid: readonly Register[];
  /** How targets are led into, unless a change says otherwise. */
  readonly approachNotes: ApproachNoteWish;
}

export const DEFAULT_PLAN: Plan = {
  position: null,
  decisions: [],
  thread: 'free',
  degrees: ['3', '7'],
  loop: true,
  outline: null,
  approach: 'modes',
  weights: DEFAULT_WEIGHTS,
  direction: 'free',
  which: 'all',
  every: null,
  reach: 'hand',
  strings: null,
  range: null,
  avoid: [],
  approachNotes: 'none'
};

/** The rules of the target line, apart from what is decided change by change. */
export const PATH_RULES = [
  'weights',
  'direction',
  'which',
  'every',
  'reach',
  'strings',
  'range',
  'avoid',
  'approachNotes'
] as const satisfies readonly (keyof Plan)[];
export type PathRules = Pick<Plan, (typeof PATH_RULES)[number]>;
