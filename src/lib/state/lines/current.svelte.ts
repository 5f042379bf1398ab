/** The line that is shown, and the steps that led to it: what is shown can be undone until it is kept, and survives a reload. */
import type { Stretch } from '$lib/core/line/edit';
import type { LevelId } from '$lib/core/line/find/registry';
import type { LineNote } from '$lib/core/line/model';
import { placedAnew } from '$lib/core/line/placed-anew';
import type { Workspace } from '../chart/workspace.svelte';
import { draftOf, flushDraft, keepDraft, keepDraftSoon } from './draft';

/** Ways a line was found, so that it can be had again and the next one asked for. */
export interface Found {
  readonly level: LevelId;
  readonly figure?: string;
  readonly subdivision: number;
  /** How dense and how bold phrases are, 0 to 1; as the style has it where nothing is said. */
  readonly density?: number | undefined;
  readonly boldness?: number | undefined;
  readonly seed: number;
  /** Which of the best it is, 0 the best. */
  readonly rank: number;
}

export interface ShownLine {
  readonly notes: readonly LineNote[];
  readonly name: string;
  /** The kept line it is; null for one that is not kept. */
  readonly id: string | null;
  readonly finding: Found | null;
  /** How many of its notes are others than those shown before it, in the same rhythm. */
  readonly differs?: number;
  /** Stretches of phrases, in ticks, that stay as they are when others are made anew. */
  readonly locks?: readonly Stretch[];
}

/** Where a kept line has its name, the melody of the chart has this. */
export const MELODY = 'melody';
/** Steps that can be undone. */
const MOST_STEPS = 200;
const OWN_NAME = 'A line of my own';

export class CurrentLine {
  shown: ShownLine | null = $state.raw(null);
  /** Something the player should know. */
  problem = $state('');
  #past: readonly (ShownLine | null)[] = $state.raw([]);
  #future: readonly (ShownLine | null)[] = $state.raw([]);
  readonly #workspace: Workspace;
  readonly #isKept: () => boolean;

  /** `isKept`: whether what is shown is kept as it is. */
  constructor(workspace: Workspace, isKept: () => boolean) {
    this.#workspace = workspace;
    this.#isKept = isKept;
  }

  readonly canUndo = $derived(this.#past.length > 0);
  readonly canRedo = $derived(this.#future.length > 0);
  get isMelody(): boolean {
    return this.shown?.id === MELODY;
  }

  /** Shows another line; what was shown can be brought back. */
  show(line: ShownLine | null): void {
    this.#past = [...this.#past.slice(-MOST_STEPS), this.shown];
    this.#future = [];
    this.shown = line;
    this.problem = '';
  }

  /** A line that has been written on; what has lost its place is placed anew. */
  edit(notes: readonly LineNote[], said: string): void {
    const before = this.shown;
    const all = notes.every(({ place }) => place) ? notes : placedAnew(notes, this.#workspace.neck);
    this.show({ name: OWN_NAME, id: null, ...before, notes: all, finding: null });
    this.#keepSoon(said);
  }

  /** The same line with some of its phrases made anew; how it was found is still so of the rest. */
  revise(notes: readonly LineNote[], said: string, locks: readonly Stretch[]): void {
    const { shown } = this;
    if (!shown) return;
    const { differs: _, ...rest } = shown;
    this.show({ ...rest, notes, locks });
    this.#keepSoon(said);
  }

  #keepSoon(said: string): void {
    keepDraftSoon(this.#workspace.document.id, this.shown);
    if (said) this.#workspace.say(said);
  }

  /** An empty line, to be written. */
  blank(): void {
    this.show({ notes: [], name: OWN_NAME, id: null, finding: null });
    this.#workspace.say('An empty line');
  }

  undo(): void {
    const last = this.#past.at(-1);
    if (last === undefined) return;
    this.#future = [...this.#future, this.shown];
    this.#past = this.#past.slice(0, -1);
    this.#step(last, 'Line: one step back');
  }

  redo(): void {
    const next = this.#future.at(-1);
    if (next === undefined) return;
    this.#past = [...this.#past, this.shown];
    this.#future = this.#future.slice(0, -1);
    this.#step(next, 'Line: one step on');
  }

  #step(line: ShownLine | null, said: string): void {
    this.shown = line;
    this.problem = '';
    // What survives a reload goes along.
    const chart = this.#workspace.document.id;
    flushDraft();
    if (draftOf(chart)) keepDraft(chart, this.#isKept() ? null : this.shown);
    this.#workspace.say(said);
  }

  /** Nothing is left to be kept over a reload. */
  dropDraft(): void {
    flushDraft();
    keepDraft(this.#workspace.document.id, null);
  }
}
