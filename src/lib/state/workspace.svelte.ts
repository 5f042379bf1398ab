/** The workspace of one chart: text, plan and selection, with everything that follows from them. */
import { DEFAULT_PLAN, type Plan, type ThreadRule } from '$lib/api/plan';
import type { StoredChart } from '$lib/api/songbook';
import { DEGREES } from '$lib/core/theory/degree';
import { readSheet } from '$lib/core/harmony/sheet';
import { momentOf, movesBetween, tonesInReach } from '$lib/core/moment/moment';
import { lastPosition } from '$lib/core/neck/position';
import type { NamedCell } from '$lib/core/neck/shape';
import { STANDARD } from '$lib/core/neck/tuning';
import { DEFAULT_WEIGHTS, type TargetOptions } from '$lib/core/targets/options';
import { findTargets } from '$lib/core/targets/path';
import { Autosave, type Draft } from './autosave.svelte';
import { record, redo, startHistory, undo } from './history';
import { realign } from './realign';

/** The threads a player can pick, and what they are called. */
export const THREADS: readonly { rule: ThreadRule; name: string; hint: string }[] = [
  { rule: 'free', name: 'Smoothest', hint: 'The least movement through the degrees you allow' },
  { rule: '3', name: 'Thirds', hint: 'The third of every chord' },
  { rule: '7', name: 'Sevenths', hint: 'The seventh of every chord' },
  { rule: 'alternate', name: '3 and 7 in turn', hint: 'Thirds and sevenths, one after the other' },
  { rule: '1', name: 'Roots', hint: 'The root of every chord' },
  { rule: '5', name: 'Fifths', hint: 'The fifth of every chord' }
];

/** Positions a hand can be brought to on the neck; the last ones have too few frets to play in. */
export const HIGHEST_POSITION = lastPosition(STANDARD) - 4;

export class Workspace {
  readonly id: string;
  readonly neck = STANDARD;
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

  readonly source = $derived(this.#history.present.source);
  readonly plan = $derived(this.#history.present.plan);
  readonly sheet = $derived(readSheet(this.source));
  readonly changes = $derived(this.sheet.analysis.changes);
  readonly selected = $derived(Math.min(this.#selected, Math.max(0, this.changes.length - 1)));
  readonly change = $derived(this.changes[this.selected]);
  /** The change that follows; the first one after the last. */
  readonly nextIndex = $derived(this.changes.length > 1 ? (this.selected + 1) % this.changes.length : null);

  readonly answer = $derived(findTargets(this.sheet.analysis, this.#options(this.plan.thread)));
  readonly path = $derived(this.answer.paths[0] ?? null);
  // A derived value is made anew, never changed in place.
  // eslint-disable-next-line svelte/prefer-svelte-reactivity
  readonly targets = $derived(new Map(this.path?.targets.map((target) => [target.change, target])));
  /** The other threads, faint, to be picked. */
  readonly otherThreads = $derived(
    THREADS.filter(
      ({ rule }) => rule !== this.plan.thread && ['3', '7', 'alternate', 'free'].includes(rule)
    ).map(({ rule, name }) => ({
      rule,
      name,
      path: findTargets(this.sheet.analysis, this.#options(rule)).paths[0] ?? null
    }))
  );

  readonly moment = $derived(
    this.change ? momentOf(this.sheet.analysis, this.selected, this.neck, this.plan.position) : null
  );
  readonly moves = $derived.by(() => {
    const next = this.nextIndex === null ? undefined : this.changes[this.nextIndex];
    if (!this.change?.chord || !next?.chord) return [];
    return movesBetween(this.change.chord, next.chord, this.neck, this.plan.position);
  });
  /** The chord tones under the hand, for every change. */
  readonly tones = $derived(
    this.changes.map(({ chord }) => (chord ? tonesInReach(chord, this.neck, this.plan.position) : []))
  );

  readonly canUndo = $derived(this.#history.past.length > 0);
  readonly canRedo = $derived(this.#history.future.length > 0);

  #options(thread: ThreadRule): TargetOptions {
    const { plan } = this;
    // Another thread than the plan's is shown as it would run by itself.
    const fixed = thread === plan.thread ? plan.fixed : [];
    return {
      neck: this.neck,
      degrees: plan.degrees,
      standIn: true,
      column: thread === 'free' || thread === 'alternate' ? null : thread,
      alternate: thread === 'alternate',
      direction: 'free',
      fixed: fixed.filter(({ change }) => this.changes[change]?.chord),
      which: 'all',
      loop: plan.loop,
      weights: DEFAULT_WEIGHTS,
      position: plan.position,
      window: null,
      strings: null,
      range: null,
      alternatives: 1
    };
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
    const fixed = realign(this.plan.fixed, before, after);
    this.#edit({ source, plan: { ...this.plan, fixed } }, 'text', true);
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
  }

  moveTo(position: number): void {
    const bounded = Math.min(HIGHEST_POSITION, Math.max(0, Math.round(position)));
    if (bounded === this.plan.position) return;
    this.#editPlan({ position: bounded }, 'position', true);
    this.announcement = `Position ${bounded}`;
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
