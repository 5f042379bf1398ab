/** The plan: a guitarist's decisions for one chart, as stored and sent. */
import { z } from 'zod';
import { MAX_CHANGES } from '../core/chart/unroll';
import { MAX_FRETS } from '../core/neck/tuning';

export const fixedTarget = z.object({
  change: z.number().int().min(0).max(MAX_CHANGES),
  string: z.number().int().min(1).max(10),
  fret: z.number().int().min(0).max(MAX_FRETS)
});

/** How the thread is led: freely through the allowed degrees, down one column, or thirds and sevenths in turn. */
export const THREAD_RULES = ['free', '1', '3', '5', '7', 'alternate'] as const;

export const planSchema = z.object({
  position: z.number().int().min(0).max(MAX_FRETS),
  thread: z.enum(THREAD_RULES),
  /** Chord degrees the free thread may land on. */
  degrees: z.array(z.enum(['1', '3', '5', '7'])).min(1),
  loop: z.boolean(),
  fixed: z.array(fixedTarget).max(MAX_CHANGES)
});

export type Plan = z.infer<typeof planSchema>;
export type ThreadRule = Plan['thread'];

export const DEFAULT_PLAN: Plan = {
  position: 5,
  thread: 'free',
  degrees: ['3', '7'],
  loop: true,
  fixed: []
};
