/** What of a chord may be sounded together. */
import type { Chord } from '../theory/chord';
import type { Degree } from '../theory/degree';

/** The tones of a chord; one that says ♭13 has no natural fifth beside it. */
export function soundedTones({ tones }: Chord): readonly Degree[] {
  return tones.includes('b13') ? tones.filter((tone) => tone !== '5') : tones;
}
