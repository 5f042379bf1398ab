/** What is kept of a solo: its arc, its phrases, its notes, and what it was made from. */
import { z } from 'zod';
import { chartVersionNumber, storedNote } from './line';

/** Choruses of one solo. */
const MOST_CHORUSES = 12;
const MOST_NOTES = 20_000;
const MOST_PHRASES = 2000;
const beats = z.number().min(-48).max(1_000_000);
const share = z.number().min(0).max(1);
/** A course over the choruses: points of a chorus, counted from 0, and a share. */
const course = z.array(z.tuple([z.number().min(0).max(MOST_CHORUSES), share])).max(200);

const arc = z.union([
  z.string().trim().min(1).max(60),
  z.object({ density: course, register: course, outline: course, loudness: course })
]);

const phrase = z.object({
  from: beats,
  to: beats,
  kind: z.string().min(1).max(40),
  /** The phrase that it relates to, by its number, and how. */
  of: z.number().int().min(0).max(MOST_PHRASES).optional(),
  relation: z.string().max(40).optional(),
  lick: z.string().max(60).optional(),
  moved: z.number().int().min(-48).max(48).optional(),
  prompt: z.string().max(60).optional(),
  why: z.string().max(500).optional()
});

export const soloData = z.object({
  arc,
  choruses: z.number().int().min(1).max(MOST_CHORUSES),
  phrases: z.array(phrase).max(MOST_PHRASES),
  line: z.array(storedNote).max(MOST_NOTES),
  seed: z.number().int(),
  /** The engine that made it: with another one the same seed gives other notes. */
  engine: z.number().int().min(1).optional()
});
export type SoloData = z.infer<typeof soloData>;

export const keepSolo = z.object({
  /** Made by the client: the same request sent twice keeps one solo. */
  id: z.uuid(),
  name: z.string().trim().min(1, 'a solo needs a name').max(120),
  chartVersion: chartVersionNumber,
  data: soloData
});

/** A solo as it is kept. `data` is null where it cannot be read; it is kept all the same. */
export interface StoredSolo {
  readonly id: string;
  readonly name: string;
  readonly version: number;
  /** The version of the chart that it was made over. */
  readonly chartVersion: number | null;
  readonly data: SoloData | null;
}
