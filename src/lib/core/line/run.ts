/** Runs through a shape, fitted to the time there is so that they arrive. */

/**
 * Indices into an ascending list of pitches: `count` notes that begin at `from`, move by neighbours in a direction, turn at
 * the ends, and have `to` as their last one. Where the number of notes does not come out even one note is struck twice.
 */
export function fitRun(size: number, from: number, to: number, count: number, direction: 1 | -1): number[] {
  if (count <= 0 || size === 0) return [];
  if (count === 1) return [to];
  const run = [from];
  let way = direction;
  let at = from;
  // Moves left must be able to reach the end, and come out even.
  const isOdd = (moves: number) => (moves - Math.abs(to - at)) % 2 !== 0;
  for (let left = count - 1; left > 0; left--) {
    if (size === 1 || (Math.abs(to - at) < left && isOdd(left))) {
      // Once, at the first chance; from then on it comes out even.
      run.push(at);
      continue;
    }
    if (Math.abs(to - at) >= left) way = to > at ? 1 : -1;
    else if (at + way < 0 || at + way >= size) way = way === 1 ? -1 : 1;
    at += way;
    run.push(at);
  }
  return run;
}

/** The index of the pitch nearest another one, but not that pitch itself: what can lead into it by a step. */
export function neighbourOf(pitches: readonly number[], goal: number): number {
  const distance = (midi: number) => (midi === goal ? 1000 : Math.abs(midi - goal));
  return pitches.reduce((best, midi, i) => (distance(midi) < distance(pitches[best]!) ? i : best), 0);
}
