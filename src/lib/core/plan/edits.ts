/** Edits of a plan: each takes a plan and gives another one. Nothing is changed in place. */
import type { ScaleChoice } from '../approaches/choice';
import type { TargetPath } from '../targets/path';
import {
  DEFAULT_PLAN,
  PATH_RULES,
  type Decision,
  type Pin,
  type Plan,
  type ReadingWish,
  type TakenChoice
} from './model';

type Part = Omit<Decision, 'change'>;

/** What the player decided at a change; undefined where nothing was. */
export function decisionAt({ decisions }: Plan, change: number): Decision | undefined {
  return decisions.find((one) => one.change === change);
}

/** Decides parts of some changes; a part that is undefined is decided no longer. */
export function decide(plan: Plan, parts: ReadonlyMap<number, Part>): Plan {
  const kept = plan.decisions.filter(({ change }) => !parts.has(change));
  const made = [...parts].flatMap(([change, part]): Decision[] => {
    const all = Object.entries({ ...decisionAt(plan, change), ...part, change });
    const said = all.filter(([, value]) => value !== undefined);
    return said.length > 1 ? [Object.fromEntries(said) as unknown as Decision] : [];
  });
  return { ...plan, decisions: [...kept, ...made].sort((a, b) => a.change - b.change) };
}

const decideOne = (plan: Plan, change: number, part: Part): Plan => decide(plan, new Map([[change, part]]));

/** The same part taken out of every decision. */
function forget(plan: Plan, part: keyof Part): Plan {
  return decide(plan, new Map(plan.decisions.map(({ change }) => [change, { [part]: undefined }])));
}

/** The plan with choices taken at some changes. */
export function takeChoices(plan: Plan, taken: ReadonlyMap<number, TakenChoice>): Plan {
  return decide(plan, new Map([...taken].map(([change, choice]) => [change, { choice }])));
}

/** A choice as it is kept. */
export function takenFrom({ approach, facts }: ScaleChoice): TakenChoice {
  return { approach, collection: facts };
}

/** Leaves a change to the plan's approach again. */
export function leaveChoice(plan: Plan, change: number): Plan {
  return decideOne(plan, change, { choice: undefined });
}

/** Moves the beat at which a change goes over to its second collection. */
export function moveChangeOver(plan: Plan, change: number, beat: number): Plan {
  const choice = decisionAt(plan, change)?.choice;
  if (!choice?.then) return plan;
  return decideOne(plan, change, { choice: { ...choice, then: { ...choice.then, beat } } });
}

/** Overrules the reading of a change; empty values go back to what was found. */
export function overrule(
  plan: Plan,
  change: number,
  part: { key?: string; function?: ReadingWish['function'] | '' }
): Plan {
  const { key, function: role } = { ...decisionAt(plan, change)?.reading, ...part };
  const reading = key || role ? { ...(key ? { key } : {}), ...(role ? { function: role } : {}) } : undefined;
  return decideOne(plan, change, { reading });
}

/** Gives changes positions of their own. */
export function paint(plan: Plan, positions: ReadonlyMap<number, number>): Plan {
  return decide(plan, new Map([...positions].map(([change, position]) => [change, { position }])));
}

/** Puts the whole plan into one position. */
export function settle(plan: Plan, position: number): Plan {
  return { ...forget(plan, 'position'), position };
}

/** How the target of one change is led into; undefined as for all. */
export function approachWith(plan: Plan, change: number, approachNote: Decision['approachNote']): Plan {
  return decideOne(plan, change, { approachNote });
}

/** Pins the target of a change, or a later one inside it, to a cell. */
export function pin(plan: Plan, change: number, { beat, string, fret }: Pin): Plan {
  const at = beat ?? 1;
  const pins = decisionAt(plan, change)?.pins ?? [];
  const held = pins.find((one) => (one.beat ?? 1) === at);
  if (held?.string === string && held.fret === fret) return plan;
  const others = pins.filter((one) => one !== held);
  const own: Pin = { ...(at === 1 ? {} : { beat: at }), string, fret };
  return decideOne(plan, change, { pins: [...others, own].sort((a, b) => (a.beat ?? 1) - (b.beat ?? 1)) });
}

/** The plan without the pin of a change. */
export function unpin(plan: Plan, change: number): Plan {
  return decideOne(plan, change, { pins: undefined });
}

/** The plan without any pin. */
export function unpinAll(plan: Plan): Plan {
  return forget(plan, 'pins');
}

/** Whether a change is pinned. */
export function isPinned(plan: Plan, change: number): boolean {
  return decisionAt(plan, change)?.pins !== undefined;
}

/** Every pin with its change. */
export function pinsOf({ decisions }: Plan): (Pin & { readonly change: number })[] {
  return decisions.flatMap(({ change, pins = [] }) => pins.map((one) => ({ ...one, change })));
}

/**
 * Takes another path: what differs from the one that runs now is pinned. `solve` gives the best path of a plan; where the
 * rest would then run otherwise than in the path that is taken, that is pinned too, until it runs as it was shown.
 */
export function takePath(
  plan: Plan,
  now: TargetPath | null,
  path: TargetPath,
  solve: (plan: Plan) => TargetPath | null
): Plan {
  const pinned = pinDifferences(plan, now, path);
  // Every turn pins at least one target more, so that it comes to an end.
  return pinned === plan ? plan : takePath(pinned, solve(pinned), path, solve);
}

function pinDifferences(plan: Plan, now: TargetPath | null, path: TargetPath): Plan {
  const moment = ({ change, beat }: { change: number; beat: number }) => `${change}:${beat}`;
  const known = new Map(now?.targets.map((target) => [moment(target), target.cell]));
  return path.targets.reduce((sum, target) => {
    const own = known.get(moment(target));
    const { string, fret } = target.cell;
    const isSame = own?.string === string && own.fret === fret;
    return isSame ? sum : pin(sum, target.change, { beat: target.beat, string, fret });
  }, plan);
}

/** Sets every rule of the target line back to how it is at first. */
export function resetRules(plan: Plan): Plan {
  return { ...plan, ...Object.fromEntries(PATH_RULES.map((rule) => [rule, DEFAULT_PLAN[rule]])) };
}

/** The decisions moved to where their changes are after an edit of the text; those of changes that are gone are dropped. */
export function withDecisions(plan: Plan, decisions: readonly Decision[]): Plan {
  return { ...plan, decisions };
}
