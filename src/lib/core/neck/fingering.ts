/** Which finger plays what. */
import { nth } from '../base/list';
import type { Spot } from './tuning';

/** A cell with its finger: 1–4, 0 for an open string. */
export interface Fingered extends Spot {
  readonly finger: number;
}

const FINGERS = [1, 2, 3, 4] as const;
/** What it costs to lay a finger flat over several strings: the first does so easily, the others where two would be crowded. */
const BARRE_COST = { first: 0.75, other: 1.5 };
/** What it costs to stretch a finger a fret up; to draw it in by one costs 1. */
const STRETCH_COST = 1.1;
/** What it costs to put two fingers behind one fret. */
const CROWD_COST = 0.25;

/**
 * The easiest fingering of a grip: fingers rise with the frets, no finger is asked for two frets, and a finger laid
 * over several strings leaves none between them that has to sound lower. Null where four fingers cannot hold it.
 */
export function fingerGrip(cells: readonly Spot[], openFret = 0): Fingered[] | null {
  const pressed = cells
    .filter(({ fret }) => fret > openFret)
    .sort((a, b) => a.fret - b.fret || b.string - a.string);
  const base = pressed[0]?.fret ?? 0;
  let best: { fingers: readonly number[]; cost: number } | null = null;
  const place = (fingers: readonly number[], cost: number): void => {
    if (best && cost >= best.cost) return;
    const cell = pressed[fingers.length];
    if (!cell) {
      best = { fingers, cost };
      return;
    }
    const before = pressed[fingers.length - 1];
    const last = fingers.at(-1) ?? 0;
    for (const finger of FINGERS) {
      const isBarre = finger === last && before?.fret === cell.fret && canBarre(before, cell, cells);
      if (finger < last || (finger === last && !isBarre)) continue;
      const crowd = before?.fret === cell.fret && !isBarre ? CROWD_COST : 0;
      const own = cell.fret - base + 1;
      const reach = finger < own ? STRETCH_COST * (own - finger) : finger - own;
      // A finger that lies flat already takes in further strings for nothing.
      const isLaid = isBarre && fingers.at(-2) !== finger;
      const flat = isLaid ? BARRE_COST[finger === 1 ? 'first' : 'other'] : 0;
      place([...fingers, finger], cost + reach + crowd + flat);
    }
  };
  place([], 0);
  const found = best as { fingers: readonly number[] } | null;
  if (!found) return null;
  const fingerOf = new Map(pressed.map((cell, i) => [cell.string, nth(found.fingers, i)]));
  return cells.map((cell) => ({ ...cell, finger: fingerOf.get(cell.string) ?? 0 }));
}

/** Whether no string between two cells has to sound below the fret a finger is laid across. */
function canBarre(from: Spot, to: Spot, cells: readonly Spot[]): boolean {
  const [low, high] = [Math.min(from.string, to.string), Math.max(from.string, to.string)];
  return cells.every(({ string, fret }) => string <= low || string >= high || fret >= from.fret);
}

/** Fingers of up to three notes on one string by their frets: first and fourth outside, the middle by its distance. */
export function fingerRun(frets: readonly number[]): number[] {
  const [low, high] = [Math.min(...frets), Math.max(...frets)];
  return frets.map((fret) => {
    if (fret === 0) return 0;
    if (fret === low) return 1;
    if (fret === high) return Math.min(4, Math.max(frets.length, fret - low + 1));
    return fret - low > 1 && high - low < 4 ? 3 : 2;
  });
}
