/** The document of one chart: its text and plan, with undo, saving and drafts. */
import type { StoredChart } from '$lib/api/songbook';
import { withDeclaration } from '$lib/core/chart/directives';
import { readSheet, type Sheet } from '$lib/core/harmony/sheet';
import { withDecisions } from '$lib/core/plan/edits';
import type { Plan } from '$lib/core/plan/model';
import { realign } from '$lib/core/plan/realign';
import { Autosave, type Stored } from './autosave.svelte';
import type { Draft } from './drafts';
import { record, redo, startHistory, undo, type History } from './history';

export class ChartDocument {
  readonly id: string;
  readonly autosave: Autosave;
  #history: History<Draft>;
  /** What was said last to screen readers. */
  announcement = $state('');

  /** `isFrozen`: shown only, as in another key; nothing can be changed. */
  constructor(
    chart: StoredChart,
    readonly isFrozen = false
  ) {
    this.id = chart.id;
    this.#history = $state.raw(startHistory<Draft>({ source: chart.source, plan: chart.plan }));
    this.autosave = new Autosave(chart);
  }

  /** Derived, not read: an edit of the plan touches nothing that hangs on the text alone, and the reverse. */
  readonly source: string = $derived.by(() => this.#history.present.source);
  readonly plan: Plan = $derived.by(() => this.#history.present.plan);
  /** The text read last: an edit reads it to bring the decisions along, and what is shown reads it again. */
  #known: { readonly source: string; readonly sheet: Sheet } | undefined;
  #read(source: string): Sheet {
    if (this.#known?.source !== source) this.#known = { source, sheet: readSheet(source) };
    return this.#known.sheet;
  }
  readonly sheet = $derived.by(() => this.#read(this.source));
  readonly title = $derived.by(() => this.sheet.head.title ?? 'Untitled chart');
  readonly canUndo = $derived.by(() => this.#history.past.length > 0);
  readonly canRedo = $derived.by(() => this.#history.future.length > 0);

  #edit(draft: Draft, kind: string, mergeable = false): void {
    if (this.isFrozen) return;
    this.#history = record(this.#history, draft, kind, Date.now(), mergeable);
    this.autosave.take(draft);
  }

  /** Edits the plan; runs of `mergeable` edits of one kind are undone together. A plan that stays the same is no edit. */
  decide(edit: (plan: Plan) => Plan, kind: string, mergeable = false): void {
    const plan = edit(this.plan);
    if (plan !== this.plan) this.#edit({ source: this.source, plan }, kind, mergeable);
  }

  /** Takes over an edited text; decisions stay on their changes, and go with those that are gone. */
  setSource(source: string): void {
    if (source === this.source) return;
    const before = this.sheet.form.changes.map(({ symbol }) => symbol);
    const after = this.#read(source).form.changes.map(({ symbol }) => symbol);
    const plan = withDecisions(this.plan, realign(this.plan.decisions, before, after));
    this.#edit({ source, plan }, 'text', true);
  }

  rename(title: string): void {
    if (!title.trim() || title.trim() === this.sheet.head.title) return;
    this.#edit({ source: withDeclaration(this.source, 'title', title), plan: this.plan }, 'title');
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
  adopt({ source, plan }: Draft): void {
    this.#edit({ source, plan }, 'adopt');
  }

  /** Shows what another window saved, without saving it again. */
  load({ source, plan, version }: Stored): void {
    this.#history = record(this.#history, { source, plan }, 'load', Date.now());
    this.autosave.rebase(version);
  }

  /** Shows a draft of this player's beside a newer version; nothing is saved until the player has decided. */
  oppose({ source, plan }: Draft, stored: Stored): void {
    this.#history = record(this.#history, { source, plan }, 'adopt', Date.now());
    this.autosave.standAgainst(stored, { source, plan });
  }
}
