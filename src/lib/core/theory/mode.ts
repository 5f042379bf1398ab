/** The modes that a key can have. Source: docs/music-rules.md, Keys. */

export const MODE_NAMES = ['major', 'minor', 'dorian', 'phrygian', 'lydian', 'mixolydian'] as const;
export type Mode = (typeof MODE_NAMES)[number];

interface ModeFacts {
  /** The name of its scale in the table of scales. */
  readonly scale: string;
  /** Its tones, in semitones above the tonic. */
  readonly steps: readonly number[];
  /** A minor third stands on the tonic. */
  readonly isMinor: boolean;
  /** Sharps that it has more than the major key of its tonic, flats where fewer. */
  readonly sharps: number;
}

export const MODES: Readonly<Record<Mode, ModeFacts>> = {
  major: { scale: 'major', steps: [0, 2, 4, 5, 7, 9, 11], isMinor: false, sharps: 0 },
  minor: { scale: 'aeolian', steps: [0, 2, 3, 5, 7, 8, 10], isMinor: true, sharps: -3 },
  dorian: { scale: 'dorian', steps: [0, 2, 3, 5, 7, 9, 10], isMinor: true, sharps: -2 },
  phrygian: { scale: 'phrygian', steps: [0, 1, 3, 5, 7, 8, 10], isMinor: true, sharps: -4 },
  lydian: { scale: 'lydian', steps: [0, 2, 4, 6, 7, 9, 11], isMinor: false, sharps: 1 },
  mixolydian: { scale: 'mixolydian', steps: [0, 2, 4, 5, 7, 9, 10], isMinor: false, sharps: -1 }
};

/** Major or minor, by the third on the tonic. */
export function thirdOf(mode: Mode): 'major' | 'minor' {
  return MODES[mode].isMinor ? 'minor' : 'major';
}
