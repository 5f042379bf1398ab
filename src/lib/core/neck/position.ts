/**
 * Position fill: a collection laid out where the hand is. Position n puts the first finger at fret n and reaches
 * frets n to n+3 (or as far as the player's own span), with a stretch of one fret each way. Source: docs/music-rules.md, The neck.
 */
import type { Fret } from '../base/units';
import type { PitchClass } from '../theory/note';
import { oncePer } from '../base/once';
import { listed } from '../theory/words';
import { spots, type Instrument, type Spot } from './tuning';

export interface PositionCell extends Spot {
  /** 1–4; 0 for an open string. */
  readonly finger: number;
  /** Reached by a stretch of the first or the little finger. */
  readonly stretch: boolean;
}

/** The highest position a neck has: the first finger at its last fret. */
export function lastPosition(neck: Instrument): number {
  return neck.frets;
}

/** A finger for a fret in a position: fret − position + 1, stretches by fingers 1 and 4; open strings take none. */
export function fingerAt(fret: Fret, position: number, capo = 0): number {
  if (fret === capo) return 0;
  return Math.min(4, Math.max(1, fret - position + 1));
}

/**
 * All cells of a collection in a position: those in the window, then those a stretch away whose pitch has no cell
 * yet (one that could be reached both ways takes the lower fret). One pitch has one cell; where a tuning offers a
 * pitch twice in the window, the lower fret is taken. The window's cells come first, then the stretches, each from
 * the lowest pitch up. Worked out once for a neck: every view asks again and again.
 */
export function positionFill(
  neck: Instrument,
  collection: Iterable<PitchClass>,
  position: number
): readonly PositionCell[] {
  let wanted = 0;
  for (const pc of collection) wanted |= 1 << pc;
  const known = filled(neck);
  const key = `${position} ${wanted}`;
  let cells = known.get(key);
  if (!cells) known.set(key, (cells = fillPosition(neck, wanted, position)));
  return cells;
}

const filled = oncePer((_: Instrument) => new Map<string, readonly PositionCell[]>());

/** `wanted`: pitch classes as bits. */
function fillPosition(neck: Instrument, wanted: number, position: number): readonly PositionCell[] {
  const taken = new Map<number, PositionCell>();
  const fill = (from: number, to: number, stretch: boolean) => {
    const found = spots(neck, from, to).filter((spot) => wanted & (1 << (spot.midi % 12)));
    for (const spot of found.sort((a, b) => a.fret - b.fret || a.string - b.string)) {
      if (taken.has(spot.midi)) continue;
      const finger = fingerAt(spot.fret, position, neck.capo);
      taken.set(spot.midi, { ...spot, finger, stretch: stretch && finger !== 0 });
    }
  };
  const last = position + neck.span - 1;
  fill(position, last, false);
  // Open strings belong to the positions next to the nut (or capo) only, which the frets see to by themselves.
  fill(position - 1, position - 1, true);
  fill(last + 1, last + 1, true);
  return [...taken.values()].sort((a, b) => Number(a.stretch) - Number(b.stretch) || a.midi - b.midi);
}

/** Over four frets below fret 5, or over five anywhere. Source: docs/music-rules.md, The neck. */
function isWide(frets: readonly number[]): boolean {
  const low = Math.min(...frets);
  const span = Math.max(...frets) - low + 1;
  return span > 5 || (span > 4 && low < 5);
}

/**
 * A caution where one string asks the hand for over four frets below fret 5, or over five anywhere; undefined where
 * the shape lies easily.
 */
export function stretchCaution(cells: readonly PositionCell[]): string | undefined {
  const byString = new Map<number, number[]>();
  for (const { string, fret, finger } of cells) {
    if (finger !== 0) byString.set(string, [...(byString.get(string) ?? []), fret]);
  }
  const wide = [...byString].filter(([, frets]) => isWide(frets)).map(([string]) => string);
  if (wide.length === 0) return undefined;
  const names = wide.sort((a, b) => a - b).map(String);
  const strings = `${names.length > 1 ? 'strings' : 'string'} ${listed(names)}`;
  return `A wide stretch on ${strings}: move the hand rather than force it, and stop if it hurts.`;
}

/** The same caution for a grip, whose notes are held all at once. */
export function gripCaution(cells: readonly Spot[], openFret = 0): string | undefined {
  const pressed = cells.map(({ fret }) => fret).filter((fret) => fret > openFret);
  if (pressed.length === 0 || !isWide(pressed)) return undefined;
  return 'A wide grip: reach it slowly, relax in between, and stop if it hurts.';
}
