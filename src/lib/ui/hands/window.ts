/** The frets that a small neck shows of a moment. */
import type { Moment } from '$lib/core/moment/moment';
import type { Instrument } from '$lib/core/neck/tuning';

/** The hand's window with its stretches, or as many frets as the shape needs. `wanted`: where the hand is where nothing is played. */
export function handWindow(
  { area, marks }: Moment,
  neck: Instrument,
  wanted: number
): { from: number; to: number } {
  const position = area?.position ?? wanted;
  const frets = marks.map(({ fret }) => fret).filter((fret) => fret > 0);
  return {
    from: Math.max(1, Math.min(position - 1, ...frets)),
    to: Math.min(neck.frets, Math.max(position + neck.span, ...frets))
  };
}
