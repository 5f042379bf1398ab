/** What the routes of a chart's kept lines take and give. */
import { z } from 'zod';
import type { LineNote } from '../core/line/model';

/** Notes of one line; a chorus of sixteenths over a long form has fewer. */
const MOST_NOTES = 4096;
/** Chords a line stands over. */
const MOST_CHORDS = 2000;
const ticks = z.number().int().min(0).max(40_000_000);
/** Negative for a pickup: two bars of the longest meters at most. */
const start = z
  .number()
  .int()
  .min(-48 * 960)
  .max(40_000_000);
const midi = z.number().int().min(0).max(127);

export const storedNote = z.object({
  start,
  length: ticks.min(1),
  midi,
  note: z.string().max(4),
  place: z
    .object({
      string: z.number().int().min(1).max(12),
      fret: z.number().int().min(0).max(24),
      finger: z.number().int().min(0).max(4).optional()
    })
    .optional(),
  tie: z.literal(true).optional(),
  bend: z.object({ from: midi, cents: z.number().int().min(1).max(50).optional() }).optional(),
  slide: z.literal(true).optional(),
  release: z.object({ to: midi }).optional(),
  slur: z.literal(true).optional(),
  vibrato: z.literal(true).optional(),
  ghost: z.literal(true).optional(),
  purpose: z.enum(['target', 'leave', 'approach', 'run']).optional()
});

/** A chord that a line was written over, in beats. */
const writtenOver = z.object({
  symbol: z.string().max(60),
  start: z.number().min(0),
  beats: z.number().positive()
});
export type WrittenOver = z.infer<typeof writtenOver>;

export const lineData = z.object({
  notes: z.array(storedNote).min(1, 'a line has at least one note').max(MOST_NOTES),
  /** The chords of the form as they were then. */
  over: z.array(writtenOver).max(MOST_CHORDS)
});
export type LineData = { readonly notes: readonly LineNote[]; readonly over: readonly WrittenOver[] };

const name = z.string().trim().min(1, 'a line needs a name').max(120);
/** The saved version of the chart that notes were written over; the present one where none is named, null where it is not known. */
export const chartVersionNumber = z.number().int().min(1).nullable().optional();

export const keepLine = z.object({
  /** Made by the client: the same request sent twice keeps one line. */
  id: z.uuid(),
  name,
  chartVersion: chartVersionNumber,
  data: lineData
});

export const changeLine = z.object({
  /** The version the edit was based on. */
  base: z.number().int().min(1),
  name: name.optional(),
  chartVersion: chartVersionNumber,
  data: lineData.optional()
});

/** A line as it is kept. `data` is null where it cannot be read; it is kept all the same. */
export interface StoredLine {
  readonly id: string;
  readonly name: string;
  readonly version: number;
  /** The version of the chart that it was written over; null for one that an older Corvel kept. */
  readonly chartVersion: number | null;
  readonly data: LineData | null;
}
