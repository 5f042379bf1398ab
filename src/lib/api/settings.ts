/** The player's settings, as stored and sent. */
import { z } from 'zod';

export const settingsSchema = z.object({
  theme: z.enum(['day', 'stage']).default('day'),
  /** What stands inside a note. */
  labels: z.enum(['degree', 'name', 'finger']).default('degree'),
  /** "F Dorian", or "E♭ major from F". */
  naming: z.enum(['modal', 'parent']).default('modal'),
  /** The approaches in the player's own order; those not named follow in the usual one. */
  approaches: z.array(z.string().max(40)).max(40).default([]),
  leftHanded: z.boolean().default(false),
  /** Shows C♭, F♭, B♯, E♯ and doubled accidentals by their plain neighbour. */
  simpleSpelling: z.boolean().default(false),
  /** Single letters and digits act without a modifier key. */
  singleKeys: z.boolean().default(true)
});

export type Settings = z.infer<typeof settingsSchema>;
export type Labels = Settings['labels'];

export const DEFAULT_SETTINGS: Settings = settingsSchema.parse({});
