/** The pen: where writing goes on in a line, how long the next note is, what is selected and copied. */
import {
  bent,
  lengthOf,
  notesAt,
  noteOn,
  played,
  split,
  withLength,
  withNote,
  without,
  type Stretch,
  type Technique,
  type WrittenLength
} from '$lib/core/line/edit';
import { beatsOf, endOf, ticksOf, type LineNote } from '$lib/core/line/model';
import type { CurrentLine } from './current.svelte';
import { Passage } from './passage.svelte';
import type { Workspace } from '../chart/workspace.svelte';

/** Milliseconds within which two digits are one fret. */
const ONE_FRET = 900;

const TECHNIQUE_WORDS: Readonly<Record<Technique, string>> = {
  slide: 'slide into it',
  slur: 'hammered or pulled',
  vibrato: 'vibrato',
  ghost: 'ghost note',
  tie: 'tied'
};

export class Pen {
  readonly #current: CurrentLine;
  readonly #workspace: Workspace;
  /** What is done to more than one note at once. */
  readonly passage: Passage;
  isWriting = $state(false);
  /** In ticks of the form. */
  at = $state(0);
  string = $state(2);
  length: WrittenLength = $state.raw({ value: 8, isDotted: false, isTriplet: false });
  /** The other end of what is selected. */
  #anchor: number | null = $state(null);
  #typed: {
    readonly fret: number;
    readonly time: number;
    readonly at: number;
    readonly string: number;
  } | null = null;

  constructor(current: CurrentLine, workspace: Workspace) {
    this.#current = current;
    this.#workspace = workspace;
    this.passage = new Passage(current, workspace, this);
  }

  readonly grid = $derived.by(() => lengthOf(this.length, this.#workspace.sheet.head.meter));
  readonly caret = $derived.by(() => (this.isWriting ? { at: this.at, string: this.string } : null));
  readonly selection: Stretch | null = $derived.by(() => {
    const anchor = this.#anchor;
    if (anchor === null || !this.isWriting) return null;
    const [from, last] = [Math.min(anchor, this.at), Math.max(anchor, this.at)];
    return { from, to: last + this.#lengthAt(last) };
  });
  /** "bar 2, beat 3.5, string 4". */
  readonly where = $derived.by(() => {
    const beats = beatsOf(this.at);
    const bar = this.#workspace.sheet.form.bars.findLast(({ start }) => start <= beats + 1e-6);
    const beat = Number((beats - (bar?.start ?? 0) + 1).toFixed(2));
    return `bar ${bar?.number ?? 1}, beat ${beat}, string ${this.string}`;
  });

  get #notes(): readonly LineNote[] {
    return this.#current.shown?.notes ?? [];
  }

  get #end(): number {
    return ticksOf(this.#workspace.sheet.form.beats);
  }

  /** Of the notes at a time, else of the next one that would be written. */
  #lengthAt(at: number): number {
    return notesAt(this.#notes, at)[0]?.length ?? this.grid;
  }

  start(): void {
    this.isWriting = true;
    this.#anchor = null;
    const { start } = this.#workspace.change ?? { start: 0 };
    this.to(ticksOf(start));
    this.#workspace.say(`Writing at ${this.where}`);
  }

  stop(): void {
    this.isWriting = false;
    this.#anchor = null;
  }

  /** Puts the caret somewhere; the change there is the one that is shown. */
  to(at: number, string = this.string, extends_ = false): void {
    if (extends_) this.#anchor ??= this.at;
    else this.#anchor = null;
    this.at = Math.max(0, Math.min(this.#end - 1, Math.round(at)));
    this.string = Math.max(1, Math.min(this.#workspace.neck.strings.length, string));
    const beats = beatsOf(this.at);
    const change = this.#workspace.changes.findLast(({ start }) => start <= beats + 1e-6);
    if (change && change.index !== this.#workspace.selected) this.#workspace.select(change.index, false);
  }

  /** To what was pointed at: the note there, or the nearest place of the grid. */
  point(at: number, string: number): void {
    const near = this.#notes.filter((note) => Math.abs(note.start - at) <= this.grid / 2);
    const note = near.sort((a, b) => Math.abs(a.start - at) - Math.abs(b.start - at))[0];
    this.to(note?.start ?? Math.floor(at / this.grid + 0.25) * this.grid, string, this.isSelecting);
  }

  /** Pointing selects up to there, until it is switched off: what Shift is to keys. */
  isSelecting = $state(false);

  step(direction: 1 | -1, extends_ = false): void {
    const { at } = this;
    const edges = this.#notes.flatMap((note) => [note.start, endOf(note)]);
    const places = [...edges, at + direction * this.grid];
    const beyond = places.filter((place) => (place - at) * direction > 0);
    const next = beyond.reduce((best, place) => ((best - place) * direction > 0 ? place : best));
    this.to(next, this.string, extends_);
    this.#workspace.say(this.where);
  }

  /** By a whole bar. */
  leap(direction: 1 | -1): void {
    const { bars } = this.#workspace.sheet.form;
    const starts = bars.map(({ start }) => ticksOf(start));
    const next =
      direction > 0 ? starts.find((start) => start > this.at) : starts.findLast((start) => start < this.at);
    if (next !== undefined) this.to(next);
    this.#workspace.say(this.where);
  }

  cross(direction: 1 | -1): void {
    this.to(this.at, this.string + direction);
    this.#workspace.say(this.where);
  }

  /** A digit of a fret: two within a moment are one fret where the neck has it. */
  digit(digit: number): void {
    const now = performance.now();
    const before = this.#typed;
    const { neck } = this.#workspace;
    const both = before ? before.fret * 10 + digit : 0;
    const isSecond =
      before !== null &&
      now - before.time < ONE_FRET &&
      before.at === this.at &&
      before.string === this.string &&
      before.fret > 0 &&
      both <= neck.frets;
    const fret = isSecond ? both : digit;
    this.#typed = { fret, time: now, at: this.at, string: this.string };
    this.strike(this.string, fret);
  }

  /** Writes a note at the caret; `goesOn` takes the caret behind it, as in tapping note after note. */
  strike(string: number, fret: number, goesOn = false): void {
    const { neck } = this.#workspace;
    const lies = fret === 0 ? neck.capo : fret;
    if (lies < neck.capo || lies > neck.frets) {
      this.#current.problem = `Fret ${fret} is ${lies > neck.frets ? 'beyond the neck' : 'behind the capo'}.`;
      return;
    }
    const note = noteOn(neck, string, lies, this.at, this.grid);
    this.#current.edit(withNote(this.#notes, note), `${note.note}, string ${string} fret ${lies}`);
    this.string = string;
    if (goesOn) this.to(this.at + this.#lengthAt(this.at), string);
  }

  /** Goes on without a note. */
  rest(): void {
    this.to(this.at + this.grid);
  }

  setLength(part: Partial<WrittenLength>): void {
    this.length = { ...this.length, ...part };
    if (notesAt(this.#notes, this.at).length === 0) return;
    this.#current.edit(withLength(this.#notes, this.at, this.grid), 'length changed');
  }

  /** Takes out what is selected, or what is at the caret, or else the note before it. */
  erase(): void {
    const { selection } = this;
    if (selection) {
      this.#current.edit(without(this.#notes, selection), 'taken out');
      this.to(selection.from);
      return;
    }
    const here = notesAt(this.#notes, this.at);
    const own = here.find(({ place }) => place?.string === this.string);
    if (own && here.length > 1) {
      this.#current.edit(
        this.#notes.filter((note) => note !== own),
        'taken out'
      );
      return;
    }
    const before = this.#notes.findLast(({ start }) => start <= this.at);
    if (!before) return;
    this.#current.edit(without(this.#notes, { from: before.start, to: before.start + 1 }), 'taken out');
    this.to(before.start);
  }

  technique(technique: Technique): void {
    if (notesAt(this.#notes, this.at).length === 0) return;
    this.#current.edit(played(this.#notes, this.at, technique), TECHNIQUE_WORDS[technique]);
  }

  bend(): void {
    if (notesAt(this.#notes, this.at).length) this.#current.edit(bent(this.#notes, this.at), 'bent');
  }

  split(): void {
    this.#current.edit(split(this.#notes, this.at), 'split in two');
  }

  selectAll(): void {
    const last = this.#notes.at(-1);
    if (!last) return;
    this.to(0);
    this.to(last.start, this.string, true);
  }
}
