/** What the tests of takes share: a tune, its target line, and a line over it that the simulated player plays. */
import { firstOf } from '../base/list';
import { readSheet } from '../harmony/sheet';
import type { LineNote } from '../line/model';
import { systemOf } from '../neck/systems/registry';
import { STANDARD } from '../neck/tuning';
import { arrange, type Arrangement } from '../plan/arrange';
import { linesOf } from '../plan/lines';
import { DEFAULT_PLAN } from '../plan/model';
import { ticksOf } from '../line/model';
import type { LevelId } from '../line/find/registry';
import { findTargets } from '../targets/path';
import { judgeTake, type Judgement, type JudgingGround, type MeantTarget } from './judge/judge';
import { perform, type Stroke } from './player/perform';

export interface Tune {
  readonly arranged: Arrangement;
  readonly ground: JudgingGround;
  readonly targets: readonly MeantTarget[];
  readonly line: readonly LineNote[];
}

/** Tunes that were asked for, by chart, level and seed: many tests play the same ones. */
const tunes = new Map<string, Tune>();

export function tuneOf(chart: string, level: LevelId = 'without a stop', seed = 1): Tune {
  const key = [level, seed, chart].join(' ');
  const known = tunes.get(key) ?? tuneAnew(chart, level, seed);
  tunes.set(key, known);
  return known;
}

function tuneAnew(chart: string, level: LevelId, seed: number): Tune {
  const sheet = readSheet(chart);
  const arranged = arrange({ sheet, plan: DEFAULT_PLAN }, STANDARD, systemOf('positions'));
  const { analysis, chosen, neck } = arranged;
  const [path] = findTargets(analysis, arranged.targetOptions(DEFAULT_PLAN.thread)).paths;
  const { lines } = linesOf(arranged, { level, subdivision: 2, seed, alternatives: 1 });
  return {
    arranged,
    ground: { form: sheet.form, analysis, chosen, meter: sheet.head.meter, neck },
    targets: path!.targets.map(({ change, cell }) => ({ change, midi: cell.midi })),
    line: firstOf(lines).notes
  };
}

export const TEMPO = 100;
export const START = 2.4;

/** The simulated player on a tune's line, some rounds of it. */
export function played(tune: Tune, skill: number, seed = 1, rounds = 1): Stroke[] {
  const { form } = tune.ground;
  const line = Array.from({ length: rounds }, (_, round) =>
    tune.line.map((note) => ({ ...note, start: note.start + ticksOf(round * form.beats) }))
  ).flat();
  return perform(line, {
    skill,
    seed,
    secondOf: (tick) => START + ((tick / ticksOf(1)) * 60) / TEMPO,
    changes: Array.from({ length: rounds }, (_, round) =>
      form.changes.map(({ start }) => ticksOf(start + round * form.beats))
    ).flat()
  });
}

export function judged(tune: Tune, notes: readonly Stroke[], start = START): Judgement {
  return judgeTake({ notes, clock: { tempo: TEMPO, start }, targets: tune.targets }, tune.ground);
}
