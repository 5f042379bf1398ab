/** Where things stand on the strip of a lick: a whole lick as tab in one row, however long it is. */
import { entryOf, nth } from '$lib/core/base/list';
import { endOf, ticksOf, type LineNote } from '$lib/core/line/model';

export interface StripBar {
  readonly x: number;
}

export interface StripChord {
  readonly symbol: string;
  readonly x: number;
}

export interface Strip {
  /** For each note; two at once stand at one place. */
  readonly xs: readonly number[];
  readonly bars: readonly StripBar[];
  readonly chords: readonly StripChord[];
}

/** Room before the first thing and after the last. */
const MARGIN = 12;
/** How much wider than time asks two neighbours stand, so that short notes do not touch: in beats. */
const AIR = 0.35;

/**
 * Lays a lick out over a width. Time is kept in order, not in proportion: what follows quickly has some room all the same. A bar line stands
 * a little before what begins its bar.
 */
export function stripOf(
  notes: readonly LineNote[],
  over: readonly { readonly symbol: string; readonly beats: number }[],
  beats: number,
  width: number
): Strip {
  const bar = ticksOf(beats);
  const end = Math.max(ticksOf(over.reduce((sum, chord) => sum + chord.beats, 0)), ...notes.map(endOf));
  let at = 0;
  const chords = over.map(({ symbol, beats: long }) => {
    const start = ticksOf(at);
    at += long;
    return { symbol, start };
  });
  const lines = Array.from({ length: Math.ceil(end / bar) + 1 }, (_, i) => i * bar);
  const moments = [
    ...new Set([
      ...notes.map(({ start }) => start),
      ...lines.filter((one) => one <= end),
      ...chords.map(({ start }) => start),
      end
    ])
  ].sort((a, b) => a - b);
  const reach = moments.map(() => 0);
  for (let i = 1; i < moments.length; i++)
    reach[i] = nth(reach, i - 1) + (nth(moments, i) - nth(moments, i - 1)) / ticksOf(1) + AIR;
  const whole = reach.at(-1) || 1;
  const xOf = new Map(
    moments.map((moment, i) => [moment, MARGIN + (nth(reach, i) / whole) * (width - 2 * MARGIN)])
  );
  return {
    xs: notes.map(({ start }) => entryOf(xOf, start)),
    bars: lines.filter((one) => one <= end).map((one) => ({ x: entryOf(xOf, one) - (one === end ? 0 : 7) })),
    chords: chords.map(({ symbol, start }) => ({ symbol, x: entryOf(xOf, start) }))
  };
}
