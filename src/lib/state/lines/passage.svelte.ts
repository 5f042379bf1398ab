/** Edits of a passage of the line that is written: what is selected, or the bar of the caret. */
import { sure } from '$lib/core/base/list';
import { copied, joinedIn, pasted, transposed, without, type Stretch } from '$lib/core/line/edit';
import { ticksOf, type LineNote } from '$lib/core/line/model';
import type { CurrentLine } from './current.svelte';
import type { Workspace } from '../chart/workspace.svelte';

/** Where the pen stands, in ticks, and what it has selected. */
interface Caret {
  readonly at: number;
  readonly selection: Stretch | null;
  to(at: number): void;
}

export class Passage {
  readonly #current: CurrentLine;
  readonly #workspace: Workspace;
  readonly #caret: Caret;
  #clip: { readonly notes: readonly LineNote[]; readonly length: number } | null = $state.raw(null);

  constructor(current: CurrentLine, workspace: Workspace, caret: Caret) {
    this.#current = current;
    this.#workspace = workspace;
    this.#caret = caret;
  }

  readonly canPaste = $derived.by(() => this.#clip !== null);

  get #notes(): readonly LineNote[] {
    return this.#current.shown?.notes ?? [];
  }

  get #end(): number {
    return ticksOf(this.#workspace.sheet.form.beats);
  }

  get #stretch(): Stretch {
    const { selection, at } = this.#caret;
    if (selection) return selection;
    const bar = sure(
      this.#workspace.sheet.form.bars.findLast(({ start }) => ticksOf(start) <= at),
      'The bar of the caret'
    );
    return { from: ticksOf(bar.start), to: ticksOf(bar.start + bar.beats) };
  }

  copy(): void {
    const { from, to } = this.#stretch;
    this.#clip = { notes: copied(this.#notes, { from, to }), length: to - from };
    this.#workspace.say(`${this.#clip.notes.length} notes copied`);
  }

  cut(): void {
    const stretch = this.#stretch;
    this.copy();
    this.#current.edit(without(this.#notes, stretch), 'cut out');
    this.#caret.to(stretch.from);
  }

  paste(): void {
    const clip = this.#clip;
    if (!clip) return;
    const { at } = this.#caret;
    const inside = clip.notes.filter(({ start }) => start + at < this.#end);
    this.#current.edit(pasted(this.#notes, inside, at, clip.length), 'inserted');
    this.#caret.to(at + clip.length);
  }

  /** Puts the passage in once more, behind itself. */
  repeat(): void {
    const { from, to } = this.#stretch;
    const again = copied(this.#notes, { from, to }).filter(({ start }) => start + to < this.#end);
    this.#current.edit(pasted(this.#notes, again, to, to - from), 'repeated');
    this.#caret.to(to);
  }

  transpose(semitones: number): void {
    const notes = transposed(this.#notes, this.#stretch, semitones, this.#workspace.neck);
    const isOut = notes.some(({ midi }) => midi < 0 || midi > 127);
    if (!isOut) this.#current.edit(notes, `moved by ${semitones}`);
  }

  join(): void {
    this.#current.edit(joinedIn(this.#notes, this.#stretch), 'joined');
  }
}
