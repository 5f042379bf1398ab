/** What the songbook's routes take and give. */
import { z } from 'zod';
import type { Plan } from '../core/plan/model';
import { planSchema } from './plan';

export const createChart = z.object({
  /** Made by the client: the same request sent twice makes one chart. */
  id: z.uuid().optional(),
  source: z.string(),
  plan: planSchema.optional()
});

export const saveChart = z.object({
  /** The version the edit was based on. */
  base: z.number().int().min(0),
  source: z.string(),
  plan: planSchema
});

export const renameChart = z.object({ title: z.string().trim().min(1).max(200) });

export const listCharts = z.object({
  search: z.string().max(200).default(''),
  sort: z.enum(['practised', 'title', 'changed']).default('practised'),
  offset: z.coerce.number().int().min(0).default(0),
  limit: z.coerce.number().int().min(1).max(200).default(60)
});

/** A row of the songbook. Times are milliseconds since 1970. */
export interface ChartSummary {
  readonly id: string;
  readonly title: string;
  readonly key: string;
  readonly meter: string;
  readonly tempo: number | null;
  readonly feel: string | null;
  readonly bars: number;
  /** The first chord symbols, to know the tune by. */
  readonly opening: readonly string[];
  readonly updatedAt: number;
  /** When it was last played, by the log. */
  readonly practisedAt: number | null;
  /** The highest tempo that is held in it. */
  readonly heldTempo: number | null;
  /** The stored plan cannot be read; it is kept. */
  readonly damaged: boolean;
}

export interface ChartList {
  readonly charts: readonly ChartSummary[];
  /** How many match the search, beyond those given. */
  readonly total: number;
}

/** A chart as opened. */
export interface StoredChart {
  readonly id: string;
  readonly source: string;
  readonly plan: Plan;
  readonly version: number;
  readonly damaged: boolean;
}

export interface RevisionSummary {
  readonly version: number;
  readonly savedAt: number;
  readonly title: string;
}
