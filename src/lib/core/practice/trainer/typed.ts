/** Degrees as they are typed: a digit, with a flat or a sharp before it. */
import { DEGREES, type Degree } from '../../theory/degree';

/** Semitones of the plain degrees over the root; 2 and 9, 4 and 11, 6 and 13 are one. */
const PLAIN: Readonly<Record<string, number>> = { 1: 0, 2: 2, 3: 4, 4: 5, 5: 7, 6: 9, 7: 11, 9: 2 };

/** Before a digit: what makes it flat, and what makes it sharp. */
export const FLAT_KEYS: readonly string[] = ['b', '-'];
export const SHARP_KEYS: readonly string[] = ['#', '+'];

/**
 * The degree among some choices that a digit means, with so many semitones up or down before it: by its sound, so that ♯4 is
 * also ♭5. Null where none of them is meant.
 */
export function degreeTyped(
  digit: string,
  accidental: -1 | 0 | 1,
  choices: readonly string[]
): string | null {
  const plain = PLAIN[digit];
  if (plain === undefined) return null;
  const wanted = (plain + accidental + 12) % 12;
  return choices.find((choice) => DEGREES[choice as Degree]?.semitones % 12 === wanted) ?? null;
}
