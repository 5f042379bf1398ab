/** What the command palette looks for over the whole songbook. */
import { z } from 'zod';

export const findQuery = z.object({
  search: z.string().max(200).default(''),
  /** Of each kind. */
  limit: z.coerce.number().int().min(1).max(50).default(8)
});

/** What was found, of each kind the most recent first. */
export interface Found {
  readonly charts: readonly { readonly id: string; readonly title: string; readonly key: string }[];
  readonly licks: readonly { readonly id: string; readonly name: string }[];
  readonly takes: readonly {
    readonly id: string;
    readonly name: string;
    readonly chart: string;
    readonly title: string;
    readonly day: string;
  }[];
  readonly log: readonly {
    readonly id: string;
    readonly day: string;
    readonly what: string;
    readonly title: string | null;
  }[];
}
