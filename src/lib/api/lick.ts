/** What the routes of the lick book take and give. */
import { z } from 'zod';
import type { KeptLick, LickFacts } from '../core/line/lick-facts';
import { storedNote } from './line';

const MOST_NOTES = 512;
const MOST_CHORDS = 64;
const MOST_TAGS = 20;
export const HIGHEST_RATING = 5;

const tag = z.string().trim().min(1).max(30);

export const lickData = z.object({
  meter: z.object({ beats: z.number().int().min(1).max(32), unit: z.number().int().min(1).max(32) }),
  key: z.string().max(40).optional(),
  /** Offered over what its chords are, which is so where nothing is said, or anywhere in its key. */
  by: z.enum(['key', 'chord']).optional(),
  over: z
    .array(z.object({ symbol: z.string().max(60), beats: z.number().positive().max(256) }))
    .min(1, 'a lick stands over at least one chord')
    .max(MOST_CHORDS),
  notes: z.array(storedNote).min(1, 'a lick has at least one note').max(MOST_NOTES),
  tags: z.array(tag).max(MOST_TAGS),
  /** The chart and line it comes from, in words. */
  source: z.string().max(300),
  rating: z.number().int().min(0).max(HIGHEST_RATING),
  /** How often it was played. */
  played: z.number().int().min(0)
});
export interface LickData extends KeptLick {
  readonly tags: readonly string[];
  readonly source: string;
  readonly rating: number;
  readonly played: number;
}

const name = z.string().trim().min(1, 'a lick needs a name').max(120);

export const keepLick = z.object({
  /** Made by the client: the same request sent twice keeps one lick. */
  id: z.uuid(),
  name,
  data: lickData
});

export const changeLick = z.object({
  /** The version the edit was based on. */
  base: z.number().int().min(1),
  name: name.optional(),
  data: lickData.optional()
});

/** Licks that one answer tells of. */
export const LICKS_IN_AN_ANSWER = 200;

/** A part of the book, the newest first. */
export const listLicks = z.object({
  offset: z.coerce.number().int().min(0).default(0),
  limit: z.coerce.number().int().min(1).max(LICKS_IN_AN_ANSWER).default(LICKS_IN_AN_ANSWER)
});

export interface LickList {
  readonly licks: readonly StoredLick[];
  /** Licks in the whole book. */
  readonly total: number;
}

/** A lick as it is kept; `data` and `facts` are null where it cannot be read, and it is kept all the same. */
export interface StoredLick {
  readonly id: string;
  readonly name: string;
  readonly version: number;
  readonly data: LickData | null;
  readonly facts: LickFacts | null;
}
