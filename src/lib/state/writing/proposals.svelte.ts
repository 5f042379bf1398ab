/** What is proposed at the caret: chords that fit there, those of the key and of this chart; and what stands there, read. */
// The set here is made anew and never changed in place, so that a plain one serves.
/* eslint-disable svelte/prefer-svelte-reactivity */
import type { WrittenBar } from '$lib/core/chart/writing/bars';
import type { AnalysedChange } from '$lib/core/harmony/analysis';
import { romanText } from '$lib/core/harmony/numeral';
import { chordsOfKey, suggestionsAt, type Place, type Suggestion } from '$lib/core/harmony/suggest';
import { readChord } from '$lib/core/theory/chord-reader';
import type { Workspace } from '../chart/workspace.svelte';

/** A place where a chord stands or may stand; the bar behind the last one is a place as well. */
export interface Caret {
  readonly bar: number;
  /** Beat of the bar's meter, from 0. */
  readonly beat: number;
}

/** The caret, and what is written and typed there. */
interface Written {
  readonly bars: readonly WrittenBar[];
  readonly caret: Caret;
  /** The change that stands at the caret. */
  readonly change: AnalysedChange | undefined;
  readonly text: string;
  readonly isTyping: boolean;
}

/** Chords of the chart that a pad offers. */
const RECENT = 10;

export class Proposals {
  /** Which suggestion is walked to; −1 for none. */
  walked = $state(-1);

  readonly #written: Written;
  readonly #workspace: Workspace;

  constructor(written: Written, workspace: Workspace) {
    this.#written = written;
    this.#workspace = workspace;
  }

  /** The caret and what is known round it. */
  readonly #place: Place = $derived.by(() => {
    const { analysis, changes, sheet } = this.#workspace;
    const { bars, caret, change } = this.#written;
    const before = change ?? this.#changeBefore();
    const hasKey = analysis.declared || changes.some(({ chord }) => chord !== null);
    return {
      bars,
      ...caret,
      key: hasKey ? (before?.key ?? analysis.key) : null,
      isBlues: analysis.blues,
      style: sheet.head.style === null && changes.length === 0 ? null : analysis.style
    };
  });
  readonly suggestions: readonly Suggestion[] = $derived.by(() =>
    suggestionsAt(this.#place, this.#written.isTyping ? this.#written.text : '')
  );
  /** The suggestion that is walked to. */
  get own(): Suggestion | undefined {
    return this.suggestions[this.walked];
  }
  /** The chords of the key and the dominants before them. */
  readonly keyChords = $derived.by(() => chordsOfKey(this.#place));
  /** The chords of this chart, the latest first. */
  readonly recentChords = $derived.by(() => {
    const all = this.#written.bars.flatMap(({ chords }) => chords.map(({ symbol }) => symbol));
    const read = [...new Set(all.reverse())].filter((symbol) => readChord(symbol).kind === 'chord');
    return read.slice(0, RECENT);
  });

  /** What stands at the caret: its tones and its numeral, or why it is not understood. */
  readonly reading = $derived.by(() => {
    const text = this.#written.text.trim();
    if (!text || text.startsWith('%')) return null;
    const read = readChord(text);
    if (read.kind === 'problem') return { kind: 'problem' as const, problem: read.problem };
    if (read.kind === 'none') return { kind: 'none' as const };
    const { change } = this.#written;
    const numeral = change?.symbol === text && change.numeral ? romanText(change.numeral) : null;
    return { kind: 'chord' as const, chord: read.chord, numeral, key: change?.key ?? null };
  });

  #changeBefore(): AnalysedChange | undefined {
    const { bar, beat } = this.#written.caret;
    const last = this.#written.bars
      .slice(0, bar + 1)
      .findLast(({ chords, index }) => chords.some((own) => index < bar || own.beat < beat));
    return last && this.#workspace.changes.findLast(({ place }) => place?.line === last.line + 1);
  }

  /** Walks the suggestions; over either end nothing is walked to. */
  walk(direction: 1 | -1): void {
    const count = this.suggestions.length;
    const at = this.walked + direction;
    this.walked = at >= count ? -1 : at < -1 ? count - 1 : at;
  }
}
