/** From time to place on an engraved system, and back. */
import { firstOf, nth } from '$lib/core/base/list';
import type { Engraved } from './engrave';

/** Where a time stands, in pixels: on its note, or in proportion between two of them. */
export function xAt({ anchors, bars }: Engraved, ticks: number): number {
  const points = pointsOf({ anchors, bars });
  const after = points.findIndex(({ start }) => start > ticks);
  if (after === 0) return firstOf(points).x;
  if (after < 0) return points.at(-1)?.x ?? 0;
  const [a, b] = [nth(points, after - 1), nth(points, after)];
  return a.x + ((b.x - a.x) * (ticks - a.start)) / (b.start - a.start);
}

/** The time at a place, in ticks. */
export function timeAt({ anchors, bars }: Engraved, x: number): number {
  const points = pointsOf({ anchors, bars });
  const after = points.findIndex((point) => point.x > x);
  if (after === 0) return firstOf(points).start;
  if (after < 0) return points.at(-1)?.start ?? 0;
  const [a, b] = [nth(points, after - 1), nth(points, after)];
  return b.x === a.x ? a.start : a.start + ((b.start - a.start) * (x - a.x)) / (b.x - a.x);
}

interface Point {
  readonly start: number;
  readonly x: number;
}

/** A bar's rest stands in its middle, though its time begins with the bar. */
function pointsOf({ anchors, bars }: Engraved): Point[] {
  const inBars = bars.flatMap((bar): Point[] => {
    const own = anchors.filter(({ start }) => start >= bar.start && start < bar.end);
    const isSilent = own.length === 1 && firstOf(own).notes.length === 0;
    return isSilent || own.length === 0 ? [{ start: bar.start, x: bar.from + 6 }] : own;
  });
  const last = bars.at(-1);
  return last ? [...inBars, { start: last.end, x: last.to - 4 }] : inBars;
}
