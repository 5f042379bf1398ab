/**
 * Beats against the seconds of a clock: where the music is, and what has to be sounded next. The clock's time is passed
 * in, so that a test can be the clock.
 */
import type { SoundEvent } from './events';

/** The music stood at this beat at this second, and goes on at this tempo. Beats before 0 are the count-in. */
export interface Anchor {
  readonly second: number;
  readonly beat: number;
  /** Beats a minute. */
  readonly tempo: number;
}

export function beatAt({ second, beat, tempo }: Anchor, now: number): number {
  return beat + ((now - second) * tempo) / 60;
}

export function secondAt({ second, beat, tempo }: Anchor, at: number): number {
  return second + ((at - beat) * 60) / tempo;
}

/** Goes on from the same beat at another tempo: the phase is kept. */
export function retimed(anchor: Anchor, now: number, tempo: number): Anchor {
  return { second: now, beat: beatAt(anchor, now), tempo };
}

/** One round of what is played, and the bar of clicks before it. */
export interface Round {
  readonly events: readonly SoundEvent[];
}

export interface DueEvent extends SoundEvent {
  /** Beats since the start of the first round. */
  readonly at: number;
  readonly round: number;
}

/**
 * The events whose time lies in `from`…`to` (beats since the first round, the end out), round by round. `roundOf` is asked
 * for every round that is touched.
 */
export function dueEvents(
  roundOf: (round: number) => Round,
  countIn: readonly SoundEvent[],
  beats: number,
  from: number,
  to: number
): DueEvent[] {
  const before = countIn
    .filter(({ start }) => start >= from && start < to)
    .map((event): DueEvent => ({ ...event, at: event.start, round: 0 }));
  const rounds = [];
  for (let round = Math.max(0, Math.floor(from / beats)); round * beats < to; round++) rounds.push(round);
  const inside = rounds.flatMap((round) =>
    roundOf(round)
      .events.map((event): DueEvent => ({ ...event, at: round * beats + event.start, round }))
      .filter(({ at }) => at >= from && at < to)
  );
  return [...before, ...inside];
}

/**
 * The events that can still be sounded: after a sleep or a long pause of the page what is past by more than `slack` seconds
 * is left out, so that nothing piles up.
 */
export function stillPlayable(
  events: readonly DueEvent[],
  anchor: Anchor,
  now: number,
  slack: number
): { readonly event: DueEvent; readonly second: number }[] {
  return events
    .map((event) => ({ event, second: secondAt(anchor, event.at) }))
    .filter(({ second }) => second >= now - slack)
    .map(({ event, second }) => ({ event, second: Math.max(now, second) }));
}
