/**
 * What follows from a chart and a plan: read, chosen, laid out. The one derivation that the workspace, other keys, the
 * routes and what is printed share. Every stage is worked out when it is asked for.
 */
import { choiceOf, type ScaleChoice } from '../approaches/choice';
import { collectionOf } from '../approaches/collection';
import { contextOf } from '../approaches/context';
import { judgedKeyScales } from '../approaches/key-centre';
import { modes } from '../approaches/modes';
import { outlineOrder, unionOf } from '../approaches/outline';
import { scaleChoices, type AnsweredQuestions } from '../approaches/registry';
import { firstOf, nth, sure } from '../base/list';
import type { Fret, StringNumber } from '../base/units';
import { analyse, type Analysis, type Overrule } from '../harmony/analysis';
import { readKey } from '../harmony/key';
import type { Sheet } from '../harmony/sheet';
import { STYLES } from '../harmony/style';
import { approachesOf, type ApproachNotes } from '../line/approach-notes';
import { skeletonLine } from '../line/skeleton';
import type { Line } from '../line/model';
import { momentsOf, subjectsOf, tonesOfAll, type Moment } from '../moment/moment';
import type { Area, Subject } from '../neck/area';
import { lastPosition } from '../neck/position';
import { areasAt, positionMap, type MapRow } from '../neck/position-map';
import type { NamedCell } from '../neck/shape';
import type { NeckSystem, Row } from '../neck/systems/system';
import { areasOf } from '../neck/systems/registry';
import { soundAt, type Instrument } from '../neck/tuning';
import { FREE_PATH, type TargetOptions, type Which } from '../targets/options';
import type { TargetPath } from '../targets/path';
import { pinsOf } from './edits';
import { differentSubjects, easiestPosition } from './easiest';
import { DEFAULT_PLAN, type Plan, type ThreadRule } from './model';
import { stage, valuesOf, type Stage } from './stage';

/** Beats that a change must outlast to count as long. */
const SHORT_CHANGE = 2;

export interface Arrangement {
  readonly sheet: Sheet;
  readonly plan: Plan;
  readonly neck: Instrument;
  readonly system: NeckSystem;
  /** Positions that the hand can be brought to. */
  readonly lowestPosition: number;
  readonly highestPosition: number;
  /** The reading of the harmony, with the player's overrules. */
  readonly analysis: Analysis;
  /** The changes in the order in which outlining them tells most, and how many of them are outlined. */
  readonly outlineOrder: readonly number[];
  readonly outlined: number;
  /** What is played over each change: chosen by hand, else by the approach, else the scale of the key. */
  readonly chosen: readonly (ScaleChoice | null)[];
  /** What everything chosen amounts to, as a sentence. */
  readonly union: string;
  readonly subjects: readonly (Subject | null)[];
  /** The windows of the neck system that the position steps through. */
  readonly rows: readonly Row[];
  /** The position asked for at every change. */
  readonly positions: readonly number[];
  /** What is played on every change, in the area nearest that position. */
  readonly areas: readonly (Area | null)[];
  /** Where the hand is in those areas. */
  readonly hands: readonly number[];
  /** Where the hand is unless a change says otherwise: as the plan has it, or as it is easiest. */
  readonly home: number;
  readonly moments: readonly Moment[];
  /** The chord tones under the hand, for every change. */
  readonly tones: readonly (readonly NamedCell[])[];
  /** Positions down, changes across. */
  readonly map: readonly MapRow[];
  /** A position brought within the neck. */
  readonly bounded: (position: number) => number;
  /** What the solver is asked for the plan's target line, or for another one as it would run by itself. */
  readonly targetOptions: (thread: ThreadRule) => TargetOptions;
  /** The approach notes into the targets of a path, as the plan wishes them. */
  readonly approachNotes: (path: TargetPath) => ApproachNotes;
  /** Those that fit, where the plan wishes none. */
  readonly fittingNotes: (path: TargetPath) => ApproachNotes;
  /** The line of landing, leaving and approaching; with fitting approach notes where the plan wishes none. */
  readonly skeleton: (path: TargetPath) => Line;
  /** The areas of a change up the neck, for a hand that travels. */
  readonly areasUp: (change: number) => readonly Area[];
  readonly stages: Stages;
}

/** A version of a chart whose text has been read. */
export interface ReadVersion {
  readonly sheet: Sheet;
  readonly plan: Plan;
}

interface Stages {
  readonly analysis: Stage<Analysis>;
  readonly outlineOrder: Stage<readonly number[]>;
  readonly outlined: Stage<number>;
  readonly chosen: Stage<readonly (ScaleChoice | null)[]>;
  readonly union: Stage<string>;
  readonly subjects: Stage<readonly (Subject | null)[]>;
  readonly rows: Stage<readonly Row[]>;
  readonly different: Stage<ReadonlyMap<string, Subject>>;
  readonly home: Stage<number>;
  readonly positions: Stage<readonly number[]>;
  readonly areas: Stage<readonly (Area | null)[]>;
  readonly hands: Stage<readonly number[]>;
  readonly moments: Stage<readonly Moment[]>;
  readonly tones: Stage<readonly (readonly NamedCell[])[]>;
  readonly map: Stage<readonly MapRow[]>;
  /** What approaches have said, for charts before and after an edit. */
  readonly answered: AnsweredQuestions;
}

/**
 * Arranges a version of a chart: its text, read, and the plan that was decided over that very text. `before`: an arrangement from which stages are taken over whose chart and decisions are still the
 * same, so that one edit costs only what follows from it.
 */
export function arrange(
  { sheet, plan }: ReadVersion,
  neck: Instrument,
  system: NeckSystem,
  before?: Arrangement
): Arrangement {
  const old = before?.stages;
  const answered: AnsweredQuestions = old?.answered ?? new Map();
  const lowestPosition = neck.capo;
  // The last positions have too few frets to play in.
  const highestPosition = lastPosition(neck) - neck.span;
  const bounded = (position: number) =>
    Math.min(highestPosition, Math.max(lowestPosition, Math.round(position)));

  const analysis = stage(
    () => [sheet, ...plan.decisions.flatMap(({ change, reading }) => (reading ? [change, reading] : []))],
    () => overruled(sheet, plan),
    old?.analysis
  );
  const order = stage(
    () => [analysis.value],
    () => outlineOrder(analysis.value),
    old?.outlineOrder
  );
  const outlined = stage(
    () => [plan.outline, order.value],
    () => Math.min(plan.outline ?? Infinity, order.value.length),
    old?.outlined
  );
  const choices = plan.decisions.flatMap(({ change, choice }) => (choice ? [change, choice] : []));
  const chosen = stage(
    () => [analysis.value, plan.approach, plan.outline, ...choices],
    () => choose(analysis.value, plan, new Set(order.value.slice(0, outlined.value)), answered),
    old?.chosen
  );
  const union = stage(
    () => [chosen.value, ...choices],
    () => unionOf([...chosen.value, ...laterChoices(plan)].filter((one) => one !== null)),
    old?.union
  );
  const subjects = stage(
    () => [analysis.value, chosen.value],
    () => subjectsOf(analysis.value, chosen.value),
    old?.subjects
  );
  const rows = stage(
    () => [neck, system, analysis.value],
    () => system.rows(neck, homeOf(analysis.value)),
    old?.rows
  );
  const different = stage(
    () => [subjects.value],
    () => differentSubjects(subjects.value),
    old?.different
  );
  const home = stage(
    () =>
      plan.position === null
        ? [neck, system, rows.value, [...different.value.keys()].sort().join()]
        : [plan.position],
    () => plan.position ?? easiestPosition(neck, system, rows.value, different.value.values()),
    old?.home
  );
  const positions = stage(
    () => [
      analysis.value.changes.length,
      neck,
      home.value,
      ...plan.decisions.flatMap(({ change, position }) => (position === undefined ? [] : [change, position]))
    ],
    () => {
      const own = new Map(plan.decisions.map(({ change, position }) => [change, position]));
      return analysis.value.changes.map(({ index }) => bounded(own.get(index) ?? home.value));
    },
    old?.positions
  );
  const areas = stage(
    () => [neck, system, subjects.value, positions.value],
    () => areasAt(neck, system, subjects.value, positions.value),
    old?.areas
  );
  const hands = stage(
    () => [areas.value],
    () => positions.value.map((position, i) => areas.value[i]?.position ?? position),
    old?.hands
  );
  const moments = stage(
    () => [chosen.value, areas.value],
    () => momentsOf(analysis.value, neck, chosen.value, areas.value),
    old?.moments
  );
  const tones = stage(
    () => [analysis.value, neck, hands.value],
    () => tonesOfAll(analysis.value, neck, hands.value),
    old?.tones
  );
  const map = stage(
    () => [neck, system, subjects.value],
    () => positionMap(neck, system, homeOf(analysis.value), subjects.value),
    old?.map
  );

  const isPlayable = ({ change, string, fret }: { change: number; string: StringNumber; fret: Fret }) => {
    const chord = analysis.value.changes[change]?.chord;
    const isOnNeck = string <= neck.strings.length && fret >= neck.capo && fret <= neck.frets;
    return !!chord && isOnNeck && chord.pitchClasses.includes(soundAt(neck, string, fret) % 12);
  };
  const notesInto = (path: TargetPath, wishes: Plan['approachNotes']) => {
    const own = new Map(plan.decisions.map(({ change, approachNote }) => [change, approachNote]));
    return approachesOf(analysis.value, path, chosen.value, neck, plan.loop, ({ change }) => {
      const wish = own.get(change) ?? wishes;
      return wish === 'none' ? null : wish;
    });
  };

  const stages = {
    analysis,
    outlineOrder: order,
    outlined,
    chosen,
    union,
    subjects,
    rows,
    different,
    home,
    positions,
    areas,
    hands,
    moments,
    tones,
    map
  };
  return Object.assign(valuesOf(stages), {
    sheet,
    plan,
    neck,
    system,
    lowestPosition,
    highestPosition,
    bounded,
    targetOptions: (thread: ThreadRule) => {
      const strings = plan.strings?.filter((string) => string <= neck.strings.length) ?? [];
      // Another line than the plan's is shown as it would run by itself. A pin that another tuning has taken the
      // sense out of is kept, and waits.
      const fixed = thread === plan.thread ? pinsOf(plan).filter(isPlayable) : [];
      return {
        ...FREE_PATH,
        neck,
        degrees: plan.degrees,
        standIn: true,
        column: thread === 'free' || thread === 'alternate' ? null : thread,
        alternate: thread === 'alternate',
        fixed,
        loop: plan.loop,
        position: plan.reach === 'hand' ? hands.value : null,
        isHandFree: plan.position === null && plan.decisions.every(({ position }) => position === undefined),
        strings: strings.length ? strings : null,
        range: plan.range,
        avoid: plan.avoid,
        direction: plan.direction,
        which: whichOf(plan, order.value.slice(0, outlined.value)),
        every: plan.every,
        weights: plan.weights
      };
    },
    approachNotes: (path: TargetPath) => notesInto(path, plan.approachNotes),
    fittingNotes: (path: TargetPath) => notesInto(path, 'fitting'),
    skeleton: (path: TargetPath) => {
      const own = notesInto(path, plan.approachNotes);
      const notes = own.size ? own : notesInto(path, 'fitting');
      return skeletonLine(analysis.value, sheet.head.meter, path, notes, tones.value);
    },
    areasUp: (change: number) => {
      const subject = subjects.value[change];
      return subject ? areasOf(neck, system, homeOf(analysis.value), subject) : [];
    },
    stages: { ...stages, answered }
  });
}

/** The plan that a chart begins with: the approach of its style, nothing decided. */
export function firstPlan({ analysis }: Sheet): Plan {
  const approach = sure(
    STYLES.find(({ id }) => id === analysis.style),
    'STYLES'
  ).approach;
  return { ...DEFAULT_PLAN, approach };
}

const homeOf = ({ key }: Analysis) => key;

function overruled({ form, head, analysis }: Sheet, { decisions }: Plan): Analysis {
  const overrules = decisions.flatMap(({ change, reading }): Overrule[] => {
    const key = reading?.key === undefined ? null : readKey(reading.key);
    const role = reading?.function;
    return key || role ? [{ change, ...(key ? { key } : {}), ...(role ? { function: role } : {}) }] : [];
  });
  if (overrules.length === 0) return analysis;
  return analyse(form, head.key === null ? null : readKey(head.key), { overrules, head });
}

function choose(
  analysis: Analysis,
  { decisions, approach }: Plan,
  outlined: ReadonlySet<number>,
  answered: AnsweredQuestions
): (ScaleChoice | null)[] {
  const byHand = new Map(decisions.map(({ change, choice }) => [change, choice]));
  const byApproach = scaleChoices(analysis, { approaches: [approach], answered });
  return analysis.changes.map(({ index }): ScaleChoice | null => {
    const context = contextOf(analysis, index);
    if (!context) return null;
    const own = byHand.get(index);
    const collection = own && collectionOf(own.collection);
    if (collection) return choiceOf(own.approach, collection, context);
    if (!outlined.has(index)) return firstOf(judgedKeyScales(context));
    // An approach may have nothing for a chord; its mode does instead.
    return nth(byApproach, index)[0] ?? modes(context)[0] ?? null;
  });
}

/** What changes go over to inside them. */
function laterChoices({ decisions }: Plan) {
  return decisions.map(({ choice }) => (choice?.then ? collectionOf(choice.then.collection) : null));
}

function whichOf({ which }: Plan, outlined: readonly number[]): Which {
  if (which === 'long') return { longerThan: SHORT_CHANGE };
  return which === 'outlined' ? { only: outlined } : which;
}
