/** Which card comes next: those due, the longest due first, then new ones, a few a day; one that was missed comes again in the round. */
import type { Question } from './card';
import type { Memory } from './memory';

/** A card as it is known. */
export interface KnownCard {
  readonly id: string;
  readonly question: Question;
  readonly memory: Memory;
}

/** Seconds of a round. */
export const ROUND_SECONDS = 120;
/** New cards a day. */
export const NEW_A_DAY = 10;
/** Cards after which a missed one comes again. */
const AGAIN_AFTER = 3;
/** Times that it comes again in one round. */
const MOST_AGAIN = 2;

export interface Deck {
  readonly known: readonly KnownCard[];
  /** Cards that were never asked, in the order in which they are learnt. */
  readonly fresh: readonly Question[];
  /** How many new ones were asked today. */
  readonly newToday: number;
}

/** The cards of a round in their order: due at `now` (milliseconds since 1970), then new. */
export function roundOf({ known, fresh, newToday }: Deck, now: number): readonly Question[] {
  const due = known
    .filter(({ memory }) => memory.due <= now)
    .sort((a, b) => a.memory.due - b.memory.due || (a.id < b.id ? -1 : 1))
    .map(({ question }) => question);
  return mixed([...due, ...fresh.slice(0, Math.max(0, NEW_A_DAY - newToday))]);
}

/** One kind never twice running while another is there. */
function mixed(cards: readonly Question[]): Question[] {
  const left = [...cards];
  const order: Question[] = [];
  while (left.length > 0) {
    const other = left.findIndex(({ kind }) => kind !== order.at(-1)?.kind);
    order.push(...left.splice(Math.max(0, other), 1));
  }
  return order;
}

/**
 * What is still to come after an answer: a missed card again, some cards on. `times`: how often it was asked in this round;
 * what does not come today is left for another day.
 */
export function afterAnswer(
  rest: readonly Question[],
  asked: Question,
  isRight: boolean,
  times = 1
): readonly Question[] {
  if (isRight || times > MOST_AGAIN) return rest;
  return [...rest.slice(0, AGAIN_AFTER), asked, ...rest.slice(AGAIN_AFTER)];
}
