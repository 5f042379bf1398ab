/**
 * How bold phrases are: a row of the phrase table made plainer or bolder. Plain lines stand on chord tones, near the middle of the hand, and
 * meet changes on time; bold ones lean, enclose, push and reach. Source: docs/music-rules.md, Phrases, Boldness.
 */
import type { PhraseRow } from './styles';

/** The style's own boldness. */
export const AS_THE_STYLE = 0.5;

/** What a quantity is multiplied by at boldness 0 and 1. */
type Ends = readonly [plain: number, bold: number];

const FIGURES: Ends = [0.25, 2];
const MEETINGS: Ends = [0.4, 1.5];
const SHOWING: Ends = [1.35, 0.7];
const HANGING: Ends = [2, 0.6];
const REPEATS: Ends = [1.3, 0.8];
const TECHNIQUES: Ends = [0.5, 1.4];
/** Semitones that the summit lies lower or higher. */
const SUMMIT: readonly [number, number] = [-3, 3];
const LIKELY = 0.95;

/** A row as bold as is wished, 0 to 1. */
export function boldly(row: PhraseRow, boldness: number): PhraseRow {
  if (boldness === AS_THE_STYLE) return row;
  const far = Math.max(-1, Math.min(1, (boldness - AS_THE_STYLE) / AS_THE_STYLE));
  const by = ([plain, bold]: Ends) => (far < 0 ? plain ** -far : bold ** far);
  const chance = (own: number, ends: Ends) => Math.min(LIKELY, own * by(ends));
  const { early, on, late } = row.meets;
  const beside = by(MEETINGS);
  const [low, middle, high] = row.centres;
  const summit = far < 0 ? -far * SUMMIT[0] : far * SUMMIT[1];
  const techniques = Object.entries(row.techniques).map(([name, own]) => [name, chance(own, TECHNIQUES)]);
  return {
    ...row,
    meets: { early: early * beside, on, late: late * beside },
    enclosure: chance(row.enclosure, FIGURES),
    triadPairs: chance(row.triadPairs, FIGURES),
    fourths: chance(row.fourths, FIGURES),
    repeats: chance(row.repeats, REPEATS),
    showing: row.showing * by(SHOWING),
    hangs: row.hangs * by(HANGING),
    centres: [low, middle + summit / 2, high + summit],
    techniques: Object.fromEntries(techniques) as unknown as PhraseRow['techniques']
  };
}
