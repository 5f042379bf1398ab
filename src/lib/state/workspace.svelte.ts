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
import { FREE_PATH, type TargetOptions } from '$lib/core/targets/options';
import { findTargets } from '$lib/core/targets/path';
import { Autosave, type Draft } from './autosave.svelte';
import { record, redo, startHistory, undo } from './history';
import { realign } from './realign';
import { settings } from './settings.svelte';

/** The threads a player can pick, and what they are called. */
export const THREADS: readonly { rule: ThreadRule; name: string; hint: string }[] = [
  { rule: 'free', name: 'Smoothest', hint: 'The least movement through the degrees you allow' },
  { rule: '3', name: 'Thirds', hint: 'The third of every chord' },
  { rule: '7', name: 'Sevenths', hint: 'The seventh of every chord' },
  { rule: 'alternate', name: '3 and 7 in turn', hint: 'Thirds and sevenths, one after the other' },
  { rule: '1', name: 'Roots', hint: 'The root of every chord' },
  { rule: '5', name: 'Fifths', hint: 'The fifth of every chord' }
];

export type View = 'moment' | 'map' | 'grips';
export type NeckMode = 'hand' | 'whole' | 'find';

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

  constructor(chart: StoredChart) {
    this.id = chart.id;
    this.#history = startHistory<Draft>({ source: chart.source, plan: chart.plan });
    this.autosave = new Autosave(chart);
  }

  /** What the main part of the page shows. */
  view: View = $state('moment');
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

  readonly answer = $derived(findTargets(this.analysis, this.#options(this.plan.thread)));
  readonly path = $derived(this.answer.paths[0] ?? null);
  readonly targets = $derived(new Map(this.path?.targets.map((target) => [target.change, target])));
  /** The other threads, faint, to be picked. */
  readonly otherThreads = $derived(
    THREADS.filter(
      ({ rule }) => rule !== this.plan.thread && ['3', '7', 'alternate', 'free'].includes(rule)
    ).map(({ rule, name }) => ({
      rule,
      name,
      path: findTargets(this.analysis, this.#options(rule)).paths[0] ?? null
    }))
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
  readonly moves = $derived(
    this.nextIndex === null
      ? []
      : movesBetween(this.tones[this.selected] ?? [], this.tones[this.nextIndex] ?? [])
  );

  readonly canUndo = $derived(this.#history.past.length > 0);
  readonly canRedo = $derived(this.#history.future.length > 0);

  #options(thread: ThreadRule): TargetOptions {
    const { plan } = this;
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
      position: this.hands
    };
  }

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
    const { fixed, choices, overrules, positions } = this.plan;
    const plan = {
      ...this.plan,
      fixed: moved(fixed),
      choices: moved(choices),
      overrules: moved(overrules),
      positions: moved(positions)
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
  load(draft: Draft & { version: number }): void {
    this.#history = record(this.#history, { source: draft.source, plan: draft.plan }, 'load', Date.now());
    this.autosave.rebase(draft.version);
  }

  select(index: number): void {
    const count = this.changes.length;
    if (count === 0) return;
    this.#selected = (index + count) % count;
    this.preview = null;
    this.pins = [];
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
    if (positions.size) this.#setPositions(positions, false);
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

  toggleLoop(): void {
    this.#editPlan({ loop: !this.plan.loop }, 'loop');
  }

  /** Makes a cell the target of a change; the path is solved again around it. */
  fix(change: number, cell: { string: number; fret: number }): void {
    const others = this.plan.fixed.filter((pin) => pin.change !== change);
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
