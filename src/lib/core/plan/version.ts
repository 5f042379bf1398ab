/** A version of a chart: its text and the plan that was decided over that text. One without the other says nothing. */
import { readSheet } from '../harmony/sheet';
import type { NeckSystem } from '../neck/systems/system';
import type { Instrument } from '../neck/tuning';
import { arrange, type Arrangement } from './arrange';
import { withDecisions } from './edits';
import type { Plan } from './model';
import { realign } from './realign';

export interface ChartVersion {
  readonly source: string;
  readonly plan: Plan;
}

const symbolsOf = (source: string) => readSheet(source).form.changes.map(({ symbol }) => symbol);

/**
 * The same decisions over another text of the chart: each goes with its change, and those of changes that are not there are left out. The
 * version itself where the text is its own.
 */
export function carriedOver(version: ChartVersion, source: string): ChartVersion {
  if (source === version.source) return version;
  const { plan } = version;
  const decisions = realign(plan.decisions, symbolsOf(version.source), symbolsOf(source));
  return { source, plan: withDecisions(plan, decisions) };
}

/** What follows from a version: never its text under another one's plan. */
export const arrangeVersion = (
  { source, plan }: ChartVersion,
  neck: Instrument,
  system: NeckSystem
): Arrangement => arrange({ sheet: readSheet(source), plan }, neck, system);

/** Text in which facts stand in one order, however they came together. */
const inOrder = (value: unknown): string =>
  JSON.stringify(value, (_, own: unknown) =>
    own !== null && typeof own === 'object' && !Array.isArray(own)
      ? Object.fromEntries(Object.entries(own).sort(([a], [b]) => (a < b ? -1 : 1)))
      : own
  );

const choicesOf = ({ approach, outline, decisions }: Plan) => ({
  approach,
  outline,
  decisions: decisions.flatMap(({ change, choice, reading }) =>
    choice || reading ? [{ change, choice, reading }] : []
  )
});

/**
 * Whether two plans over one text choose the same notes and read its harmony alike: what a line is heard against. Where the hand lies and
 * where targets go is none of it.
 */
export const haveSameChoices = (one: Plan, other: Plan): boolean =>
  one === other || inOrder(choicesOf(one)) === inOrder(choicesOf(other));
