/**
 * What a chart gives to be practised, in the practitioners' order (9-practice, *What can be practised*): one area first, its
 * shapes up, down, in turn; targets; approaches; then lines; then the next area; then the neighbouring key.
 */
import { transposeKey } from '../../chart/transpose';
import { readKey } from '../../harmony/key';
import { drillOf } from '../../line/drills';
import { boundedTempo } from '../ladder';
import type { ItemTempo } from '../log/model';

/** What is known of a chart that is to be practised. */
export interface PracticeChart {
  readonly id: string;
  /** "Eb", "Gm", "F dorian". */
  readonly key: string;
  readonly tempo: number;
  /** Positions of its areas, the one to begin with first. */
  readonly positions: readonly number[];
  readonly hasMelody: boolean;
  readonly lines: readonly { readonly id: string; readonly name: string }[];
}

export interface Proposal {
  readonly id: string;
  readonly what: string;
  readonly name: string;
  readonly line?: string;
  readonly area: number;
  readonly key: string;
  readonly after: readonly string[];
  readonly tempo: ItemTempo;
  readonly minutes: number;
}

/** The steps in one area: a drill, the share of the chart's tempo at which it is held, and the steps it stands on. */
const STEPS = [
  { what: 'up', goal: 0.75, on: [] },
  { what: 'down', goal: 0.75, on: [] },
  { what: 'alternate', goal: 0.75, on: ['up', 'down'] },
  { what: 'targets', goal: 1, on: ['up'] },
  { what: 'approach', goal: 1, on: ['targets'] }
] as const;
/** Lines are held at the tempo of the chart. */
const LINE_GOAL = 1;
/** Everything begins at a share of its goal. */
const START = 0.7;
/** The step that has to be held before the next area opens, and before the neighbouring key does. */
const [OPENS_AREA, OPENS_KEY] = ['targets', 'approach'] as const;
/** Areas that are proposed at once, in the chart's own key. */
const AREAS = 3;
const FOURTH = 5;
/** Frets up to which the hand follows a key; beyond it goes an octave down. */
const HIGHEST_AREA = 12;

const tempoFor = (tempo: number, share: number): ItemTempo => {
  const goal = boundedTempo(tempo * share);
  return { start: boundedTempo(goal * START), goal };
};

/** The id of a step: the same wherever it is proposed. */
export function itemId(chart: string, key: string, area: number, what: string): string {
  return [chart, key, area, what].join(':');
}

/** "Ascending, position 6, in B♭" is made of this where it is shown. */
function step(
  { id, tempo }: PracticeChart,
  { what, goal }: { readonly what: string; readonly goal: number },
  place: { readonly key: string; readonly area: number; readonly after: readonly string[] }
): Proposal {
  return {
    id: itemId(id, place.key, place.area, what),
    what,
    name: what === 'melody' ? 'The melody' : (drillOf(what)?.name ?? what),
    ...place,
    tempo: tempoFor(tempo, goal),
    minutes: 5
  };
}

function areaSteps(chart: PracticeChart, key: string, area: number, opens: readonly string[]): Proposal[] {
  return STEPS.map(({ on, ...one }) => {
    const after = [...(on.length ? [] : opens), ...on.map((what) => itemId(chart.id, key, area, what))];
    return step(chart, one, { key, area, after });
  });
}

/** Everything that is proposed of a chart, in order. */
export function proposals(chart: PracticeChart): readonly Proposal[] {
  const [home = 5, ...others] = chart.positions.slice(0, AREAS);
  const idOf = (key: string, area: number, what: string) => itemId(chart.id, key, area, what);
  const first = areaSteps(chart, chart.key, home, []);
  const approach = idOf(chart.key, home, OPENS_KEY);
  const melody = chart.hasMelody
    ? [step(chart, { what: 'melody', goal: LINE_GOAL }, { key: chart.key, area: home, after: [] })]
    : [];
  const lines = chart.lines.map((line): Proposal => ({
    ...step(
      chart,
      { what: `line:${line.id}`, goal: LINE_GOAL },
      { key: chart.key, area: home, after: [approach] }
    ),
    what: 'line',
    name: line.name,
    line: line.id
  }));
  let before = home;
  const areas = others.flatMap((area) => {
    const steps = areaSteps(chart, chart.key, area, [idOf(chart.key, before, OPENS_AREA)]);
    before = area;
    return steps;
  });
  const key = fourthUp(chart.key);
  const area = home + FOURTH > HIGHEST_AREA ? home + FOURTH - 12 : home + FOURTH;
  const next = key === null ? [] : areaSteps(chart, key, area, [approach]);
  return [...melody, ...first, ...lines, ...areas, ...next];
}

function fourthUp(key: string): string | null {
  const read = readKey(key);
  return read && transposeKey(key, read, FOURTH);
}
