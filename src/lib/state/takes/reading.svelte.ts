/** What is shown of the opened take: one round of it as a line with places, and what of that lies over the change that is looked at. */
import { nth } from '$lib/core/base/list';
import type { AnalysedChange } from '$lib/core/harmony/analysis';
import { endOf, ticksOf, type LineNote } from '$lib/core/line/model';
import { notesOver } from '$lib/core/line/over-change';
import { placeNotes } from '$lib/core/line/place';
import { readLine } from '$lib/core/line/read';
import { beatOf } from '$lib/core/takes/align';
import type { Replaying } from './replay.svelte';
import type { Takes } from './takes.svelte';

/** Beats before a round, or a change, within which it is taken as begun. */
const NEARLY = { round: 0.05, note: 0.1 };

/** Some bars of the form, both in. */
export interface Passage {
  readonly from: number;
  readonly to: number;
}

export class TakeReading {
  /** The round that is shown, from 0. */
  round = $state(0);
  /** Bars that were marked: what is looped or kept. */
  passage: Passage | null = $state.raw(null);

  readonly #takes: Takes;
  readonly #replaying: Replaying;

  constructor(takes: Takes, replaying: Replaying) {
    this.#takes = takes;
    this.#replaying = replaying;
  }

  readonly rounds: number = $derived.by(() => this.#takes.judging.judgement?.figures.rounds ?? 1);
  /** Beats of the form that the take was played to. */
  readonly formBeats: number = $derived.by(() => this.#takes.judging.arranged?.sheet.form.beats ?? 0);
  /** The selected change, as far as the chart of the take has it. */
  readonly selected: number = $derived.by(() =>
    Math.min(this.#takes.workspace.selected, (this.#takes.judging.arranged?.analysis.changes.length ?? 1) - 1)
  );
  readonly change: AnalysedChange | undefined = $derived.by(
    () => this.#takes.judging.arranged?.analysis.changes[this.selected]
  );
  /** Where the replay is in the round, in beats; null at rest. */
  readonly time: number | null = $derived.by(() =>
    this.#replaying.beat === null ? null : this.#replaying.beat - this.round * this.formBeats
  );

  /** The round as a line, with places on the neck. */
  readonly line: readonly LineNote[] = $derived.by(() => {
    const { judgement, arranged } = this.#takes.judging;
    if (!judgement || !arranged) return [];
    const [from, to] = [ticksOf(this.round * this.formBeats), ticksOf((this.round + 1) * this.formBeats)];
    const own = judgement.line
      .filter(({ start }) => start >= from && start < to)
      .map((note) => ({ ...note, start: note.start - from }));
    // Where the plan has the hand, if all of it lies there; else where the hand has it easiest.
    const { neck, home } = arranged;
    const placings = [{ position: home }, {}].flatMap(
      (wish) => placeNotes(own, { neck, alternatives: 1, ...wish }).places
    );
    return placings[0]?.notes ?? own;
  });
  readonly #reading = $derived.by(() => {
    const { arranged } = this.#takes.judging;
    if (!arranged) return null;
    const { sheet, analysis, chosen } = arranged;
    return readLine({ meter: sheet.head.meter, notes: this.line }, { form: sheet.form, analysis, chosen });
  });
  /** While it is replayed the neck shows the change that sounds. */
  readonly #shownChange: AnalysedChange | undefined = $derived.by(() => {
    const { time, change } = this;
    const changes = this.#takes.judging.arranged?.analysis.changes;
    if (!changes || time === null) return change;
    return changes.findLast(({ start }) => start <= time + NEARLY.round) ?? change;
  });
  /** The notes over that change, with what each is there. */
  readonly over = $derived.by(() => {
    const reading = this.#reading;
    return this.#shownChange && reading
      ? notesOver(this.line, this.#shownChange).map(({ note, index }) => ({
          note,
          read: nth(reading.notes, index)
        }))
      : [];
  });
  /** The first note behind it. */
  readonly next: LineNote | null = $derived.by(() => {
    if (!this.#shownChange) return null;
    const end = ticksOf(this.#shownChange.start + this.#shownChange.beats);
    return this.line.find(({ start }) => start >= end) ?? null;
  });
  /** Where the note that sounds begins; null where none does. */
  readonly lit: number | null = $derived.by(() => {
    if (this.time === null) return null;
    const at = ticksOf(this.time);
    return this.line.find((note) => at >= note.start && at < endOf(note))?.start ?? null;
  });

  /** Another take is read from its first round. */
  begin(): void {
    this.round = 0;
    this.passage = null;
  }

  /** Shows the round in which the replay is. */
  followReplay(): void {
    const { beat } = this.#replaying;
    if (beat !== null) this.#show(beat + NEARLY.round);
  }

  /** Shows the round in which the note that is corrected lies. */
  followCorrection(): void {
    const { correcting, shelf } = this.#takes;
    const data = shelf.opened?.data;
    const note = correcting.selected === null ? undefined : data?.notes[correcting.selected];
    if (data && note) this.#show(beatOf(data, note.at) + NEARLY.note);
  }

  #show(beat: number): void {
    if (this.formBeats === 0) return;
    this.round = Math.max(0, Math.min(this.rounds - 1, Math.floor(beat / this.formBeats)));
  }

  /** Loops the selected change in the round that is shown. */
  loopChange(): void {
    if (!this.change) return;
    const from = this.change.start + this.round * this.formBeats;
    void this.#replaying.loop(from, from + this.change.beats);
  }

  /** Marks bars; the other end gives way where it would come first. */
  mark(end: 'from' | 'to', bar: number): void {
    const own = this.passage ?? { from: this.change?.bar ?? 1, to: this.change?.bar ?? 1 };
    const marked = { ...own, [end]: bar };
    this.passage = marked.from <= marked.to ? marked : { from: bar, to: bar };
  }

  /** Loops the bars that were marked, in the round that is shown. */
  loopPassage(): void {
    const { passage } = this;
    const bars = this.#takes.judging.arranged?.sheet.form.bars;
    const [first, last] = [passage?.from, passage?.to].map((number) =>
      bars?.find((bar) => bar.number === number)
    );
    if (!first || !last) return;
    const begun = this.round * this.formBeats;
    void this.#replaying.loop(begun + first.start, begun + last.start + last.beats);
  }
}
