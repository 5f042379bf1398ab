/** The plan as stored and sent: a schema over the core's model, and the reading of older forms of it. */
import { z } from 'zod';
import { MAX_CHANGES } from '../core/chart/unroll';
import { FUNCTIONS } from '../core/harmony/numeral';
import { APPROACH_KINDS } from '../core/line/approach-notes';
import { DEFAULT_WEIGHTS, DIRECTIONS } from '../core/targets/options';
import { MAX_FRETS } from '../core/neck/tuning';
import {
  CHORD_SLOTS,
  DEFAULT_PLAN,
  PIN_TIMES,
  REACHES,
  THREAD_RULES,
  WHICH,
  type Plan
} from '../core/plan/model';
import { fromFirstForm } from './plan-first-form';

const changeIndex = z.number().int().min(0).max(MAX_CHANGES);
const fret = z.number().int().min(0).max(MAX_FRETS);
const string = z.number().int().min(1).max(10);
/** Beat within the change, 1 its start; for a target inside a long change. */
const beat = z.number().min(1).max(256);
const midi = z.number().int().min(0).max(127);
const register = z.object({ low: midi, high: midi });
const weight = z.number().min(0).max(20);
const approachNote = z.enum(['none', 'fitting', ...APPROACH_KINDS]);

const collection = z.object({
  kind: z.enum(['scale', 'arpeggio', 'triad', 'triad pair', 'guide tones']),
  root: z.string().max(3),
  type: z.string().max(60),
  inversion: z.number().int().min(1).max(8).optional()
});

const decision = z.object({
  change: changeIndex,
  position: fret.optional(),
  choice: z
    .object({
      approach: z.string().max(40),
      collection,
      then: z.object({ beat: z.number().min(1).max(64), collection }).optional()
    })
    .optional(),
  reading: z
    .object({ key: z.string().max(20).optional(), function: z.enum(FUNCTIONS).optional() })
    .optional(),
  approachNote: approachNote.optional(),
  pins: z
    .array(z.object({ beat: beat.optional(), string, fret, when: z.enum(PIN_TIMES).optional() }))
    .max(256)
    .optional()
});

const planFields = z.object({
  position: fret.nullable(),
  decisions: z.array(decision).max(MAX_CHANGES),
  thread: z.enum(THREAD_RULES),
  degrees: z.array(z.enum(CHORD_SLOTS)).min(1),
  loop: z.boolean(),
  outline: z.number().int().min(0).max(MAX_CHANGES).nullable().default(DEFAULT_PLAN.outline),
  approach: z.string().max(40).default(DEFAULT_PLAN.approach),
  weights: z
    .object({
      degree: z.object({ '1': weight, '3': weight, '5': weight, '7': weight, tension: weight }),
      pitch: weight,
      hand: weight,
      string: weight,
      repeat: weight,
      // What was weighed by an older Corvel knew nothing of these.
      held: weight.default(DEFAULT_WEIGHTS.held),
      register: weight.default(DEFAULT_WEIGHTS.register),
      low: weight.default(DEFAULT_WEIGHTS.low)
    })
    .default(DEFAULT_WEIGHTS),
  direction: z.enum(DIRECTIONS).default(DEFAULT_PLAN.direction),
  which: z.enum(WHICH).default(DEFAULT_PLAN.which),
  every: z.number().min(1).max(16).nullable().default(DEFAULT_PLAN.every),
  reach: z.enum(REACHES).default(DEFAULT_PLAN.reach),
  strings: z.array(string).min(1).max(10).nullable().default(null),
  range: register.nullable().default(DEFAULT_PLAN.range),
  avoid: z.array(register).max(12).default([]),
  approachNotes: approachNote.default(DEFAULT_PLAN.approachNotes)
});

/** A plan in today's form, or in an older one that is brought into it. */
export const planSchema: z.ZodType<Plan> = z.preprocess(fromFirstForm, planFields);

/** A target held to a cell, as the route of targets takes it. */
export const fixedTarget = z.object({
  change: changeIndex,
  beat: beat.optional(),
  string,
  fret,
  when: z.enum(PIN_TIMES).optional()
});
