/** The document of one chart: its text and plan, with undo, saving and drafts. */
import type { StoredChart } from '$lib/api/songbook';
import { withDeclaration, withoutDeclaration } from '$lib/core/chart/directives';
import { readSheet, type Sheet } from '$lib/core/harmony/sheet';
import { withDecisions } from '$lib/core/plan/edits';
import type { Plan } from '$lib/core/plan/model';
import { realign } from '$lib/core/plan/realign';
import { Autosave, type Stored } from './autosave.svelte';
import type { Draft } from './drafts';
import { record, redo, startHistory, undo, type History } from './history';

/** Milliseconds: a text that takes longer to read is read when the player rests, not with every character. */
const QUICKLY_READ = 8;
/** Milliseconds without a further character that count as resting. */
const REST = 250;

/** How an edited text is taken over. */
interface Rewriting {
  /** Edits of one kind that follow one another quickly are undone together. */
  readonly kind?: string;
  /** What the edit began with: decisions are carried over from there, not from what was typed half. */
  readonly since?: Draft | undefined;
}

export class ChartDocument {
  readonly id: string;
  readonly autosave: Autosave;
  /** Set by `#show` alone, with the two parts of its present. */
  #history: History<Draft>;
  /** By themselves, so that an edit of the plan touches nothing that hangs on the text, and the reverse. */
  #source: string;
  #plan: Plan;
  /** What was said last to screen readers. */
  announcement = $state('');

  /** `isFrozen`: shown only, as in another key; nothing can be changed. */
  constructor(
    chart: StoredChart,
    readonly isFrozen = false
  ) {
    this.id = chart.id;
    this.#history = $state.raw(startHistory<Draft>({ source: chart.source, plan: chart.plan }));
    this.#source = $state.raw(chart.source);
    this.#plan = $state.raw(chart.plan);
    this.autosave = new Autosave(chart);
  }

  get source(): string {
    return this.#source;
  }

  get plan(): Plan {
    return this.#plan;
  }

  /** Text and plan as they are now. */
  get draft(): Draft {
    return this.#history.present;
  }

  #show(history: History<Draft>): void {
    this.#history = history;
    this.#source = history.present.source;
    this.#plan = history.present.plan;
  }

  /** The text read last: an edit reads it to bring the decisions along, and what is shown reads it again. */
  #known: { readonly source: string; readonly sheet: Sheet } | undefined;
  /** Milliseconds that reading took last. */
  #reading = 0;
  #read(source: string): Sheet {
    if (this.#known?.source !== source) {
      const start = performance.now();
      this.#known = { source, sheet: readSheet(source) };
      this.#reading = performance.now() - start;
    }
    return this.#known.sheet;
  }
  /** What has been typed and not been read yet. */
  #typed:
    | { readonly source: string; readonly how: Rewriting; readonly timer: ReturnType<typeof setTimeout> }
    | undefined = $state.raw();
  /** Whether something typed waits to be read: the editor is ahead of `source`. */
  readonly isTyping = $derived.by(() => this.#typed !== undefined);
  readonly sheet = $derived.by(() => this.#read(this.source));
  readonly title = $derived.by(() => this.sheet.head.title ?? 'Untitled chart');
  readonly canUndo = $derived.by(() => this.#history.past.length > 0);
  readonly canRedo = $derived.by(() => this.#history.future.length > 0);

  #edit(draft: Draft, kind: string, mergeable = false): void {
    if (this.isFrozen) return;
    this.#show(record(this.#history, draft, kind, Date.now(), mergeable));
    this.autosave.take(draft);
  }

  /** Edits the plan; runs of `mergeable` edits of one kind are undone together. A plan that stays the same is no edit. */
  decide(edit: (plan: Plan) => Plan, kind: string, mergeable = false): void {
    this.settle();
    const plan = edit(this.plan);
    if (plan !== this.plan) this.#edit({ source: this.source, plan }, kind, mergeable);
  }

  /** Takes over a text as it is typed: at once, or where reading it would hold up the next character, at the next rest. */
  type(source: string, how: Rewriting = {}): void {
    this.#forgetTyped();
    if (this.#reading <= QUICKLY_READ) this.setSource(source, how);
    else this.#typed = { source, how, timer: setTimeout(() => this.settle(), REST) };
  }

  /** Reads what has been typed and not been read yet; every other edit does so first. */
  settle(): void {
    const typed = this.#typed;
    this.#forgetTyped();
    if (typed) this.setSource(typed.source, typed.how);
  }

  #forgetTyped(): void {
    clearTimeout(this.#typed?.timer);
    this.#typed = undefined;
  }

  /** Saves what is not saved yet, what has only been typed too. */
  async flush(): Promise<void> {
    this.settle();
    await this.autosave.flush();
  }

  /** Takes over an edited text; decisions stay on their changes, and go with those that are gone. */
  setSource(source: string, { kind = 'text', since }: Rewriting = {}): void {
    this.settle();
    if (source === this.source) return;
    const symbols = ({ form }: Sheet) => form.changes.map(({ symbol }) => symbol);
    const from = since ?? { source: this.source, plan: this.plan };
    const before = symbols(from.source === this.source ? this.sheet : readSheet(from.source));
    const { decisions } = from.plan;
    const after = symbols(this.#read(source));
    const plan =
      source === from.source ? from.plan : withDecisions(this.plan, realign(decisions, before, after));
    this.#edit({ source, plan }, kind, true);
  }

  rename(title: string): void {
    this.settle();
    if (!title.trim() || title.trim() === this.sheet.head.title) return;
    this.#edit({ source: withDeclaration(this.source, 'title', title), plan: this.plan }, 'title');
  }

  /** Declares something of the chart in its text, such as its style; null takes the declaration back. */
  declare(name: string, value: string | null): void {
    this.settle();
    this.setSource(
      value === null ? withoutDeclaration(this.source, name) : withDeclaration(this.source, name, value)
    );
  }

  undo(): void {
    this.settle();
    this.#show(undo(this.#history));
    this.autosave.take(this.#history.present);
    this.announcement = 'Undone';
  }

  redo(): void {
    this.settle();
    this.#show(redo(this.#history));
    this.autosave.take(this.#history.present);
    this.announcement = 'Done again';
  }

  /** Takes over another draft as one edit: an earlier version, or the one another window saved. */
  adopt({ source, plan }: Draft): void {
    this.settle();
    this.#edit({ source, plan }, 'adopt');
  }

  /** Shows what another window saved, without saving it again. */
  load({ source, plan, version }: Stored): void {
    this.settle();
    this.#show(record(this.#history, { source, plan }, 'load', Date.now()));
    this.autosave.rebase(version);
  }

  /** Shows a draft of this player's beside a newer version; nothing is saved until the player has decided. */
  oppose({ source, plan }: Draft, stored: Stored): void {
    this.settle();
    this.#show(record(this.#history, { source, plan }, 'adopt', Date.now()));
    this.autosave.standAgainst(stored, { source, plan });
  }
}
