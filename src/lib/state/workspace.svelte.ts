/** The workspace of one chart: text, plan and selection, with everything that follows from them. */
// Derived maps are made anew and never changed in place, so that plain ones serve.
/* eslint-disable svelte/prefer-svelte-reactivity */
import { DEFAULT_PLAN, type Plan, type ThreadRule } from '$lib/api/plan';
import type { StoredChart } from '$lib/api/songbook';
import { chordPitchClasses } from '$lib/core/theory/chord';
import { DEGREES, type Degree } from '$lib/core/theory/degree';
import { findChains, type Chain } from '$lib/core/approaches/chains';
import { choiceOf, type ScaleChoice } from '$lib/core/approaches/choice';
import { readCollection } from '$lib/core/approaches/collection';
import { contextOf } from '$lib/core/approaches/context';
import { judgedKeyScales } from '$lib/core/approaches/key-centre';
import { modes } from '$lib/core/approaches/modes';
import { outlineOrder, unionOf } from '$lib/core/approaches/outline';
import { scaleChoices } from '$lib/core/approaches/registry';
import { analyse, type Overrule } from '$lib/core/harmony/analysis';
import { readKey } from '$lib/core/harmony/key';
import type { HarmonicFunction } from '$lib/core/harmony/numeral';
import { withDeclaration } from '$lib/core/chart/directives';
import { readSheet } from '$lib/core/harmony/sheet';
import { pitchClass, semitonesUp } from '$lib/core/theory/note';
import {
  compare,
  marksEverywhere,
  momentOf,
  momentsOf,
  movesBetween,
  subjectOf,
  subjectsOf,
  tonesOfAll
} from '$lib/core/moment/moment';
import { organisationOf } from '$lib/core/neck/area';
import { lastPosition } from '$lib/core/neck/position';
import { areasAt, positionMap } from '$lib/core/neck/position-map';
import type { NamedCell } from '$lib/core/neck/shape';
import { soundAt } from '$lib/core/neck/tuning';
import { approachesOf, type ApproachNote } from '$lib/core/moment/approach-notes';
import { differencesOf, figuresOf, priceOf } from '$lib/core/targets/figures';
import { FREE_PATH, type TargetOptions, type Which } from '$lib/core/targets/options';
import type { Target, TargetPath } from '$lib/core/targets/path';
import { TASTES, tasteOf } from '$lib/core/targets/tastes';
import { solve, type SolverJob, type SolverResult } from '../workers/solve';
import { Autosave, type Stored } from './autosave.svelte';
import type { Draft } from './drafts';
import { record, redo, startHistory, undo } from './history';
import { realign } from './realign';
import { settings } from './settings.svelte';
import { Solver } from './solver.svelte';

/** The threads a player can pick, and what they are called. */
export const THREADS: readonly { rule: ThreadRule; name: string; hint: string }[] = [
  { rule: 'free', name: 'Smoothest', hint: 'The least movement through the degrees you allow' },
  { rule: '3', name: 'Thirds', hint: 'The third of every chord' },
  { rule: '7', name: 'Sevenths', hint: 'The seventh of every chord' },
  { rule: 'alternate', name: '3 and 7 in turn', hint: 'Thirds and sevenths, one after the other' },
  { rule: '1', name: 'Roots', hint: 'The root of every chord' },
  { rule: '5', name: 'Fifths', hint: 'The fifth of every chord' }
];

export type View = 'moment' | 'map' | 'grips' | 'rehearse';
export const VIEW_NAMES: Readonly<Record<View, string>> = {
  moment: 'Moment',
  map: 'Map',
  grips: 'Grips',
  rehearse: 'Rehearse'
};
export type NeckMode = 'hand' | 'whole' | 'find';

/** Paths asked for on demand, and how many of them with different prices are shown beside the best. */
const ALTERNATIVES = 24;
const SHOWN_ALTERNATIVES = 5;
/** Changes of a chart that is solved on the page before the worker has come up. */
const SOLVED_AT_ONCE = 200;
const UNSOLVED: SolverResult = { answer: { paths: [] }, others: [] };
/** Beats that a change must outlast to count as long. */
const SHORT_CHANGE = 2;

type PathRules = Pick<
  Plan,
  'weights' | 'direction' | 'which' | 'every' | 'reach' | 'strings' | 'range' | 'avoid' | 'approach'
>;
type TakenChoice = Pick<Plan['choices'][number], 'approach' | 'name' | 'then'>;

function isSame(a: ScaleChoice, b: ScaleChoice): boolean {
  return a.approach === b.approach && a.name === b.name;
}

export class Workspace {
  readonly id: string;
  readonly autosave: Autosave;
  #history = $state.raw(startHistory<Draft>({ source: '', plan: DEFAULT_PLAN }));
  #selected = $state(0);
  /** What was said last to screen readers. */
  announcement = $state('');

  /** `isFrozen`: shown only, as in another key; nothing can be changed. */
  constructor(
    chart: StoredChart,
    readonly isFrozen = false
  ) {
    this.id = chart.id;
    this.#history = startHistory<Draft>({ source: chart.source, plan: chart.plan });
    this.autosave = new Autosave(chart);
  }

  /** What the main part of the page shows. */
  view: View = $state('moment');
  /** The rules of the path stand where the choices are. */
  isRuling = $state(false);
  /** Threads shows where every voice goes. */
  showsLanes = $state(false);
  /** What the neck shows: the hand's window, the whole collection, or one degree everywhere. */
  neckMode: NeckMode = $state('hand');
  /** The degree to be found everywhere; the target's, until the player picks another. */
  sought: Degree | null = $state(null);

  readonly neck = $derived(settings.instrument);
  readonly lowestPosition = $derived(this.neck.capo);
  /** The highest position a hand can be brought to; the last ones have too few frets to play in. */
  readonly highestPosition = $derived(lastPosition(this.neck) - this.neck.span);

  readonly source = $derived(this.#history.present.source);
  readonly plan = $derived(this.#history.present.plan);
  readonly sheet = $derived(readSheet(this.source));
  readonly title = $derived(this.sheet.head.title ?? 'Untitled chart');
  /** The reading of the harmony, with the player's overrules. */
  readonly analysis = $derived.by(() => {
    const { form, head } = this.sheet;
    const overrules = this.plan.overrules.flatMap(({ change, key, function: role }): Overrule[] => {
      const read = key === undefined ? null : readKey(key);
      return read || role
        ? [{ change, ...(read ? { key: read } : {}), ...(role ? { function: role } : {}) }]
        : [];
    });
    if (overrules.length === 0) return this.sheet.analysis;
    return analyse(form, head.key === null ? null : readKey(head.key), overrules);
  });
  readonly changes = $derived(this.analysis.changes);
  readonly selected = $derived(Math.min(this.#selected, Math.max(0, this.changes.length - 1)));
  readonly change = $derived(this.changes[this.selected]);
  /** The change that follows; the first one after the last. */
  readonly nextIndex = $derived(this.changes.length > 1 ? (this.selected + 1) % this.changes.length : null);

  /** What the solver is asked: the plan's own path, and how the other threads would run. */
  readonly job = $derived.by((): SolverJob => ({
    analysis: this.analysis,
    options: { ...this.#options(this.plan.thread), alternatives: this.wantsAlternatives ? ALTERNATIVES : 1 },
    others: this.#otherRules.map(({ rule }) => this.#options(rule))
  }));
  readonly #otherRules = $derived(
    THREADS.filter(({ rule }) => rule !== this.plan.thread && ['3', '7', 'alternate', 'free'].includes(rule))
  );
  readonly solver = new Solver();
  /** Before the worker has answered for the first time, small charts are solved at once, so that the page comes whole. */
  readonly #solved = $derived(
    this.solver.latest?.result ?? (this.changes.length <= SOLVED_AT_ONCE ? solve(this.job) : UNSOLVED)
  );
  readonly answer = $derived(this.#solved.answer);
  readonly path = $derived(this.#withoutGone(this.answer.paths[0]));
  /** The next best paths, on demand. */
  wantsAlternatives = $state(false);
  readonly alternatives = $derived.by(() => {
    const [best, ...others] = this.answer.paths;
    if (!best || !this.wantsAlternatives) return [];
    const figures = figuresOf(best);
    const byPrice = new Map<string, { path: TargetPath; price: string; differences: Target[] }>();
    for (const path of others) {
      const price = priceOf(figures, figuresOf(path));
      const isSound = path.targets.every((target) => this.#isThere(target));
      if (isSound && !byPrice.has(price)) {
        byPrice.set(price, { path, price, differences: differencesOf(best, path) });
      }
    }
    return [...byPrice.values()].slice(0, SHOWN_ALTERNATIVES);
  });
  readonly figures = $derived(this.path && figuresOf(this.path));
  /** The target at the start of each change. */
  readonly targets = $derived(
    new Map(this.path?.targets.filter(({ beat }) => beat === 1).map((target) => [target.change, target]))
  );
  /** The other threads, faint, to be picked. */
  readonly otherThreads = $derived(
    this.#otherRules.map(({ rule, name }, i) => ({
      rule,
      name,
      path: this.#withoutGone(this.#solved.others[i] ?? undefined)
    }))
  );

  /** A tone that the player holds the thread to without having let go. */
  considered: { readonly change: number; readonly cell: NamedCell } | null = $state.raw(null);
  readonly whatIf = new Solver();
  readonly consideredJob = $derived.by((): SolverJob | null => {
    if (!this.considered) return null;
    const { change, cell } = this.considered;
    const options = this.#options(this.plan.thread);
    const others = options.fixed.filter((pin) => pin.change !== change);
    const fixed = [...others, { change, string: cell.string, fret: cell.fret }];
    return { analysis: this.analysis, options: { ...options, fixed }, others: [] };
  });
  /** Where the thread would go then, and what that would cost. */
  readonly prospect = $derived.by(() => {
    const latest = this.whatIf.latest;
    if (!this.considered || latest?.job !== this.consideredJob) return null;
    const path = this.#withoutGone(latest.result.answer.paths[0]);
    if (!path) return { path: null, price: latest.result.answer.noPath?.message ?? '' };
    return { path, price: this.figures ? priceOf(this.figures, figuresOf(path)) : '' };
  });

  /** A path may answer for a text that has been changed since; targets of changes that are gone are left out. */
  #withoutGone(path: TargetPath | undefined): TargetPath | null {
    if (!path) return null;
    const targets = path.targets.filter((target) => this.#isThere(target));
    return targets.length === path.targets.length ? path : { ...path, targets };
  }

  #isThere({ change, beat }: Target): boolean {
    const now = this.changes[change];
    return !!now?.chord && beat <= now.beats + 1;
  }

  /** The approach notes into each target, by its place in the path. */
  readonly approaches = $derived.by(() => {
    if (!this.path) return new Map<number, readonly ApproachNote[]>();
    const own = new Map(this.plan.approaches.map(({ change, kind }) => [change, kind]));
    return approachesOf(this.analysis, this.path, this.chosen, this.neck, this.plan.loop, ({ change }) => {
      const kind = own.get(change) ?? this.plan.approach;
      return kind === 'none' ? null : kind;
    });
  });
  /** The same by the change that they lead into. */
  readonly approachInto = $derived(
    new Map(
      [...this.approaches].flatMap(([i, notes]) => {
        const target = this.path!.targets[i]!;
        return target.beat === 1 ? [[target.change, notes] as const] : [];
      })
    )
  );

  /** What every approach offers, change by change; computed when the Choices panel asks. */
  readonly offered = $derived(scaleChoices(this.analysis));
  readonly chains = $derived(findChains(this.analysis));
  readonly outlineOrder = $derived(outlineOrder(this.analysis));
  /** How many changes are outlined. */
  readonly outlined = $derived(Math.min(this.plan.outline ?? Infinity, this.outlineOrder.length));
  /** What is played over each change: chosen by hand, else by the school, else the scale of the key. */
  readonly chosen = $derived.by(() => {
    const byHand = new Map(this.plan.choices.map((choice) => [choice.change, choice]));
    const outlined = new Set(this.outlineOrder.slice(0, this.outlined));
    const bySchool = scaleChoices(this.analysis, [this.plan.school]);
    return this.changes.map(({ index }): ScaleChoice | null => {
      const context = contextOf(this.analysis, index);
      if (!context) return null;
      const own = byHand.get(index);
      const collection = own && readCollection(own.name);
      if (collection) return choiceOf(own.approach, collection, context);
      const first = outlined.has(index) ? bySchool[index]![0] : undefined;
      // A school may have nothing for a chord; its mode does instead.
      return outlined.has(index) ? (first ?? modes(context)[0] ?? null) : judgedKeyScales(context)[0]!;
    });
  });
  readonly union = $derived.by(() => {
    const after = this.plan.choices.flatMap(({ then }) => (then ? [readCollection(then.name)] : []));
    return unionOf([...this.chosen, ...after].filter((collection) => collection !== null));
  });
  /** Shown on the neck while the player looks at a choice that is not taken. */
  preview: ScaleChoice | null = $state.raw(null);
  /** At most two choices of the selected change, held against each other. */
  pins: readonly ScaleChoice[] = $state.raw([]);
  readonly comparison = $derived.by(() => {
    const [first, second] = this.pins;
    const chord = this.change?.chord;
    return first && second && chord ? compare(chord, first, second, this.neck, this.position) : null;
  });

  /** The degree that *find* shows: the one picked, else the target's, as far as it is there. */
  readonly soughtDegree = $derived.by((): Degree => {
    const held = [...(this.change?.chord?.tones ?? []), ...(this.chosen[this.selected]?.degrees ?? [])];
    const wanted = [this.sought, this.targets.get(this.selected)?.cell.degree, held[0]];
    return wanted.find((degree) => degree && held.includes(degree)) ?? '1';
  });

  readonly organisation = $derived(organisationOf(settings.now.organise));
  readonly rows = $derived(this.organisation.rows(this.neck, this.analysis.key));
  readonly subjects = $derived(subjectsOf(this.analysis, this.chosen));
  /** The position that the player asks for at every change: the plan's, or one of its own. */
  readonly positions = $derived.by(() => {
    const own = new Map(this.plan.positions.map(({ change, position }) => [change, position]));
    return this.changes.map(({ index }) => this.#bounded(own.get(index) ?? this.plan.position));
  });
  readonly position = $derived(this.positions[this.selected] ?? this.plan.position);
  /** What is played on every change, in the area of the player's school nearest that position. */
  readonly areas = $derived(areasAt(this.neck, this.organisation, this.subjects, this.positions));
  /** Where the hand is in those areas. */
  readonly hands = $derived(this.positions.map((position, i) => this.areas[i]?.position ?? position));
  /** Positions down, changes across. */
  readonly map = $derived(positionMap(this.neck, this.organisation, this.analysis.key, this.subjects));

  /** Every change under the hand, with what is chosen for it. */
  readonly moments = $derived(momentsOf(this.analysis, this.neck, this.chosen, this.areas));
  readonly moment = $derived.by(() => {
    const chord = this.change?.chord;
    if (!chord || !this.preview) return this.moments[this.selected] ?? null;
    const area = this.organisation.areaAt(this.neck, subjectOf(chord, this.preview), this.position);
    return momentOf(this.analysis, this.selected, this.neck, this.preview, area);
  });
  /** What is played on the selected change, on the whole neck. */
  readonly everywhere = $derived(
    marksEverywhere(
      this.analysis,
      this.selected,
      this.neck,
      this.preview ?? this.chosen[this.selected] ?? null
    )
  );
  /** The chord tones under the hand, for every change. */
  readonly tones = $derived(tonesOfAll(this.analysis, this.neck, this.hands));
  /** Where every tone under the hand goes at each change but the last: the lanes of the voices. */
  readonly lanes = $derived(this.tones.slice(1).map((tones, i) => movesBetween(this.tones[i]!, tones)));
  readonly moves = $derived(
    this.nextIndex === null
      ? []
      : movesBetween(this.tones[this.selected] ?? [], this.tones[this.nextIndex] ?? [])
  );

  readonly canUndo = $derived(this.#history.past.length > 0);
  readonly canRedo = $derived(this.#history.future.length > 0);

  #options(thread: ThreadRule): TargetOptions {
    const { plan } = this;
    const strings = plan.strings?.filter((string) => string <= this.neck.strings.length) ?? [];
    // Another thread than the plan's is shown as it would run by itself.
    const fixed = thread === plan.thread ? plan.fixed : [];
    return {
      ...FREE_PATH,
      neck: this.neck,
      degrees: plan.degrees,
      standIn: true,
      column: thread === 'free' || thread === 'alternate' ? null : thread,
      alternate: thread === 'alternate',
      fixed: fixed.filter((pin) => this.#isPlayable(pin)),
      loop: plan.loop,
      position: plan.reach === 'hand' ? this.hands : null,
      strings: strings.length ? strings : null,
      range: plan.range,
      avoid: plan.avoid,
      direction: plan.direction,
      which: this.#which,
      every: plan.every,
      weights: plan.weights
    };
  }

  readonly #which = $derived.by((): Which => {
    const { which } = this.plan;
    if (which === 'long') return { longerThan: SHORT_CHANGE };
    if (which === 'outlined') return { only: this.outlineOrder.slice(0, this.outlined) };
    return which;
  });

  /** Another tuning or a shorter neck takes the sense out of a fixed target; it is kept, and waits. */
  #isPlayable({ change, string, fret }: Plan['fixed'][number]): boolean {
    const chord = this.changes[change]?.chord;
    const isOnNeck = string <= this.neck.strings.length && fret >= this.neck.capo && fret <= this.neck.frets;
    return !!chord && isOnNeck && chordPitchClasses(chord).includes(soundAt(this.neck, string, fret) % 12);
  }

  #bounded(position: number): number {
    return Math.min(this.highestPosition, Math.max(this.lowestPosition, Math.round(position)));
  }

  #edit(draft: Draft, kind: string, mergeable = false): void {
    if (this.isFrozen) return;
    this.#history = record(this.#history, draft, kind, Date.now(), mergeable);
    this.autosave.take(draft);
  }

  #editPlan(part: Partial<Plan>, kind: string, mergeable = false): void {
    this.#edit({ source: this.source, plan: { ...this.plan, ...part } }, kind, mergeable);
  }

  setSource(source: string): void {
    if (source === this.source) return;
    const before = this.changes.map(({ symbol }) => symbol);
    const after = readSheet(source).form.changes.map(({ symbol }) => symbol);
    const moved = <T extends { change: number }>(items: readonly T[]) => realign(items, before, after);
    const { fixed, choices, overrules, positions, approaches } = this.plan;
    const plan = {
      ...this.plan,
      fixed: moved(fixed),
      choices: moved(choices),
      overrules: moved(overrules),
      positions: moved(positions),
      approaches: moved(approaches)
    };
    this.#edit({ source, plan }, 'text', true);
  }

  undo(): void {
    this.#history = undo(this.#history);
    this.autosave.take(this.#history.present);
    this.announcement = 'Undone';
  }

  redo(): void {
    this.#history = redo(this.#history);
    this.autosave.take(this.#history.present);
    this.announcement = 'Done again';
  }

  /** Takes over another draft as one edit: an earlier version, or the one another window saved. */
  adopt(draft: Draft): void {
    this.#edit({ source: draft.source, plan: draft.plan }, 'adopt');
  }

  /** Shows what another window saved, without saving it again. */
  load(draft: Stored): void {
    this.#history = record(this.#history, { source: draft.source, plan: draft.plan }, 'load', Date.now());
    this.autosave.rebase(draft.version);
  }

  /** Shows a draft of this player's beside a newer version; nothing is saved until the player has decided. */
  oppose(draft: Draft, stored: Stored): void {
    const { source, plan } = draft;
    this.#history = record(this.#history, { source, plan }, 'adopt', Date.now());
    this.autosave.standAgainst(stored, { source, plan });
  }

  rename(title: string): void {
    if (!title.trim() || title.trim() === this.sheet.head.title) return;
    this.#edit({ source: withDeclaration(this.source, 'title', title), plan: this.plan }, 'title');
  }

  /** Goes to a change. `isSpoken`: screen readers are told; the band that plays on is not followed aloud. */
  select(index: number, isSpoken = true): void {
    const count = this.changes.length;
    if (count === 0) return;
    this.#selected = (index + count) % count;
    this.preview = null;
    this.pins = [];
    if (!isSpoken || !this.change) return;
    const target = this.targets.get(this.selected)?.cell;
    const landing = target
      ? `, target ${target.degree} ${target.note}, string ${target.string}, fret ${target.fret}`
      : '';
    this.announcement = `${this.change.symbol}, bar ${this.change.bar}${landing}`;
  }

  /** Shows another view of the chart. */
  show(view: View): void {
    this.view = view;
    this.announcement = VIEW_NAMES[view];
  }

  /** Takes a choice for the selected change. */
  take(choice: ScaleChoice): void {
    this.#setChoices(new Map([[this.selected, choice]]));
    this.preview = null;
    this.announcement = `${choice.name} taken for ${this.change?.symbol ?? ''}`;
  }

  #setChoices(taken: ReadonlyMap<number, TakenChoice>): void {
    const others = this.plan.choices.filter(({ change }) => !taken.has(change));
    const own = [...taken].map(([change, { approach, name, then }]) => ({
      change,
      approach,
      name,
      ...(then ? { then } : {})
    }));
    const choices = [...others, ...own].sort((a, b) => a.change - b.change);
    this.#editPlan({ choices }, 'choice');
  }

  /** Leaves the selected change to the school again. */
  leave(): void {
    this.#editPlan({ choices: this.plan.choices.filter(({ change }) => change !== this.selected) }, 'choice');
  }

  isTaken(change: number): boolean {
    return this.plan.choices.some((choice) => choice.change === change);
  }

  /** The changes of the same function and numeral as the selected one, itself among them. */
  readonly alike = $derived(
    this.changes.filter(
      ({ roman, function: role, chord }) =>
        chord && roman === this.change?.roman && role === this.change?.function
    )
  );

  /** Takes the like of a choice for every change of the same function: the same collection from the same degree. */
  takeForAllAlike(choice: ScaleChoice): void {
    const distance = (root: string, chordRoot: string) =>
      semitonesUp(pitchClass(chordRoot), pitchClass(root));
    const kind = (name: string) => name.split(' ').slice(1).join(' ');
    const own = distance(choice.root, this.change!.chord!.root);
    const taken = this.alike.flatMap(({ index, chord }): [number, ScaleChoice][] => {
      const like = this.offered[index]!.find(
        (other) =>
          other.approach === choice.approach &&
          kind(other.name) === kind(choice.name) &&
          distance(other.root, chord!.root) === own
      );
      return like ? [[index, like]] : [];
    });
    this.#setChoices(new Map(taken));
    this.announcement = `Taken for ${taken.length} changes`;
  }

  /**
   * Takes a proposal for several changes at once. Where the change-over is free, `beat` says from which beat of that
   * change on its next sound is played; past the end of the change it is played from the next change on.
   */
  takeChain({ approach, changes, names, freeWithin }: Chain, beat: number): void {
    const taken = changes.map((change, i): [number, TakenChoice] => {
      const free = change === freeWithin && beat <= this.changes[change]!.beats;
      return [
        change,
        { approach, name: names[i]!, ...(free ? { then: { beat, name: names[i + 1]! } } : {}) }
      ];
    });
    this.#setChoices(new Map(taken));
    this.announcement = `Taken for ${changes.length} changes`;
  }

  /** Where within the selected change the player goes over to another sound; null where they do not. */
  readonly changeOver = $derived(
    this.plan.choices.find(({ change, then }) => change === this.selected && then)?.then ?? null
  );

  moveChangeOver(beat: number): void {
    const choices = this.plan.choices.map((choice) =>
      choice.change === this.selected && choice.then ? { ...choice, then: { ...choice.then, beat } } : choice
    );
    this.#editPlan({ choices }, 'change-over', true);
  }

  /** Holds a choice against another; a third takes the place of the first. */
  pin(choice: ScaleChoice): void {
    const isHere = this.isPinned(choice);
    this.pins = isHere ? this.pins.filter((pin) => !isSame(pin, choice)) : [...this.pins.slice(-1), choice];
  }

  isPinned(choice: ScaleChoice): boolean {
    return this.pins.some((pin) => isSame(pin, choice));
  }

  setOutline(outline: number): void {
    const all = this.outlineOrder.length;
    this.#editPlan({ outline: outline >= all ? null : Math.max(0, outline) }, 'outline', true);
  }

  setSchool(school: string): void {
    this.#editPlan({ school }, 'school');
  }

  /** Overrules the key or the function of the selected change; an empty value goes back to what was found. */
  overrule(part: { key?: string; function?: HarmonicFunction | '' }): void {
    const change = this.selected;
    const before = this.plan.overrules.find((overrule) => overrule.change === change);
    const { key, function: role } = { ...before, ...part };
    const own = { change, ...(key ? { key } : {}), ...(role ? { function: role } : {}) };
    const others = this.plan.overrules.filter((overrule) => overrule.change !== change);
    this.#editPlan({ overrules: key || role ? [...others, own] : others }, 'overrule');
  }

  /** Sends a guide-tone thread to Threads: its notes become the targets, each in the octave nearest the one before. */
  followThread(notes: readonly (string | null)[]): void {
    let last = this.targets.get(0)?.cell.midi;
    const fixed = notes.flatMap((note, change) => {
      const options = (this.tones[change] ?? []).filter(
        (cell) => note && cell.midi % 12 === pitchClass(note)
      );
      const reference = last ?? options[Math.floor(options.length / 2)]?.midi ?? 0;
      const nearest = [...options].sort(
        (a, b) => Math.abs(a.midi - reference) - Math.abs(b.midi - reference)
      )[0];
      if (!nearest) return [];
      last = nearest.midi;
      return [{ change, string: nearest.string, fret: nearest.fret }];
    });
    this.#editPlan({ thread: 'free', fixed }, 'thread');
  }

  /** Moves the hand: of the selected change alone where it has a position of its own, else of the plan. */
  moveTo(position: number): void {
    const bounded = this.#bounded(position);
    if (bounded === this.position) return;
    if (this.hasOwnPosition(this.selected)) this.#setPositions(new Map([[this.selected, bounded]]), true);
    else this.#editPlan({ position: bounded }, 'position', true);
    this.announcement = `Position ${bounded}`;
  }

  /** Finds the next degree of the change everywhere. */
  findNext(): void {
    const tones = this.change?.chord?.tones ?? [];
    const at = this.neckMode === 'find' ? tones.indexOf(this.soughtDegree) : -2;
    if (at >= -1) this.sought = tones[(at + 1) % tones.length] ?? null;
    this.neckMode = 'find';
  }

  /** To the next window of the player's school, up (1) or down (−1) the neck; by the fret where it has none. */
  step(direction: 1 | -1): void {
    if (settings.now.organise === 'positions') {
      this.moveTo(this.position + direction);
      return;
    }
    const beyond = this.rows.filter(({ position }) => (position - this.position) * direction > 0);
    const next = direction > 0 ? beyond[0] : beyond.at(-1);
    if (!next) return;
    this.moveTo(next.position);
    this.announcement = `${next.title}, fret ${next.position}`;
  }

  /** Puts the whole plan into one position. */
  settle(position: number): void {
    this.#editPlan({ position: this.#bounded(position), positions: [] }, 'settle');
    this.announcement = `The whole plan sits in position ${position}`;
  }

  /** Gives changes positions of their own. */
  paint(positions: ReadonlyMap<number, number>): void {
    if (positions.size === 0) return;
    this.#setPositions(positions, false);
    const places = [...new Set(positions.values())];
    const count =
      positions.size === 1
        ? (this.changes[[...positions.keys()][0]!]?.symbol ?? '')
        : `${positions.size} changes`;
    this.announcement = `${count} in position ${places.join(', ')}`;
  }

  #setPositions(own: ReadonlyMap<number, number>, mergeable: boolean): void {
    const others = this.plan.positions.filter(({ change }) => !own.has(change));
    const painted = [...own].map(([change, position]) => ({ change, position: this.#bounded(position) }));
    const positions = [...others, ...painted].sort((a, b) => a.change - b.change);
    this.#editPlan({ positions }, 'paint', mergeable);
  }

  hasOwnPosition(change: number): boolean {
    return this.plan.positions.some((own) => own.change === change);
  }

  pickThread(thread: ThreadRule): void {
    if (thread !== this.plan.thread) this.#editPlan({ thread }, 'thread');
  }

  toggleDegree(degree: Plan['degrees'][number]): void {
    const { degrees } = this.plan;
    const next = degrees.includes(degree) ? degrees.filter((d) => d !== degree) : [...degrees, degree];
    if (next.length > 0) this.#editPlan({ degrees: next }, 'degrees');
  }

  /** The taste in force; null for weights of the player's own. */
  readonly taste = $derived(tasteOf(this.plan.weights, this.plan.direction));

  pickTaste(id: string): void {
    const taste = TASTES.find((one) => one.id === id);
    if (taste) this.#editPlan({ weights: taste.weights, direction: taste.direction }, 'taste');
  }

  /** Changes rules of the path: limits, weights, which changes, how they are approached. */
  rule(part: Partial<PathRules>, mergeable = false): void {
    this.#editPlan(part, `rule ${Object.keys(part).join()}`, mergeable);
  }

  /** How the target of one change is led into; `null` as for all. */
  approachWith(change: number, kind: Plan['approach'] | null): void {
    const others = this.plan.approaches.filter((own) => own.change !== change);
    this.#editPlan({ approaches: kind === null ? others : [...others, { change, kind }] }, 'approach');
  }

  /** Takes another path: what differs from the best one is fixed. */
  takePath(path: TargetPath): void {
    const best = new Map(
      this.path?.targets.map((target) => [`${target.change}:${target.beat}`, target.cell])
    );
    const different = path.targets.filter(({ change, beat, cell }) => {
      const own = best.get(`${change}:${beat}`);
      return own?.string !== cell.string || own.fret !== cell.fret;
    });
    const taken = new Set(different.map(({ change, beat }) => `${change}:${beat}`));
    const kept = this.plan.fixed.filter(({ change, beat }) => !taken.has(`${change}:${beat ?? 1}`));
    const pins = different.map(({ change, beat, cell }) => ({
      change,
      ...(beat === 1 ? {} : { beat }),
      string: cell.string,
      fret: cell.fret
    }));
    this.#editPlan({ fixed: [...kept, ...pins].sort((a, b) => a.change - b.change) }, 'path');
    this.announcement = `Another path taken, ${pins.length} targets fixed`;
  }

  toggleLoop(): void {
    this.#editPlan({ loop: !this.plan.loop }, 'loop');
  }

  /** Makes a cell the target of a change; the path is solved again around it. */
  fix(change: number, cell: { string: number; fret: number }): void {
    const others = this.plan.fixed.filter((pin) => pin.change !== change || (pin.beat ?? 1) !== 1);
    const pin = { change, string: cell.string, fret: cell.fret };
    const fixed = [...others, pin].sort((a, b) => a.change - b.change);
    this.#editPlan({ fixed }, 'fix');
  }

  release(change: number): void {
    if (!this.isFixed(change)) return;
    this.#editPlan({ fixed: this.plan.fixed.filter((pin) => pin.change !== change) }, 'release');
    this.announcement = 'Target released';
  }

  releaseAll(): void {
    if (this.plan.fixed.length) this.#editPlan({ fixed: [] }, 'release');
  }

  isFixed(change: number): boolean {
    return this.plan.fixed.some((pin) => pin.change === change);
  }

  /**
   * Aims the selected change at a chord degree (1, 3, 5 or 7; 6 where the chord has one; 2, 4 for its 9 and 11): the
   * nearest such tone to the present target, or the next octave when it is on that degree already.
   */
  aim(degree: string): void {
    const options = this.#tonesOn(degree);
    const symbol = this.change?.symbol ?? '';
    if (options.length === 0) {
      this.announcement = `${symbol} has no ${degree} in this position`;
      return;
    }
    const current = this.targets.get(this.selected)?.cell;
    const index = options.findIndex((cell) => cell.midi === current?.midi);
    const distance = (cell: NamedCell) => Math.abs(cell.midi - (current?.midi ?? cell.midi));
    const next =
      index >= 0
        ? options[(index + 1) % options.length]!
        : options.reduce((a, b) => (distance(b) < distance(a) ? b : a));
    this.fix(this.selected, next);
    this.announcement = `Target ${next.degree} ${next.note}, string ${next.string}, fret ${next.fret}`;
  }

  #tonesOn(degree: string): NamedCell[] {
    const named: Readonly<Record<string, string>> = { '2': '9', '4': '11', '6': '6', '9': '9' };
    return (this.tones[this.selected] ?? []).filter((cell) =>
      named[degree] ? cell.degree.endsWith(named[degree]) : DEGREES[cell.degree].slot === degree
    );
  }
}
