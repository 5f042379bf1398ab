/** The parts a session is made of (docs/music-rules.md, *Practice*). */
import type { Bars } from '../log/model';
import type { Step } from '../progress/turn';

export type PartKind = 'cards' | 'seam' | 'new' | 'in progress' | 'held' | 'form' | 'free' | 'rest';

/** In the order in which they are played: cards, then where it hurts, then what is new, the rest, the form at the end. */
export const PARTS: Readonly<Record<PartKind, { readonly name: string }>> = {
  cards: { name: 'Cards' },
  seam: { name: 'A seam' },
  new: { name: 'Something new' },
  'in progress': { name: 'In progress' },
  held: { name: 'Held' },
  form: { name: 'The whole form' },
  free: { name: 'Look around' },
  rest: { name: 'Rest' }
};

/** Minutes of playing for which one of rest is due; no part is longer. */
export const REST_FOR = 20;
/** The fewest and the most minutes that can be planned. */
export const [FEWEST_MINUTES, MOST_MINUTES] = [1, 240];

/** One part of a session. */
export interface SessionPart {
  readonly kind: PartKind;
  readonly minutes: number;
  /** The item it is for; none for cards and rests. */
  readonly item?: string;
  readonly chart?: string;
  readonly key?: string;
  /** What is looped to begin with; the whole where nothing is said. */
  readonly bars?: Bars;
  /** Beats a minute of its first loop. */
  readonly tempo?: number;
  /** The stretches that are played, one after the other, each with its ladder. */
  readonly steps?: readonly Step[];
  readonly why: string;
}

/** Rests that a session of so many minutes holds. */
export function restsIn(minutes: number): number {
  return Math.floor(minutes / REST_FOR);
}
