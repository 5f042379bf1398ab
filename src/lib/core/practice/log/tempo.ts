/**
 * The ladder of an item: the tempo of its next round, from the rounds that were played (9-practice, *Tempo*): two clean in a
 * row up one step, two unclean down two, and a day's first round two steps under the best that is held.
 */
import { boundedTempo } from '../ladder';
import type { ItemTempo, LogRow } from './model';

/** A step in per cent where an item says none, and the least in beats a minute. */
export const STEP_PER_CENT = 4;
const LEAST_STEP = 2;
/** Rounds in a row that move the tempo. */
const IN_A_ROW = 2;
const STEPS_DOWN = 2;
/** Steps under the best held at which a day begins. */
export const WARM_UP = 2;

/** A tempo so many steps higher, or lower where they are negative. */
export function stepped(tempo: number, steps: number, perCent = STEP_PER_CENT): number {
  let now = tempo;
  for (let i = 0; i < Math.abs(steps); i++) {
    now += Math.sign(steps) * Math.max(LEAST_STEP, Math.round((now * perCent) / 100));
  }
  return boundedTempo(now);
}

/** Steps from one tempo up to another; 0 where it is reached. */
export function stepsUp(from: number, to: number, perCent = STEP_PER_CENT): number {
  let steps = 0;
  for (let now = from; now < to; steps++) now += Math.max(LEAST_STEP, Math.round((now * perCent) / 100));
  return steps;
}

/** The highest tempo at which rows were clean on two days, each day counted by its best; null before there is one. */
export function heldTempo(rows: readonly LogRow[]): number | null {
  let best: LogRow | null = null;
  /** The best of the other days. */
  let second: LogRow | null = null;
  for (const row of rows) {
    if (!row.clean || row.tempo === null) continue;
    if (best === null || row.tempo > best.tempo!) {
      if (best?.day !== row.day) second = best;
      best = row;
    } else if (row.day !== best.day && (second === null || row.tempo > second.tempo!)) second = row;
  }
  return second?.tempo ?? null;
}

/** The highest tempo at which any row was clean. */
export function cleanTempo(rows: readonly LogRow[]): number | null {
  const clean = rows.flatMap((row) => (row.clean && row.tempo !== null ? [row.tempo] : []));
  return clean.length ? Math.max(...clean) : null;
}

/** Beats a minute of an item's next round on a day. `rows`: of this item, in the order played. */
export function nextTempo({ start, goal, step }: ItemTempo, rows: readonly LogRow[], day: string): number {
  const marked = rows.filter(({ tempo, clean }) => tempo !== null && clean !== null);
  const last = marked.at(-1);
  if (!last) return boundedTempo(start);
  // A clock that was set back leaves rows in the future: they count as today's.
  if (last.day < day) {
    // Nothing held yet: under the slowest that was tried.
    const best = bestRung(marked) ?? Math.min(...marked.map((row) => row.tempo!));
    return stepped(best, -WARM_UP, step);
  }
  const { tempo, streak } = lastStreak(marked);
  if (streak < IN_A_ROW) return boundedTempo(tempo);
  if (!last.clean) return stepped(tempo, -STEPS_DOWN, step);
  const top = Math.max(start, goal, tempo);
  return Math.min(top, stepped(tempo, 1, step));
}

/** The highest tempo that is held on two days, or was clean often enough in a row for the ladder to go on from it. */
function bestRung(marked: readonly LogRow[]): number | null {
  let best = heldTempo(marked);
  let streak = 0;
  marked.forEach(({ tempo, clean, rounds }, at) => {
    streak = clean ? (marked[at - 1]?.tempo === tempo ? streak : 0) + rounds : 0;
    if (streak >= IN_A_ROW) best = Math.max(best ?? 0, tempo!);
  });
  return best;
}

/** The tempo last played at, and how many rounds in a row were marked alike there. */
function lastStreak(marked: readonly LogRow[]): { readonly tempo: number; readonly streak: number } {
  const last = marked.at(-1)!;
  let streak = 0;
  for (let at = marked.length - 1; at >= 0; at--) {
    const { tempo, clean, rounds } = marked[at]!;
    if (tempo !== last.tempo || clean !== last.clean) break;
    streak += rounds;
  }
  return { tempo: last.tempo!, streak };
}
