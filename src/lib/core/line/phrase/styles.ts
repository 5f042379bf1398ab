/**
 * How phrases are made in each kind of music, as a table: how long they are, where they begin and land, what is repeated, which notes are at
 * home, and what the hand does with them. A new kind is a new row. Source: docs/music-rules.md, Phrases.
 */
import { sure } from '../../base/list';
import type { Vocabulary } from './cells';

/** Where a phrase begins: before its first bar, after the beat, or on 1. */
export const STARTS = ['pickup', 'after', 'one'] as const;
export type PhraseStart = (typeof STARTS)[number];

/** When a change is met: a push before it, on it, or a push after it. */
export const MEETINGS = ['early', 'on', 'late'] as const;
export type Meeting = (typeof MEETINGS)[number];

/** How a phrase takes up the one before. */
export const RELATIONS = ['same rhythm', 'varied', 'literal', 'sequence'] as const;
export type Relation = (typeof RELATIONS)[number];

/** AAB over twelve bars, a riff that comes again, or one phrase after another. */
export type PhraseForm = 'AAB' | 'riff' | 'free';

/** Which notes are at home where the player has chosen none. */
export type PoolRule = 'modes' | 'blues' | 'slow blues' | 'rock' | 'funk' | 'key and chord' | 'chord and key';

/** How notes are weighed: bop runs with chord tones on beats, or a pentatonic language. */
export type Idiom = 'chords' | 'pentatonic';

export interface Techniques {
  /** Chances, 0 to 1, of a note that could have it. */
  readonly bend: number;
  readonly curl: number;
  readonly slide: number;
  readonly slur: number;
  readonly vibrato: number;
  readonly ghost: number;
  readonly doubleStop: number;
}

export interface PhraseRow {
  readonly id: string;
  readonly vocabulary: Vocabulary;
  /** Weights of phrases of 1, 2, 3 and 4 bars. */
  readonly bars: readonly [number, number, number, number];
  readonly starts: Readonly<Record<PhraseStart, number>>;
  readonly meets: Readonly<Record<Meeting, number>>;
  readonly relations: Readonly<Record<Relation, number>>;
  /** The form of the first, the middle and the last third of a long solo. */
  readonly forms: readonly PhraseForm[];
  /** The chance of a whole bar that is left empty. */
  readonly gap: number;
  /** How dense it begins, 0 to 1. */
  readonly fill: number;
  /** What the same pitch once more costs where the rhythm does not ask for it. */
  readonly same: number;
  /** The chance that two short notes one after another are the same. */
  readonly repeats: number;
  /** A change is met a sixteenth early, rather than half a pulse. */
  readonly isFine?: true;
  readonly pool: PoolRule;
  readonly idiom: Idiom;
  /** Chromatic notes may lead from one tone to the next. */
  readonly isChromatic: boolean;
  /** The minor third over a major chord rises, and never comes from the major one. */
  readonly rises: boolean;
  /** The chance of an enclosure into a change. */
  readonly enclosure: number;
  /** The chances that a run over one chord is made of two triads in turn, or has fourths in it. */
  readonly triadPairs: number;
  readonly fourths: number;
  /** The chance that two bars of a phrase are one cell. */
  readonly twoBars: number;
  /** The chance that a low phrase is played with open strings, in keys that have them. */
  readonly open: number;
  /** What is not shown of a chord is charged so much. */
  readonly showing: number;
  /** What it costs to land on the root. */
  readonly root: number;
  /** What a pentatonic note that is no tone of the chord costs on a pulse. */
  readonly hangs: number;
  /** Where the line lies at the start, half way and at the height of a solo (MIDI numbers on a guitar in standard tuning). */
  readonly centres: readonly [number, number, number];
  readonly techniques: Techniques;
}

const techniques = (
  bend: number,
  curl: number,
  slide: number,
  slur: number,
  vibrato: number,
  ghost: number,
  doubleStop: number
): Techniques => ({ bend, curl, slide, slur, vibrato, ghost, doubleStop });

const starts = (pickup: number, after: number, one: number) => ({ pickup, after, one });
const meets = (early: number, on: number, late: number) => ({ early, on, late });
const relations = (rhythm: number, varied: number, literal: number, sequence: number) => ({
  'same rhythm': rhythm,
  varied,
  literal,
  sequence
});

export const PHRASE_ROWS = [
  {
    id: 'jazz blues',
    vocabulary: 'swing',
    bars: [0.2, 0.4, 0.25, 0.15],
    starts: starts(0.5, 0.25, 0.25),
    meets: meets(0.44, 0.35, 0.21),
    relations: relations(0.12, 0.15, 0.05, 0.14),
    forms: ['AAB', 'AAB', 'free'],
    gap: 0.25,
    fill: 0.45,
    same: 2.4,
    repeats: 0,
    pool: 'modes',
    idiom: 'chords',
    isChromatic: true,
    rises: true,
    enclosure: 0.55,
    triadPairs: 0.06,
    fourths: 0.06,
    twoBars: 0.15,
    open: 0,
    showing: 1.15,
    root: 0.7,
    hangs: 0.6,
    centres: [63, 67, 72],
    techniques: techniques(0.15, 0.1, 0.12, 0.22, 0.35, 0.03, 0.12)
  },
  {
    id: 'shuffle blues',
    vocabulary: 'shuffle',
    bars: [0.3, 0.5, 0.2, 0],
    starts: starts(0.55, 0.25, 0.2),
    meets: meets(0.3, 0.48, 0.22),
    relations: relations(0.15, 0.3, 0.18, 0.03),
    forms: ['AAB', 'riff', 'AAB'],
    gap: 0.25,
    fill: 0.3,
    same: 0.9,
    repeats: 0.22,
    pool: 'blues',
    idiom: 'pentatonic',
    isChromatic: false,
    rises: true,
    enclosure: 0,
    triadPairs: 0,
    fourths: 0,
    twoBars: 0.25,
    open: 0.3,
    showing: 1,
    root: 0.1,
    hangs: 0.75,
    centres: [66, 69, 74],
    techniques: techniques(0.55, 0.35, 0.15, 0.25, 0.6, 0.03, 0.25)
  },
  {
    id: 'minor swing',
    vocabulary: 'swing',
    bars: [0.1, 0.4, 0.25, 0.25],
    starts: starts(0.5, 0.25, 0.25),
    meets: meets(0.26, 0.52, 0.22),
    relations: relations(0.2, 0.1, 0.02, 0.2),
    forms: ['free'],
    gap: 0.15,
    fill: 0.55,
    same: 2.2,
    repeats: 0,
    pool: 'modes',
    idiom: 'chords',
    isChromatic: true,
    rises: false,
    enclosure: 0.55,
    triadPairs: 0.08,
    fourths: 0.08,
    twoBars: 0.15,
    open: 0,
    showing: 1.25,
    root: 0.7,
    hangs: 0.6,
    centres: [63, 67, 71],
    techniques: techniques(0, 0, 0.12, 0.25, 0.35, 0.03, 0.1)
  },
  {
    id: 'modal',
    vocabulary: 'swing',
    bars: [0.1, 0.4, 0.25, 0.25],
    starts: starts(0.5, 0.25, 0.25),
    meets: meets(0.26, 0.52, 0.22),
    relations: relations(0.2, 0.25, 0.02, 0.2),
    forms: ['free'],
    gap: 0.25,
    fill: 0.45,
    same: 2.2,
    repeats: 0,
    pool: 'modes',
    idiom: 'chords',
    isChromatic: true,
    rises: false,
    enclosure: 0.3,
    triadPairs: 0.4,
    fourths: 0.35,
    twoBars: 0.2,
    open: 0,
    showing: 0.6,
    root: 0.7,
    hangs: 0.6,
    centres: [63, 67, 71],
    techniques: techniques(0, 0, 0.12, 0.25, 0.35, 0.03, 0.1)
  },
  {
    id: 'bossa',
    vocabulary: 'bossa',
    bars: [0.15, 0.5, 0.15, 0.2],
    starts: starts(0.4, 0.4, 0.2),
    meets: meets(0.45, 0.4, 0.15),
    relations: relations(0.24, 0.1, 0.03, 0.2),
    forms: ['free'],
    gap: 0.3,
    fill: 0.3,
    same: 2.2,
    repeats: 0,
    pool: 'key and chord',
    idiom: 'chords',
    isChromatic: true,
    rises: false,
    enclosure: 0.3,
    triadPairs: 0.05,
    fourths: 0.05,
    twoBars: 0.25,
    open: 0,
    showing: 1,
    root: 0.7,
    hangs: 0.6,
    centres: [63, 66, 69],
    techniques: techniques(0, 0, 0.18, 0.22, 0.4, 0.02, 0.15)
  },
  {
    id: 'rock',
    vocabulary: 'rock',
    bars: [0.15, 0.5, 0.1, 0.25],
    starts: starts(0.5, 0.2, 0.3),
    meets: meets(0.35, 0.5, 0.15),
    relations: relations(0.2, 0.28, 0.22, 0.12),
    forms: ['riff', 'free', 'riff'],
    gap: 0.25,
    fill: 0.3,
    same: 0.9,
    repeats: 0.18,
    pool: 'rock',
    idiom: 'pentatonic',
    isChromatic: false,
    rises: true,
    enclosure: 0,
    triadPairs: 0,
    fourths: 0.06,
    twoBars: 0.25,
    open: 0.3,
    showing: 1,
    root: 0.15,
    hangs: 1.5,
    centres: [65, 70, 76],
    techniques: techniques(0.5, 0.15, 0.15, 0.25, 0.6, 0.03, 0.2)
  },
  {
    id: 'pop or folk',
    vocabulary: 'rock',
    bars: [0.15, 0.5, 0.1, 0.25],
    starts: starts(0.5, 0.2, 0.3),
    meets: meets(0.15, 0.7, 0.15),
    relations: relations(0.2, 0.25, 0.1, 0.15),
    forms: ['riff', 'free', 'riff'],
    gap: 0.25,
    fill: 0.3,
    same: 1.2,
    repeats: 0.08,
    pool: 'chord and key',
    idiom: 'chords',
    isChromatic: false,
    rises: true,
    enclosure: 0.05,
    triadPairs: 0,
    fourths: 0,
    twoBars: 0.25,
    open: 0.25,
    showing: 0.8,
    root: 0.2,
    hangs: 0.6,
    centres: [64, 68, 73],
    techniques: techniques(0.3, 0, 0.18, 0.28, 0.45, 0.03, 0.25)
  },
  {
    id: 'funk',
    vocabulary: 'funk',
    bars: [0.35, 0.5, 0.1, 0.05],
    starts: starts(0.5, 0.3, 0.2),
    meets: meets(0.3, 0.6, 0.1),
    relations: relations(0.12, 0.32, 0.25, 0.03),
    forms: ['riff', 'free', 'riff'],
    gap: 0.3,
    fill: 0.3,
    same: 0.8,
    repeats: 0.06,
    isFine: true,
    pool: 'funk',
    idiom: 'pentatonic',
    isChromatic: false,
    rises: true,
    enclosure: 0,
    triadPairs: 0,
    fourths: 0.06,
    twoBars: 0.22,
    open: 0.15,
    showing: 0.55,
    root: 0.1,
    hangs: 0.45,
    centres: [64, 68, 73],
    techniques: techniques(0.32, 0.14, 0.17, 0.27, 0.55, 0.16, 0.28)
  },
  {
    id: 'ballad',
    vocabulary: 'ballad',
    bars: [0.2, 0.55, 0.15, 0.1],
    starts: starts(0.55, 0.3, 0.15),
    meets: meets(0.33, 0.41, 0.26),
    relations: relations(0.25, 0.1, 0.03, 0.2),
    forms: ['free'],
    gap: 0.15,
    fill: 0.3,
    same: 2.2,
    repeats: 0,
    pool: 'modes',
    idiom: 'chords',
    isChromatic: true,
    rises: false,
    enclosure: 0.4,
    triadPairs: 0.05,
    fourths: 0.05,
    twoBars: 0.15,
    open: 0,
    showing: 1,
    root: 0.7,
    hangs: 0.6,
    centres: [66, 69, 73],
    techniques: techniques(0.1, 0, 0.22, 0.28, 0.8, 0.02, 0.2)
  },
  {
    id: 'waltz',
    vocabulary: 'waltz',
    bars: [0.06, 0.36, 0.26, 0.32],
    starts: starts(0.5, 0.25, 0.25),
    meets: meets(0.25, 0.5, 0.25),
    relations: relations(0.25, 0.1, 0.03, 0.2),
    forms: ['free'],
    gap: 0.2,
    fill: 0.45,
    same: 2.2,
    repeats: 0,
    pool: 'modes',
    idiom: 'chords',
    isChromatic: true,
    rises: false,
    enclosure: 0.45,
    triadPairs: 0.1,
    fourths: 0.1,
    twoBars: 0.15,
    open: 0,
    showing: 1,
    root: 0.7,
    hangs: 0.6,
    centres: [63, 67, 72],
    techniques: techniques(0, 0, 0.15, 0.25, 0.4, 0.03, 0.12)
  },
  {
    id: 'country',
    vocabulary: 'country',
    bars: [0.15, 0.55, 0.2, 0.1],
    starts: starts(0.6, 0.28, 0.12),
    meets: meets(0.22, 0.6, 0.18),
    relations: relations(0.2, 0.2, 0.05, 0.2),
    forms: ['free'],
    gap: 0.15,
    fill: 0.5,
    same: 1.2,
    repeats: 0.05,
    pool: 'chord and key',
    idiom: 'chords',
    isChromatic: true,
    rises: true,
    enclosure: 0.1,
    triadPairs: 0,
    fourths: 0,
    twoBars: 0.2,
    open: 0.4,
    showing: 0.8,
    root: 0.2,
    hangs: 0.6,
    centres: [63, 67, 71],
    techniques: techniques(0.3, 0, 0.2, 0.28, 0.4, 0.03, 0.35)
  },
  {
    id: 'slow 12/8 blues',
    vocabulary: 'slow',
    bars: [0.25, 0.55, 0.2, 0],
    starts: starts(0.6, 0.25, 0.15),
    meets: meets(0.22, 0.53, 0.25),
    relations: relations(0.12, 0.32, 0.16, 0.05),
    forms: ['AAB'],
    gap: 0.2,
    fill: 0.45,
    same: 0.9,
    repeats: 0.2,
    pool: 'slow blues',
    idiom: 'pentatonic',
    isChromatic: false,
    rises: true,
    enclosure: 0,
    triadPairs: 0,
    fourths: 0,
    twoBars: 0.2,
    open: 0.2,
    showing: 0.7,
    root: 0.15,
    hangs: 0.65,
    centres: [65, 69, 75],
    techniques: techniques(0.6, 0.42, 0.28, 0.37, 0.9, 0.04, 0.38)
  },
  {
    id: '6/8 soul',
    vocabulary: 'soul',
    bars: [0.1, 0.5, 0.2, 0.2],
    starts: starts(0.62, 0.36, 0.02),
    meets: meets(0.26, 0.49, 0.25),
    relations: relations(0.25, 0.2, 0.05, 0.15),
    forms: ['free'],
    gap: 0.2,
    fill: 0.4,
    same: 0.8,
    repeats: 0.08,
    pool: 'key and chord',
    idiom: 'chords',
    isChromatic: true,
    rises: true,
    enclosure: 0.1,
    triadPairs: 0,
    fourths: 0,
    twoBars: 0.2,
    open: 0,
    showing: 0.8,
    root: 0.4,
    hangs: 0.6,
    centres: [65, 68, 73],
    techniques: techniques(0.28, 0.18, 0.26, 0.34, 0.8, 0.03, 0.34)
  }
] as const satisfies readonly PhraseRow[];

export type PhraseRowId = (typeof PHRASE_ROWS)[number]['id'];

/** The row of an id. */
export const rowNamed = (id: PhraseRowId): PhraseRow =>
  sure(
    PHRASE_ROWS.find((row) => row.id === id),
    'PHRASE_ROWS'
  );
