/** The tempo ladder and the round of keys: what changes from one round to the next. */

import { nth, sure } from '../base/list';

export const LOWEST_TEMPO = 30;
export const HIGHEST_TEMPO = 300;
/** Where a chart says none. */
export const DEFAULT_TEMPO = 100;

/** A whole tempo within what the band plays, in beats a minute. */
export function boundedTempo(tempo: number): number {
  return Math.min(HIGHEST_TEMPO, Math.max(LOWEST_TEMPO, Math.round(tempo)));
}

export interface Ladder {
  readonly start: number;
  readonly goal: number;
  /** Beats a minute added at each rung. */
  readonly step: number;
  /** Rounds on each rung. */
  readonly rounds: number;
  /** Up after every so many rounds, or only after as many that were marked clean. */
  readonly onlyClean: boolean;
}

/** The tempo after some rounds, `clean` of them marked clean since the ladder began. */
export function tempoOf(
  { start, goal, step, rounds, onlyClean }: Ladder,
  played: number,
  clean: number
): number {
  const rungs = Math.floor((onlyClean ? clean : played) / Math.max(1, rounds));
  const way = goal >= start ? 1 : -1;
  const reached = start + way * step * rungs;
  return boundedTempo(way > 0 ? Math.min(goal, reached) : Math.max(goal, reached));
}

/** Orders in which the keys go round, in semitones from one to the next. */
export const KEY_ORDERS = [
  { id: 'stay', name: 'the key of the chart', step: 0 },
  { id: 'fourths', name: 'round in fourths', step: 5 },
  { id: 'fifths', name: 'round in fifths', step: 7 },
  { id: 'up', name: 'up by semitones', step: 1 },
  { id: 'down', name: 'down by semitones', step: 11 },
  { id: 'whole', name: 'up by whole tones', step: 2 }
] as const;
export type KeyOrder = (typeof KEY_ORDERS)[number]['id'];

/** Semitones (0–11) above the chart's key in some round; whole tones go on a semitone higher once they are round. */
export function shiftOf(order: KeyOrder, round: number): number {
  const { step } = sure(
    KEY_ORDERS.find(({ id }) => id === order),
    'KEY_ORDERS'
  );
  const extra = order === 'whole' ? Math.floor((round % 12) / 6) : 0;
  return (step * round + extra) % 12;
}

/** Beats a minute from the times of taps, in seconds, oldest first; null for fewer than two taps or a pause. */
export function tappedTempo(taps: readonly number[]): number | null {
  const recent = taps.slice(-5);
  const gaps = recent.slice(1).map((tap, i) => tap - nth(recent, i));
  if (gaps.length === 0 || gaps.some((gap) => gap > 60 / LOWEST_TEMPO + 0.5)) return null;
  return boundedTempo(60 / (gaps.reduce((sum, gap) => sum + gap, 0) / gaps.length));
}
