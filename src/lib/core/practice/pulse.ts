/**
 * How a bar is felt: its pulses, and the cells of two, three or four pulses that it falls into. 5/4 goes 3 + 2, 7/4 goes
 * 4 + 3; 6/8, 9/8 and 12/8 go in dotted beats; 7/8 is two beats and a longer one. Source: docs/music-rules.md, The band.
 */
import { nth } from '../base/list';
import { pulsesOf, type Pulse } from '../chart/pulses';
import type { ExcerptBar } from '../harmony/excerpt';
import type { Swing } from '../line/sound';

/** Meters whose lower number is this or finer are counted in groups of their beats. */
const FINE = 8;

/** Pulses that belong together, one to four. */
export type PulseCell = readonly Pulse[];

/** Fours, and what is left over: 5 is 3 + 2, 6 is 4 + 2, 7 is 4 + 3. */
function cellSizes(pulses: number): number[] {
  if (pulses <= 4) return [pulses];
  return pulses === 5 ? [3, 2] : [4, ...cellSizes(pulses - 4)];
}

/** The pulses of a bar in the groups that patterns are written for. */
export function cellsOf(bar: ExcerptBar): PulseCell[] {
  const pulses = pulsesOf(bar);
  let from = 0;
  return cellSizes(pulses.length).map((size) => pulses.slice(from, (from += size)));
}

/** Beats a minute of quarter notes, from those of the chart's own beat. */
export function quarterTempo(tempo: number, { beats, meter }: ExcerptBar): number {
  return (tempo * 4) / (meter.unit * (beats / meter.beats));
}

/** Long to short is about 2:1 up to 120 quarters a minute, 1.5:1 at 220, even by 300. */
const SWING_BY_TEMPO = [
  [120, 2 / 3],
  [220, 0.6],
  [300, 0.5]
] as const;

/** Where the second eighth falls in a beat at a tempo (quarters a minute), for a feel that swings at most so much. */
export function swingAt(most: number, tempo: number): number {
  const next = SWING_BY_TEMPO.findIndex(([until]) => tempo <= until);
  if (next === 0) return most;
  if (next < 0) return 0.5;
  const [[from, wide], [to, narrow]] = [nth(SWING_BY_TEMPO, next - 1), nth(SWING_BY_TEMPO, next)];
  return Math.min(most, wide + ((narrow - wide) * (tempo - from)) / (to - from));
}

/** The swing of some bars: quarters swing; in meters counted in eighths, and over a beat that divides into three, nothing does. */
export function swingOver(bars: readonly ExcerptBar[], ratio: number): Swing {
  return {
    ratio,
    pulseAt: (beat) => {
      const bar = bars[barAt(bars, beat)];
      if (!bar || bar.meter.unit >= FINE) return null;
      const beats = (bar.beats / bar.meter.beats) * (bar.meter.unit / 4);
      return { start: bar.start + Math.floor((beat - bar.start) / beats + 1e-9) * beats, beats };
    }
  };
}

/** The place of the bar that a beat lies in. */
function barAt(bars: readonly ExcerptBar[], beat: number): number {
  let [low, high] = [0, bars.length - 1];
  while (low < high) {
    const middle = Math.ceil((low + high) / 2);
    if (nth(bars, middle).start <= beat + 1e-9) low = middle;
    else high = middle - 1;
  }
  return low;
}
