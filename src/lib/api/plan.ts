/** The plan: a guitarist's decisions for one chart, as stored and sent. */
import { z } from 'zod';
import { MAX_CHANGES } from '../core/chart/unroll';
import { FUNCTIONS } from '../core/harmony/numeral';
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
  overrules: []
};
