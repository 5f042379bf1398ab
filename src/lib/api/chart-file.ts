/** One chart as one file, to give to a student or a friend, or to take to another machine. Documented in docs/chart-file.md. */
import { z } from 'zod';
import { lineData } from './line';
import { soloData } from './solo';
import { planSchema } from './plan';
import { itemData, logRow } from './practice';
import { keepTake } from './take';

const name = z.string().trim().min(1).max(120);
/** Versions that this Corvel reads; it writes the last of them. */
const VERSIONS = [1, 2, 3] as const;
/** Which of `versions` something was made over; the chart itself where none is named. */
const over = z.number().int().min(0).max(999).optional();

export const chartFile = z.object({
  corvel: z.literal('chart'),
  version: z.literal(VERSIONS, 'this file was made by a newer Corvel; update Corvel to read it'),
  /** The text of the chart: chords, form, key, melody. */
  chart: z.string(),
  /** Choices, hand, targets and rules. */
  plan: planSchema,
  /** Earlier versions of the chart that lines and solos were made over. */
  versions: z
    .array(z.object({ chart: z.string(), plan: planSchema }))
    .max(1000)
    .default([]),
  lines: z
    .array(z.object({ id: z.string().max(60), name, over, data: lineData }))
    .max(500)
    .default([]),
  solos: z
    .array(z.object({ name, over, data: soloData }))
    .max(200)
    .default([]),
  /** Drills and lines as they are practised. */
  items: z
    .array(z.object({ id: z.string().min(1).max(120), data: itemData }))
    .max(1000)
    .default([]),
  /** What was played: only where the file was made with it. Takes come without their sound. */
  takes: z
    .array(keepTake.omit({ id: true }))
    .max(500)
    .default([]),
  log: z
    .array(logRow.omit({ id: true, chart: true }))
    .max(20_000)
    .default([])
});
export type ChartFile = z.infer<typeof chartFile>;

export const importChartFile = z.object({
  /** Made by the client: the same request sent twice makes one chart. */
  id: z.uuid(),
  file: chartFile
});
