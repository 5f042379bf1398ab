/** Phrases as they come out, and on the way there. */
import type { LineNote } from '../model';
import type { PitchWay } from './pitch';
import type { Contour } from './plan';
import type { PhraseRhythm, Strike } from './rhythm';
import type { PhraseStart, Relation } from './styles';

/** A phrase as it came out; times in beats. */
export interface FoundPhrase {
  readonly from: number;
  readonly to: number;
  readonly start: PhraseStart;
  /** How it takes up the one before. */
  readonly relation?: Relation;
  readonly contour: Contour;
}

export interface FoundPhrases {
  readonly notes: readonly LineNote[];
  /** Where the hand is, for each note. */
  readonly hands: readonly number[];
  readonly phrases: readonly FoundPhrase[];
  readonly cost: number;
  /** A pinned change that could not be met. */
  readonly stuck?: number;
}

export interface SolvedPhrase {
  readonly rhythm: PhraseRhythm;
  readonly strikes: readonly Strike[];
  readonly way: Pick<PitchWay, 'places' | 'cost'>;
  readonly position: number;
}
