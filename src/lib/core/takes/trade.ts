/**
 * Trading: Corvel plays some bars, the player answers for as many, round after round. Who plays when, what of a recording is the player's
 * own, and how each answer stands to what was called. Source: docs/music-rules.md, Trading.
 */
import { lastOf, nth, sure } from '../base/list';
import type { Midi } from '../base/units';
import { mean } from 'd3-array';
import type { Form } from '../chart/unroll';
import { beatsOf, type LineNote } from '../line/model';
import type { Verdict } from '../line/outline';
import { counted } from '../theory/words';
import type { BeatNote } from './align';

/** Bars that each plays at a time. */
export const TRADE_BARS = [2, 4] as const;
export type TradeBars = (typeof TRADE_BARS)[number];

/** Some bars of one player, in beats since the first round began. */
export interface Turn {
  readonly isOwn: boolean;
  readonly from: number;
  readonly to: number;
  /** Which time through the form, from 0. */
  readonly round: number;
  /** Bars of the form, both in. */
  readonly bars: { readonly from: number; readonly to: number };
}

/**
 * The turns of some rounds. Corvel begins; the bars of a form that are left over at its end are a turn of their own, so that where their
 * number is odd the player has in the second round what Corvel had in the first.
 */
export function turnsIn(form: Form, size: TradeBars, rounds: number): Turn[] {
  const { bars, beats } = form;
  const groups = Array.from({ length: Math.ceil(bars.length / size) }, (_, i) => {
    const [first, last] = [nth(bars, i * size), nth(bars, Math.min(bars.length, (i + 1) * size) - 1)];
    const next = bars[(i + 1) * size];
    return { from: first.start, to: next?.start ?? beats, bars: { from: first.number, to: last.number } };
  });
  return Array.from({ length: rounds }, (_, round) =>
    groups.map((group, i): Turn => ({
      bars: group.bars,
      isOwn: (round * groups.length + i) % 2 === 1,
      from: round * beats + group.from,
      to: round * beats + group.to,
      round
    }))
  ).flat();
}

/** The turn that a beat lies in; absent before the first and after the last. */
export const turnAt = (turns: readonly Turn[], beat: number): Turn | undefined =>
  turns.find(({ from, to }) => beat >= from && beat < to);

/** A note this far before a turn is picked up into it, and this far after it is where it ends, in beats. */
const PICKED_UP = 0.6;
const ENDS_ON = 0.6;
/** A note of the player's own pitch and time, so near one that Corvel plays, is Corvel's, heard by the microphone; in beats. */
const LEAKS = 0.2;

/** Of what was heard, what the player played: in their turns, and nothing that Corvel played itself. */
export function ownNotes<N extends { readonly midi: Midi }>(
  notes: readonly N[],
  beatOf: (note: N) => number,
  turns: readonly Turn[],
  call: readonly LineNote[]
): N[] {
  const own = turns.filter(({ isOwn }) => isOwn);
  return notes.filter((note) => {
    const beat = beatOf(note);
    const leaks = call.some(
      ({ start, midi }) => midi === note.midi && Math.abs(beatsOf(start) - beat) <= LEAKS
    );
    return !leaks && own.some(({ from, to }) => beat >= from - PICKED_UP && beat < to + ENDS_ON);
  });
}

/** How an answer stands to its call. Shares are 0 to 1, null where there is nothing to compare. */
export interface Exchange {
  readonly call: Turn;
  readonly answer: Turn;
  readonly called: number;
  readonly answered: number;
  /** Of the places in the turn that either begins a note at: those that both do. */
  readonly rhythm: number | null;
  /** Of the steps between notes that both have: those that go the same way. */
  readonly shape: number | null;
  /** Semitones from the last note of the call to the first of the answer. */
  readonly begins: number | null;
  /** Beats of silence before the answer. */
  readonly waits: number | null;
  /** Of the changes of the answer: the share whose chord could be heard, those in part for half. */
  readonly heard: number | null;
  readonly kind: AnswerKind;
}

/** What an answer is, the first that holds. */
export type AnswerKind = 'open' | 'given back' | 'rhythm' | 'shape' | 'denser' | 'sparser' | 'own';

/** Where one kind of answer ends and the next begins. */
const KINDS = { givenBack: 0.7, rhythm: 0.6, shape: 0.75, denser: 1.6, sparser: 0.6 } as const;
/** Notes begin at one place where they are this near, in beats. */
const TOGETHER = 0.17;
/** Steps that tell of a shape. */
const FEWEST_STEPS = 3;

/** The exchanges of a trade: a call with the answer that follows it. `played`: the player's own notes; `call`: in ticks since the first round. */
export function exchangesOf(
  turns: readonly Turn[],
  played: readonly BeatNote[],
  call: readonly LineNote[],
  changes: readonly { readonly start: number; readonly verdict: Verdict }[]
): Exchange[] {
  return turns.flatMap((answer, i): Exchange[] => {
    const before = turns[i - 1];
    if (!answer.isOwn || !before) return [];
    const called = call.filter(({ start }) => beatsOf(start) >= before.from && beatsOf(start) < before.to);
    const answered = played.filter(({ at }) => at >= answer.from - PICKED_UP && at < answer.to);
    const pairs = together(
      called.map(({ start, midi }) => ({ at: beatsOf(start) - before.from, midi })),
      answered.map(({ at, midi }) => ({ at: at - answer.from, midi }))
    );
    const sum = called.length + answered.length;
    const rhythm = called.length && answered.length ? (2 * pairs.length) / sum : null;
    const shape = shapeOf(pairs);
    const [first] = answered;
    const verdicts = changes
      .filter(({ start }) => start >= answer.from && start < answer.to)
      .map(({ verdict }) => (verdict === 'clear' ? 1 : verdict === 'partly' ? 0.5 : 0));
    return [
      {
        call: before,
        answer,
        called: called.length,
        answered: answered.length,
        rhythm,
        shape,
        begins: first && called.length ? first.midi - lastOf(called).midi : null,
        waits: first ? Math.max(0, first.at - answer.from) : null,
        heard: answered.length ? (mean(verdicts) ?? null) : null,
        kind: kindOf(called.length, answered.length, rhythm, shape)
      }
    ];
  });
}

function kindOf(called: number, answered: number, rhythm: number | null, shape: number | null): AnswerKind {
  if (answered === 0) return 'open';
  const [inRhythm, inShape] = [rhythm ?? 0, shape ?? 0];
  if (inRhythm >= KINDS.givenBack && inShape >= KINDS.givenBack) return 'given back';
  if (inRhythm >= KINDS.rhythm) return 'rhythm';
  if (inShape >= KINDS.shape && inRhythm >= KINDS.rhythm / 2) return 'shape';
  if (answered >= KINDS.denser * called) return 'denser';
  return answered <= KINDS.sparser * called ? 'sparser' : 'own';
}

interface At {
  readonly at: number;
  readonly midi: Midi;
}

/** Notes that begin at one place of their turns, each of them once, in the order of time. */
function together(calls: readonly At[], answers: readonly At[]): (readonly [At, At])[] {
  const free = new Set(answers);
  return calls.flatMap((note) => {
    const near = [...free]
      .filter(({ at }) => Math.abs(at - note.at) <= TOGETHER)
      .sort((a, b) => Math.abs(a.at - note.at) - Math.abs(b.at - note.at))[0];
    if (!near) return [];
    free.delete(near);
    return [[note, near] as const];
  });
}

function shapeOf(pairs: readonly (readonly [At, At])[]): number | null {
  const steps = pairs.slice(1).map(([call, answer], i) => {
    const [callBefore, answerBefore] = nth(pairs, i);
    return Math.sign(call.midi - callBefore.midi) === Math.sign(answer.midi - answerBefore.midi);
  });
  return steps.length >= FEWEST_STEPS ? steps.filter(Boolean).length / steps.length : null;
}

const BEGINNINGS: readonly (readonly [most: number, words: string])[] = [
  [0, 'on the note it had ended on'],
  [2, 'a step from where it had ended'],
  [4, 'a third from where it had ended'],
  [7, 'a fourth or fifth from where it had ended'],
  [Infinity, 'a leap from where it had ended']
];

const KIND_WORDS: Readonly<Record<AnswerKind, string>> = {
  open: 'you left the bars open',
  'given back': 'you gave its phrase back, rhythm and shape',
  rhythm: 'you took up its rhythm',
  shape: 'you took up its shape in a rhythm of your own',
  denser: 'you answered with more notes than it had',
  sparser: 'you answered with fewer notes than it had',
  own: 'you answered with a phrase of your own'
};

/** An exchange in a sentence: "Bars 5–8: you took up its rhythm, a step from where it had ended; 3 of 4 chords …". */
export function sayExchange({ answer, kind, begins, waits, heard }: Exchange): string {
  const { from, to } = answer.bars;
  const round = answer.round > 0 ? `, round ${answer.round + 1}` : '';
  const bars = (from === to ? `Bar ${from}` : `Bars ${from}–${to}`) + round;
  if (kind === 'open') return `${bars}: ${KIND_WORDS.open}.`;
  const where =
    begins === null
      ? ''
      : `, beginning ${
          sure(
            BEGINNINGS.find(([most]) => Math.abs(begins) <= most),
            'BEGINNINGS'
          )[1]
        }`;
  const wait = waits !== null && waits >= 1 ? `, after ${counted(Math.round(waits), 'beat')} of silence` : '';
  const chords =
    heard === null
      ? ''
      : heard >= 0.9
        ? '; every chord could be heard'
        : heard >= 0.5
          ? '; most of the chords could be heard'
          : '; the chords could hardly be heard';
  return `${bars}: ${KIND_WORDS[kind]}${where}${wait}${chords}.`;
}
