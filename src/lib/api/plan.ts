/** The plan: a guitarist's decisions for one chart, as stored and sent. */
import { z } from 'zod';
import { MAX_CHANGES } from '../core/chart/unroll';
import { FUNCTIONS } from '../core/harmony/numeral';
import { APPROACH_KINDS } from '../core/moment/approach-notes';
import { DEFAULT_WEIGHTS, DIRECTIONS } from '../core/targets/options';
import { MAX_FRETS } from '../core/neck/tuning';

const changeIndex = z.number().int().min(0).max(MAX_CHANGES);

export const fixedTarget = z.object({
  change: changeIndex,
  /** Beat within the change, 1 its start; for a target inside a long change. */
  beat: z.number().min(1).max(256).optional(),
  string: z.number().int().min(1).max(10),
  fret: z.number().int().min(0).max(MAX_FRETS)
});

/** How the thread is led: freely through the allowed degrees, down one column, or thirds and sevenths in turn. */
export const THREAD_RULES = ['free', '1', '3', '5', '7', 'alternate'] as const;

/** Which changes get a target; `long` are those over two beats, `outlined` those that the dial outlines. */
export const WHICH = ['all', 'first-of-bar', 'cadences', 'long', 'outlined'] as const;
const midi = z.number().int().min(0).max(127);
const register = z.object({ low: midi, high: midi });
const weight = z.number().min(0).max(20);
const approachWish = z.enum(['none', 'fitting', ...APPROACH_KINDS]);

export const planSchema = z.object({
  /** Where the hand is, unless a change has a position of its own. */
  position: z.number().int().min(0).max(MAX_FRETS),
  /** Painted on the position map: changes at which the hand is elsewhere. */
  positions: z
    .array(z.object({ change: changeIndex, position: z.number().int().min(0).max(MAX_FRETS) }))
    .max(MAX_CHANGES)
    .default([]),
  thread: z.enum(THREAD_RULES),
  /** Chord degrees the free thread may land on. */
  degrees: z.array(z.enum(['1', '3', '5', '7'])).min(1),
  loop: z.boolean(),
  fixed: z.array(fixedTarget).max(MAX_CHANGES),
  /** What was chosen by hand: the collection's name, as an approach offered it. */
  choices: z
    .array(
      z.object({
        change: changeIndex,
        approach: z.string().max(40),
        name: z.string().max(80),
        /** Within the change the player goes over to another collection, from this beat of it on (1 is its start). */
        then: z.object({ beat: z.number().min(1).max(64), name: z.string().max(80) }).optional()
      })
    )
    .max(MAX_CHANGES)
    .default([]),
  /** How many changes are outlined, the most telling first; null for all of them. */
  outline: z.number().int().min(0).max(MAX_CHANGES).nullable().default(null),
  /** The approach that outlined changes take their first choice from. */
  school: z.string().max(40).default('modes'),
  /** Where the player knows the key or the function better. */
  overrules: z
    .array(
      z.object({
        change: changeIndex,
        key: z.string().max(20).optional(),
        function: z.enum(FUNCTIONS).optional()
      })
    )
    .max(MAX_CHANGES)
    .default([]),
  /** The player's taste: what a path is charged for. */
  weights: z
    .object({
      degree: z.object({ '1': weight, '3': weight, '5': weight, '7': weight, tension: weight }),
      pitch: weight,
      hand: weight,
      string: weight,
      repeat: weight
    })
    .default(DEFAULT_WEIGHTS),
  direction: z.enum(DIRECTIONS).default('free'),
  which: z.enum(WHICH).default('all'),
  /** Beats from one target to the next inside a change; null for one at its start. */
  every: z.number().min(1).max(16).nullable().default(null),
  /** Targets under the hand, or anywhere on the neck. */
  reach: z.enum(['hand', 'neck']).default('hand'),
  strings: z.array(z.number().int().min(1).max(10)).min(1).max(10).nullable().default(null),
  range: register.nullable().default(null),
  avoid: z.array(register).max(12).default([]),
  /** How targets are led into, and where that is decided one by one. */
  approach: approachWish.default('none'),
  approaches: z
    .array(z.object({ change: changeIndex, kind: approachWish }))
    .max(MAX_CHANGES)
    .default([])
});

export type Plan = z.infer<typeof planSchema>;
export type ThreadRule = Plan['thread'];

export const DEFAULT_PLAN: Plan = {
  position: 5,
  positions: [],
  thread: 'free',
  degrees: ['3', '7'],
  loop: true,
  fixed: [],
  choices: [],
  outline: null,
  school: 'modes',
  overrules: [],
  weights: DEFAULT_WEIGHTS,
  direction: 'free',
  which: 'all',
  every: null,
  reach: 'hand',
  strings: null,
  range: null,
  avoid: [],
  approach: 'none',
  approaches: []
};
