/** Finding the beat of notes that were played without a clock: the tempo and first beat that most of their onsets agree with. */
import type { TakeClock } from './align';
import type { PlayedNote } from './model';

/** Tempos tried round the one that is likely, as shares of it; and how finely, in beats a minute. */
const ABOUT = { slowest: 0.7, fastest: 1.4, step: 0.25 } as const;
/** Parts of a beat that onsets fall on, with what each tells of the beat. */
const PARTS = [
  { parts: 1, weight: 0.5 },
  { parts: 2, weight: 1 },
  { parts: 3, weight: 0.6 },
  { parts: 4, weight: 0.6 }
] as const;
/** A finer grid is taken where onsets agree with it by so much more. */
const CLEARER = 0.1;
/** How much a tempo is held back for being far from the likely one, by octave. */
const STRANGE = 0.35;

/**
 * The clock of some notes. The first beat is the one on, or right before, the first note: the form is taken to begin there.
 * @param near beats a minute that are likely: the chart's
 */
export function findClock(notes: readonly PlayedNote[], near: number): TakeClock {
  const onsets = notes.map(({ at }) => at);
  const [first] = onsets;
  if (first === undefined) return { tempo: near, start: 0 };
  let best = { tempo: near, score: -Infinity };
  for (let tempo = near * ABOUT.slowest; tempo <= near * ABOUT.fastest; tempo += ABOUT.step) {
    const score =
      PARTS.reduce((sum, { parts, weight }) => sum + weight * agreement(onsets, tempo * parts).size, 0) -
      STRANGE * Math.abs(Math.log2(tempo / near));
    if (score > best.score) best = { tempo, score };
  }
  const { tempo } = best;
  // Eighths lie on a beat and between two alike: the first note is on the place of that grid next to it.
  const grid = PARTS.map(({ parts }) => ({ parts, ...agreement(onsets, tempo * parts) })).reduce((a, b) =>
    b.size > a.size + CLEARER ? b : a
  );
  const step = 60 / (tempo * grid.parts);
  const offset = (grid.phase / (2 * Math.PI)) * step;
  const start = offset + Math.round((first - offset) / step) * step;
  return { tempo, start: Math.round(start * 1000) / 1000 };
}

/** How nearly onsets fall on the same place of a grid of so many places a minute, 0 to 1, and where, as an angle. */
function agreement(
  onsets: readonly number[],
  perMinute: number
): { readonly size: number; readonly phase: number } {
  const turn = (2 * Math.PI * perMinute) / 60;
  const x = onsets.reduce((sum, at) => sum + Math.cos(turn * at), 0);
  const y = onsets.reduce((sum, at) => sum + Math.sin(turn * at), 0);
  return { size: Math.hypot(x, y) / onsets.length, phase: Math.atan2(y, x) };
}
