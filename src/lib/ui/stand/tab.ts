/** The height of the run's tab on the stand, in pixels: its strings, and the degrees below. */
import type { StandSizes } from './fit';

export function tabHeight(strings: number, { fret, degree }: StandSizes): number {
  const size = fret + 1;
  return Math.ceil(size * 0.75 + (strings - 1) * size * 0.92 + degree * 1.25 + degree * 0.4);
}
