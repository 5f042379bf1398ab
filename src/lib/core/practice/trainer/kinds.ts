/**
 * The kinds of cards in one table (docs/music-rules.md, *Practice*): how each is asked, what solves it, and which cards a chart gives.
 * A new kind is a form of question and a row in one of the files beside this.
 */
import { sure } from '../../base/list';
import type { Instrument } from '../../neck/tuning';
import type { Degree } from '../../theory/degree';
import type { Answer, CardKindId, Question, Solution, Verdict } from './card';
import { checked } from './check';
import { becomes, lacks, moves, quality, spell } from './kinds/chords';
import { hear, outlines, phrase, sing } from './kinds/ear';
import type { CardKind, CardMaterial } from './kinds/kit';
import { compare, shape } from './kinds/shapes';
import { find, nearest, octaves } from './kinds/targets';

/** In the order in which they are learnt: targets in every octave, then under the hand, then nearest to it. */
export const CARD_KINDS: readonly CardKind[] = [
  octaves,
  find,
  spell,
  becomes,
  moves,
  nearest,
  lacks,
  compare,
  quality,
  hear,
  sing,
  outlines,
  phrase,
  shape
];

/** The kind of card of an id. */
export function kindOf(id: CardKindId): CardKind {
  return sure(
    CARD_KINDS.find((kind) => kind.id === id),
    'CARD_KINDS'
  );
}

/** A question in words. */
export function ask(question: Question): string {
  return kindOf(question.kind).ask(question);
}

/** The answer of a question on a neck, with what is shown for it and why. */
export function solve(question: Question, neck: Instrument): Solution {
  return kindOf(question.kind).solve(question, neck);
}

/** Whether an answer is right, what was wrong in it, and why. */
export function check(question: Question, answer: Answer, neck: Instrument): Verdict {
  const { isSpelling } = kindOf(question.kind);
  return checked(solve(question, neck), answer, isSpelling);
}

/** The degree that a card is about; null for those about a whole chord or shape. */
export function degreeAsked(question: Question): Degree | null {
  return 'degree' in question ? question.degree : null;
}

/** The fret where a card's hand is; null for those that lie everywhere. */
export function areaAsked(question: Question): number | null {
  if (question.kind === 'find') return question.from;
  return 'at' in question && question.kind !== 'shape' ? question.at : null;
}

/** Every card that a chart gives: kinds in turn, so that a round is never all of one kind. */
export function cardsOf(material: CardMaterial): readonly Question[] {
  const byKind = CARD_KINDS.map(({ make }) => make(material)).filter((cards) => cards.length > 0);
  const longest = Math.max(0, ...byKind.map(({ length }) => length));
  return Array.from({ length: longest }, (_, i) => byKind.flatMap((cards) => cards[i] ?? [])).flat();
}
