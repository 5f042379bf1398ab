/**
 * Echoes: a delay plays everything once more, a constant time later and softer. Whatever has begun is looked at: where most of it comes again
 * at one lag, at the same pitch and weaker, the later ones are echoes and no strokes.
 */
import { lastOf, nth } from '../../base/list';
import { bisector } from 'd3-array';
import type { Event } from './events';
import { quantile } from './onsets';
import { SAME } from './strokes';

/** Lags that are looked for, and how near two of them are one, in seconds: a delay is more exact than a hand. */
const LAG = { from: 0.09, to: 1.1, near: 0.008, step: 0.004 } as const;
/**
 * There are echoes where of the strong beginnings this share comes again, of those that nothing hides this one, so many times at least, at so
 * much of the first one's strength at most in the middle. Strong is what lies in the upper part of all.
 */
const TOLD = { share: 0.35, unhidden: 0.75, least: 5, weaker: 0.75, strong: 0.55 } as const;
/** Something else that begins this near hides an echo, in seconds. */
const HIDES = 0.09;
/** What comes again stronger than this share of the first is struck again. */
const STRUCK = 0.9;

interface Begins {
  readonly at: number;
  readonly pitch: number;
  readonly strength: number;
}

/** Those of the events that are no echoes. @param rate samples a second */
export function withoutEchoes(events: readonly Event[], rate: number): readonly Event[] {
  const begins = events.map(({ onset, begun }): Begins => ({
    at: onset.at / rate,
    pitch: begun.pitch,
    strength: begun.salience
  }));
  const lag = lagOf(begins);
  if (lag === null) return events;
  return events.filter((_, i) => !isEcho(begins, i, lag));
}

/** The lag at which most of what begins comes again; null where there is none. */
function lagOf(begins: readonly Begins[]): number | null {
  const least = quantile(
    begins.map(({ strength }) => strength),
    TOLD.strong
  );
  const strong = begins.filter(({ strength }) => strength >= least);
  const pairs = begins.flatMap((first, i) =>
    laterThan(begins, i).flatMap((again) =>
      isSamePitch(first, again) ? [{ lag: again.at - first.at, ratio: again.strength / first.strength }] : []
    )
  );
  let best: { lag: number; share: number } | null = null;
  // Lags that are nearly the same tell the same: a long take has thousands of pairs.
  const lags = new Set(pairs.map(({ lag }) => Math.round(lag / LAG.step) * LAG.step));
  for (const lag of lags) {
    const near = pairs.filter((pair) => Math.abs(pair.lag - lag) <= LAG.near);
    if (near.length < TOLD.least || middle(near.map(({ ratio }) => ratio)) > TOLD.weaker) continue;
    const share = shareAt(begins, strong, lag);
    if (share > (best?.share ?? 0)) best = { lag: middle(near.map((pair) => pair.lag)), share };
  }
  return best?.lag ?? null;
}

const middle = (values: readonly number[]) => quantile(values, 0.5);

/** Of the strong beginnings the share that comes again at a lag; 0 where that is too few, hidden ones counted or not. */
function shareAt(begins: readonly Begins[], strong: readonly Begins[], lag: number): number {
  const end = lastOf(begins).at;
  let [again, hidden, all] = [0, 0, 0];
  for (const first of strong) {
    if (first.at + lag > end + LAG.near) continue;
    all++;
    const there = begunWithin(begins, first.at + lag - HIDES, first.at + lag + HIDES);
    if (there.some((own) => isSamePitch(first, own) && Math.abs(own.at - first.at - lag) <= LAG.near))
      again++;
    else if (there.length) hidden++;
  }
  const isTold = again >= TOLD.least && again >= TOLD.share * all && again >= TOLD.unhidden * (all - hidden);
  return isTold ? again / all : 0;
}

function isEcho(begins: readonly Begins[], i: number, lag: number): boolean {
  const own = nth(begins, i);
  return begunWithin(begins, own.at - lag - LAG.near, own.at - lag + LAG.near).some(
    (first) => isSamePitch(first, own) && own.strength < STRUCK * first.strength
  );
}

/** What begins from one second to another. */
function begunWithin(begins: readonly Begins[], from: number, to: number): readonly Begins[] {
  const first = byTime.left(begins, from);
  return begins.slice(first, byTime.right(begins, to, first));
}
const byTime = bisector(({ at }: Begins) => at);

const isSamePitch = (one: Begins, other: Begins) => Math.abs(one.pitch - other.pitch) < SAME;

/** What begins after another within the lags that are looked for. */
function laterThan(begins: readonly Begins[], i: number): Begins[] {
  const later: Begins[] = [];
  for (let j = i + 1; j < begins.length; j++) {
    const lag = nth(begins, j).at - nth(begins, i).at;
    if (lag > LAG.to) break;
    if (lag >= LAG.from) later.push(nth(begins, j));
  }
  return later;
}
