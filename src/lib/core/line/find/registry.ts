/** Every level of line that can be asked for; a new one is a row. */
import { nth, sure } from '../../base/list';
import type { Line } from '../model';
import { callAndAnswer, melodyAndAnswer } from './answer';
import { findDoubleStops } from './double-stops';
import { findSequence } from './sequence';
import { findInSlots, stretchesOf, withoutOverlap, type FindWish, type FoundLines } from './find';
import { FIGURES } from './figures';
import { carryMotif, type Motif } from './motif';
import { targetsAlone } from './simple';
import type { OnePhrase } from '../phrase/alone';
import { findPhrases, type PhraseWish } from '../phrase/phrases';
import type { TargetPath } from '../../targets/path';
import type { ApproachNotes } from '../approach-notes';

/** What a line is asked with. */
export interface LineAsked extends FindWish {
  /** The best target lines; a skeleton has as many forms as there are. */
  readonly paths: readonly TargetPath[];
  /** Approach notes into a path: as wished, or those that fit. */
  readonly leadInto: (path: TargetPath) => ApproachNotes;
  readonly motif?: Motif | undefined;
  /** The melody of the chart; null where it has none. */
  readonly melody: Line | null;
  /** What phrases are made with beside the rest. */
  readonly phrasing: Pick<
    PhraseWish,
    'row' | 'choiceAt' | 'pins' | 'density' | 'pickup' | 'tempo' | 'held' | 'only'
  >;
}

export interface LineLevel {
  readonly id: string;
  readonly name: string;
  readonly hint: string;
  /** Levels that follow one another, each denser, over the same targets. */
  readonly grows?: true;
  /** Forms it can take, where a player picks one. */
  readonly figures?: readonly { readonly id: string; readonly name: string }[];
  readonly find: (asked: LineAsked) => FoundLines;
}

const NONE: ApproachNotes = new Map();

/** A line for each of the target lines. */
function thin(asked: LineAsked, leadInto: (path: TargetPath) => ApproachNotes): FoundLines {
  const stretches = stretchesOf(asked);
  return { lines: asked.paths.map((path) => targetsAlone(asked, stretches, path, leadInto(path))) };
}

/** Other seeds give other phrases: more of them are had by other plans. */
function phrases(asked: LineAsked): FoundLines {
  const lines = [];
  for (let n = 0; n < asked.alternatives; n++) {
    const seed = (asked.seed + n * SEED_STEP) % MOST_SEED;
    const found = findPhrases({ ...asked, ...asked.phrasing, seed });
    if (found.stuck !== undefined) {
      const symbol = nth(asked.ground.form.changes, found.stuck).symbol;
      const message = `No phrase reaches the pinned target at ${symbol}; allow more of the neck, or unpin it.`;
      return { lines: [], noLine: { change: found.stuck, message } };
    }
    const { notes, hands, phrases: parts, cost } = found;
    if (notes.length > 0) lines.push({ notes, hands, phrases: parts, cost, parts: {}, exact: true });
  }
  if (lines.length > 0) return { lines };
  if (asked.phrasing.only)
    return { lines: [], noLine: { change: asked.from, message: noPhrase(asked.phrasing.only) } };
  const message = 'No chord of this part can be played over in that part of the neck; allow more of it.';
  return { lines: [], noLine: { change: asked.from, message } };
}

const noPhrase = ({ like }: OnePhrase) =>
  like
    ? 'That phrase does not fit there: the bars are of another length, or too little room is left beside its neighbours.'
    : 'There is no room for a phrase of three notes between its neighbours.';

/** Seeds of alternatives lie far apart, so that the next one asked for is another one. */
const SEED_STEP = 7919;
const MOST_SEED = 2 ** 31;

export const LINE_LEVELS = [
  {
    id: 'phrases',
    name: 'Phrases',
    hint: 'Phrases in the style of the chart, with pickups, pushes and silence',
    find: phrases
  },
  {
    id: 'skeleton',
    name: 'Targets alone',
    hint: 'Each target, held until the next',
    grows: true,
    find: (asked) => thin(asked, () => NONE)
  },
  {
    id: 'led in',
    name: 'Led in',
    hint: 'The targets with their approach notes',
    grows: true,
    find: (asked) => thin(asked, asked.leadInto)
  },
  {
    id: 'arpeggio',
    name: 'Arpeggio',
    hint: 'Chord tones between the targets, led into the next',
    grows: true,
    find: (asked) => findInSlots('arpeggio', asked)
  },
  {
    id: 'arpeggio and scale',
    name: 'Arpeggio and scale',
    hint: 'The arpeggio up from the target, the scale down into the next; or the reverse',
    figures: [
      { id: 'arpeggio and scale', name: 'arpeggio up, scale down' },
      { id: 'scale and arpeggio', name: 'arpeggio down, scale up' }
    ],
    find: (asked) => findInSlots('arpeggio and scale', asked)
  },
  {
    id: 'without a stop',
    name: 'Continuous',
    hint: 'Every note of the beat, one direction until the edge of the area',
    grows: true,
    find: (asked) => findInSlots('without a stop', asked)
  },
  {
    id: 'figure',
    name: 'Figure',
    hint: 'One cell carried through every change',
    figures: FIGURES,
    find: (asked) => findInSlots('figure', asked)
  },
  {
    id: 'motif',
    name: 'Motif',
    hint: 'A rhythm and contour of your own carried to each next chord',
    find: (asked) =>
      asked.motif
        ? carryMotif(asked.motif, asked)
        : {
            lines: [],
            noLine: { change: asked.from, message: 'There is no motif to carry yet; give some notes.' }
          }
  },
  {
    id: 'call and answer',
    name: 'Call and answer',
    hint: 'A call, silence, and a shorter answer with the same head',
    find: callAndAnswer
  },
  {
    id: 'melody and answer',
    name: 'Melody and answer',
    hint: 'Two bars of the melody, two of your own that start and end on it',
    find: (asked) =>
      asked.melody?.notes.length
        ? melodyAndAnswer(asked.melody, asked)
        : {
            lines: [],
            noLine: {
              change: asked.from,
              message: 'This chart has no melody yet; write one under its chords.'
            }
          }
  },
  {
    id: 'sequence',
    name: 'Sequence',
    hint: 'A cell of a few notes moved by steps, thirds or octaves under the hand',
    find: findSequence
  },
  {
    id: 'double stops',
    name: 'Double stops',
    hint: 'Thirds, sixths, the dominant’s 3 with 7, led in by a semitone',
    find: findDoubleStops
  }
] as const satisfies readonly LineLevel[];

export type LevelId = (typeof LINE_LEVELS)[number]['id'];

/** The level of an id. */
export function levelOf(id: string): LineLevel | undefined {
  return LINE_LEVELS.find((level) => level.id === id);
}

/** The lines of a level, the best first. */
export function findLines(id: LevelId, asked: LineAsked): FoundLines {
  const found = sure(levelOf(id), 'levelOf').find(asked);
  return {
    ...found,
    lines: found.lines
      .slice(0, asked.alternatives)
      .map((line) => (line.phrases ? line : { ...line, notes: withoutOverlap(line.notes) }))
  };
}
