/** What the stand is to be opened for, asked for on another page: one item, taken once. */
import type { Assignment } from './assignment';

let asked: { readonly chart: string; readonly assignment: Assignment } | null = null;

export function askFor(chart: string, assignment: Assignment): void {
  asked = { chart, assignment };
}

/** What was asked for in a chart; null where nothing was. */
export function takeAssignment(chart: string): Assignment | null {
  if (asked?.chart !== chart) return null;
  const { assignment } = asked;
  asked = null;
  return assignment;
}
