/** What the routes of a chart's takes take and give. */
import { z } from 'zod';
import { isDay } from '../core/practice/log/day';
import { MEETINGS } from '../core/takes/judge/landing';
import type { TakeFigures } from '../core/takes/judge/judge';
import { PITCH_EVENTS } from '../core/takes/model';
import { EFFECTS } from '../core/takes/player/effects';
import { TONES } from '../core/takes/player/string';
import { MAX_CHART_BYTES } from './limits';
import { planSchema } from './plan';

/** How a take came in. */
export const WAYS_IN = ['microphone', 'file', 'midi', 'midi file', 'player'] as const;
export type WayIn = (typeof WAYS_IN)[number];

/** Notes of one take; half an hour of sixteenths has fewer. */
const MOST_NOTES = 20_000;
/** Seconds of one take. */
export const LONGEST_TAKE = 1800;
const seconds = z.number().min(-60).max(LONGEST_TAKE);
const midi = z.number().int().min(0).max(127);

const heardNote = z.object({
  at: seconds,
  seconds: z.number().min(0).max(LONGEST_TAKE),
  midi,
  cents: z.number().min(-1200).max(1200).default(0),
  confidence: z.number().min(0).max(1).default(1),
  curve: z.array(z.number().nullable()).max(8192).default([]),
  level: z.number().min(0).max(1).optional(),
  events: z
    .array(
      z.object({
        kind: z.enum(PITCH_EVENTS),
        at: seconds,
        cents: z.number().min(-2400).max(2400)
      })
    )
    .max(256)
    .default([])
});

const stroke = z.object({
  at: seconds,
  seconds: z.number().min(0).max(LONGEST_TAKE),
  midi: z.number().min(0).max(127),
  loudness: z.number().min(0).max(1),
  bend: z.object({ from: z.number().min(0).max(127), seconds: z.number().min(0).max(60) }).optional(),
  release: z
    .object({
      to: z.number().min(0).max(127),
      after: z.number().min(0).max(LONGEST_TAKE),
      seconds: z.number().min(0).max(60)
    })
    .optional(),
  vibrato: z
    .object({
      cents: z.number().min(0).max(400),
      hertz: z.number().min(0).max(20),
      after: z.number().min(0).max(LONGEST_TAKE)
    })
    .optional(),
  muted: z.literal(true).optional(),
  slur: z.literal(true).optional()
});

/** What the simulated player did: its sound is made of it again whenever it is wanted. */
export const playedBy = z.object({
  skill: z.number().min(0).max(1),
  tone: z.enum(TONES),
  effect: z.enum(EFFECTS).optional(),
  seed: z.number().int().min(0),
  strokes: z.array(stroke).max(MOST_NOTES)
});

export const takeData = z.object({
  way: z.enum(WAYS_IN),
  /** The chart as it was then: the take stays judged against it. */
  source: z.string().max(MAX_CHART_BYTES),
  /** What the player had decided over it then; of an older take today's decisions, carried over, as `today` says. */
  plan: planSchema.optional(),
  /** True where the decisions of that time are not known, and the take was judged with those of a later day. */
  today: z.boolean().optional(),
  /** Beats of its meter a minute, and the second of the sound at which its first beat sounded. */
  tempo: z.number().min(20).max(400),
  start: seconds,
  notes: z.array(heardNote).max(MOST_NOTES),
  /** Cents from A 440. */
  tuning: z.number().min(-100).max(100).default(0),
  troubles: z.array(z.enum(['silence', 'noise', 'clipped', 'several notes at once', 'cut short'])).max(5),
  /** The target line as it was meant. */
  targets: z
    .array(
      z.object({
        change: z.number().int().min(0),
        midi,
        /** The beat at which it is meant, where that is not the change's own. */
        at: z.number().min(-48).max(32_000).optional()
      })
    )
    .max(2000),
  /** Latency that was taken out, in seconds; null where it was not known. */
  latency: z.number().min(-2).max(2).nullable().default(null),
  player: playedBy.optional(),
  /** Bars that were traded, and what Corvel played in its turns, in ticks since the first round began. */
  trade: z
    .object({
      bars: z.union([z.literal(2), z.literal(4)]),
      call: z
        .array(z.object({ start: z.number().int().min(0), length: z.number().int().min(1), midi }))
        .max(MOST_NOTES)
    })
    .optional(),
  isLoved: z.boolean().default(false),
  remark: z.string().max(2000).default('')
});
export type TakeData = z.infer<typeof takeData>;

const name = z.string().trim().min(1, 'a take needs a name').max(120);

export const keepTake = z.object({
  /** Made by the client: the same request sent twice keeps one take. */
  id: z.uuid(),
  name,
  playedAt: z.number().int().min(0),
  day: z.string().refine(isDay, 'this is no day'),
  seconds: z.number().min(0).max(LONGEST_TAKE),
  data: takeData
});

export const changeTake = z.object({
  /** The version the edit was based on. */
  base: z.number().int().min(1),
  name: name.optional(),
  seconds: z.number().min(0).max(LONGEST_TAKE).optional(),
  data: takeData.optional()
});

/** How one change of one round was met. */
export const takeLanding = z.object({
  change: z.number().int().min(0),
  round: z.number().int().min(0),
  met: z.enum(MEETINGS).nullable(),
  late: z.number().nullable(),
  verdict: z.enum(['clear', 'partly', 'not', 'silence'])
});
export type TakeLanding = z.infer<typeof takeLanding>;

/** What a list tells of a take. */
export interface TakeSummary {
  readonly figures: Pick<
    TakeFigures,
    'notes' | 'rounds' | 'changes' | 'outlined' | 'hits' | 'late' | 'apart' | 'fits'
  >;
  readonly landings: readonly TakeLanding[];
  /** How the player lay in time: seconds behind the beat, their spread, the drift of the tempo. Absent in what was judged without it. */
  readonly time?: TakeTime | undefined;
}

export const takeTime = z.object({ mean: z.number(), spread: z.number(), drift: z.number() });
export type TakeTime = z.infer<typeof takeTime>;

export interface ListedTake {
  readonly id: string;
  readonly name: string;
  readonly version: number;
  readonly way: WayIn;
  readonly playedAt: number;
  readonly day: string;
  readonly seconds: number;
  /** Of its sound on the disk. */
  readonly bytes: number;
  readonly isLoved: boolean;
  readonly tempo: number;
  /** Null where it cannot be read; it is kept all the same. */
  readonly summary: TakeSummary | null;
}

/** A take as it is kept. `data` is null where it cannot be read. */
export interface StoredTake extends ListedTake {
  readonly data: TakeData | null;
}

/** What the sounds of all takes fill, and which could go first. */
export interface TakeSounds {
  readonly bytes: number;
  readonly takes: readonly (Pick<ListedTake, 'id' | 'name' | 'bytes' | 'playedAt' | 'isLoved'> & {
    readonly chart: string;
    readonly title: string;
  })[];
}
