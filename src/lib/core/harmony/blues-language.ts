/** Where the blues is spoken, and which one. Source: docs/music-rules.md, the row `blues` of the approaches. */
import type { Cadence } from './cadence-model';
import { isMinorKey, type Key } from './key';
import type { Step } from './steps';
import type { Style } from './style';

/**
 * `dominant`: sevenths at rest on I and IV. `minor`: a blues form in a minor key, or a minor vamp. `rock`: loops and vamps of major, power,
 * suspended or dominant chords round a major tonic.
 */
export type BluesLanguage = 'dominant' | 'minor' | 'rock';

/** Styles in which chords round a major tonic speak the blues. */
const BLUESY: readonly Style[] = ['blues', 'rock', 'soul or funk', 'modal'];

/** So many different roots a vamp has at most. */
const VAMP = 2;

/** The blues that is spoken over some steps; null where none is. */
export function bluesSpoken(
  steps: readonly Step[],
  cadences: readonly Cadence[],
  { home, blues, style }: { readonly home: Key; readonly blues: boolean; readonly style: Style }
): BluesLanguage | null {
  if (steps.length === 0) return null;
  if (blues) return 'dominant';
  const isForm = cadences.some(({ kind }) => ['eight-bar', 'twelve-bar', 'sixteen-bar'].includes(kind));
  if (isForm) return isMinorKey(home) ? 'minor' : 'rock';
  if (cadences.some(({ kind }) => kind === 'two-five-one')) return null;
  if (home.mode === 'lydian' || home.mode === 'phrygian') return null;
  const roots = new Set(steps.map(({ root }) => root)).size;
  const isVamp = roots <= VAMP && steps.every(({ chord }) => !chord.tones.includes('7'));
  if (isMinorKey(home)) {
    const isRiff = steps.every(({ chord }) => ['power', 'suspended'].includes(chord.family));
    return isVamp || isRiff ? 'minor' : null;
  }
  // A song of the country or of folk in the same chords sings in major.
  if (!BLUESY.includes(style)) return null;
  const isRock = steps.every(
    ({ chord }) =>
      ['major', 'power', 'dominant', 'suspended'].includes(chord.family) && !chord.tones.includes('7')
  );
  return isRock || isVamp ? 'rock' : null;
}
