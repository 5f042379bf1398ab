/** What is played round and round: the form, a section, bars, one change, or a pair of changes. Times start at 0. */
import { firstOf, nth } from '../base/list';
import type { Beats } from '../base/units';
import type { Form, PlayedBar } from '../chart/unroll';
import type { Meter } from '../chart/model';
import type { AnalysedChange, Analysis } from './analysis';

export type LoopWish =
  | { readonly kind: 'form' }
  /** From the bar a section starts in to its end. */
  | { readonly kind: 'section'; readonly bar: number }
  /** Bars from…to, both in, counted from 1. */
  | { readonly kind: 'bars'; readonly from: number; readonly to: number }
  /** One chord as a drone. */
  | { readonly kind: 'change'; readonly change: number }
  /** A change and the one after it, isolated. */
  | { readonly kind: 'pair'; readonly change: number };

/** A change inside an excerpt. */
export interface PlayedChange {
  /** Its place in the analysis. */
  readonly source: AnalysedChange;
  readonly start: Beats;
  readonly beats: Beats;
}

/** A bar inside an excerpt. */
export interface ExcerptBar {
  readonly start: Beats;
  /** In beats of the chart's meter. */
  readonly beats: Beats;
  /** Its own meter; of an isolated change that is shorter than a bar, as many of its beats as the change has. */
  readonly meter: Meter;
  readonly section: string;
}

export interface Excerpt {
  /** The beat of the form that it begins with. */
  readonly from: number;
  readonly changes: readonly PlayedChange[];
  /** One after another, without a gap. */
  readonly bars: readonly ExcerptBar[];
  readonly beats: Beats;
}

/** Bars that a chord stands as a drone. */
const DRONE_BARS = 4;

/** Cuts an excerpt out of a form; null where the wish is empty, such as a loop whose end lies before its start. */
export function excerptOf(form: Form, analysis: Analysis, wish: LoopWish): Excerpt | null {
  switch (wish.kind) {
    case 'form':
      return between(form, analysis, 0, form.beats);
    case 'section':
      return ofBars(form, analysis, wish.bar, lastBarOfSection(form, wish.bar));
    case 'bars':
      return ofBars(form, analysis, wish.from, wish.to);
    case 'change': {
      const change = analysis.changes[wish.change];
      return change ? drone(change, barAt(form, change.start)) : null;
    }
    case 'pair': {
      const first = analysis.changes[wish.change];
      const second = analysis.changes[(wish.change + 1) % analysis.changes.length];
      return first && second && first !== second ? joined(form, [first, second]) : null;
    }
  }
}

/**
 * A wish as the form can grant it: after an edit a loop may lie past the end of the chart. `said` tells in a sentence what
 * became of it. Null where nothing is left to play.
 */
export function grantedLoop(
  form: Form,
  analysis: Analysis,
  wish: LoopWish
): { readonly loop: LoopWish; readonly said: string } | null {
  const last = form.bars.length;
  const count = analysis.changes.length;
  if (count === 0 || last === 0) return null;
  if (excerptOf(form, analysis, wish)) return { loop: wish, said: '' };
  switch (wish.kind) {
    case 'form':
      return null;
    case 'section':
      return {
        loop: { kind: 'form' },
        said: 'The section you looped was deleted; the whole form is played.'
      };
    case 'bars': {
      const loop = { kind: 'bars', from: Math.min(wish.from, last), to: Math.min(wish.to, last) } as const;
      const bars = loop.from === loop.to ? `bar ${loop.to}` : `bars ${loop.from} to ${loop.to}`;
      return { loop, said: `The chart now ends with bar ${last}; the loop is ${bars}.` };
    }
    case 'change':
    case 'pair': {
      const change = Math.min(wish.change, count - 1);
      const kind = count > 1 ? wish.kind : 'change';
      const { symbol } = nth(analysis.changes, change);
      return { loop: { kind, change }, said: `The chord you looped was deleted; ${symbol} is played.` };
    }
  }
}

function barAt(form: Form, beat: number): PlayedBar {
  return form.bars.findLast(({ start }) => start <= beat + 1e-9) ?? firstOf(form.bars);
}

function lastBarOfSection(form: Form, bar: number): number {
  const section = form.bars[bar - 1]?.section;
  const after = form.bars.findIndex((one) => one.number > bar && one.section !== section);
  return after < 0 ? form.bars.length : after;
}

function ofBars(form: Form, analysis: Analysis, from: number, to: number): Excerpt | null {
  const [first, last] = [form.bars[from - 1], form.bars[to - 1]];
  if (!first || !last || to < from) return null;
  return between(form, analysis, first.start, last.start + last.beats);
}

/** The changes that sound between two beats of the form, cut where they reach over them. */
function between(form: Form, analysis: Analysis, from: number, to: number): Excerpt | null {
  const changes = analysis.changes.flatMap((source): PlayedChange[] => {
    const start = Math.max(from, source.start);
    const end = Math.min(to, source.start + source.beats);
    return end > start ? [{ source, start: start - from, beats: end - start }] : [];
  });
  const bars = form.bars
    .filter(({ start }) => start >= from && start < to)
    .map(({ start, beats, meter, section }) => ({ start: start - from, beats, meter, section }));
  return changes.length ? { from, changes, bars, beats: to - from } : null;
}

function drone(source: AnalysedChange, { beats, meter, section }: PlayedBar): Excerpt {
  const bars = Array.from({ length: DRONE_BARS }, (_, i) => ({ start: i * beats, beats, meter, section }));
  const whole = DRONE_BARS * beats;
  return { from: source.start, changes: [{ source, start: 0, beats: whole }], bars, beats: whole };
}

/** Changes one after another, each as long as it is in the form, cut into bars of the meter it stands in. */
function joined(form: Form, sources: readonly AnalysedChange[]): Excerpt {
  const changes: PlayedChange[] = [];
  const bars: ExcerptBar[] = [];
  let start = 0;
  for (const source of sources) {
    const { beats: whole, meter, section } = barAt(form, source.start);
    changes.push({ source, start, beats: source.beats });
    for (let at = 0; at < source.beats - 1e-9; at += whole) {
      const beats = Math.min(whole, source.beats - at);
      const counted = Math.max(1, Math.round((beats / whole) * meter.beats));
      bars.push({ start: start + at, beats, meter: { ...meter, beats: counted }, section });
    }
    start += source.beats;
  }
  return { from: firstOf(sources).start, changes, bars, beats: start };
}

/** The change that sounds at a beat of the excerpt. */
export function playedAt({ changes }: Excerpt, beat: number): number {
  const at = changes.findIndex(({ start, beats }) => beat >= start - 1e-9 && beat < start + beats - 1e-9);
  return Math.max(0, at);
}
