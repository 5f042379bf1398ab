/** What the stateless routes take: see docs/api.md. */
import { PITCH_EVENTS } from '../core/takes/model';
import { APPROACH_KINDS } from '../core/line/approach-notes';
import { NECK_SYSTEMS } from '../core/neck/systems/registry';
import { z } from 'zod';
import { DEGREE_NAMES } from '../core/theory/degree';
import { GRIP_DIRECTIONS } from '../core/neck/grip-path';
import { CAPO_CHORDS, MAX_FRETS } from '../core/neck/tuning';
import { VOICINGS } from '../core/neck/voicing';
import { RELATIONS } from '../core/line/phrase/styles';
import { STYLES } from '../core/harmony/style';
import { DEFAULT_WEIGHTS, DIRECTIONS } from '../core/targets/options';
import { MAX_CHANGES } from '../core/chart/unroll';
import { FORMATS, WRITTEN_FORMATS } from '../core/formats/registry';
import { LINE_LEVELS, type LineLevel } from '../core/line/find/registry';
import { MOVED_WHERE, MOVES } from '../core/line/move';
import { MOTIF_OPERATION_IDS } from '../core/line/operations';
import { PLACE_WEIGHTS } from '../core/line/place';
import { shown } from './errors';
import { fixedTarget } from './plan';
import { DRILLS } from '../core/line/drills';
import { FEELS } from '../core/practice/feel';
import { PLAIN_INTENSITY } from '../core/practice/intensity';
import { HIGHEST_TEMPO, LOWEST_TEMPO } from '../core/practice/ladder';
import { isDay } from '../core/practice/log/day';
import { FEWEST_MINUTES, MOST_MINUTES } from '../core/practice/session/parts';

/** Changes that one answer tells of; longer charts are asked for in parts. */
export const CHANGES_IN_AN_ANSWER = 512;
/** A part of a chart's changes, both in; without it the answer begins at the first. */
const part = {
  from: z.number().int().min(0).optional(),
  to: z.number().int().min(0).optional()
};

const weight = z.number().min(0).max(1000);
const fret = z.number().int();

export const analysisRequest = z.object({
  chart: z.string(),
  key: z.string().max(40).optional(),
  /** The style of the music, where the player knows it better than the chart. */
  style: z.lazy(() => named(STYLES, 'style')).optional()
});

export const scaleChoicesRequest = z.object({
  chart: z.string(),
  key: z.string().max(40).optional(),
  change: z.number().int().min(0).optional(),
  ...part,
  approaches: z.array(z.string().max(40)).max(40).optional(),
  /** The style of the music, where the player knows it better than the chart. */
  style: z.lazy(() => named(STYLES, 'style')).optional()
});

export const guideTonesRequest = z.object({ chart: z.string(), key: z.string().max(40).optional() });

const instrumentParts = {
  tuning: z.union([z.string().max(80), z.array(z.string().max(8)).max(12)]).optional(),
  frets: z.number().int().optional(),
  capo: z.number().int().optional(),
  /** Whether chords are written as they sound, or as they are fingered behind the capo. */
  capoChords: z.enum(CAPO_CHORDS).optional(),
  /** Frets the hand covers without a stretch, 3 to 6. */
  span: z.number().int().optional(),
  openStrings: z.boolean().optional()
};

const organise = z.enum(NECK_SYSTEMS.map(({ id }) => id) as [string, ...string[]], {
  error: (issue) =>
    `“${shown(issue.input)}” is no way of organising the neck; use one of ${NECK_SYSTEMS.map(({ id }) => id).join(', ')}.`
});

/** A string set, lowest string (highest number) first. */
const stringSet = z.array(z.number().int()).min(3, 'a grip takes three strings or more').max(10);

export const shapeRequest = z.object({
  chord: z.string().max(60).optional(),
  scale: z.string().max(80).optional(),
  position: z.number().int(),
  organise: organise.optional(),
  ...instrumentParts
});

export const positionMapRequest = z.object({
  chart: z.string(),
  key: z.string().max(40).optional(),
  approach: z.string().max(40).default('chord-pentatonic'),
  organise: organise.default('minor-boxes'),
  ...part,
  ...instrumentParts
});

export const unitsRequest = z.object({
  chord: z.string().max(60),
  scale: z.string().max(80).optional(),
  ...instrumentParts
});

export const voicingsRequest = z.object({
  chord: z.string().max(60),
  type: z.enum(VOICINGS, { error: 'a voicing is closed, drop2 or drop3' }),
  strings: stringSet,
  ...instrumentParts
});

export const triadPathRequest = z.object({
  chart: z.string(),
  key: z.string().max(40).optional(),
  strings: stringSet,
  start: z
    .object({
      inversion: z.number().int().min(0).max(2),
      /** The fret of the triad's root. */
      fret: z.number().int().min(0).max(MAX_FRETS)
    })
    .optional(),
  direction: z.enum(GRIP_DIRECTIONS).default('nearest'),
  ...instrumentParts
});

/** A degree as a player counts it: chord degrees whatever their quality, tensions by name. */
const degreeWish = z.enum(DEGREE_NAMES as [string, ...string[]], {
  error: (issue) => `“${shown(issue.input)}” is no degree of a chord; use one of ${DEGREE_NAMES.join(', ')}.`
});
const degreeWishes = z.array(degreeWish).min(1).max(DEGREE_NAMES.length);

const register = z.object({ low: z.number().int(), high: z.number().int() });
const approachWish = z.enum(['fitting', ...APPROACH_KINDS]);

const slotWeights = z.object({
  '1': weight.default(DEFAULT_WEIGHTS.degree['1']),
  '3': weight.default(DEFAULT_WEIGHTS.degree['3']),
  '5': weight.default(DEFAULT_WEIGHTS.degree['5']),
  '7': weight.default(DEFAULT_WEIGHTS.degree['7']),
  tension: weight.default(DEFAULT_WEIGHTS.degree.tension)
});

export const targetsRequest = z.object({
  chart: z.string(),
  key: z.string().max(40).optional(),
  position: z.number().int().optional(),
  /** A position for each change, for a hand that travels; the last one goes on where there are fewer. */
  positions: z.array(z.number().int()).min(1).max(MAX_CHANGES).optional(),
  window: z.object({ from: fret, to: fret }).optional(),
  strings: z.array(z.number().int()).min(1).max(12).optional(),
  range: register.optional(),
  avoid: z.array(register).max(12).default([]),
  every: z.number().min(0.5).max(64).optional(),
  degrees: degreeWishes.default(['1', '3', '5', '7']),
  standIn: z.boolean().default(false),
  column: degreeWish.optional(),
  alternate: z.union([z.boolean(), z.array(z.string())]).default(false),
  direction: z.enum(DIRECTIONS).default('free'),
  fixed: z.array(fixedTarget).max(2000).default([]),
  which: z
    .union([
      z.enum(['all', 'first-of-bar', 'cadences']),
      z.object({ longerThan: z.number().min(0) }),
      z.object({ only: z.array(z.number().int().min(0)).max(MAX_CHANGES) })
    ])
    .default('all'),
  loop: z.boolean().default(false),
  weights: z
    .object({
      degree: slotWeights.default(DEFAULT_WEIGHTS.degree),
      pitch: weight.default(DEFAULT_WEIGHTS.pitch),
      hand: weight.default(DEFAULT_WEIGHTS.hand),
      string: weight.default(DEFAULT_WEIGHTS.string),
      repeat: weight.default(DEFAULT_WEIGHTS.repeat),
      held: weight.default(DEFAULT_WEIGHTS.held),
      register: weight.default(DEFAULT_WEIGHTS.register),
      low: weight.default(DEFAULT_WEIGHTS.low)
    })
    .default(DEFAULT_WEIGHTS),
  alternatives: z.number().int().min(1).max(50).default(1),
  /** Approach notes into every target, of one kind or of the one that fits; or for some changes only. */
  approach: z
    .union([
      approachWish,
      z.array(z.object({ change: z.number().int().min(0), kind: approachWish })).max(MAX_CHANGES)
    ])
    .optional(),
  ...instrumentParts
});
export type TargetsRequest = z.infer<typeof targetsRequest>;

/** Notes of one line; a chorus of sixteenths over a long form has fewer. */
const MOST_NOTES = 4096;
/** A place in time, in beats of the chart's meter. */
const at = z.number().min(0).max(32_000);
/** Beats that a line may begin before the first bar: two bars of the longest meters. */
const MOST_PICKUP = 48;

/** A note of a line: a pitch, a place on the neck, or both. */
export const lineNote = z.object({
  /** Negative for a pickup. */
  at: z.number().min(-MOST_PICKUP).max(32_000),
  beats: z.number().max(512),
  midi: z.number().int().min(0).max(127).optional(),
  /** How the note is called, without octave; by the chord of its moment where it is left out. */
  note: z
    .string()
    .regex(/^[A-G](?:b{0,2}|#{0,2})$/, 'a note name is a letter with b or # after it, as Bb or F#')
    .optional(),
  string: z.number().int().min(1).max(12).optional(),
  fret: z.number().int().min(0).max(MAX_FRETS).optional(),
  tie: z.boolean().optional(),
  /** The pitch (MIDI) that it is bent up from; below 12, the semitones it is bent by. */
  bend: z
    .object({
      from: z.number().int().min(1).max(127),
      /** A curl: it leans up from its own pitch by so many cents. */
      cents: z.number().int().min(1).max(50).optional()
    })
    .optional(),
  /** The pitch (MIDI) that a bend is let down to; below 12, the semitones it is let down by. */
  release: z.object({ to: z.number().int().min(1).max(127) }).optional(),
  slide: z.boolean().optional(),
  slur: z.boolean().optional(),
  vibrato: z.boolean().optional(),
  ghost: z.boolean().optional()
});

const notes = z.array(lineNote).max(MOST_NOTES, `a line has at most ${MOST_NOTES} notes`);

export const lineRequest = z.object({
  chart: z.string(),
  key: z.string().max(40).optional(),
  line: z.object({ notes }),
  ...instrumentParts
});

/** Windows of one outline test. */
const MOST_WINDOWS = 2000;
export const outlineRequest = z.object({
  chart: z.string().optional(),
  key: z.string().max(40).optional(),
  line: z.object({ notes }),
  /** Stretches of time in beats, one after another. */
  windows: z
    .array(z.object({ from: at, to: at }))
    .max(MOST_WINDOWS)
    .optional()
});

const handWeight = z.number().min(0).max(100);
export const placeRequest = z.object({
  notes,
  position: z.number().int().optional(),
  window: z.object({ from: z.number().int().min(0), to: z.number().int().min(0) }).optional(),
  strings: z.array(z.number().int()).min(1).max(12).optional(),
  alternatives: z.number().int().min(1).max(20).default(1),
  weights: z
    .object({
      shift: handWeight.default(PLACE_WEIGHTS.shift),
      easyShift: handWeight.default(PLACE_WEIGHTS.easyShift),
      stretch: handWeight.default(PLACE_WEIGHTS.stretch),
      cross: handWeight.default(PLACE_WEIGHTS.cross),
      skip: handWeight.default(PLACE_WEIGHTS.skip),
      sameFinger: handWeight.default(PLACE_WEIGHTS.sameFinger)
    })
    .optional(),
  ...instrumentParts
});

const named = (things: readonly { readonly id: string }[], what: string) =>
  z.enum(things.map(({ id }) => id) as [string, ...string[]], {
    error: (issue) =>
      `“${shown(issue.input)}” is no ${what}; use one of ${things.map(({ id }) => id).join(', ')}.`
  });

const motifOperation = z.enum(MOTIF_OPERATION_IDS, {
  error: (issue) =>
    `“${shown(issue.input)}” is nothing that is done with a motif; use one of ${MOTIF_OPERATION_IDS.join(', ')}.`
});

/** Chords one after another. */
const chordSpans = z
  .array(z.object({ symbol: z.string().max(60), beats: z.number().positive().max(256) }))
  .min(1)
  .max(64);

/** Lines that one answer finds. */
const MOST_LINES = 8;
export const linesRequest = targetsRequest
  .omit({ degrees: true, alternatives: true, approach: true })
  .extend({
    degrees: degreeWishes.optional(),
    /** Changes, both in. */
    ...part,
    level: named(LINE_LEVELS, 'level of line'),
    figure: named(
      (LINE_LEVELS as readonly LineLevel[]).flatMap(({ figures }) => figures ?? []),
      'figure'
    ).optional(),
    /** Notes in a quarter. */
    subdivision: z.union([z.literal(2), z.literal(3), z.literal(4)], 'a subdivision is 2, 3 or 4').default(2),
    /** Bars of a phrase, at whose end the line breathes. */
    phrase: z
      .union(
        [z.literal(0), z.literal(1), z.literal(2), z.literal(4)],
        'a phrase has 1, 2 or 4 bars; 0 is none'
      )
      .optional(),
    leadIn: approachWish.optional(),
    motif: z
      .object({
        notes,
        /** What it stands over: chords one after another, or the change of the chart at which its time begins. */
        over: z.union([chordSpans, z.number().int().min(0)]),
        how: z.enum(['shifted', 'led']).default('led'),
        /** What is done with it each time it comes, in turn. */
        operations: z.array(motifOperation).max(16, 'at most 16 operations').optional()
      })
      .optional(),
    /** Of phrases: the style of the music, how dense they are, whether they may begin before the first bar. */
    style: named(STYLES, 'style').optional(),
    density: z.number().min(0).max(1).optional(),
    boldness: z.number().min(0).max(1).optional(),
    pickup: z.boolean().default(true),
    /** Phrases that stand already, in beats: what is found keeps out of their bars. */
    keep: z
      .array(z.object({ from: z.number().min(-MOST_PICKUP).max(32_000), to: at }))
      .max(512)
      .optional(),
    /** One phrase alone: in some bars (from 1, as they are played), new or after another one. */
    only: z
      .object({
        bar: z.number().int().min(1).max(8000),
        bars: z.number().int().min(1).max(8),
        like: z
          .object({
            notes,
            /** The bar in which it begins, or that its pickup leads into. */
            bar: z.number().int().min(1).max(8000),
            how: z.enum(RELATIONS),
            /** Beats later than bar for bar. */
            by: z.number().min(-64).max(64).optional()
          })
          .optional()
      })
      .optional(),
    /** Of phrases: what is played over some changes, or over all of them by an approach; else the style has its way. */
    choices: z
      .array(
        z.object({
          change: z.number().int().min(0),
          approach: z.string().max(40),
          name: z.string().max(80).optional()
        })
      )
      .max(2000)
      .optional(),
    approach: z.string().max(40).optional(),
    seed: z
      .number()
      .int()
      .min(0)
      .max(2 ** 31)
      .default(0),
    alternatives: z.number().int().min(1).max(MOST_LINES).default(1)
  });

export const lickFitRequest = z.object({
  chart: z.string(),
  key: z.string().max(40).optional(),
  lick: z.object({
    over: chordSpans,
    notes,
    /** Kept by its chords, or by its key: then it fits, unmoved, over all chords of one. */
    by: z.enum(['chord', 'key']).default('chord'),
    /** The key it stands in; found from its chords where nothing is said. */
    key: z.string().max(40).optional()
  }),
  /** What is there already, to be joined. */
  line: z.object({ notes }).optional(),
  ...instrumentParts
});

/** A chord or a key as it is written. */
const symbol = z.string().max(60);
export const moveRequest = z.object({
  notes,
  chart: z.string().optional(),
  key: z.string().max(40).optional(),
  to: z.union(
    [
      z.strictObject({ semitones: z.number().int().min(-60).max(60) }),
      z.strictObject({ key: z.object({ from: symbol, to: symbol }) }),
      z.strictObject({ keys: z.literal('all') }),
      z.strictObject({ chord: z.object({ from: symbol, to: symbol }) }),
      z.strictObject({ change: z.number().int().min(0) }),
      z.strictObject({ position: z.number().int() })
    ],
    'say where to: {semitones}, {key: {from, to}}, {keys: "all"}, {chord: {from, to}}, {change} or {position}'
  ),
  how: z.enum(MOVES).default('shifted'),
  where: z.enum(MOVED_WHERE).optional(),
  ...instrumentParts
});

/** Rounds of the band that one file holds. */
const MOST_ROUNDS = 64;

const intensity = z
  .number()
  .min(0, 'An intensity lies between 0 and 1.')
  .max(1, 'An intensity lies between 0 and 1.');

export const bandRequest = z.object({
  chart: z.string(),
  key: z.string().max(40).optional(),
  /** As the chart says where it is left out. */
  feel: named(FEELS, 'feel of the band').optional(),
  seed: z
    .number()
    .int()
    .min(0)
    .max(2 ** 31)
    .default(1),
  rounds: z.number().int().min(1).max(MOST_ROUNDS).default(1),
  /** How much the band gives, 0 to 1: one number, or one for each round, the last of which holds. */
  intensity: z.union([intensity, z.array(intensity).min(1).max(MOST_ROUNDS)]).default(PLAIN_INTENSITY),
  /** The last round ends on the I of the chart in a bar after the form. */
  ending: z.boolean().default(false),
  /** Where the chart says no feel, that of its style is played. */
  style: named(STYLES, 'style').optional(),
  drill: named(DRILLS, 'drill of the band').optional(),
  /** Notes of the drill in a quarter. */
  subdivision: z.union([z.literal(2), z.literal(3), z.literal(4)], 'a subdivision is 2, 3 or 4').default(2),
  position: z.number().int().optional(),
  ...instrumentParts
});

/** A line or melody as it goes into a file. */
const voice = z.object({ name: z.string().max(120).optional(), notes });

export const exportRequest = z.object({
  chart: z.string(),
  key: z.string().max(40).optional(),
  line: voice.optional(),
  /** The chart's own where it is left out. */
  melody: voice.optional(),
  format: named(WRITTEN_FORMATS, 'format that is written here'),
  ...instrumentParts
});

const READ_FORMATS = FORMATS.filter(({ read }) => read);
export const importRequest = z
  .object({
    /** The name of the file, which serves as title where it has none. */
    name: z.string().max(200).optional(),
    /** Whether B and H in a text are German names; an H tells where it is left out. */
    german: z.boolean().optional(),
    /** By how the file begins where it is left out. */
    format: named(READ_FORMATS, 'format that is read here').optional(),
    text: z.string().optional(),
    base64: z.base64('base64: the bytes of a file in base64').optional()
  })
  .refine(
    ({ text, base64 }) => (text === undefined) !== (base64 === undefined),
    'send either text, or the bytes of a file as base64'
  );

const day = z.string().refine(isDay, {
  error: (issue) => `“${shown(issue.input)}” is no day; write it like 2026-03-05.`
});
const beatsAMinute = z.number().min(LOWEST_TEMPO).max(HIGHEST_TEMPO);
const itemId = z.string().min(1).max(200);

const MOST_BARS = 8000;
const barNumber = z.number().int().min(1).max(MOST_BARS);
const barRange = z
  .object({ from: barNumber, to: barNumber })
  .refine(({ from, to }) => from <= to, { error: 'These bars run backwards.' });

export const practiceItem = z.object({
  id: itemId,
  what: z.string().max(200),
  chart: z.string().max(200).optional(),
  area: z.union([z.string().max(80), z.number()]).optional(),
  key: z.string().max(40).optional(),
  minutes: z.number().min(1).max(60).transform(Math.round).optional(),
  after: z.array(itemId).max(50).optional(),
  tempo: z.object({
    start: beatsAMinute,
    goal: beatsAMinute,
    /** Per cent from one tempo to the next. */
    step: z.number().min(0.5).max(50).optional()
  }),
  /** Bars of one loop, its sections, beats of a bar; whether it is the whole form with the band. */
  bars: z.number().int().min(1).max(MOST_BARS).optional(),
  sections: z.array(barRange).max(200).optional(),
  beats: z.number().min(1).max(32).optional(),
  form: z.boolean().optional()
});

export const practiceRow = z.object({
  item: itemId.nullable(),
  day,
  tempo: beatsAMinute.nullable(),
  clean: z.boolean().nullable().default(null),
  rounds: z.number().int().min(0).max(10_000).default(1),
  seconds: z.number().min(0).max(86_400).default(0),
  /** The stretch that was looped, how often (or the stumbles of each loop), and the bars of the stumbles. */
  bars: barRange.optional(),
  loops: z
    .union([z.number().int().min(0).max(10_000), z.array(z.array(barNumber).max(200)).max(1000)])
    .optional(),
  stumbles: z.array(barNumber).max(2000).optional()
});

/** Items and rows of the log that one plan is made of. */
const [MOST_ITEMS, MOST_ROWS] = [5000, 100_000];

export const practiceRequest = z.object({
  items: z.array(practiceItem).max(MOST_ITEMS),
  log: z.array(practiceRow).max(MOST_ROWS),
  /** A date with its tunes in their order. */
  set: z
    .object({
      day,
      charts: z
        .array(
          z.object({
            chart: z.string().max(200),
            tempo: beatsAMinute.nullish(),
            key: z.string().max(40).nullish()
          })
        )
        .max(200)
    })
    .optional(),
  /** Whether four weeks are looked ahead; told by itself where that is quick. */
  ahead: z.boolean().optional(),
  cards: z
    .array(
      z.object({ id: itemId, due: z.string().refine((due) => isDay(due.slice(0, 10)), 'this is no day') })
    )
    .max(MOST_ROWS)
    .optional(),
  minutes: z
    .number()
    .int()
    .min(FEWEST_MINUTES, `“minutes” is ${FEWEST_MINUTES} to ${MOST_MINUTES}`)
    .max(
      MOST_MINUTES,
      `“minutes” is ${FEWEST_MINUTES} to ${MOST_MINUTES}; plan a longer day in two sessions`
    ),
  day
});

/** Notes of one take: half an hour of sixteenths. */
const MOST_PLAYED = 20_000;
/** Seconds of one take. */
const LONGEST_TAKE = 3600;

const playedNote = z.object({
  at: z.number().min(-60).max(LONGEST_TAKE),
  seconds: z.number().min(0).max(LONGEST_TAKE),
  midi: z.number().int().min(0).max(127),
  /** How its pitch moves, as the route `listen` tells it. */
  curve: z.array(z.number().nullable()).max(8192).optional(),
  events: z
    .array(
      z.object({
        kind: z.enum(PITCH_EVENTS),
        at: z.number().min(-60).max(LONGEST_TAKE),
        cents: z.number().min(-2400).max(2400)
      })
    )
    .max(256)
    .optional()
});

const pitch = z.number().int().min(0).max(127);
/** Beats from the start of the form; a pickup lies before it. */
const meantAt = z.number().min(-LONGEST_TAKE).max(1e6).optional();
const meantTarget = z
  .union(
    [
      z.object({ change: z.number().int().min(0), midi: pitch, at: meantAt }),
      z.object({ change: z.number().int().min(0), cell: z.object({ midi: pitch }), at: meantAt })
    ],
    { error: 'A target needs its change and its pitch, as midi or as cell.midi.' }
  )
  .transform((target) => ({
    change: target.change,
    midi: 'cell' in target ? target.cell.midi : target.midi,
    at: target.at
  }));

export const takeRequest = z.object({
  chart: z.string(),
  key: z.string().max(40).optional(),
  /** Beats of the chart's meter a minute. */
  tempo: beatsAMinute,
  /** When beat 0 sounded, after any count-in. */
  start: z.number().min(-LONGEST_TAKE).max(LONGEST_TAKE).default(0),
  notes: z.array(playedNote).max(MOST_PLAYED),
  /** As the route of targets gives them, or with the pitch alone. */
  targets: z.array(meantTarget).max(2000).optional(),
  /** Bars were traded: Corvel begins, and played `call`, in seconds like the notes. */
  trade: z
    .object({ bars: z.union([z.literal(2), z.literal(4)]), call: z.array(playedNote).max(MOST_PLAYED) })
    .optional(),
  ...instrumentParts
});
