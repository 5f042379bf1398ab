/** Cards of the trainer: what is asked, what answers it, and what is said to the answer. A card stands by itself: no chart is needed to ask it. */
import type { Fret, Midi, StringNumber } from '../../base/units';
import type { Degree } from '../../theory/degree';
import type { NoteName } from '../../theory/note';

/** What is asked. Symbols, keys and scales are written as in JSON; frets are counted both in. */
export type Question =
  | {
      readonly kind: 'find';
      readonly symbol: string;
      readonly degree: Degree;
      readonly from: number;
      readonly to: number;
    }
  | { readonly kind: 'octaves'; readonly symbol: string; readonly degree: Degree; readonly to: number }
  | {
      readonly kind: 'becomes';
      readonly from: string;
      readonly degree: Degree;
      readonly to: string;
      readonly at: number;
    }
  | { readonly kind: 'moves'; readonly from: string; readonly to: string; readonly at: number }
  | { readonly kind: 'lacks'; readonly symbol: string; readonly key: string; readonly at: number }
  | { readonly kind: 'spell'; readonly symbol: string }
  | { readonly kind: 'shape'; readonly scale: string; readonly at: number }
  | {
      readonly kind: 'hear';
      readonly symbol: string;
      readonly key: string;
      readonly among: readonly string[];
    }
  | { readonly kind: 'sing'; readonly symbol: string; readonly degree: Degree }
  | {
      readonly kind: 'nearest';
      readonly from: string;
      readonly degree: Degree;
      readonly to: string;
      readonly target: Degree;
      readonly string: StringNumber;
      readonly at: number;
    }
  | {
      readonly kind: 'compare';
      readonly from: string;
      readonly to: string;
      readonly symbol: string;
      readonly at: number;
    }
  /** One tone moves so many semitones. */
  | { readonly kind: 'quality'; readonly symbol: string; readonly degree: Degree; readonly step: number }
  | { readonly kind: 'outlines'; readonly symbol: string; readonly key: string; readonly turn: number }
  /** On one string; in the window where the string is 0. */
  | { readonly kind: 'phrase'; readonly symbol: string; readonly at: number; readonly string: StringNumber };

export type CardKindId = Question['kind'];

/** A place on the neck, string 1 the highest. */
export interface Place {
  readonly string: StringNumber;
  readonly fret: Fret;
}

/** How a player has answered. */
export type Answer =
  | { readonly way: 'neck'; readonly cells: readonly Place[] }
  /** Names typed, in the order typed. */
  | { readonly way: 'names'; readonly notes: readonly NoteName[] }
  /** Played or sung, as MIDI numbers; the octave is free. */
  | { readonly way: 'sound'; readonly midi: readonly number[] }
  | { readonly way: 'choice'; readonly choice: string }
  /** The player’s own ear: whether it was that. */
  | { readonly way: 'own'; readonly isRight: boolean };

export interface SolvedCell extends Place {
  readonly midi: Midi;
  readonly note: NoteName;
  readonly degree: Degree;
}

/** What answers a card. */
export interface Solution {
  /** Places that are right. */
  readonly cells: readonly SolvedCell[];
  /** One of them, every one, or one of each note. */
  readonly need: 'one' | 'every' | 'each';
  /** The notes that are right, in their order. */
  readonly notes: readonly NoteName[];
  /** The choice that is right, and all that there are. */
  readonly choice?: string;
  readonly choices?: readonly string[];
  /** Why, in a sentence. */
  readonly why: string;
}

export interface Verdict {
  readonly isRight: boolean;
  /** Places or notes that were named and are wrong. */
  readonly wrong: readonly Place[];
  /** Places that are right and were not named. */
  readonly missed: readonly SolvedCell[];
  readonly why: string;
}

/** The same question has the same id, in whichever chart it was met. */
export function cardId(question: Question): string {
  const { kind, ...rest } = question;
  return [
    kind,
    ...Object.values(rest).map((value) => (Array.isArray(value) ? value.join(',') : String(value)))
  ].join('|');
}
