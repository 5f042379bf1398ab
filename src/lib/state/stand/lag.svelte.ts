/** How far the picture is behind the sound: measured at each change, and drawn ahead by what drawing takes. */
import { nth } from '$lib/core/base/list';

/** Seconds that drawing a change takes to begin with, and the most that is drawn ahead of the sound. */
const FRAME = 1 / 60;
const LONGEST_AHEAD = 0.06;
/** Changes whose lag is remembered. */
const MOST_LAGS = 400;

export class Lag {
  /** Seconds between the sound of a change and its being on the screen: how many were measured, and their median. */
  measured = $state.raw({ count: 0, median: 0 });
  /** Seconds that the drawing of a change takes, as last seen. */
  ahead = FRAME;
  #lags: number[] = [];

  /** A change was on the screen so many seconds beside its sound; `drawing`: seconds that it took to draw. */
  add(seconds: number, drawing: number): void {
    this.ahead = Math.min(LONGEST_AHEAD, 0.8 * this.ahead + 0.2 * drawing);
    this.#lags = [...this.#lags.slice(-MOST_LAGS), seconds];
    const ordered = [...this.#lags].sort((a, b) => a - b);
    this.measured = { count: ordered.length, median: nth(ordered, Math.floor(ordered.length / 2)) };
  }
}
