/** What the routes of the archive take and give: everything that is kept, as one file. */
import { z } from 'zod';

/** How an archive comes in: what is not here; that and what is newer there; or all of it instead of what is here. */
export const MERGES = ['add', 'newer', 'replace'] as const;
export type Merge = (typeof MERGES)[number];

export const importArchive = z.object({
  /** `look` stores nothing: it tells what would come in. */
  merge: z.enum(['look', ...MERGES]).default('look')
});
export const takeArchive = z.object({ sounds: z.enum(['yes', 'no']).default('yes') });

/** Kinds of things in an archive, as they are counted. */
export const ARCHIVED = [
  'charts',
  'lines',
  'solos',
  'licks',
  'takes',
  'practice items',
  'log rows',
  'set lists',
  'cards'
] as const;
export type Archived = (typeof ARCHIVED)[number];

/** How what is in an archive stands to what is here. */
export interface Compared {
  readonly kind: Archived;
  /** Not here, or deleted here. */
  readonly missing: number;
  readonly newer: number;
  /** The same, or newer here. */
  readonly known: number;
}

/** Something in a file from elsewhere that could not be taken in. */
export interface LeftOut {
  readonly kind: string;
  readonly what: string;
  readonly why: string;
}

export interface ArchiveLook {
  /** What in it cannot be read, and stays out. */
  readonly left: readonly LeftOut[];
  readonly compared: readonly Compared[];
  /** Sounds of takes in it. */
  readonly sounds: number;
}

export interface ArchiveImported extends ArchiveLook {
  /** The copy of what was here before. */
  readonly before: string;
}
