/**
 * How a bar is felt: its pulses. Fours are quarters; 6/8, 9/8 and 12/8 go in dotted beats; 7/8 is two beats and a longer one. Source:
 * docs/music-rules.md, The band.
 */
import type { Beats } from '../base/units';
import type { PlayedBar } from './unroll';

/** A beat as it is felt. */
export interface Pulse {
  readonly start: number;
  /** In beats of the chart's meter. */
  readonly beats: Beats;
  /** It divides into three, as a dotted beat does. */
  readonly isTriple: boolean;
}

export type PulsedBar = Pick<PlayedBar, 'start' | 'beats' | 'meter'>;

/** Meters whose lower number is this or finer are counted in groups of their beats. */
const FINE = 8;

/** How many of the meter's beats each pulse has; halves where a beat is two pulses long. */
function pulseLengths({ beats, unit }: PulsedBar['meter']): number[] {
  const times = (count: number, length: number) => Array.from({ length: count }, () => length);
  if (unit < 4) return times((beats * 4) / unit, unit / 4);
  if (unit < FINE) return times(beats, 1);
  if (beats % 3 === 0) return times(beats / 3, 3);
  if (beats === 5) return [3, 2];
  return beats % 2 === 0 ? times(beats / 2, 2) : beats < 3 ? [beats] : [...times((beats - 3) / 2, 2), 3];
}

/** The pulses of a bar as they are felt, each with its start and length in beats. */
export function pulsesOf({ start, beats, meter }: PulsedBar): Pulse[] {
  const unit = beats / meter.beats;
  let at = start;
  return pulseLengths(meter).map((length): Pulse => {
    const pulse = { start: at, beats: length * unit, isTriple: length === 3 };
    at += pulse.beats;
    return pulse;
  });
}
