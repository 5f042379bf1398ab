/** The workspace of one chart: its document arranged, its paths, its choices, and where the player is in it. */
// Maps and sets here are made anew and never changed in place, so that plain ones serve.
/* eslint-disable svelte/prefer-svelte-reactivity */
import type { StoredLine } from '$lib/api/line';
import type { StoredChart } from '$lib/api/songbook';
import { firstOf, nth, sure } from '$lib/core/base/list';
import type { HarmonicFunction } from '$lib/core/harmony/numeral';
import { marksEverywhere, momentOf, movesBetween, subjectOf } from '$lib/core/moment/moment';
import type { NamedCell } from '$lib/core/neck/shape';
import type { LineNote } from '$lib/core/line/model';
import { landingOf, readMelody } from '$lib/core/line/melody';
import { systemOf } from '$lib/core/neck/systems/registry';
import { arrange, type Arrangement } from '$lib/core/plan/arrange';
import {
  approachWith,
  decisionAt,
  isPinned,
  overrule,
  paint,
  pin,
  resetRules,
  settle,
  takePath,
  unpin,
  unpinAll
} from '$lib/core/plan/edits';
import type { ApproachNoteWish, ChordSlot, PathRules, Pin, Plan, ThreadRule } from '$lib/core/plan/model';
import { DEGREES, type Degree } from '$lib/core/theory/degree';
import { pitchClass } from '$lib/core/theory/note';
import { counted } from '$lib/core/theory/words';
import { findTargets, type TargetPath } from '$lib/core/targets/path';
import { STYLES, styleOf } from '$lib/core/targets/styles';
import { Choices } from './choices.svelte';
import { ChartDocument } from './document.svelte';
import { Paths, SOLVED_AT_ONCE } from './paths.svelte';
import { settings } from '../settings.svelte';

export type NeckMode = 'hand' | 'whole' | 'find' | 'melody';

/** What can be taken back step by step. */
export interface Steps {
  readonly canUndo: boolean;
  readonly canRedo: boolean;
  undo(): void;
  redo(): void;
}

export class Workspace {
  readonly document: ChartDocument;
  readonly paths: Paths;
  readonly choices: Choices;

  /** `isFrozen`: shown only, as in another key; nothing can be changed. */
  constructor(chart: StoredChart, isFrozen = false) {
    this.document = new ChartDocument(chart, isFrozen);
    this.choices = new Choices(this);
    this.paths = new Paths(() => this.arrangement, isFrozen);
  }

  /** What the main part of the page shows: an id of the table of views. */
  view = $state('moment');
  /** The rules of the target line stand where the choices are. */
  isRuling = $state(false);
  /** Threads shows where every voice goes. */
  showsLanes = $state(false);
  /** What the neck shows: the hand's window, the whole collection, or one degree everywhere. */
  neckMode: NeckMode = $state('hand');
  /** The degree to be found everywhere; the target's, until the player picks another. */
  sought: Degree | null = $state(null);
  #selected = $state(0);

  readonly neck = $derived.by(() => settings.instrument);
  readonly system = $derived.by(() => systemOf(settings.now.organise));
  #latest: Arrangement | undefined;
  /** All that follows from chart and plan. Stages that an edit does not touch are taken over from the one before. */
  readonly arrangement: Arrangement = $derived.by(() => {
    const { sheet, plan } = this.document;
    return (this.#latest = arrange({ sheet, plan }, this.neck, this.system, this.#latest));
  });

  /** The lines that are kept with the chart, and the one that is shown, for paper; fetched when they are asked for. */
  keptLines: readonly StoredLine[] = $state.raw([]);
  /** Steps of the view that is shown, which are taken back before those of the chart; null where it has none. */
  viewSteps: Steps | null = $state.raw(null);
  /** Beats a minute at which the view plays; null where it does not. */
  soundingTempo: number | null = $state(null);
  shownLine: { readonly name: string; readonly notes: readonly LineNote[] } | null = $state.raw(null);

  async fetchLines(): Promise<void> {
    const { listLines } = await import('../lines/client');
    this.keptLines = (await listLines(this.document.id)).lines;
  }

  get plan() {
    return this.document.plan;
  }

  get sheet() {
    return this.document.sheet;
  }

  readonly analysis = $derived.by(() => this.arrangement.analysis);
  readonly changes = $derived.by(() => this.analysis.changes);
  readonly chosen = $derived.by(() => this.arrangement.chosen);
  readonly positions = $derived.by(() => this.arrangement.positions);
  readonly hands = $derived.by(() => this.arrangement.hands);
  readonly tones = $derived.by(() => this.arrangement.tones);
  readonly moments = $derived.by(() => this.arrangement.moments);
  readonly map = $derived.by(() => this.arrangement.map);

  readonly selected = $derived.by(() => Math.min(this.#selected, Math.max(0, this.changes.length - 1)));
  readonly change = $derived.by(() => this.changes[this.selected]);
  /** The change that follows; the first one after the last. */
  readonly nextIndex = $derived.by(() =>
    this.changes.length > 1 ? (this.selected + 1) % this.changes.length : null
  );
  readonly position = $derived.by(() => this.positions[this.selected] ?? this.arrangement.home);
  readonly decision = $derived.by(() => decisionAt(this.plan, this.selected));

  readonly moment = $derived.by(() => {
    const { preview } = this.choices;
    const chord = this.change?.chord;
    if (!chord || !preview) return this.moments[this.selected] ?? null;
    const area = this.system.areaAt(this.neck, subjectOf(chord, preview), this.position);
    return momentOf(this.analysis, this.selected, this.neck, preview, area);
  });
  /** What is played on the selected change, on the whole neck. */
  /** The melody over the form; null where the chart has none. */
  readonly melody = $derived.by(() => {
    const { head, form } = this.sheet;
    return head.melody === null ? null : readMelody(head.melody, form, head.meter);
  });
  readonly everywhere = $derived.by(() =>
    marksEverywhere(
      this.analysis,
      this.selected,
      this.neck,
      this.choices.preview ?? this.chosen[this.selected] ?? null
    )
  );
  /** Where every tone under the hand goes at a change but the last: the lanes of the voices. */
  lanesFrom(change: number) {
    const to = this.tones[change + 1];
    return to ? movesBetween(this.tones[change] ?? [], to) : [];
  }
  readonly moves = $derived.by(() =>
    this.nextIndex === null
      ? []
      : movesBetween(this.tones[this.selected] ?? [], this.tones[this.nextIndex] ?? [])
  );
  /** The degree that *find* shows: the one picked, else the target's, as far as it is there. */
  readonly soughtDegree = $derived.by((): Degree => {
    const held = [...(this.change?.chord?.tones ?? []), ...(this.chosen[this.selected]?.degrees ?? [])];
    const wanted = [this.sought, this.paths.targets.get(this.selected)?.cell.degree, held[0]];
    return wanted.find((degree) => degree && held.includes(degree)) ?? '1';
  });
  /** The style in force; null for weights of the player's own. */
  readonly style = $derived.by(() => styleOf(this.plan.weights, this.plan.direction));

  /** One undo for the whole page: the steps of its view, then those of the chart. */
  get canUndo(): boolean {
    return this.viewSteps?.canUndo || this.document.canUndo;
  }
  get canRedo(): boolean {
    return this.viewSteps?.canRedo || this.document.canRedo;
  }
  undo(): void {
    (this.viewSteps?.canUndo ? this.viewSteps : this.document).undo();
  }
  redo(): void {
    (this.viewSteps?.canRedo ? this.viewSteps : this.document).redo();
  }

  /** Tells screen readers. */
  say(words: string): void {
    this.document.announcement = words;
  }

  /** Goes to a change. `isSpoken`: screen readers are told; the band that plays on is not followed aloud. */
  select(index: number, isSpoken = true): void {
    const count = this.changes.length;
    if (count === 0) return;
    this.#selected = (index + count) % count;
    this.choices.reset();
    if (!isSpoken || !this.change) return;
    const target = this.paths.targets.get(this.selected)?.cell;
    const landing = target
      ? `, target ${target.degree} ${target.note}, string ${target.string}, fret ${target.fret}`
      : '';
    this.say(`${this.change.symbol}, bar ${this.change.bar}${landing}`);
  }

  /** Shows another view of the chart. */
  show({ id, name }: { readonly id: string; readonly name: string }): void {
    this.view = id;
    this.say(name);
  }

  // The reading.

  setOutline(outline: number): void {
    const all = this.arrangement.outlineOrder.length;
    this.document.decide(
      (plan) => ({ ...plan, outline: outline >= all ? null : Math.max(0, outline) }),
      'outline',
      true
    );
  }

  setApproach(approach: string): void {
    this.document.decide((plan) => ({ ...plan, approach }), 'approach');
  }

  /** Overrules the key or the function of the selected change; an empty value goes back to what was found. */
  overrule(part: { key?: string; function?: HarmonicFunction | '' }): void {
    this.document.decide((plan) => overrule(plan, this.selected, part), 'overrule');
  }

  // The hand.

  /** Moves the hand: of the selected change alone where it has a position of its own, else of the plan. */
  moveTo(position: number): void {
    const bounded = this.arrangement.bounded(position);
    if (bounded === this.position) return;
    if (this.hasOwnPosition(this.selected)) {
      this.document.decide((plan) => paint(plan, new Map([[this.selected, bounded]])), 'paint', true);
    } else this.document.decide((plan) => ({ ...plan, position: bounded }), 'position', true);
    this.say(`Position ${bounded}`);
  }

  /** To the next window of the neck system, up (1) or down (−1) the neck; by the fret where it has none. */
  step(direction: 1 | -1): void {
    if (this.system.id === 'positions') {
      this.moveTo(this.position + direction);
      return;
    }
    const beyond = this.arrangement.rows.filter(({ position }) => (position - this.position) * direction > 0);
    const next = direction > 0 ? beyond[0] : beyond.at(-1);
    if (!next) return;
    this.moveTo(next.position);
    this.say(`${next.name.words}, fret ${next.position}`);
  }

  /** Puts the whole plan into one position. */
  settle(position: number): void {
    const bounded = this.arrangement.bounded(position);
    this.document.decide((plan) => settle(plan, bounded), 'settle');
    this.say(`The whole chart in position ${bounded}`);
  }

  /** Gives changes positions of their own. */
  paint(positions: ReadonlyMap<number, number>): void {
    if (positions.size === 0) return;
    const bounded = new Map(
      [...positions].map(([change, position]) => [change, this.arrangement.bounded(position)])
    );
    this.document.decide((plan) => paint(plan, bounded), 'paint');
    const places = [...new Set(bounded.values())];
    const only = positions.size === 1 ? this.changes[firstOf([...positions.keys()])]?.symbol : undefined;
    this.say(`${only ?? counted(positions.size, 'change')} in position ${places.join(', ')}`);
  }

  hasOwnPosition(change: number): boolean {
    return decisionAt(this.plan, change)?.position !== undefined;
  }

  /** Pins every change to the melody's note there, where that is a tone of its chord under the hand. */
  landOnMelody(): void {
    const { melody } = this;
    if (!melody) return;
    const landings = this.changes.flatMap((change) => {
      const note = landingOf(melody.line, change);
      if (!note) return [];
      const near = (this.tones[change.index] ?? [])
        .filter(({ midi }) => midi % 12 === note.midi % 12)
        .sort((a, b) => Math.abs(a.midi - note.midi) - Math.abs(b.midi - note.midi))[0];
      return near ? [{ change: change.index, cell: near }] : [];
    });
    this.document.decide(
      (plan) => landings.reduce((sum, { change, cell }) => pin(sum, change, cell), plan),
      'melody'
    );
    this.say(`Landing on the melody at ${counted(landings.length, 'change')}`);
  }

  /** Shows the melody round the hand in every octave, or goes back to what lies under the hand. */
  showMelody(): void {
    if (!this.melody) {
      this.say('This chart has no melody; type it in the chart editor.');
      return;
    }
    this.neckMode = this.neckMode === 'melody' ? 'hand' : 'melody';
  }

  /** Finds the next degree of the change everywhere. */
  findNext(): void {
    const tones = this.change?.chord?.tones ?? [];
    const at = this.neckMode === 'find' ? tones.indexOf(this.soughtDegree) : -2;
    if (at >= -1) this.sought = tones[(at + 1) % tones.length] ?? null;
    this.neckMode = 'find';
  }

  // The target line.

  pickThread(thread: ThreadRule): void {
    if (thread !== this.plan.thread) this.document.decide((plan) => ({ ...plan, thread }), 'thread');
  }

  toggleDegree(degree: ChordSlot): void {
    const { degrees } = this.plan;
    const next = degrees.includes(degree) ? degrees.filter((one) => one !== degree) : [...degrees, degree];
    if (next.length > 0) this.document.decide((plan) => ({ ...plan, degrees: next }), 'degrees');
  }

  pickStyle(id: string): void {
    const style = STYLES.find((one) => one.id === id);
    if (!style) return;
    const { weights, direction } = style;
    this.document.decide((plan) => ({ ...plan, weights, direction }), 'style');
  }

  /** Changes rules of the target line: limits, weights, which changes, how they are led into. */
  rule(part: Partial<PathRules>, mergeable = false): void {
    this.document.decide((plan) => ({ ...plan, ...part }), `rule ${Object.keys(part).join()}`, mergeable);
  }

  resetRules(): void {
    this.document.decide(resetRules, 'rules');
    this.say('All rules of the target line are reset');
  }

  toggleLoop(): void {
    this.document.decide((plan) => ({ ...plan, loop: !plan.loop }), 'loop');
  }

  /** How the target of one change is led into; undefined as for all. */
  approachWith(change: number, wish: ApproachNoteWish | undefined): void {
    this.document.decide((plan) => approachWith(plan, change, wish), 'approach note');
  }

  /** Takes another path: what differs from the best one is pinned. */
  takePath(path: TargetPath): void {
    const { sheet, neck, system } = this;
    const solve = (plan: Plan) => {
      // A long chart is not solved again and again on the page: all its targets are pinned.
      if (this.changes.length > SOLVED_AT_ONCE) return null;
      const { analysis, targetOptions } = arrange({ sheet, plan }, neck, system, this.arrangement);
      return findTargets(analysis, targetOptions(plan.thread)).paths[0] ?? null;
    };
    this.document.decide((plan) => takePath(plan, this.paths.path, path, solve), 'path');
    this.say('Another line taken; the targets that differ are pinned');
  }

  /** Sends a guide-tone line to Threads: its notes become the targets, each in the octave nearest the one before. */
  followLine(notes: readonly (string | null)[]): void {
    let last = this.paths.targets.get(0)?.cell.midi;
    const pinned = notes.flatMap((note, change): [number, Pin][] => {
      const options = (this.tones[change] ?? []).filter(
        (cell) => note && cell.midi % 12 === pitchClass(note)
      );
      const reference = last ?? options[Math.floor(options.length / 2)]?.midi ?? 0;
      const nearest = nearestTo(options, reference);
      if (!nearest) return [];
      last = nearest.midi;
      return [[change, { string: nearest.string, fret: nearest.fret }]];
    });
    this.document.decide(
      (plan) => ({
        ...pinned.reduce((sum, [change, at]) => pin(sum, change, at), unpinAll(plan)),
        thread: 'free'
      }),
      'thread'
    );
  }

  /** Pins a cell as the target of a change; the path is solved again around it. */
  pin(change: number, { string, fret }: Pin): void {
    this.document.decide((plan) => pin(plan, change, { string, fret }), 'pin');
  }

  unpin(change: number): void {
    if (!this.isPinned(change)) return;
    this.document.decide((plan) => unpin(plan, change), 'unpin');
    this.say('Target unpinned');
  }

  unpinAll(): void {
    this.document.decide(unpinAll, 'unpin');
    this.say('All targets unpinned');
  }

  isPinned(change: number): boolean {
    return isPinned(this.plan, change);
  }

  /**
   * Aims the selected change at a chord degree (1, 3, 5 or 7; 6 where the chord has one; 2, 4 for its 9 and 11): the
   * nearest such tone to the present target, or the next octave when it is on that degree already.
   */
  aim(degree: string): void {
    const options = this.#tonesOn(degree);
    if (options.length === 0) {
      this.say(`${this.change?.symbol ?? ''} has no ${degree} in this position`);
      return;
    }
    const current = this.paths.targets.get(this.selected)?.cell;
    const index = options.findIndex((cell) => cell.midi === current?.midi);
    // What is aimed at already is pinned where it lies; only then does it move on.
    const step = this.isPinned(this.selected) ? 1 : 0;
    const next =
      index >= 0
        ? nth(options, (index + step) % options.length)
        : sure(nearestTo(options, current?.midi ?? firstOf(options).midi), 'nearestTo');
    this.pin(this.selected, next);
    this.say(`Target ${next.degree} ${next.note}, string ${next.string}, fret ${next.fret}`);
  }

  #tonesOn(degree: string): NamedCell[] {
    const named: Readonly<Record<string, string>> = { '2': '9', '4': '11', '6': '6', '9': '9' };
    return (this.tones[this.selected] ?? []).filter((cell) =>
      named[degree] ? cell.degree.endsWith(named[degree]) : DEGREES[cell.degree].slot === degree
    );
  }
}

function nearestTo(cells: readonly NamedCell[], midi: number): NamedCell | undefined {
  return [...cells].sort((a, b) => Math.abs(a.midi - midi) - Math.abs(b.midi - midi))[0];
}
