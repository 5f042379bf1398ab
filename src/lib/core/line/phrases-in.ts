/**
 * The phrases of a line, told by its silences, whoever wrote it: their bars, how they begin, and how each takes up an earlier one.
 * Source: docs/music-rules.md, Phrases, Read in a line.
 */
import { firstOf, lastOf, nth } from '../base/list';
import type { Ticks } from '../base/units';
import type { PlayedBar } from '../chart/unroll';
import type { Stretch } from './edit';
import { endOf, type LineNote } from './model';
import { barAt, gridOf, pulseAt, type Grid } from './phrase/grid';
import type { PhraseStart, Relation } from './phrase/styles';

/** A phrase as a block; its stretch goes from its first note to the end of its last one, in ticks. */
export interface LinePhrase extends Stretch {
  /** Its notes by their places in the line; `end` is the first that is left out. */
  readonly notes: { readonly first: number; readonly end: number };
  /** Bar of the form, from 0: the one that a pickup leads into. */
  readonly first: number;
  readonly bars: number;
  readonly start: PhraseStart;
  /** "A", "B" as they come; "A′" for one that takes A up with a difference. */
  readonly name: string;
  /** The earlier phrase that it takes up, by its place, and how. */
  readonly like?: { readonly of: number; readonly how: Relation };
}

/** Phrases before one that it may take up. */
const REMEMBERED = 12;
/** Parts of a phrase: that must be the same for it to be said again, and that a variation keeps. */
const SAME = 0.75;
const HEAD = 0.6;
/** Semitones by which a step of a sequence may differ from its model's. */
const LED = 2;
const PRIMES = ['', '′', '″', '‴'];

/** Splits a line where at least a beat is silent (two eighths where three make a beat). */
export function phrasesIn(notes: readonly LineNote[], bars: readonly PlayedBar[]): LinePhrase[] {
  if (notes.length === 0 || bars.length === 0) return [];
  const grid = gridOf(bars);
  const spans: { first: number; end: number }[] = [];
  let begin = 0;
  let sounds = endOf(firstOf(notes));
  for (let i = 1; i <= notes.length; i++) {
    const next = notes[i];
    if (next && next.start - sounds < breathAt(grid, next.start)) {
      sounds = Math.max(sounds, endOf(next));
      continue;
    }
    spans.push({ first: begin, end: i });
    begin = i;
    sounds = next ? endOf(next) : sounds;
  }
  const shapes = spans.map((span) => shapeOf(notes.slice(span.first, span.end), grid));
  const names = new Namer();
  return spans.map((span, i): LinePhrase => {
    const { first, bars: count, start } = nth(shapes, i);
    const like = likeOf(shapes, i);
    const own = notes.slice(span.first, span.end);
    return {
      notes: span,
      from: firstOf(own).start,
      to: Math.max(...own.map(endOf)),
      first,
      bars: count,
      start,
      name: names.next(i, like),
      ...(like ? { like } : {})
    };
  });
}

/** The silence that parts two phrases, in ticks. */
export function breathAt(grid: Grid, ticks: Ticks): number {
  const { length, isTriple } = pulseAt(grid, ticks);
  return isTriple ? (2 * length) / 3 : length;
}

interface Shape {
  readonly first: number;
  readonly bars: number;
  readonly start: PhraseStart;
  /** Times from the start of its first bar, and pitches, of the upper voice. */
  readonly times: readonly number[];
  readonly midis: readonly number[];
}

function shapeOf(own: readonly LineNote[], grid: Grid): Shape {
  const upper = own.filter((note, i) => own[i + 1]?.start !== note.start);
  const from = firstOf(upper).start;
  const last = lastOf(upper).start;
  const bar = barAt(grid, from);
  const { start, end, pulses } = nth(grid.bars, bar);
  const lead = end - from;
  // At most two pulses before a bar line that it goes over; before the first bar everything leads in.
  const leadsOver =
    bar + 1 < grid.bars.length && last >= end && from > start && lead <= 2 * lastOf(pulses).length;
  const first = leadsOver ? bar + 1 : bar;
  const line = nth(grid.bars, first).start;
  return {
    first,
    bars: Math.max(1, barAt(grid, last) - first + 1),
    start: from < line ? 'pickup' : from === line ? 'one' : 'after',
    times: upper.map((note) => note.start - line),
    midis: upper.map(({ midi }) => midi)
  };
}

/** How a phrase takes up one before it, the nearest first. */
function likeOf(shapes: readonly Shape[], i: number): LinePhrase['like'] {
  const own = nth(shapes, i);
  for (let of = i - 1; of >= Math.max(0, i - REMEMBERED); of--) {
    const how = relationBetween(nth(shapes, of), own);
    if (how) return { of, how };
  }
  return undefined;
}

function relationBetween(model: Shape, own: Shape): Relation | null {
  const count = Math.max(own.times.length, model.times.length);
  // A phrase that lost a note for a breath still says what it said.
  const twins = own.times.map((time) => model.times.indexOf(time));
  const pairs = twins.flatMap((twin, n) =>
    twin < 0 ? [] : [{ from: nth(model.midis, twin), to: nth(own.midis, n) }]
  );
  if (pairs.length < 2) return null;
  const isSameRhythm = pairs.length >= SAME * count;
  if (isSameRhythm) {
    const same = pairs.filter(({ from, to }) => from === to).length;
    if (same >= SAME * count) return 'literal';
    // What stays where it was is no sequence, however alike its steps.
    const isElsewhere = same <= (1 - SAME) * count;
    const isMoved =
      isElsewhere &&
      pairs.every(({ from, to }, n) => {
        if (n === 0) return from !== to;
        const [step, wanted] = [to - nth(pairs, n - 1).to, from - nth(pairs, n - 1).from];
        return Math.abs(step - wanted) <= LED && Math.sign(step) === Math.sign(wanted);
      });
    if (isMoved) return 'sequence';
  }
  const head = Math.ceil(HEAD * Math.min(own.times.length, model.times.length));
  const isVaried =
    head >= 3 && twins.slice(0, head).every((twin, n) => twin === n && own.midis[n] === model.midis[n]);
  if (isVaried) return 'varied';
  return isSameRhythm ? 'same rhythm' : null;
}

/** Letters as they come; what takes one up has it too, with a prime where it differs. */
/** The bars of the phrases of a line, counted from 1, both in; a pickup belongs to the bar it leads into. */
export function phraseBars(
  notes: readonly LineNote[],
  bars: readonly PlayedBar[]
): readonly { readonly from: number; readonly to: number }[] {
  const spans = phrasesIn(notes, bars).map(({ first, bars: count }) => ({
    from: first + 1,
    to: Math.min(bars.length, first + Math.max(1, count))
  }));
  // Two that share a bar are looped as one.
  return spans.reduce<{ from: number; to: number }[]>((own, span) => {
    const last = own.at(-1);
    if (last && span.from <= last.to) last.to = Math.max(last.to, span.to);
    else own.push({ ...span });
    return own;
  }, []);
}

class Namer {
  readonly #letters: string[] = [];
  readonly #primes: number[] = [];
  readonly #variants = new Map<string, number>();
  #count = 0;

  next(i: number, like: LinePhrase['like']): string {
    const letter = like ? nth(this.#letters, like.of) : letterOf(this.#count++);
    let prime = 0;
    if (like?.how === 'literal') prime = nth(this.#primes, like.of);
    else if (like) this.#variants.set(letter, (prime = (this.#variants.get(letter) ?? 0) + 1));
    this.#letters[i] = letter;
    this.#primes[i] = prime;
    return letter + (PRIMES[prime] ?? `′${prime}`);
  }
}

/** A, B … Z, AA, AB … */
function letterOf(n: number): string {
  const last = String.fromCharCode(65 + (n % 26));
  return n < 26 ? last : letterOf(Math.floor(n / 26) - 1) + last;
}

/** Bars without a note. */
export interface Gap {
  /** Bar of the form, from 0. */
  readonly first: number;
  readonly bars: number;
}

/** Bars in which no phrase sounds, those beside one another as one gap. */
export function gapsIn(phrases: readonly LinePhrase[], { bars }: Grid): Gap[] {
  const gaps: { first: number; bars: number }[] = [];
  bars.forEach(({ start, end }, bar) => {
    if (phrases.some(({ from, to }) => from < end && start < to)) return;
    const last = gaps.at(-1);
    if (last && last.first + last.bars === bar) last.bars++;
    else gaps.push({ first: bar, bars: 1 });
  });
  return gaps;
}
