/** A round of cards: two minutes of questions, each answered once, what was missed asked again. */
/* eslint-disable svelte/prefer-svelte-reactivity -- the maps and sets here are made anew, or are looked at on a press only */
import type { SentReview, TrainerData } from '$lib/api/practice';
import { readSheet } from '$lib/core/harmony/sheet';
import { placeOf } from '$lib/core/neck/area';
import type { Instrument } from '$lib/core/neck/tuning';
import { pitchClass, type NoteName } from '$lib/core/theory/note';
import {
  cardId,
  type Answer,
  type Place,
  type Question,
  type Verdict
} from '$lib/core/practice/trainer/card';
import { afterAnswer, ROUND_SECONDS, roundOf } from '$lib/core/practice/trainer/deck';
import { ask, cardsOf, check, kindOf, solve } from '$lib/core/practice/trainer/kinds';
import { logBox, reviewBox } from './practice-log';
import { dayHere } from '../day-here';

/** Milliseconds of silence after which another note is another one: sung, then played. */
const STILL_SUNG = 700;

export class Trainer {
  readonly neck: Instrument;
  #data: TrainerData;
  /** Cards still to come in this round. */
  #rest: readonly Question[] = [];
  /** Cards that were asked in this visit, known or new. */
  readonly #asked = new Map<string, { readonly isRight: boolean }>();

  /** How often a card was asked in this round. */
  readonly #times = new Map<string, number>();

  question: Question | null = $state.raw(null);
  verdict: Verdict | null = $state.raw(null);
  /** Places that have been tapped, or notes that were played, for this question. */
  tapped: readonly Place[] = $state.raw([]);
  heard: readonly number[] = $state.raw([]);
  isRunning = $state(false);
  isOver = $state(false);
  right = $state(0);
  wrong = $state(0);
  /** Seconds left of the round. */
  left = $state(ROUND_SECONDS);
  /** Cards of the round that were missed, to be looked at when it is over. */
  missed: readonly { readonly asked: string; readonly why: string }[] = $state.raw([]);

  #began = 0;
  #asking = 0;
  #heardAt = 0;
  #row = '';
  #revision = 0;

  constructor(data: TrainerData, neck: Instrument) {
    this.#data = data;
    this.neck = neck;
  }

  /** How many cards wait: due, and new. */
  waiting(now: number): { readonly due: number; readonly fresh: number } {
    const round = this.#deck(now);
    const known = new Set(this.#data.cards.map(({ id }) => id));
    const due = round.filter((question) => known.has(cardId(question))).length;
    return { due, fresh: round.length - due };
  }

  #deck(now: number): readonly Question[] {
    const { cards, charts, newToday } = this.#data;
    // What was answered a moment ago is not due again before the next visit.
    const known = cards.filter(({ id }) => !this.#asked.get(id)?.isRight);
    const ids = new Set(cards.map(({ id }) => id));
    const all = charts.map(({ source, positions }) =>
      cardsOf({ analysis: readSheet(source).analysis, neck: this.neck, positions })
    );
    const longest = Math.max(0, ...all.map(({ length }) => length));
    // Charts in turn; a question that two of them ask is one card.
    const mixed = Array.from({ length: longest }, (_, i) => all.flatMap((own) => own[i] ?? [])).flat();
    const fresh = [...new Map(mixed.map((question) => [cardId(question), question])).entries()]
      .filter(([id]) => !ids.has(id) && !this.#asked.has(id))
      .map(([, question]) => question);
    const askedNew = [...this.#asked.keys()].filter((id) => !ids.has(id)).length;
    return roundOf({ known, fresh, newToday: newToday + askedNew }, now);
  }

  start(now: number): void {
    this.#rest = this.#deck(now);
    this.#times.clear();
    this.right = 0;
    this.wrong = 0;
    this.missed = [];
    this.#began = now;
    this.#row = crypto.randomUUID();
    this.#revision = 0;
    this.left = ROUND_SECONDS;
    this.isOver = false;
    this.isRunning = true;
    this.next(now);
  }

  tick(now: number): void {
    if (this.isRunning) this.left = Math.max(0, ROUND_SECONDS - (now - this.#began) / 1000);
  }

  /** The next card; the round ends with its time, or with its cards. */
  next(now: number): void {
    this.tick(now);
    const [question, ...rest] = this.#rest;
    this.verdict = null;
    this.tapped = [];
    this.heard = [];
    if (!question || this.left === 0) {
      this.end();
      return;
    }
    this.#rest = rest;
    this.question = question;
    this.#asking = now;
  }

  /** The round is over; what has been answered is kept. */
  end(): void {
    this.isRunning = false;
    this.isOver = true;
    this.question = null;
    this.verdict = null;
  }

  /** A place is tapped: it answers at once where one is asked for, else it is chosen or let go. */
  tap(place: Place, now: number): void {
    const { question } = this;
    if (!question || this.verdict) return;
    const { way } = kindOf(question.kind);
    if (way === 'cell') this.answer({ way: 'neck', cells: [place] }, now);
    else if (way === 'cells') {
      const isThere = this.tapped.some((one) => placeOf(one) === placeOf(place));
      this.tapped = isThere
        ? this.tapped.filter((one) => placeOf(one) !== placeOf(place))
        : [...this.tapped, place];
    }
  }

  /** A note is played: it answers once as many different ones were played as are asked for. */
  hear(midi: number, now: number): void {
    const { question } = this;
    if (!question || this.verdict || !kindOf(question.kind).sounds) return;
    const { need, notes } = solve(question, this.neck);
    const { isSung } = kindOf(question.kind);
    // A voice that wavers is heard more than once: what comes at once after it is still it.
    if (isSung && this.heard.length > 0 && now - this.#heardAt < STILL_SUNG) {
      this.#heardAt = now;
      return;
    }
    this.#heardAt = now;
    this.heard = [...this.heard, midi];
    // Sung right, it is to be played too.
    const isRight = notes.some((name) => pitchClass(name) === midi % 12);
    if (isSung && this.heard.length < 2 && isRight) return;
    const different = new Set(this.heard.map((one) => one % 12)).size;
    if (need === 'one' || different >= new Set(notes.map(pitchClass)).size) {
      this.answer({ way: 'sound', midi: this.heard }, now);
    }
  }

  /** What has been tapped is the answer. */
  submit(now: number): void {
    this.answer({ way: 'neck', cells: this.tapped }, now);
  }

  answerNames(notes: readonly NoteName[], now: number): void {
    this.answer({ way: 'names', notes }, now);
  }

  answer(answer: Answer, now: number): void {
    const { question } = this;
    if (!question || this.verdict) return;
    const verdict = check(question, answer, this.neck);
    this.verdict = verdict;
    if (answer.way === 'neck') this.tapped = answer.cells;
    if (verdict.isRight) this.right += 1;
    else {
      this.wrong += 1;
      this.missed = [...this.missed, { asked: ask(question), why: verdict.why }];
    }
    const id = cardId(question);
    const isAgain = this.#asked.has(id);
    this.#asked.set(id, { isRight: verdict.isRight });
    const times = (this.#times.get(id) ?? 0) + 1;
    this.#times.set(id, times);
    this.#rest = afterAnswer(this.#rest, question, verdict.isRight, times);
    // A card that was missed and comes again in the round is learnt by it, not remembered.
    if (!isAgain || !verdict.isRight) this.#keep(question, verdict.isRight, now);
    this.#log(now);
  }

  #keep(question: Question, isRight: boolean, now: number): void {
    const review: SentReview = {
      id: crypto.randomUUID(),
      question,
      at: now,
      day: dayHere(now),
      isRight,
      seconds: Math.min(3600, Math.round((now - this.#asking) / 100) / 10)
    };
    reviewBox.put(review);
  }

  /** The round as far as it has come is in the log after every answer. */
  #log(now: number): void {
    logBox.put({
      id: this.#row,
      item: null,
      chart: null,
      kind: 'trainer',
      what: 'Cards',
      startedAt: this.#began,
      day: dayHere(this.#began),
      seconds: Math.round((now - this.#began) / 1000),
      rounds: 1,
      tempo: null,
      clean: null,
      key: null,
      area: null,
      note: '',
      stumbles: [],
      asked: this.right + this.wrong,
      right: this.right,
      revision: ++this.#revision
    });
  }
}
