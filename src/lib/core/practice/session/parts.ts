/** The parts a session is made of: what each is worth and why it is there (9-practice, *The plan for today*). */

export type PartKind = 'cards' | 'seam' | 'new' | 'in progress' | 'held' | 'form' | 'free' | 'rest';

interface PartFacts {
  readonly name: string;
  readonly value: number;
  /** Its own minutes, where the item does not say. */
  readonly minutes: number;
}

/** In the order in which they are played: what is due, then where it hurts, then what is new, then the rest. */
export const PARTS: Readonly<Record<PartKind, PartFacts>> = {
  cards: { name: 'Cards', value: 10, minutes: 2 },
  seam: { name: 'A seam', value: 8, minutes: 5 },
  new: { name: 'Something new', value: 5, minutes: 5 },
  'in progress': { name: 'In progress', value: 6, minutes: 5 },
  held: { name: 'Held', value: 4, minutes: 5 },
  form: { name: 'The whole form', value: 3, minutes: 5 },
  free: { name: 'Play freely', value: 0, minutes: 5 },
  rest: { name: 'Rest', value: 0, minutes: 1 }
};

export const PART_ORDER = Object.keys(PARTS) as PartKind[];

/** Minutes of playing for which one of rest is due. */
export const REST_FOR = 20;
/** The fewest and the most minutes that can be planned. */
export const [FEWEST_MINUTES, MOST_MINUTES] = [1, 240];
/** Seams that are offered at most, the weakest first. */
export const MOST_SEAMS = 2;
/** Minutes of a session for which one held item, longest untouched, is worth its full value; the others a share of it. */
export const HELD_FOR = 10;
export const WORTH_LATER = 0.5;
/** Minutes under which a form is taken as its first section alone. */
export const WHOLE_FORM = 4;

/** One part of a session. */
export interface SessionPart {
  readonly kind: PartKind;
  readonly minutes: number;
  /** The item it is for; none for cards, forms and rests. */
  readonly item?: string;
  readonly chart?: string;
  /** The change that a seam leads into, where it is one. */
  readonly change?: number;
  readonly key?: string;
  /** Fourths that the key lies above that of the item; not said for its own key. */
  readonly fourths?: number;
  readonly tempo?: number;
  /** How much of a form is played. */
  readonly scope?: 'whole' | 'first section';
  readonly why: string;
}

/** A change of a chart at which the player stumbled lately. */
export interface Stumbled {
  readonly chart: string;
  /** The change that goes wrong. */
  readonly change: number;
  readonly times: number;
  /** The chord there, as it is typed. */
  readonly symbol: string;
}

/** Times that a change has to go wrong for it to be a seam. */
export const STUMBLED_OFTEN = 3;

/** Rests that a session of so many minutes holds. */
export function restsIn(minutes: number): number {
  return Math.floor(minutes / REST_FOR);
}
