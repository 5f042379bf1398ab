/** The phrases of the line that is shown, as blocks: each locked, made anew, related to another, moved in time, taken out, put in. */
import { firstOf, lastOf, nth } from '$lib/core/base/list';
import { breathAt, gapsIn, phrasesIn, type Gap, type LinePhrase } from '$lib/core/line/phrases-in';
import { ordered, ticksOf, type LineNote } from '$lib/core/line/model';
import { gridOf, pulseAt } from '$lib/core/line/phrase/grid';
import type { OnePhrase } from '$lib/core/line/phrase/alone';
import type { Relation } from '$lib/core/line/phrase/styles';
import type { Stretch } from '$lib/core/line/edit';
import type { CurrentLine } from './current.svelte';
import type { Finding } from './finding.svelte';
import type { Workspace } from '../chart/workspace.svelte';

/** Bars that a phrase has which is put into a gap, at most. */
const MOST_NEW = 2;

const overlaps = (a: Stretch, b: Stretch) => a.from < b.to && b.from < a.to;

export class Phrases {
  readonly #current: CurrentLine;
  readonly #finding: Finding;
  readonly #workspace: Workspace;
  /** The phrase that is selected stands at this time, in ticks. */
  #at: number | null = $state(null);
  #turn = 0;

  constructor(current: CurrentLine, finding: Finding, workspace: Workspace) {
    this.#current = current;
    this.#finding = finding;
    this.#workspace = workspace;
  }

  readonly #bars = $derived.by(() => this.#workspace.sheet.form.bars);
  readonly #grid = $derived.by(() => gridOf(this.#bars));
  readonly #notes = $derived.by((): readonly LineNote[] => this.#current.shown?.notes ?? []);
  readonly all = $derived.by(() => phrasesIn(this.#notes, this.#bars));
  readonly gaps = $derived.by(() => gapsIn(this.all, this.#grid));
  /** The place of the phrase that is selected; null where none is. */
  readonly selected = $derived.by(() => {
    const at = this.#at;
    if (at === null) return null;
    const found = this.all.findIndex(({ from, to }) => at >= from && at < to);
    return found < 0 ? null : found;
  });

  select(index: number | null): void {
    const phrase = index === null ? undefined : this.all[index];
    this.#at = phrase?.from ?? null;
    if (!phrase) return;
    const { changes, selected } = this.#workspace;
    const change = changes.findLast(
      ({ start }) => ticksOf(start) <= Math.max(0, nth(this.#grid.bars, phrase.first).start)
    );
    if (change && change.index !== selected) this.#workspace.select(change.index, false);
  }

  get #locks(): readonly Stretch[] {
    return this.#current.shown?.locks ?? [];
  }

  isLocked(index: number): boolean {
    const phrase = this.all[index];
    return phrase !== undefined && this.#isHeld(phrase);
  }

  #isHeld(phrase: Stretch): boolean {
    return this.#locks.some((lock) => overlaps(lock, phrase));
  }

  /** Locks a phrase, so that nothing that is made anew touches it, or lets it go. */
  lock(index: number): void {
    const phrase = this.all[index];
    if (!phrase) return;
    const isLocked = this.isLocked(index);
    const others = this.#locks.filter((lock) => !overlaps(lock, phrase));
    const locks = isLocked ? others : [...others, { from: phrase.from, to: phrase.to }];
    this.#current.revise(this.#notes, `Phrase ${phrase.name} ${isLocked ? 'unlocked' : 'locked'}`, locks);
  }

  /** Notes, times and neighbours of the line without some of its phrases. */
  #room(at: Stretch, without: readonly LinePhrase[]): Stretch {
    const rest = this.all.filter(({ from }) => !without.some((phrase) => phrase.from === from));
    const before = rest.findLast(({ to }) => to <= at.from + (at.to - at.from) / 2);
    const after = rest.find(({ from }) => from >= at.from + (at.to - at.from) / 2);
    const [first, last] = [firstOf(this.#grid.bars), lastOf(this.#grid.bars)];
    return {
      from: before ? before.to + breathAt(this.#grid, at.from) : first.start - (first.end - first.start),
      to: after ? after.from - breathAt(this.#grid, after.from) : last.end
    };
  }

  /** Asks for one phrase and puts it in the place of some; false where it cannot be had, which is said. */
  async #put(
    only: Omit<OnePhrase, 'part'>,
    {
      instead,
      said,
      isLocked = false
    }: { instead: readonly LinePhrase[]; said: (made: LinePhrase | undefined) => string; isLocked?: boolean }
  ): Promise<boolean> {
    const before = this.#current.shown;
    const made = await this.#finding.findPhrase(only, ++this.#turn);
    // What was changed meanwhile is not written over.
    if (!made || this.#current.shown !== before) return false;
    const rest = this.#notes.filter(
      (_, i) => !instead.some(({ notes }) => i >= notes.first && i < notes.end)
    );
    const own = {
      from: firstOf(made).start,
      to: Math.max(...made.map(({ start, length }) => start + length))
    };
    const locks = this.#locks.filter((lock) => !instead.some((phrase) => overlaps(lock, phrase)));
    this.#current.revise(ordered([...rest, ...made]), '', isLocked ? [...locks, own] : locks);
    this.#at = own.from;
    this.#workspace.say(said(this.selected === null ? undefined : this.all[this.selected]));
    return true;
  }

  #refuse(message: string): false {
    this.#current.problem = message;
    return false;
  }

  #locked({ name }: LinePhrase): false {
    return this.#refuse(`Phrase ${name} is locked; unlock it first.`);
  }

  /** Other notes and another rhythm in the bars of a phrase. */
  async renew(index: number): Promise<boolean> {
    const phrase = this.all[index];
    if (!phrase) return false;
    if (this.isLocked(index)) return this.#locked(phrase);
    const { first, bars } = phrase;
    return this.#put(
      { first, bars, room: this.#room(phrase, [phrase]) },
      { instead: [phrase], said: (made) => `A new phrase in ${this.barsOf(made ?? phrase)}` }
    );
  }

  /** Makes a phrase take up another one: note for note, varied, in its rhythm, or moved as a sequence. */
  async relate(index: number, of: number, how: Relation): Promise<boolean> {
    const [phrase, model] = [this.all[index], this.all[of]];
    if (!phrase || !model || index === of) return false;
    if (this.isLocked(index)) return this.#locked(phrase);
    const bars = Math.min(model.bars, this.#bars.length - phrase.first);
    const notes = this.#notes.slice(model.notes.first, model.notes.end);
    return this.#put(
      {
        first: phrase.first,
        bars,
        room: this.#room(phrase, [phrase]),
        like: { notes, first: model.first, how }
      },
      {
        instead: [phrase],
        said: (made) => `Phrase ${made?.name ?? phrase.name} in ${this.barsOf(phrase)}, after ${model.name}`
      }
    );
  }

  /** Takes a phrase some bars on or back; it keeps its rhythm, and its notes where the chords there have them. What lies there gives way. */
  async move(index: number, bars: number): Promise<boolean> {
    const phrase = this.all[index];
    if (!phrase || bars === 0) return false;
    const first = phrase.first + bars;
    if (first < 0 || first + phrase.bars > this.#bars.length)
      return this.#refuse(`The chart has no room for phrase ${phrase.name} there.`);
    const by = nth(this.#grid.bars, first).start - nth(this.#grid.bars, phrase.first).start;
    const there = { from: phrase.from + by, to: phrase.to + by };
    const given = this.all.filter((other, i) => i !== index && overlaps(other, there));
    const locked = given.find((other) => this.#isHeld(other));
    if (locked) return this.#locked(locked);
    const instead = [phrase, ...given];
    const gave = given.length ? `; ${given.map(({ name }) => name).join(', ')} gave way` : '';
    return this.#put(
      {
        first,
        bars: phrase.bars,
        room: this.#room(there, instead),
        like: { notes: this.#notesOf(phrase), first: phrase.first, how: 'literal' }
      },
      {
        instead,
        isLocked: this.isLocked(index),
        said: (made) => `Phrase ${phrase.name} in ${this.barsOf(made ?? phrase)}${gave}`
      }
    );
  }

  /** Moves a phrase in time by beats, or halves of one. */
  async shift(index: number, beats: number): Promise<boolean> {
    const phrase = this.all[index];
    if (!phrase) return false;
    const by = beats * pulseAt(this.#grid, phrase.from).length;
    const there = { from: phrase.from + by, to: phrase.to + by };
    const room = this.#room(there, [phrase]);
    if (there.from < room.from || there.to > room.to)
      return this.#refuse(
        `Phrase ${phrase.name} has no room there: a beat of silence stays between phrases.`
      );
    const { first, bars } = phrase;
    return this.#put(
      { first, bars, room, like: { notes: this.#notesOf(phrase), first, how: 'literal', by } },
      {
        instead: [phrase],
        isLocked: this.isLocked(index),
        said: () => `Phrase ${phrase.name} ${beats > 0 ? 'later' : 'earlier'}`
      }
    );
  }

  /** Leaves silence where a phrase was. */
  remove(index: number): void {
    const phrase = this.all[index];
    if (!phrase) return;
    if (this.isLocked(index)) return void this.#locked(phrase);
    const { first, end } = phrase.notes;
    this.#current.revise(
      this.#notes.filter((_, i) => i < first || i >= end),
      `Phrase ${phrase.name} taken out`,
      this.#locks
    );
    this.#at = null;
  }

  /** A new phrase in bars without a note. */
  async add({ first, bars }: Gap): Promise<boolean> {
    const count = Math.min(bars, MOST_NEW);
    const [from, to] = [nth(this.#grid.bars, first).start, nth(this.#grid.bars, first + count - 1).end];
    return this.#put(
      { first, bars: count, room: this.#room({ from, to }, []) },
      { instead: [], said: (made) => `A new phrase in ${made ? this.barsOf(made) : `bar ${first + 1}`}` }
    );
  }

  #notesOf({ notes }: LinePhrase): readonly LineNote[] {
    return this.#notes.slice(notes.first, notes.end);
  }

  /** "bar 5", "bars 5 and 6", "bars 5 to 8". */
  barsOf({ first, bars }: Gap): string {
    const numberOf = (bar: number) => this.#bars[bar]?.number ?? bar + 1;
    const [from, to] = [numberOf(first), numberOf(first + bars - 1)];
    if (from === to) return `bar ${from}`;
    return `bars ${from} ${bars === 2 ? 'and' : 'to'} ${to}`;
  }
}
