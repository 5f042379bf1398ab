/** Writing on the bars of a chart: where the caret stands, what is typed there, which bars are selected, and what is proposed. */
import { writtenBars, type WrittenBar } from '$lib/core/chart/writing/bars';
import { splitOf, type BarChord } from '$lib/core/chart/writing/beats';
import * as edits from '$lib/core/chart/writing/edits';
import { problemsByBar } from '$lib/core/chart/writing/problems';
import { isAt, NEAR, typedInto } from '$lib/core/chart/writing/typed';
import type { ChartProblem, Place as TextPlace } from '$lib/core/chart/model';
import type { Draft } from '../chart/drafts';
import type { Workspace } from '../chart/workspace.svelte';
import { Proposals, type Caret } from './proposals.svelte';

/** What is being typed at the caret, and the draft in which that began. */
interface Typing {
  readonly text: string;
  readonly since: Draft;
  /** Tells one stay at a place from the next, for undo. */
  readonly run: number;
}

export class Writing {
  readonly #workspace: Workspace;
  caret: Caret = $state.raw({ bar: 0, beat: 0 });
  /** The other end of a selection of bars. */
  anchor: number | null = $state(null);
  #typing: Typing | null = $state.raw(null);
  #runs = 0;
  /** The change that the page shows because the caret stands there. */
  #shown = -1;
  readonly proposals: Proposals;

  constructor(workspace: Workspace) {
    this.#workspace = workspace;
    this.proposals = new Proposals(this, workspace);
  }

  get #document() {
    return this.#workspace.document;
  }

  /** The text as it is now, with what is being typed. */
  settled(): string {
    this.settle();
    return this.#document.source;
  }

  readonly bars: readonly WrittenBar[] = $derived.by(() => writtenBars(this.#workspace.sheet.reading.chart));
  /** The bar of the caret; undefined behind the last one. */
  readonly bar = $derived.by(() => this.bars[this.caret.bar]);
  /** The chord that begins at the caret. */
  readonly chord: BarChord | undefined = $derived.by(() =>
    this.bar?.chords.find((one) => isAt(one, this.caret.beat))
  );
  /** What is typed, or stands at the caret. */
  readonly text = $derived.by(
    () => this.#typing?.text ?? this.chord?.symbol ?? (this.bar ? '%'.repeat(this.bar.repeats) : '')
  );
  readonly isTyping = $derived.by(() => this.#typing !== null);
  /** The bars that are selected, both in; the one of the caret where no more are. */
  readonly selection: edits.Stretch = $derived.by(() => {
    const last = Math.max(0, this.bars.length - 1);
    const [a, b] = [Math.min(this.caret.bar, last), Math.min(this.anchor ?? this.caret.bar, last)];
    return { from: Math.min(a, b), to: Math.max(a, b) };
  });
  readonly hasSelection = $derived.by(() => this.anchor !== null && this.anchor !== this.caret.bar);

  /** The change that the caret's chord is, as it is played first; undefined where none is. */
  readonly change = $derived.by(() => {
    const { bar, chord } = this;
    if (!bar || !chord) return undefined;
    const place = this.#workspace.sheet.reading.places.get(bar.line)?.[bar.at]?.[chord.cell];
    return this.#workspace.changes.find(
      (one) => place && one.place?.line === place.line && one.place.column === place.column
    );
  });
  /** What is wrong in each bar, by its number. */
  readonly problems: ReadonlyMap<number, readonly ChartProblem[]> = $derived.by(() =>
    problemsByBar(this.bars, this.#workspace.sheet.problems, this.#workspace.sheet.reading.places)
  );

  // Going about.

  /** To a place; what was typed stays. The page shows the change that stands there. */
  go(bar: number, beat = 0, isExtending = false): void {
    this.settle();
    const before = this.caret.bar;
    this.caret = { bar: Math.max(0, Math.min(this.bars.length, bar)), beat };
    this.anchor = isExtending ? (this.anchor ?? before) : null;
    this.proposals.walked = -1;
    this.#follow();
  }

  /** To the change that the page has come to show, unless it was shown because the caret is there, or something is being typed. */
  follow(selected: number): void {
    const place = this.#workspace.changes[selected]?.place;
    if (!place || this.#typing || selected === this.#shown) return;
    this.#shown = selected;
    const bar = this.bars.find((one) => one.line === place.line - 1 && this.#chordAt(one, place));
    const chord = bar && this.#chordAt(bar, place);
    if (bar && chord) this.caret = { bar: bar.index, beat: chord.beat };
  }
  #chordAt(bar: WrittenBar, { column }: TextPlace): BarChord | undefined {
    const places = this.#workspace.sheet.reading.places.get(bar.line)?.[bar.at];
    return bar.chords.find(({ cell }) => places?.[cell]?.column === column);
  }

  /** Shows the change of the caret where the page shows changes. */
  #follow(): void {
    const { change } = this;
    if (change && this.#workspace.change?.place !== change.place) this.#workspace.select(change.index, false);
    this.#shown = this.#workspace.selected;
  }

  /** Shows what is being typed where the page shows changes, once it has been read. */
  showTyped(): void {
    if (this.#typing) this.#follow();
  }

  /** To the next chord, or the next bar where there is none: forwards (1) or back (−1). */
  walk(direction: 1 | -1): void {
    const { bar, beat } = this.caret;
    const own = this.bars[bar]?.chords ?? [];
    const next =
      direction > 0
        ? own.find((one) => one.beat > beat + NEAR)
        : own.findLast((one) => one.beat < beat - NEAR);
    if (next) this.go(bar, next.beat);
    else if (direction > 0) this.go(bar + 1, this.firstBeat(bar + 1));
    else if (bar > 0) this.go(bar - 1, this.bars[bar - 1]?.chords.at(-1)?.beat ?? 0);
  }

  /** Where the first chord of a bar begins. */
  firstBeat(bar: number): number {
    return this.bars[bar]?.chords[0]?.beat ?? 0;
  }

  walkBars(by: number, isExtending = false): void {
    const goal = Math.max(0, Math.min(this.bars.length, this.caret.bar + by));
    this.go(goal, this.firstBeat(goal), isExtending);
  }

  selectAll(): void {
    this.go(0);
    this.anchor = Math.max(0, this.bars.length - 1);
  }

  /** Selects from the caret to a bar. */
  extendTo(bar: number): void {
    this.go(bar, this.firstBeat(bar), true);
  }

  /** The caret stands at the very first place. */
  get isAtFirst(): boolean {
    return this.caret.bar === 0 && !this.bars[0]?.chords.some(({ beat }) => beat < this.caret.beat - NEAR);
  }

  /** The caret stands behind the last bar. */
  get isBehind(): boolean {
    return this.caret.bar >= this.bars.length;
  }

  // Typing.

  /** Takes over what is typed at the caret; the chart follows as it is typed. */
  type(text: string): void {
    this.#typing ??= { text, since: this.#document.draft, run: ++this.#runs };
    this.#typing = { ...this.#typing, text };
    this.proposals.walked = -1;
    this.#write(text);
  }

  #write(text: string): void {
    const { since, run } = this.#typing!;
    const source = typedInto(since.source, this.caret, text);
    this.#document.type(source, { kind: `bar ${run}`, since });
    this.#follow();
  }

  /** What is typed is done with. */
  settle(): void {
    if (this.#typing) this.#document.settle();
    this.#typing = null;
  }

  /** What is typed is taken back; false where nothing was. */
  cancel(): boolean {
    const typing = this.#typing;
    this.#typing = null;
    this.proposals.walked = -1;
    if (!typing) return false;
    this.#document.type(typing.since.source, { kind: `bar ${typing.run}`, since: typing.since });
    this.#document.settle();
    return true;
  }

  /** Takes a suggestion by its place in the list, and goes to the next bar. */
  take(index: number, isGoingOn = true): void {
    const own = this.proposals.suggestions[index];
    if (!own) return;
    this.type(own.symbol);
    if (isGoingOn) this.enter();
  }

  /** The suggestion that is walked to, else what is typed, stands. */
  #accept(): void {
    const own = this.proposals.own;
    if (own) this.type(own.symbol);
    this.settle();
  }

  /** To the next bar; behind the last one a new bar is begun with what is typed there. */
  enter(): void {
    this.#accept();
    const { bar } = this.caret;
    this.go(bar + 1, this.firstBeat(bar + 1));
  }

  /** To the next chord or bar. */
  step(direction: 1 | -1): void {
    this.#accept();
    this.walk(direction);
  }

  /** A further chord in the same bar: it takes half the time of this one. */
  split(): void {
    this.#accept();
    const { chord } = this;
    if (!chord) return;
    this.caret = { bar: this.caret.bar, beat: splitOf(chord) };
    this.proposals.walked = -1;
  }

  /** Uses what is proposed for a symbol that is not understood. */
  mend(symbol: string): void {
    this.type(symbol);
    this.settle();
  }

  /** An edit of the text that is undone by itself; the caret goes to a bar afterwards. */
  edit(turn: (source: string) => string, said: string, bar = this.caret.bar, beat?: number): void {
    this.settle();
    const source = turn(this.#document.source);
    if (source !== this.#document.source) {
      this.#document.setSource(source, { kind: `bars ${++this.#runs}` });
      this.#workspace.say(said);
    }
    const goal = Math.max(0, Math.min(this.bars.length, bar));
    this.caret = { bar: goal, beat: beat ?? this.firstBeat(goal) };
    this.#follow();
  }
}
