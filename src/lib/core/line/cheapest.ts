/** The cheapest way through layers of places, exactly: for runs, bass lines, voicings. */

import { firstOf, lastOf, nth } from '../base/list';

/**
 * One place of each layer so that the sum of what each costs and what each step costs is least; of equal ways the one that
 * takes earlier places of its layers, the last ones first. Empty where some layer has no place. `Infinity` forbids.
 */
export function cheapestWay<Place>(
  layers: readonly (readonly Place[])[],
  own: (place: Place, layer: number) => number,
  step: (from: Place, to: Place, layer: number) => number
): Place[] {
  if (layers.length === 0 || layers.some((layer) => layer.length === 0)) return [];
  let costs = firstOf(layers).map((place) => own(place, 0));
  const origins: number[][] = [];
  for (let layer = 1; layer < layers.length; layer++) {
    const before = nth(layers, layer - 1);
    const reached: number[] = [];
    const from: number[] = [];
    for (const place of nth(layers, layer)) {
      let [least, origin] = [Infinity, 0];
      for (let i = 0; i < before.length; i++) {
        const cost = nth(costs, i) + step(nth(before, i), place, layer);
        if (cost < least) [least, origin] = [cost, i];
      }
      reached.push(least + own(place, layer));
      from.push(origin);
    }
    costs = reached;
    origins.push(from);
  }
  let at = costs.indexOf(Math.min(...costs));
  const way = [nth(lastOf(layers), at)];
  for (let layer = layers.length - 1; layer > 0; layer--) {
    at = nth(nth(origins, layer - 1), at);
    way.push(nth(nth(layers, layer - 1), at));
  }
  return way.reverse();
}
