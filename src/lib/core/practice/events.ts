/** What sounds when: plain events in beats, the same for the band on the page, a MIDI file and a test. */

export const PARTS = ['bass', 'chords', 'drums', 'click', 'line'] as const;
export type Part = (typeof PARTS)[number];

export interface SoundEvent {
  readonly part: Part;
  /** Beats from the start of the excerpt. */
  readonly start: number;
  /** Length in beats. */
  readonly beats: number;
  /** Pitch; for drums and click the number of the General MIDI percussion map. */
  readonly midi: number;
  /** Loudness, 0 to 1. */
  readonly velocity: number;
}

/** Moves a time in beats to where a swung beat has it: `ratio` is where the second eighth falls, 0.5 for straight. */
export function swung(time: number, ratio: number): number {
  const beat = Math.floor(time + 1e-9);
  const part = time - beat;
  return beat + (part < 0.5 ? part * 2 * ratio : ratio + (part - 0.5) * 2 * (1 - ratio));
}

/** Start and length of a note from one beat to another, where swing has them; a chord's own ends are not swung. */
export function timed(
  chord: { readonly start: number; readonly beats: number },
  from: number,
  to: number,
  ratio: number
): { start: number; beats: number } {
  const last = chord.start + chord.beats;
  const at = (time: number) => (time <= chord.start ? chord.start : Math.min(last, swung(time, ratio)));
  const start = at(from);
  return { start, beats: at(Math.min(to, last)) - start };
}
