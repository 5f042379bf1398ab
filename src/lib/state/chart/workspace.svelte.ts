/** The workspace of one chart: its document arranged, its paths, its choices, and where the player is in it. */
import type { StoredLine } from '$lib/api/line';
import type { StoredChart } from '$lib/api/songbook';
import type { HarmonicFunction } from '$lib/core/harmony/numeral';
import { readMelody } from '$lib/core/line/melody';
import type { LineNote } from '$lib/core/line/model';
import { momentOf, movesBetween, subjectOf } from '$lib/core/moment/moment';
import { systemOf } from '$lib/core/neck/systems/registry';
import { arrange, type Arrangement } from '$lib/core/plan/arrange';
import { decisionAt, overrule } from '$lib/core/plan/edits';
import { settings } from '../settings.svelte';
import { Choices } from './choices.svelte';
import { ChartDocument } from './document.svelte';
import { Hand } from './hand.svelte';
import { Paths } from './paths.svelte';
import { ShownNeck } from './shown-neck.svelte';
import { TargetLine } from './target-line.svelte';

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
  readonly hand: Hand;
  readonly targetLine: TargetLine;
  readonly shownNeck: ShownNeck;

  /** `isFrozen`: shown only, as in another key; nothing can be changed. */
  constructor(chart: StoredChart, isFrozen = false) {
    this.document = new ChartDocument(chart, isFrozen);
    this.choices = new Choices(this);
    this.hand = new Hand(this);
    this.targetLine = new TargetLine(this);
    this.shownNeck = new ShownNeck(this);
    this.paths = new Paths(() => this.arrangement, isFrozen);
  }

  /** What the main part of the page shows: an id of the table of views. */
  view = $state('moment');
  /** The rules of the target line stand where the choices are. */
  isRuling = $state(false);
  /** Threads shows where every voice goes. */
  showsLanes = $state(false);
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
  storedLines: readonly StoredLine[] = $state.raw([]);
  /** Steps of the view that is shown, which are taken back before those of the chart; null where it has none. */
  viewSteps: Steps | null = $state.raw(null);
  /** Beats a minute at which the view plays; null where it does not. */
  soundingTempo: number | null = $state(null);
  shownLine: { readonly name: string; readonly notes: readonly LineNote[] } | null = $state.raw(null);

  async fetchLines(): Promise<void> {
    const { listLines } = await import('../lines/client');
    this.storedLines = (await listLines(this.document.id)).lines;
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
  /** The melody over the form; null where the chart has none. */
  readonly melody = $derived.by(() => {
    const { head, form } = this.sheet;
    return head.melody === null ? null : readMelody(head.melody, form, head.meter);
  });
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
}
