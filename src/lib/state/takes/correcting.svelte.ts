/**
 * What was heard in the opened take, corrected by hand. Each step is judged at once, is kept a moment later, and can be taken back.
 */
import type { TakeData } from '$lib/api/take';
import {
  addNote,
  deleteNote,
  isUncertain,
  joinNote,
  moveNote,
  splitNote,
  type Corrected
} from '$lib/core/takes/correct';
import type { HeardNote } from '$lib/core/takes/model';
import type { Steps } from '../chart/workspace.svelte';
import type { TakeShelf } from './shelf.svelte';

type Notes = TakeData['notes'];
interface Step {
  readonly notes: Notes;
  readonly selected: number | null;
}

/** Seconds by which a key moves a note. */
const NUDGE = 0.02;
/** Beats of a note that is put in. */
const PUT_IN = 0.5;
/** Steps that can be taken back. */
const MOST_STEPS = 200;

export class Correcting implements Steps {
  isOn = $state(false);
  /** The note that is corrected, by its place among the notes of the take. */
  selected: number | null = $state(null);
  #take: string | null = null;
  #undone: readonly Step[] = $state.raw([]);
  #done: readonly Step[] = $state.raw([]);
  readonly #shelf: TakeShelf;

  constructor(shelf: TakeShelf) {
    this.#shelf = shelf;
  }

  get #data(): TakeData | null {
    return this.#shelf.opened?.data ?? null;
  }
  readonly uncertain: number = $derived.by(() => this.#data?.notes.filter(isUncertain).length ?? 0);

  get canUndo(): boolean {
    return this.isOn && this.#isOwn && this.#done.length > 0;
  }
  get canRedo(): boolean {
    return this.isOn && this.#isOwn && this.#undone.length > 0;
  }
  /** Steps belong to the take in which they were made. */
  get #isOwn(): boolean {
    return this.#take === this.#shelf.opened?.id;
  }

  start(): void {
    this.isOn = true;
    this.#own();
    if (this.selected === null && this.#data?.notes.length) this.selected = 0;
  }

  stop(): void {
    this.isOn = false;
    this.selected = null;
    void this.#shelf.corrections.send();
  }

  #own(): void {
    const id = this.#shelf.opened?.id ?? null;
    if (this.#take === id) return;
    this.#take = id;
    this.#done = [];
    this.#undone = [];
    this.selected = null;
  }

  #apply(correct: (notes: readonly HeardNote[], at: number) => Corrected): void {
    this.#own();
    const data = this.#data;
    if (!data) return;
    const { notes, at } = correct(data.notes as readonly HeardNote[], this.selected ?? -1);
    if (notes === data.notes) return;
    this.#done = [...this.#done, { notes: data.notes, selected: this.selected }].slice(-MOST_STEPS);
    this.#undone = [];
    this.#put(notes, at);
  }

  #put(notes: readonly HeardNote[], at: number | null): void {
    this.#shelf.corrections.correct(
      notes.map((note) => ({ ...note, curve: [...note.curve], events: [...note.events] }))
    );
    this.selected = at;
  }

  undo(): void {
    this.#step(this.#done, (rest, here) => {
      this.#done = rest;
      this.#undone = [...this.#undone, here];
    });
  }
  redo(): void {
    this.#step(this.#undone, (rest, here) => {
      this.#undone = rest;
      this.#done = [...this.#done, here];
    });
  }
  #step(from: readonly Step[], moved: (rest: readonly Step[], here: Step) => void): void {
    const data = this.#data;
    const last = from.at(-1);
    if (!data || !last || !this.#isOwn) return;
    moved(from.slice(0, -1), { notes: data.notes, selected: this.selected });
    this.#put(last.notes as readonly HeardNote[], last.selected);
  }

  /** Selects the note after or before the selected one. */
  walk(by: number): void {
    const count = this.#data?.notes.length ?? 0;
    if (count)
      this.selected = Math.max(0, Math.min(count - 1, (this.selected ?? (by > 0 ? -1 : count)) + by));
  }
  /** Selects the next note that is uncertain; after the last of them the first. */
  toUncertain(): void {
    const notes = this.#data?.notes ?? [];
    const from = (this.selected ?? -1) + 1;
    const next = notes.findIndex((note, i) => i >= from && isUncertain(note));
    const at = next >= 0 ? next : notes.findIndex(isUncertain);
    if (at >= 0) this.selected = at;
  }

  transpose(semitones: number): void {
    this.#apply((notes, at) => moveNote(notes, at, { semitones }));
  }
  nudge(steps: number): void {
    this.move(0, steps * NUDGE);
  }
  move(semitones: number, seconds: number): void {
    this.#apply((notes, at) => moveNote(notes, at, { semitones, seconds }));
  }
  /** Parts the selected note: at a second of the sound that lies in it, else in its middle. */
  split(second: number | null = null): void {
    this.#apply((notes, at) => {
      const note = notes[at];
      if (!note) return { notes, at: null };
      const isInside = second !== null && second > note.at && second < note.at + note.seconds;
      return splitNote(notes, at, isInside ? second : note.at + note.seconds / 2);
    });
  }
  join(): void {
    this.#apply(joinNote);
  }
  remove(): void {
    if (this.selected !== null) this.#apply(deleteNote);
  }
  /** Puts a note in at a second of the sound. */
  add(at: number, midi: number): void {
    const seconds = (PUT_IN * 60) / (this.#data?.tempo ?? 60);
    this.#apply((notes) => addNote(notes, { at, seconds, midi }));
  }
  /** Puts a note in after the selected one, at its pitch. */
  addAfter(): void {
    const data = this.#data;
    const note = data?.notes[this.selected ?? data.notes.length - 1];
    if (data) this.add(note ? note.at + note.seconds : Math.max(0, data.start), note?.midi ?? MIDDLE);
  }
}
/** Where there is no note to go by. */
const MIDDLE = 60;
