/** How a written line sounds: where swing has its notes. The only place where written time becomes played time. */
import { endOf, TICKS, type LineNote } from './model';

/** When a note sounds, in beats. */
export interface Sounding {
  readonly start: number;
  readonly beats: number;
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
): Sounding {
  const last = chord.start + chord.beats;
  const at = (time: number) => (time <= chord.start ? chord.start : Math.min(last, swung(time, ratio)));
  const start = at(from);
  return { start, beats: at(Math.min(to, last)) - start };
}

/**
 * When the notes of a line sound over changes (in beats). Only eighths swing: a beat in which notes start anywhere else
 * is played as written. A chord's own ends stay where they are.
 */
export function sounding(
  notes: readonly LineNote[],
  changes: readonly { readonly start: number; readonly beats: number }[],
  ratio: number
): Sounding[] {
  const finer = new Set(
    notes.filter(({ start }) => start % (TICKS / 2) !== 0).map(({ start }) => Math.floor(start / TICKS))
  );
  const ends = new Set(changes.flatMap(({ start, beats }) => [start, start + beats]));
  const at = (ticks: number) => {
    const beats = ticks / TICKS;
    return finer.has(Math.floor(beats)) || ends.has(beats) ? beats : swung(beats, ratio);
  };
  return notes.map((note) => {
    const start = at(note.start);
    return { start, beats: at(endOf(note)) - start };
  });
}
