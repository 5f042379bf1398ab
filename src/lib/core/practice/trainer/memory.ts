/** When a card comes again: FSRS by its package, rated from whether it was right and how quickly, against its own history. */
import type { Seconds } from '../../base/units';
import { createEmptyCard, fsrs, Rating, type Card, type Grade } from 'ts-fsrs';

/** What is kept of a card's memory; times in milliseconds since 1970. */
export interface Memory {
  readonly due: number;
  readonly stability: number;
  readonly difficulty: number;
  readonly scheduledDays: number;
  readonly learningSteps: number;
  readonly reps: number;
  readonly lapses: number;
  readonly state: number;
  readonly last: number | null;
}

/** One answer to a card. */
export interface Review {
  /** Milliseconds since 1970. */
  readonly at: number;
  readonly isRight: boolean;
  /** Seconds until the answer. */
  readonly seconds: Seconds;
}

/** How an answer is rated: forgotten, with effort, known, at once. */
export const GRADES = ['again', 'hard', 'good', 'easy'] as const;
export type GradeName = (typeof GRADES)[number];

/** Of the card's own usual time: quicker than the first is at once, slower than the second with effort. */
const [AT_ONCE, WITH_EFFORT] = [0.6, 1.6];
/** Right answers that a card's usual time is read from. */
const HISTORY = 8;

// Nothing is left to chance: the same answers give the same days.
const scheduler = fsrs({ enable_fuzz: false });

/** The usual time of a card: the median of its latest right answers; `expected` seconds where there are none. */
export function usualSeconds(history: readonly Review[], expected: number): number {
  const times = history
    .filter(({ isRight }) => isRight)
    .slice(-HISTORY)
    .map(({ seconds }) => seconds)
    .sort((a, b) => a - b);
  return times[Math.floor((times.length - 1) / 2)] ?? expected;
}

/** The grade of an answer, from whether it is right and how fast it was for this card. Source: docs/music-rules.md, Cards. */
export function gradeOf(review: Review, history: readonly Review[], expected: number): GradeName {
  if (!review.isRight) return 'again';
  const usual = usualSeconds(history, expected);
  if (review.seconds < AT_ONCE * usual) return 'easy';
  return review.seconds > WITH_EFFORT * usual ? 'hard' : 'good';
}

/** What is kept after an answer. `before`: null for a card that was never asked. */
export function remembered(before: Memory | null, grade: GradeName, at: number): Memory {
  // A clock that was set back never lets a card have been asked after now.
  const now = Math.max(at, before?.last ?? at);
  const card = before ? cardOf(before) : createEmptyCard(new Date(now));
  const rating = (GRADES.indexOf(grade) + Rating.Again) as Grade;
  return memoryOf(scheduler.next(card, new Date(now), rating).card);
}

/** How likely it is still known, 0 to 1. */
export function recall(memory: Memory, now: number): number {
  return scheduler.get_retrievability(cardOf(memory), new Date(Math.max(now, memory.last ?? now)), false);
}

/** A card counts as known when it is known for so many days. */
const KNOWN_DAYS = 7;
/** Whether a card counts as known. */
export function isKnown({ stability, state }: Memory): boolean {
  return state === 2 && stability >= KNOWN_DAYS;
}

function cardOf(memory: Memory): Card {
  return {
    due: new Date(memory.due),
    stability: memory.stability,
    difficulty: memory.difficulty,
    elapsed_days: 0,
    scheduled_days: memory.scheduledDays,
    learning_steps: memory.learningSteps,
    reps: memory.reps,
    lapses: memory.lapses,
    state: memory.state,
    ...(memory.last === null ? {} : { last_review: new Date(memory.last) })
  };
}

function memoryOf(card: Card): Memory {
  return {
    due: card.due.getTime(),
    stability: card.stability,
    difficulty: card.difficulty,
    scheduledDays: card.scheduled_days,
    learningSteps: card.learning_steps,
    reps: card.reps,
    lapses: card.lapses,
    state: card.state,
    last: card.last_review?.getTime() ?? null
  };
}
