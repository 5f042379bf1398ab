/** What is done to the bars that are selected: cleared, deleted, copied, moved, and their chords turned into others. */
import * as edits from '$lib/core/chart/writing/edits';
import { transposeSymbol } from '$lib/core/chart/transpose';
import { importText } from '$lib/core/formats/text/import';
import { simplified, type Simplicity } from '$lib/core/harmony/simplify';
import { counted } from '$lib/core/theory/words';
import type { Workspace } from '../chart/workspace.svelte';
import type { Caret } from './proposals.svelte';
import type { Writing } from './writing.svelte';

export class BarEdits {
  readonly #workspace: Workspace;
  readonly #writing: Writing;
  /** What was cut or copied last. */
  clip: edits.Clip = $state.raw([]);

  constructor(workspace: Workspace, writing: Writing) {
    this.#workspace = workspace;
    this.#writing = writing;
  }

  #say(words: string): void {
    this.#workspace.say(words);
  }

  /** Deletes the chord at the caret; in an empty bar, or over several, the bars. */
  erase(): void {
    const { selection, chord, bar, caret } = this.#writing;
    if (this.#writing.hasSelection) this.deleteBars();
    else if (chord && bar) {
      const left = bar.chords.filter(({ cell }) => cell !== chord.cell);
      const beat = left.findLast((one) => one.beat < chord.beat)?.beat ?? 0;
      this.#writing.edit(
        (text) => edits.writeChords(text, bar.index, left),
        'Chord deleted',
        bar.index,
        beat
      );
    } else if (bar && (bar.cells.length > 0 || bar.repeats > 0))
      this.#writing.edit((text) => edits.clearBars(text, selection), 'Bar cleared');
    else if (bar) this.deleteBars();
    else if (caret.bar > 0) this.#writing.walk(-1);
  }

  deleteBars(): void {
    const { from, to } = this.#writing.selection;
    this.#writing.anchor = null;
    if (!this.#writing.bars.length) return;
    this.#writing.edit(
      (text) => edits.deleteBars(text, { from, to }),
      `${counted(to - from + 1, 'bar')} deleted`,
      from
    );
  }

  clear(): void {
    const { selection } = this.#writing;
    this.#writing.edit((text) => edits.clearBars(text, selection), 'Chords cleared');
  }

  insert(where: 'before' | 'after', count = 1): void {
    const { from, to } = this.#writing.selection;
    const behind = where === 'before' ? from - 1 : to;
    this.#writing.edit(
      (text) => edits.insertAfter(text, behind, edits.emptyBars(count)),
      `${counted(count, 'bar')} inserted`,
      behind + 1,
      0
    );
  }

  copy(): void {
    this.clip = edits.copyBars(this.#writing.settled(), this.#writing.selection);
    this.#say(`${counted(this.clip.length, 'bar')} copied`);
  }

  /** What was copied, as other programs take it. */
  get clipText(): string {
    return edits.clipText(this.clip);
  }

  /**
   * Pastes a text: what was copied here comes with all its marks, another text as the bars that are found in it. False where it is a chord
   * or two, to be typed at the caret.
   */
  pasteText(text: string): boolean {
    if (this.clip.length > 0 && text.trim() === this.clipText) {
      this.paste();
      return true;
    }
    if (!/[|\n\r]/.test(text.trim())) return false;
    const { chart } = importText(text);
    const clip = chart === null ? [] : edits.allBars(chart);
    if (clip.length === 0) return false;
    this.paste(clip);
    return true;
  }

  cut(): void {
    this.copy();
    this.deleteBars();
  }

  /** What was copied, behind the selection; an empty bar at the caret gives way to it. */
  paste(clip = this.clip): void {
    if (clip.length === 0) return;
    const { to } = this.#writing.selection;
    const isEmpty =
      this.#writing.bar !== undefined && this.#writing.bar.cells.length === 0 && !this.#writing.hasSelection;
    const behind = this.#writing.bar ? to : this.#writing.bars.length - 1;
    this.#writing.anchor = null;
    this.#writing.edit(
      (text) => {
        const pasted = edits.insertAfter(text, behind, clip);
        return isEmpty ? edits.deleteBars(pasted, { from: to, to }) : pasted;
      },
      `${counted(clip.length, 'bar')} pasted`,
      (isEmpty ? to : behind + 1) + clip.length - 1
    );
  }

  /** The selected bars once more, behind themselves. */
  duplicate(): void {
    const { selection } = this.#writing;
    this.paste(edits.copyBars(this.#writing.settled(), selection));
  }

  /** The selected bars moved so that they stand behind another one (−1: before the first). */
  moveTo(behind: number): void {
    const { from, to } = this.#writing.selection;
    const count = to - from + 1;
    const first = behind > to ? behind - count + 1 : behind + 1;
    if (behind >= from - 1 && behind <= to) return;
    const isMany = this.#writing.hasSelection;
    this.#writing.edit(
      (text) => edits.moveBars(text, { from, to }, behind),
      `Moved to bar ${first + 1}`,
      first
    );
    this.#writing.anchor = isMany ? first + count - 1 : null;
  }

  /** A step on: several bars by a bar, the chord at the caret by a beat, and over the bar line. */
  nudge(direction: 1 | -1): void {
    const { from, to } = this.#writing.selection;
    const { chord, bar } = this.#writing;
    if (this.#writing.hasSelection || !chord || !bar) {
      if (direction > 0 && to < this.#writing.bars.length - 1) this.moveTo(to + 1);
      else if (direction < 0 && from > 0) this.moveTo(from - 2);
      return;
    }
    const beat = chord.beat + direction;
    const goal = beat >= bar.meter.beats ? bar.index + 1 : beat < 0 ? bar.index - 1 : bar.index;
    const other = this.#writing.bars[goal];
    if (!other) return;
    this.moveChord(
      { bar: bar.index, chord: bar.chords.findIndex(({ cell }) => cell === chord.cell) },
      { bar: goal, beat: goal > bar.index ? 0 : goal < bar.index ? other.meter.beats - 1 : beat }
    );
  }

  moveChord(from: { readonly bar: number; readonly chord: number }, to: Caret): void {
    this.#writing.edit(
      (text) => edits.moveChord(text, from, to),
      `Moved to bar ${to.bar + 1}`,
      to.bar,
      to.beat
    );
  }

  // What is selected.

  transpose(semitones: number): void {
    const { selection } = this.#writing;
    const home = this.#workspace.analysis.key;
    this.#writing.edit(
      (text) => edits.eachSymbol(text, selection, (symbol) => transposeSymbol(symbol, home, semitones)),
      'Transposed'
    );
  }

  simplify(to: Simplicity): void {
    const { selection } = this.#writing;
    this.#writing.edit(
      (text) => edits.eachSymbol(text, selection, (symbol) => simplified(symbol, to)),
      `Simplified to ${to}`
    );
  }

  /** Every chord of the selection that is spelled like one replaced by another. */
  replace(from: string, to: string): void {
    const { selection } = this.#writing;
    const plain = (text: string) => text.trim().replaceAll('♭', 'b').replaceAll('♯', '#');
    if (!plain(to)) return;
    this.#writing.edit(
      (text) =>
        edits.eachSymbol(text, selection, (symbol) => (plain(symbol) === plain(from) ? plain(to) : symbol)),
      'Replaced'
    );
  }
}
