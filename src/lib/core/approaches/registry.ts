/** All approaches in one list: a new approach is one new file and one new row. */
import { nth } from '../base/list';
import type { Analysis } from '../harmony/analysis';
import { arpeggio, guideTones, superimposedArpeggio, triads } from './arpeggios';
import { blues } from './blues';
import { chordPentatonic } from './chord-pentatonic';
import { adviceOn, type Advice } from './advice';
import { sameNotes, type ScaleChoice } from './choice';
import { contextOf, questionOf, type ChangeContext } from './context';
import { displacedPentatonic } from './displaced-pentatonic';
import { keyCentre } from './key-centre';
import { modes } from './modes';
import { substitution } from './substitution';

/**
 * A way of choosing notes: what it proposes for a change, best first. `before` is its own first choice on
 * the change before.
 */
export type Approach = (context: ChangeContext, before: ScaleChoice | null) => ScaleChoice[];

export interface ApproachFacts {
  readonly id: string;
  /** As the player reads it. */
  readonly name: string;
  readonly propose: Approach;
  /** What it tells apart may have the same notes: inversions, or one chord thought as another. */
  readonly soundsAlike?: true;
}

export const APPROACHES: readonly ApproachFacts[] = [
  { id: 'key-centre', name: 'Key centre', propose: keyCentre },
  { id: 'chord-pentatonic', name: 'Pentatonic per chord', propose: chordPentatonic },
  { id: 'modes', name: 'Modes', propose: modes },
  { id: 'displaced-pentatonic', name: 'Displaced pentatonics', propose: displacedPentatonic },
  { id: 'superimposed-arpeggio', name: 'Superimposed arpeggios', propose: superimposedArpeggio },
  { id: 'arpeggio', name: 'Arpeggio', propose: arpeggio, soundsAlike: true },
  { id: 'triads', name: 'Triads', propose: triads },
  { id: 'guide-tones', name: 'Guide tones', propose: guideTones },
  { id: 'blues', name: 'Blues', propose: blues },
  { id: 'substitution', name: 'Substitution', propose: substitution, soundsAlike: true }
];

export type OfferedChoice = ScaleChoice &
  Advice & {
    /** The same notes as this approach's first choice on the change before. */
    readonly keptFromPrevious: boolean;
  };

/**
 * A chart says the same thing many times: what an approach has answered once need not be worked out again. By question, then by
 * approach and what it chose before.
 */
export type AnsweredQuestions = Map<string, Map<string, OfferedChoice[]>>;

/** Questions kept from one reading of a chart to the next; beyond them all are forgotten. */
const KEPT_QUESTIONS = 4000;

/** Choices without those that name the same notes as one before them. */
const distinct = (choices: readonly ScaleChoice[], soundsAlike = false): readonly ScaleChoice[] =>
  soundsAlike
    ? choices
    : choices.filter((choice, i) => !choices.slice(0, i).some((one) => sameNotes(one, choice)));

/** Choices with how they sound and are used. */
function offered(
  choices: readonly ScaleChoice[],
  context: ChangeContext | null,
  previous: ScaleChoice | null
): OfferedChoice[] {
  const advice = context ? adviceOn(choices, context) : [];
  return choices.map((choice, i) => ({
    ...choice,
    ...nth(advice, i),
    keptFromPrevious: previous !== null && sameNotes(previous, choice)
  }));
}

interface Wanted {
  /** Ids; all where none are named. */
  readonly approaches?: readonly string[] | undefined;
  /** The first change that is not asked for. */
  readonly end?: number | undefined;
  /** Answers to be used and added to. */
  readonly answered?: AnsweredQuestions;
}

/**
 * What the approaches propose for every change, in the order of the registry; nothing where no chord sounds. No choice
 * contradicts its symbol.
 */
export function scaleChoices(
  analysis: Analysis,
  { approaches, end = analysis.changes.length, answered = new Map() }: Wanted = {}
): OfferedChoice[][] {
  const wanted = APPROACHES.filter(({ id }) => !approaches || approaches.includes(id));
  const before = new Map<string, ScaleChoice | null>();
  if (answered.size > KEPT_QUESTIONS) answered.clear();
  return analysis.changes.slice(0, end).map((change) => {
    const context = contextOf(analysis, change.index);
    const question = context ? questionOf(context) : '';
    let answers = answered.get(question);
    if (!answers) answered.set(question, (answers = new Map()));
    return wanted.flatMap(({ id, propose, soundsAlike }) => {
      const previous = before.get(id) ?? null;
      const key = `${id} ${previous?.name}`;
      const known = answers.get(key);
      const choices =
        known ?? offered(distinct(context ? propose(context, previous) : [], soundsAlike), context, previous);
      if (!known) answers.set(key, choices);
      before.set(id, choices[0] ?? null);
      return choices;
    });
  });
}
