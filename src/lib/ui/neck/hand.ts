/** Where the hand's window lies in a drawing of the neck, and what the drawing says in words. */
import type { Role } from '$lib/core/moment/moment';
import { sayOnString, type NamedCell } from '$lib/core/neck/shape';
import type { Instrument } from '$lib/core/neck/tuning';
import type { NeckGeometry } from './geometry';

export interface Stretch {
  readonly x: number;
  readonly width: number;
}

/** Between two frets, whichever side the nut is on. */
const between = (a: number, b: number): Stretch => ({ x: Math.min(a, b), width: Math.abs(b - a) });

/** The frets of a position, as far as the neck goes. */
export function windowOf(geometry: NeckGeometry, neck: Instrument, position: number): Stretch {
  const start = position === 0 ? geometry.finger(0) : geometry.wire(Math.max(0, position - 1));
  return between(start, geometry.wire(Math.min(position + neck.span - 1, neck.frets)));
}

/** The frets that a stretch reaches on either side. */
export function stretchesOf(geometry: NeckGeometry, neck: Instrument, position: number): Stretch[] {
  return [position - 1, position + neck.span]
    .filter((fret) => fret >= 1 && fret <= neck.frets)
    .map((fret) => between(geometry.wire(fret - 1), geometry.wire(fret)));
}

interface Place {
  readonly string: number;
  readonly fret: number;
}

/** A line from one cell to another, leaving out the discs at both ends; null where nothing of it is left. */
export function strokeOf(
  geometry: NeckGeometry,
  from: Place,
  to: Place,
  startGap: number,
  endGap: number
): { x1: number; y1: number; x2: number; y2: number; ux: number; uy: number } | null {
  const [x1, y1] = [geometry.finger(from.fret), geometry.string(from.string)];
  const [x2, y2] = [geometry.finger(to.fret), geometry.string(to.string)];
  const length = Math.hypot(x2 - x1, y2 - y1);
  if (length <= startGap + endGap) return null;
  const [ux, uy] = [(x2 - x1) / length, (y2 - y1) / length];
  return {
    x1: x1 + ux * startGap,
    y1: y1 + uy * startGap,
    x2: x2 - ux * endGap,
    y2: y2 - uy * endGap,
    ux,
    uy
  };
}

type ToldNote = Place & Pick<NamedCell, 'note' | 'degree'> & { readonly role: Role };

/** What is drawn on the neck, for those who hear it: one sentence a string, the highest first. */
export function tellStrings({
  count,
  told,
  target
}: {
  readonly count: number;
  readonly told: readonly ToldNote[];
  readonly target: Place | undefined;
}): string[] {
  const sayNote = (note: ToldNote) => {
    const isTarget = target?.string === note.string && target.fret === note.fret;
    return `${sayOnString(note)}${isTarget ? ', target' : note.role === 'chord' ? '' : `, ${note.role}`}`;
  };
  return Array.from({ length: count }, (_, i) => {
    const notes = told.filter(({ string }) => string === i + 1);
    return `String ${i + 1}: ${notes.length ? notes.map(sayNote).join('; ') : 'no note'}`;
  });
}
