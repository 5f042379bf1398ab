/** What the songbook's routes take and give. */
import { z } from 'zod';
import type { Plan } from '../core/plan/model';
import { planSchema } from './plan';

/** Charts that something is done to in one request. */
const MOST_AT_ONCE = 200;

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
  /** Each as it stands in the facets. */
  key: z.string().max(20).optional(),
  form: z.string().max(40).optional(),
  style: z.string().max(60).optional(),
  tag: z.string().max(40).optional(),
  practised: z.enum(['lately', 'long ago', 'never']).optional(),
  offset: z.coerce.number().int().min(0).default(0),
  limit: z.coerce.number().int().min(1).max(200).default(60)
});

/** What is done to many charts at once; to all of them or to none. */
export const manyCharts = z
  .object({
    ids: z.array(z.uuid()).min(1).max(MOST_AT_ONCE),
    what: z.enum(['delete', 'bring back', 'tag', 'untag']),
    tag: z.string().trim().min(1).max(40).optional()
  })
  .refine(({ what, tag }) => tag !== undefined || !what.endsWith('tag'), {
    message: 'A tag is missing.',
    path: ['tag']
  });
export type ManyCharts = z.infer<typeof manyCharts>;

/** A value that charts have, and how many of them. */
export interface Facet {
  readonly value: string;
  readonly count: number;
}

/** What the charts of the songbook can be told apart by. */
export interface Facets {
  readonly key: readonly Facet[];
  readonly form: readonly Facet[];
  readonly style: readonly Facet[];
  readonly tag: readonly Facet[];
}

/** A row of the songbook. Times are milliseconds since 1970. */
export interface ChartSummary {
  readonly id: string;
  readonly title: string;
  readonly key: string;
  readonly meter: string;
  readonly tempo: number | null;
  readonly feel: string | null;
  readonly bars: number;
  /** "12-bar blues", "32 bars". */
  readonly form: string;
  readonly tags: readonly string[];
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
  /** Of all charts, whatever is searched for. */
  readonly facets: Facets;
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
