/** Reads what was kept of a text that was being typed: by whatever version of Corvel, or damaged. */
import { z } from 'zod';
import { planSchema } from '$lib/api/plan';

const schema = z.object({
  /** The version the text was typed on. */
  base: z.number().int(),
  source: z.string(),
  plan: planSchema,
  /** Milliseconds since 1970. */
  at: z.number()
});
export type DraftThere = z.infer<typeof schema>;

/** Null where it cannot be read. */
export function readKeptDraft(text: string): DraftThere | null {
  try {
    return schema.parse(JSON.parse(text));
  } catch {
    return null;
  }
}
