/** What the routes of practice take and give: items, the log, cards and their answers, set lists. */
import type { TimeDay } from '../core/takes/judge/time-days';
import type { Lateness } from '../core/takes/judge/lateness';
import { z } from 'zod';
import { readKey } from '../core/harmony/key';
import { isDay } from '../core/practice/log/day';
import { HIGHEST_TEMPO, LOWEST_TEMPO } from '../core/practice/ladder';
import type { Progress } from '../core/practice/progress/progress';
import type { Covered, Sum, TempoDay } from '../core/practice/log/sums';
import type { Outlook } from '../core/practice/session/date';
import type { Session } from '../core/practice/session/session';
import type { Question } from '../core/practice/trainer/card';
import { CARD_KINDS } from '../core/practice/trainer/kinds';
import type { Field } from '../core/practice/trainer/kinds/kit';
import type { Memory } from '../core/practice/trainer/memory';
import { DEGREE_NAMES } from '../core/theory/degree';
import { readChord } from '../core/theory/chord-reader';
import { readScale } from '../core/theory/scale';
import { shown } from './errors';

const bpm = z.number().min(LOWEST_TEMPO).max(HIGHEST_TEMPO);
export const dayField = z.string().refine(isDay, {
  error: (issue) => `“${shown(issue.input)}” is no day; write it like 2026-03-05.`
});
const key = z
  .string()
  .max(40)
  .refine((text) => readKey(text) !== null, {
    error: (issue) => `“${shown(issue.input)}” is no key; write it like Eb, F#m or F dorian.`
  });
const count = z.number().int().min(0);
/** Moments from 1970 to far beyond any player's life. */
const moment = z.number().int().min(0).max(8.64e15);
const itemId = z.string().min(1).max(120);
const barNumber = z.number().int().min(1).max(8000);

/** What is played round and round. */
const loop = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('form') }),
  z.object({ kind: z.literal('section'), bar: count.min(1) }),
  z.object({ kind: z.literal('bars'), from: count.min(1), to: count.min(1) }),
  z.object({ kind: z.literal('change'), change: count }),
  z.object({ kind: z.literal('pair'), change: count })
]);

/** What an item is, as it is stored. */
export const itemData = z.object({
  /** A drill's id, "melody", "line", "band", or "own". */
  what: z.string().min(1).max(60),
  name: z.string().trim().min(1).max(120),
  /** The line that is played, where it is one. */
  line: z.string().max(60).optional(),
  over: loop.default({ kind: 'form' }),
  /** Where the hand is; none for wherever. */
  area: z.number().int().min(0).max(30).nullable().default(null),
  key: key.nullable().default(null),
  minutes: z.number().int().min(1).max(60).default(5),
  after: z.array(itemId).max(20).default([]),
  tempo: z.object({ start: bpm, goal: bpm, step: z.number().min(0.5).max(50).optional() }),
  /** The whole form with the band, as it will be played. */
  form: z.literal(true).optional()
});
export type ItemData = z.infer<typeof itemData>;

export const keepItems = z.object({
  items: z
    .array(z.object({ id: itemId, chart: z.uuid().nullable().default(null), data: itemData }))
    .min(1)
    .max(200)
});
export const changeItem = z.object({ base: count, data: itemData });
export const orderItems = z.object({
  order: z.array(itemId).max(5000),
  /** The order that it was changed from; another one meanwhile refuses it. */
  base: z.array(itemId).max(5000).optional()
});

export interface StoredItem {
  readonly id: string;
  readonly chart: string | null;
  /** Title of the chart; null where it is gone. */
  readonly title: string | null;
  readonly version: number;
  /** Null where it cannot be read any more. */
  readonly data: ItemData | null;
}
export interface ItemWithProgress extends StoredItem {
  readonly progress: Progress | null;
}

export const LOG_KINDS = ['rehearse', 'trainer', 'take', 'own'] as const;
export type LogKind = (typeof LOG_KINDS)[number];

/** A row of the log as it is sent and told. */
export const logRow = z.object({
  id: z.uuid(),
  item: itemId.nullable().default(null),
  chart: z.uuid().nullable().default(null),
  kind: z.enum(LOG_KINDS).default('own'),
  /** What was played, in words: the item's or the drill's name. */
  what: z.string().max(200).default(''),
  startedAt: moment,
  day: dayField,
  seconds: count.max(86_400),
  rounds: count.max(10_000).default(1),
  tempo: bpm.nullable().default(null),
  clean: z.boolean().nullable().default(null),
  key: key.nullable().default(null),
  area: z.number().int().min(0).max(30).nullable().default(null),
  note: z.string().max(2000).default(''),
  /** Changes at which the player stumbled. */
  stumbles: z.array(count.max(5000)).max(200).default([]),
  /** The stretch that was played round and round: bars of the unrolled form, both in; nothing where it is not known. */
  bars: z
    .object({ from: barNumber, to: barNumber })
    .refine(({ from, to }) => from <= to, { error: 'These bars run backwards.' })
    .optional(),
  /** For each loop of that stretch the bars in which the player stumbled. */
  loops: z.array(z.array(barNumber).max(200)).max(1000).optional(),
  /** Cards that were asked and answered right. */
  asked: count.optional(),
  right: count.optional()
});
export type LogEntry = z.infer<typeof logRow>;

/** What the recorder sends: a row as it has grown, with how often it was sent; an older one never overwrites. */
export const recordRows = z.object({
  rows: z
    .array(logRow.extend({ revision: count }))
    .min(1)
    .max(200)
});
export type RecordedRow = LogEntry & { readonly revision: number };

/** A correction by hand. */
export const changeRow = z.object({
  base: count,
  seconds: count.max(86_400).optional(),
  rounds: count.max(10_000).optional(),
  tempo: bpm.nullable().optional(),
  clean: z.boolean().nullable().optional(),
  day: dayField.optional(),
  note: z.string().max(2000).optional(),
  what: z.string().max(200).optional()
});

export const listLog = z.object({
  chart: z.uuid().optional(),
  day: dayField.optional(),
  offset: z.coerce.number().int().min(0).default(0),
  limit: z.coerce.number().int().min(1).max(500).default(100)
});

/** A part of the log, with how the player lay in time on its days. */
export interface LogPart {
  readonly rows: readonly StoredRow[];
  readonly total: number;
  readonly time: readonly TimeDay[];
}

export interface StoredRow extends LogEntry {
  readonly version: number;
  /** Title of the chart; null where there is none any more. */
  readonly title: string | null;
}

const symbol = z
  .string()
  .max(60)
  .refine((text) => readChord(text).kind === 'chord', 'this is no chord');
const degree = z.enum(DEGREE_NAMES as [string, ...string[]]);
const fret = z.number().int().min(0).max(30);
const ofField: Readonly<Record<Field, z.ZodType>> = {
  chord: symbol,
  chords: z.array(symbol).min(2).max(6),
  degree,
  fret,
  string: z.number().int().min(0).max(12),
  key,
  scale: z
    .string()
    .max(60)
    .refine((text) => readScale(text) !== null, 'this is no scale'),
  step: z.union([z.literal(-1), z.literal(1)]),
  number: z.number().int().min(0).max(24)
};

/** A question as it crosses a boundary: each kind of card says what its fields hold. */
export const question = z.union(
  CARD_KINDS.map(({ id, fields }) =>
    z.object({
      kind: z.literal(id),
      ...Object.fromEntries(Object.entries(fields).map(([name, field]) => [name, ofField[field as Field]]))
    })
  )
) as unknown as z.ZodType<Question>;

export const memory = z.object({
  due: moment,
  stability: z.number(),
  difficulty: z.number(),
  scheduledDays: z.number(),
  learningSteps: z.number(),
  reps: z.number(),
  lapses: z.number(),
  state: z.number(),
  last: moment.nullable()
}) satisfies z.ZodType<Memory>;

export const keepReviews = z.object({
  reviews: z
    .array(
      z.object({
        id: z.uuid(),
        question,
        at: moment,
        day: dayField,
        isRight: z.boolean(),
        seconds: z.number().min(0).max(3600)
      })
    )
    .min(1)
    .max(200)
});
export type SentReview = z.infer<typeof keepReviews>['reviews'][number];

export interface StoredCard {
  readonly id: string;
  readonly question: Question;
  readonly memory: Memory;
  /** The day it was first asked. */
  readonly day: string;
}

/** Charts for a date, in order. */
export const setListData = z.object({
  day: dayField,
  /** Minutes a day that there will be for it. */
  minutes: z.number().int().min(1).max(240).default(30),
  charts: z
    .array(
      z.object({
        chart: z.uuid(),
        key: key.nullable().default(null),
        tempo: bpm.nullable().default(null),
        tuning: z.string().max(80).default(''),
        note: z.string().max(500).default('')
      })
    )
    .max(100)
});
export type SetListData = z.infer<typeof setListData>;
export const keepSetList = z.object({
  id: z.uuid(),
  name: z.string().trim().min(1).max(120),
  data: setListData
});
export const changeSetList = z.object({
  base: count,
  name: z.string().trim().min(1).max(120).optional(),
  data: setListData.optional()
});
export interface StoredSetList {
  readonly id: string;
  readonly name: string;
  readonly version: number;
  readonly data: SetListData | null;
}

/** How far a tune of a set list will be by its day. */
export interface TuneOutlook extends Partial<Outlook> {
  readonly chart: string;
  /** Of its items in the key of the day: how many there are, and how many are held. */
  readonly items: number;
  readonly held: number;
}

/** What the page of the day shows. */
export interface Today {
  readonly day: string;
  readonly minutes: number;
  readonly items: readonly ItemWithProgress[];
  readonly plan: Session;
  readonly cards: { readonly due: number; readonly known: number };
  readonly setLists: readonly StoredSetList[];
  /** Of each set list to come its tunes in their order, by the id of the list. */
  readonly outlooks: Readonly<Record<string, readonly TuneOutlook[]>>;
  /** Charts there are, for what is to be taken up. */
  readonly charts: readonly {
    readonly id: string;
    readonly title: string;
    /** As it is written in the chart or found from its chords; empty where there are none. */
    readonly key: string;
  }[];
  /** The last days of playing, today the last of them. */
  readonly days: readonly Sum[];
}

/** What the pictures of practice are drawn from. */
export interface Pictures {
  readonly coverage: readonly Covered[];
  readonly weeks: readonly Sum[];
  readonly days: readonly Sum[];
  /** Items that were played, the one last played first. */
  readonly tempos: readonly {
    readonly id: string;
    readonly name: string;
    readonly title: string | null;
    readonly goal: number;
    readonly days: readonly TempoDay[];
  }[];
  readonly cards: readonly {
    readonly degree: string;
    readonly area: number | null;
    readonly known: number;
    readonly all: number;
  }[];
  /** How the player lay in time in takes, day by day. */
  readonly time: readonly TimeDay[];
  /** How late the changes of a chart are met in its takes: beats, by chart, the latest first. */
  readonly lateness: readonly {
    readonly chart: string;
    readonly title: string;
    readonly changes: readonly (Lateness & { readonly symbol: string; readonly bar: number })[];
  }[];
  /** Changes at which the player stumbles, by chart. */
  readonly stumbles: readonly {
    readonly chart: string;
    readonly title: string;
    readonly changes: readonly {
      readonly change: number;
      readonly symbol: string;
      readonly bar: number;
      readonly times: number;
    }[];
  }[];
}

/** What the trainer begins with. */
export interface TrainerData {
  readonly cards: readonly StoredCard[];
  /** Charts that are practised, with the areas they are practised in. */
  readonly charts: readonly {
    readonly title: string;
    readonly source: string;
    readonly positions: readonly number[];
  }[];
  /** Cards that were new today. */
  readonly newToday: number;
}
