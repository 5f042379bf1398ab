/** The player's settings, as stored and sent. */
import { z } from 'zod';
import { READING } from './reading';
import { VOICINGS } from '../core/neck/voicing';
import { LETTERS } from '../core/theory/letters';
import {
  CAPO_CHORDS,
  DEFAULT_FRETS,
  DEFAULT_SPAN,
  MAX_FRETS,
  MAX_SPAN,
  MIN_SPAN,
  readTuning
} from '../core/neck/tuning';

/** The necks that are built; the core reckons with shorter ones too. */
export const FEWEST_FRETS = 19;
export const HIGHEST_CAPO = 12;

export const settingsSchema = z.object({
  /** `system`: Day or Stage as the device has it. */
  theme: z.enum(['system', 'day', 'stage']).default('system'),
  /** What stands inside a note. */
  labels: z.enum(['degree', 'name', 'finger']).default('degree'),
  /** "F Dorian", or "E♭ major from F". */
  naming: z.enum(['modal', 'parent']).default('modal'),
  /** The approaches in the player's own order; those not named follow in the usual one. */
  approaches: z.array(z.string().max(40)).max(40).default([]),
  /** A name of the table of tunings, or the strings from the lowest: "D2 A2 D3 G3 B3 E4". */
  tuning: z
    .string()
    .max(80)
    .refine((text) => readTuning(text) !== null, 'This is not a tuning.')
    .default('standard'),
  frets: z.number().int().min(FEWEST_FRETS).max(MAX_FRETS).default(DEFAULT_FRETS),
  capo: z.number().int().min(0).max(HIGHEST_CAPO).default(0),
  /** Whether charts are written as they sound, or as they are fingered behind the capo. */
  capoChords: z.enum(CAPO_CHORDS).default('sounding'),
  /** Frets the hand covers without a stretch. */
  span: z.number().int().min(MIN_SPAN).max(MAX_SPAN).default(DEFAULT_SPAN),
  openStrings: z.boolean().default(true),
  /** The neck system: an id of the core's table. */
  organise: z.string().max(20).default('positions'),
  /** The kind of grips on the Grips page. */
  voicing: z.enum(VOICINGS).default('closed'),
  /** How a line is shown: drawn in time and pitch, or on staff and tab. */
  lineAs: z.enum(['time', 'score']).default('time'),
  /** Degrees stand under the notes of a score. */
  scoreDegrees: z.boolean().default(true),
  leftHanded: z.boolean().default(false),
  /** Shows C♭, F♭, B♯, E♯ and doubled accidentals by their plain neighbour. */
  simpleSpelling: z.boolean().default(false),
  /** Which reading of keys, first choices and landings the player was told of last. */
  reading: z.number().int().min(1).max(1000).default(READING),
  /** Single letters and digits act without a modifier key. */
  singleKeys: z.boolean().default(true),
  /** Keys that the player has changed: the press for the id of a shortcut. */
  keys: z.record(z.string().max(40), z.string().min(1).max(40)).default({}),
  /** How note names are written: B and B♭, H and B, or do re mi. */
  letters: z.enum(LETTERS).default('b'),
  /** How large the stand is drawn, against what its distance asks for. */
  standSize: z.enum(['normal', 'large', 'larger']).default('normal'),
  /** The input that takes and the ear listen to: an id of the browser; empty for the usual one. */
  input: z.string().max(200).default(''),
  /** Minutes of playing after which a rest is proposed; 0 for never. */
  restAfter: z.number().int().min(0).max(120).default(20)
});

/** Some of the settings, changed; the others stay. */
export const settingsChange = z.object(
  Object.fromEntries(
    // A default would set back what was not named.
    Object.entries(settingsSchema.shape).map(([name, schema]) => [name, schema.unwrap().optional()])
  ) as unknown as {
    [Name in keyof typeof settingsSchema.shape]: z.ZodOptional<(typeof settingsSchema.shape)[Name]>;
  }
);
export type SettingsChange = Partial<Settings>;

export type Settings = z.infer<typeof settingsSchema>;
export type Labels = Settings['labels'];
