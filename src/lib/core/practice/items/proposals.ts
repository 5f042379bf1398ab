/**
 * What a chart gives to be practised, in the practitioners' order (docs/music-rules.md, *Practice*): one area first, its
 * shapes up, down, in turn; targets; approaches; then lines; then the next area; then the neighbouring keys, one after the
 * other. The whole form is there from the first day.
 */
import { nth } from '../../base/list';
import type { Beats } from '../../base/units';
import { transposeKey } from '../../chart/transpose';
import { readKey } from '../../harmony/key';
import { drillOf } from '../../line/drills';
import { boundedTempo } from '../ladder';
import type { Bars, ItemTempo } from '../log/model';

/** What is known of a chart that is to be practised. */
export interface PracticeChart {
  readonly id: string;
  /** "Eb", "Gm", "F dorian". */
  readonly key: string;
  readonly tempo: number;
  /** Bars of its unrolled form, its sections, and the beats of a bar. */
  readonly bars: number;
  readonly sections: readonly Bars[];
  readonly beats: Beats;
  /** Positions of its areas, the one to begin with first. */
  readonly positions: readonly number[];
  readonly hasMelody: boolean;
  /** Kept lines, each with the bars of its phrases; none where it is one. */
  readonly lines: readonly PracticeLine[];
}

export interface PracticeLine {
  readonly id: string;
  readonly name: string;
  readonly phrases?: readonly Bars[];
}

export interface Proposal {
  readonly id: string;
  readonly what: string;
  readonly name: string;
  readonly line?: string;
  readonly area: number | null;
  readonly key: string;
  readonly after: readonly string[];
  readonly tempo: ItemTempo;
  readonly minutes: number;
  readonly form?: true;
  /** Bars of the form that are played; all of it where none are named. */
  readonly bars?: Bars;
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
/** The step that opens the next area, that which opens the neighbouring key, and what is taken through all the others. */
const [OPENS_AREA, OPENS_KEY, THROUGH_KEYS] = ['targets', 'approach', 'targets'] as const;
/** Areas that are proposed at once, in the chart's own key. */
const AREAS = 3;
const FOURTH = 5;
const KEYS = 12;
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

/** The id of the whole form in a key. */
export function formId(chart: string, key: string): string {
  return [chart, key, 'form'].join(':');
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

/** All of a chart with the band, as it will be played: there from the first day. `tempo`: that it is to be held at. */
export function wholeForm(chart: string, key: string, tempo: number): Proposal {
  return {
    id: formId(chart, key),
    what: 'band',
    name: 'The whole form',
    area: null,
    key,
    after: [],
    tempo: tempoFor(tempo, LINE_GOAL),
    minutes: 5,
    form: true
  };
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
  const lines = chart.lines.flatMap((line) => lineSteps(chart, line, home, approach));
  let before = home;
  const areas = others.flatMap((area) => {
    const steps = areaSteps(chart, chart.key, area, [idOf(chart.key, before, OPENS_AREA)]);
    before = area;
    return steps;
  });
  const form = wholeForm(chart.id, chart.key, chart.tempo);
  return [...melody, ...first, form, ...lines, ...areas, ...throughKeys(chart, home, approach)];
}

/** Phrases of a line that are practised one by one; a longer one is taken whole. */
const MOST_PHRASES = 8;

/** A line phrase by phrase, then each joined with the next, then whole: a seam between two halves is where hands hesitate. */
function lineSteps(
  chart: PracticeChart,
  { id, name, phrases = [] }: PracticeLine,
  area: number,
  opens: string
): Proposal[] {
  const of = (what: string, own: string, after: readonly string[], bars?: Bars): Proposal => ({
    ...step(chart, { what, goal: LINE_GOAL }, { key: chart.key, area, after }),
    what: 'line',
    name: own,
    line: id,
    ...(bars ? { bars } : {})
  });
  const whole = `line:${id}`;
  if (phrases.length < 2 || phrases.length > MOST_PHRASES) return [of(whole, name, [opens])];
  const spanned = ({ from, to }: Bars) => (from === to ? `bar ${from}` : `bars ${from} to ${to}`);
  const single = phrases.map((bars, i) =>
    of(`${whole}:${i + 1}`, `${name}, ${spanned(bars)}`, [opens], bars)
  );
  const joined = phrases.slice(1).map(({ to }, i) => {
    const bars = { from: nth(phrases, i).from, to };
    return of(
      `${whole}:${i + 1}+`,
      `${name}, ${spanned(bars)}`,
      [nth(single, i).id, nth(single, i + 1).id],
      bars
    );
  });
  return [
    ...single,
    ...(phrases.length > 2 ? joined : []),
    of(
      whole,
      name,
      (phrases.length > 2 ? joined : single).map((one) => one.id)
    )
  ];
}

/** The neighbouring key with all its steps, then the targets in one key after the other, round in fourths. */
function throughKeys(chart: PracticeChart, home: number, opens: string): Proposal[] {
  const steps: Proposal[] = [];
  let before = opens;
  for (let fourths = 1; fourths < KEYS; fourths++) {
    const read = readKey(chart.key);
    const key = read && transposeKey(chart.key, read, (fourths * FOURTH) % KEYS);
    if (!key) break;
    const up = home + ((fourths * FOURTH) % KEYS);
    const area = up > HIGHEST_AREA ? up - KEYS : up;
    const own = areaSteps(chart, key, area, [before]);
    const through = own.filter(({ what }) => what === THROUGH_KEYS);
    steps.push(...(fourths === 1 ? own : through.map((one) => ({ ...one, after: [before] }))));
    before = itemId(chart.id, key, area, THROUGH_KEYS);
  }
  return steps;
}
