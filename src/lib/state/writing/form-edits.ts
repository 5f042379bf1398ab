/** What is done to the form of a chart where the caret stands: sections, repeats, endings, jumps, meters, remarks; and what stands above it. */
import { withDeclaration, withoutDeclaration } from '$lib/core/chart/directives';
import type { Meter } from '$lib/core/chart/model';
import * as edits from '$lib/core/chart/writing/edits';
import * as sections from '$lib/core/chart/writing/sections';
import { barRanges } from '$lib/core/theory/words';
import type { Writing } from './writing.svelte';

export class FormEdits {
  readonly #writing: Writing;

  constructor(writing: Writing) {
    this.#writing = writing;
  }

  get #bar(): number {
    return this.#writing.selection.from;
  }

  /** A section that begins at the selection. */
  nameSection(label: string): void {
    const bar = this.#bar;
    this.#writing.edit((text) => sections.nameSection(text, bar, label), `Section ${label}`, bar);
  }

  /** The section of the caret joined to the one before. */
  joinSection(): void {
    const first = this.#writing.bars.findLast(
      ({ opensSection, index }) => opensSection && index <= this.#bar
    );
    if (first)
      this.#writing.edit((text) => sections.joinSection(text, first.index), 'Joined to the section before');
  }

  moveSection(direction: 1 | -1): void {
    const grid = sections.gridIndex(this.#writing.settled(), this.#bar);
    this.#writing.edit((text) => sections.moveSection(text, grid, grid + direction), 'Section moved');
  }

  duplicateSection(): void {
    const grid = sections.gridIndex(this.#writing.settled(), this.#bar);
    this.#writing.edit((text) => sections.duplicateSection(text, grid), 'Section duplicated');
  }

  /** The bars of the section that the caret stands in, both in. */
  get section(): edits.Stretch {
    const { bars } = this.#writing;
    const own = bars.filter(({ sectionIndex }) => sectionIndex === bars[this.#bar]?.sectionIndex);
    return { from: own[0]?.index ?? 0, to: own.at(-1)?.index ?? 0 };
  }

  get isRepeated(): boolean {
    const { bars, selection } = this.#writing;
    return bars
      .slice(selection.from, selection.to + 1)
      .some(({ repeatStart, repeatEnd, ending }) => repeatStart || repeatEnd || ending.length > 0);
  }

  /** The selection played twice, or once again where it has repeats. */
  toggleRepeat(): void {
    const { selection } = this.#writing;
    const turn = this.isRepeated ? edits.unrepeatStretch : edits.repeatStretch;
    this.#writing.edit(
      (text) => turn(text, selection),
      this.isRepeated ? 'No repeat' : 'Repeated',
      selection.from
    );
  }

  /**
   * An ending of some rounds that begins at the selection and ends with it; the first one closes the repeat. Without a repeat before it
   * one is begun with the section.
   */
  setEnding(rounds: readonly number[]): void {
    const { selection, bars } = this.#writing;
    const { from, to } = selection;
    this.#writing.edit(
      (text) => {
        const marked = edits.markBar(text, from, { ending: rounds });
        if (rounds.length === 0 || !rounds.includes(1)) return marked;
        const closed = edits.markBar(marked, to, { repeatEnd: true });
        const begins = bars.slice(0, from + 1).findLastIndex(({ repeatStart }) => repeatStart);
        const ended = bars.slice(0, from).findLastIndex(({ repeatEnd }) => repeatEnd);
        return begins > ended ? closed : edits.markBar(closed, this.section.from, { repeatStart: true });
      },
      rounds.length ? `Ending ${rounds.join(', ')}` : 'No ending',
      from
    );
  }

  setWord(side: 'left' | 'right', word: string): void {
    const { from, to } = this.#writing.selection;
    this.#writing.edit(
      (text) => edits.setWord(text, side === 'left' ? from : to, side, word),
      word || 'Taken away',
      from
    );
  }

  setMeter(meter: Meter): void {
    const { from, to } = this.#writing.selection;
    const bars = barRanges(Array.from({ length: to - from + 1 }, (_, i) => from + i + 1));
    this.#writing.edit(
      (text) => sections.setMeter(text, from, meter, to - from + 1),
      `${meter.beats}/${meter.unit} in ${bars}`,
      from
    );
  }

  /** Remarks to a bar, a line each. */
  setNotes(notes: readonly string[]): void {
    const bar = this.#bar;
    this.#writing.edit((text) => sections.setNotes(text, bar, notes), 'Note kept', bar);
  }

  /** Something of the head declared: title, key, time, tempo, feel and their like; empty takes it back. */
  declare(name: string, value: string): void {
    this.#writing.edit(
      (text) => (value.trim() ? withDeclaration(text, name, value.trim()) : withoutDeclaration(text, name)),
      `${name}: ${value.trim() || 'nothing'}`
    );
  }
}
