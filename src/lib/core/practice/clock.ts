/**
 * Beats against the seconds of a clock: where the music is, and what has to be sounded next. The clock's time is passed
 * in, so that a test can be the clock. Rounds follow one another as they are laid down: each may have its own length and
 * tempo, for the chart may be changed while it is played.
 */
import { firstOf, lastOf } from '../base/list';
import type { Beats, Seconds } from '../base/units';
import type { SoundEvent } from './events';

/** The music stood at this beat at this second, and goes on at this tempo. Beats before 0 are the count-in. */
export interface Anchor {
  readonly second: number;
  readonly beat: number;
  /** Beats a minute. */
  readonly tempo: number;
}

/** Anchors in the order of time: the tempo is that of the last one passed. Never empty. */
export type Tempos = readonly Anchor[];

function lastBefore(tempos: Tempos, isPassed: (anchor: Anchor) => boolean): Anchor {
  return tempos.filter(isPassed).at(-1) ?? firstOf(tempos);
}

/** The beat that sounds at a time of the clock, in seconds. */
export function beatAt(tempos: Tempos, now: number): number {
  const { second, beat, tempo } = lastBefore(tempos, (anchor) => anchor.second <= now);
  return beat + ((now - second) * tempo) / 60;
}

/** The time of the clock, in seconds, at which a beat sounds. */
export function secondAt(tempos: Tempos, at: number): number {
  const { second, beat, tempo } = lastBefore(tempos, (anchor) => anchor.beat <= at);
  return second + ((at - beat) * 60) / tempo;
}

/** Goes on at another tempo from a beat on; what lies before it keeps its time, so that nothing sounds out of order. */
export function retimed(tempos: Tempos, beat: number, tempo: number): Tempos {
  return [...tempos.filter((anchor) => anchor.beat < beat), { second: secondAt(tempos, beat), beat, tempo }];
}

/** One round of what is played. */
export interface Round {
  readonly events: readonly SoundEvent[];
  /** Its length. */
  readonly beats: Beats;
  /** Beats a minute. */
  readonly tempo: number;
}

/** A round in its place. */
export interface LaidRound<R extends Round = Round> {
  readonly number: number;
  /** Beats since the first round began. */
  readonly start: Beats;
  readonly round: R;
}

/** Other events for the rounds that are not over at a beat; each keeps its place and length. */
export function relaid<R extends Round>(
  laid: readonly LaidRound<R>[],
  from: number,
  make: (laid: LaidRound<R>, from: number) => R
): LaidRound<R>[] {
  return laid.map((one) =>
    one.start + one.round.beats > from ? { ...one, round: make(one, Math.max(0, from - one.start)) } : one
  );
}

/** The events of a round up to a beat, and of another one from there on; what sounds across it is cut. */
export function switchedAt(
  before: readonly SoundEvent[],
  after: readonly SoundEvent[],
  beat: number
): SoundEvent[] {
  const kept = before
    .filter(({ start }) => start < beat)
    .map((event) =>
      event.part !== 'line' && event.start + event.beats > beat
        ? { ...event, beats: beat - event.start }
        : event
    );
  return [...kept, ...after.filter(({ start }) => start >= beat)];
}

/** The first beat that no round covers yet. */
export function endOf(laid: readonly LaidRound[]): number {
  const last = laid.at(-1);
  return last ? last.start + last.round.beats : 0;
}

/** The round that sounds at a beat; the first one while counting in, the last one past the end. */
export function roundAt<R extends Round>(laid: readonly LaidRound<R>[], beat: number): LaidRound<R> | null {
  return laid.filter(({ start }) => start <= beat + 1e-9).at(-1) ?? laid[0] ?? null;
}

/** Beats that something may sound before its round: a pickup of two bars of the longest meters. */
const MOST_LEAD = 48;

export interface DueEvent extends SoundEvent {
  /** Beats since the start of the first round. */
  readonly at: number;
  readonly round: number;
}

/** The events whose time lies in `from`…`to` (beats since the first round, the end out), round by round. */
export function dueEvents(
  laid: readonly LaidRound[],
  countIn: readonly SoundEvent[],
  from: number,
  to: number
): DueEvent[] {
  const before = countIn
    .filter(({ start }) => start >= from && start < to)
    .map((event): DueEvent => ({ ...event, at: event.start, round: 0 }));
  const inside = laid
    // What leads into a round sounds before it begins.
    .filter(({ start, round }) => start - MOST_LEAD < to && start + round.beats > from)
    .flatMap(({ number, start, round }) =>
      round.events
        .map((event): DueEvent => ({ ...event, at: start + event.start, round: number }))
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
  tempos: Tempos,
  now: number,
  slack: number
): { readonly event: DueEvent; readonly second: number; readonly seconds: Seconds }[] {
  return events
    .map((event) => ({
      event,
      second: secondAt(tempos, event.at),
      seconds: secondAt(tempos, event.at + event.beats) - secondAt(tempos, event.at)
    }))
    .filter(({ second }) => second >= now - slack)
    .map((playable) => ({ ...playable, second: Math.max(now, playable.second) }));
}

/** Where a program stands: what has been laid down and handed over, and how time runs. */
export interface Progress<R extends Round = Round> {
  readonly tempos: Tempos;
  readonly laid: readonly LaidRound<R>[];
  /** Events before this beat have been handed over. */
  readonly handed: number;
}

/** Rounds that are past and still known: the drawing may be a little behind the sound. */
const KEPT_ROUNDS = 3;

/**
 * Lays down rounds until the second `horizon` is covered, asking for each as late as can be, and tells what has to be
 * handed over. A round with another tempo begins with it. `roundOf` gives null where there is nothing more to play.
 */
export function advance<R extends Round>(
  progress: Progress<R>,
  countIn: readonly SoundEvent[],
  roundOf: (round: number) => R | null,
  horizon: number
): { readonly progress: Progress<R>; readonly due: readonly DueEvent[] } {
  let { tempos, laid } = progress;
  let to = beatAt(tempos, horizon);
  while (endOf(laid) < to) {
    const number = (laid.at(-1)?.number ?? -1) + 1;
    const round = roundOf(number);
    if (!round || round.beats <= 0) break;
    const start = endOf(laid);
    laid = [...laid, { number, start, round }];
    if (round.tempo !== lastOf(tempos).tempo) {
      tempos = retimed(tempos, start, round.tempo);
      to = beatAt(tempos, horizon);
    }
  }
  if (to <= progress.handed) return { progress: { ...progress, tempos, laid }, due: [] };
  const due = dueEvents(laid, countIn, progress.handed, to);
  const past = laid.findIndex(({ start, round }) => start + round.beats > to);
  return {
    progress: {
      tempos,
      laid: laid.slice(Math.max(0, (past < 0 ? laid.length : past) - KEPT_ROUNDS)),
      handed: to
    },
    due
  };
}
