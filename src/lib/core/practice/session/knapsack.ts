/** Whole minutes shared out among what is worth practising: exact, by dynamic programming. */

/** Something that may be taken for some minutes. */
export interface Offer {
  /** Minutes that it is worth its full value at. */
  readonly minutes: number;
  readonly value: number;
  /** The fewest and the most minutes it is taken for. */
  readonly least: number;
  readonly most: number;
}

/** Half of its own minutes to one and a half of them, in whole minutes (9-practice, *The plan for today*). */
export function offerOf(minutes: number, value: number): Offer {
  return {
    minutes,
    value,
    least: Math.max(1, Math.ceil(minutes / 2)),
    most: Math.max(1, Math.floor(minutes * 1.5))
  };
}

/** Values are compared in whole thousandths, so that ties are ties. */
const PARTS = 1000;

/** What an offer is worth for some minutes: in proportion up to its own, no more beyond. */
export function worth({ minutes, value }: Offer, taken: number): number {
  return Math.round((PARTS * value * Math.min(taken, minutes)) / minutes);
}

/**
 * Minutes for each offer, 0 where it is left out, so that the sum of their worth is greatest and the minutes are not
 * exceeded. Of equal sums the one that takes offers standing earlier, each for longer.
 */
export function shareOut(offers: readonly Offer[], minutes: number): readonly number[] {
  const width = minutes + 1;
  // best[m]: the greatest worth of the offers from some place on, in at most m minutes.
  let best = new Float64Array(width);
  const taken = new Uint8Array(offers.length * width);
  for (let at = offers.length - 1; at >= 0; at--) {
    const offer = offers[at]!;
    const next = best.slice();
    const row = at * width;
    // Beyond its own minutes an offer is worth no more. The longest last, so that of equal sums the longest stands: few
    // things properly rather than many in a hurry.
    const top = Math.max(offer.least, Math.min(offer.most, offer.minutes));
    for (let t = offer.least; t <= top; t++) {
      const own = worth(offer, t);
      if (own === 0) continue;
      for (let room = t; room < width; room++) {
        const sum = own + best[room - t]!;
        // An offer that stands earlier is taken where that costs nothing.
        if (sum >= next[room]!) {
          next[room] = sum;
          taken[row + room] = t;
        }
      }
    }
    best = next;
  }
  let room = minutes;
  return offers.map((_, at) => {
    const choice = taken[at * width + room]!;
    room -= choice;
    return choice;
  });
}
