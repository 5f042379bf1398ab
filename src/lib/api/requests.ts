/** What the stateless routes take: see docs/api.md. */
import { z } from 'zod';
import { DEGREE_NAMES } from '../core/theory/degree';
import { DEFAULT_WEIGHTS } from '../core/targets/options';
import { fixedTarget } from './plan';

const weight = z.number().min(0).max(1000);
const fret = z.number().int();

export const analysisRequest = z.object({ chart: z.string(), key: z.string().max(40).optional() });

export const scaleChoicesRequest = z.object({
  chart: z.string(),
  key: z.string().max(40).optional(),
  change: z.number().int().min(0).optional(),
  approaches: z.array(z.string().max(40)).max(40).optional()
});

export const guideTonesRequest = z.object({ chart: z.string(), key: z.string().max(40).optional() });

const instrumentParts = {
  tuning: z.union([z.string().max(80), z.array(z.string().max(8)).max(12)]).optional(),
  frets: z.number().int().optional(),
  capo: z.number().int().optional()
};

export const shapeRequest = z.object({
  chord: z.string().max(60).optional(),
  scale: z.string().max(80).optional(),
  position: z.number().int(),
  ...instrumentParts
});

/** A degree as a player counts it: chord degrees whatever their quality, tensions by name. */
const degreeWish = z.enum(DEGREE_NAMES as [string, ...string[]], {
  error: (issue) => `“${String(issue.input)}” is no degree of a chord; use one of ${DEGREE_NAMES.join(', ')}.`
});

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
  window: z.object({ from: fret, to: fret }).optional(),
  strings: z.array(z.number().int()).min(1).max(12).optional(),
  range: z.object({ low: z.number().int(), high: z.number().int() }).optional(),
  degrees: z.array(degreeWish).min(1).max(DEGREE_NAMES.length).default(['1', '3', '5', '7']),
  standIn: z.boolean().default(false),
  column: degreeWish.optional(),
  alternate: z.union([z.boolean(), z.array(z.string())]).default(false),
  direction: z.enum(['rising', 'falling', 'free']).default('free'),
  fixed: z.array(fixedTarget).max(2000).default([]),
  which: z
    .union([z.enum(['all', 'first-of-bar', 'cadences']), z.object({ longerThan: z.number().min(0) })])
    .default('all'),
  loop: z.boolean().default(false),
  weights: z
    .object({
      degree: slotWeights.default(DEFAULT_WEIGHTS.degree),
      pitch: weight.default(DEFAULT_WEIGHTS.pitch),
      hand: weight.default(DEFAULT_WEIGHTS.hand),
      string: weight.default(DEFAULT_WEIGHTS.string),
      repeat: weight.default(DEFAULT_WEIGHTS.repeat)
    })
    .default(DEFAULT_WEIGHTS),
  alternatives: z.number().int().min(1).max(50).default(1),
  ...instrumentParts
});
export type TargetsRequest = z.infer<typeof targetsRequest>;
