/** What is heard in the line that is shown: which chords it tells, and the smallest change that would tell the selected one. */
import type { LineNote } from '$lib/core/line/model';
import { askedOf, mendOf, outlineLine, withChanges, type Mend } from '$lib/core/line/outline';
import { placedAnew } from '$lib/core/line/placed-anew';
import { counted } from '$lib/core/theory/words';
import type { Workspace } from '../chart/workspace.svelte';
import type { CurrentLine } from './current.svelte';

export class JudgedLine {
  /** What is judged while the line is written: what it was when the hand last rested; null where that is what is shown. */
  rested: readonly LineNote[] | null = $state.raw(null);
  readonly #workspace: Workspace;
  readonly #current: CurrentLine;

  constructor(workspace: Workspace, current: CurrentLine) {
    this.#workspace = workspace;
    this.#current = current;
  }

  readonly #asks = $derived.by(() => askedOf(this.#workspace.changes));
  readonly outline = $derived.by(() => {
    const notes = this.rested ?? this.#current.shown?.notes;
    return notes ? outlineLine(notes, this.#asks) : null;
  });
  /** The smallest change that lets the selected change be heard; null where there is none to be had, or needed. */
  readonly mend: Mend | null = $derived.by(() => {
    const { outline } = this;
    const { shown } = this.#current;
    const at = this.#workspace.selected;
    const verdict = outline?.windows[at]?.verdict;
    if (!shown || !outline || (verdict !== 'partly' && verdict !== 'not')) return null;
    if (this.rested && this.rested !== shown.notes) return null;
    return mendOf(shown.notes, this.#asks, at, outline.listening);
  });

  /** The line as it would be with a mend, to be heard first. */
  mended({ changes }: Mend): readonly LineNote[] {
    const { shown } = this.#current;
    return shown ? placedAnew(withChanges(shown.notes, changes), this.#workspace.neck) : [];
  }

  /** Takes a mend; the notes that are changed are placed anew. */
  take(mend: Mend): void {
    const { shown } = this.#current;
    if (!shown) return;
    this.#current.show({ ...shown, notes: this.mended(mend) });
    this.#workspace.say(`${counted(mend.changes.length, 'note')} changed`);
  }
}
