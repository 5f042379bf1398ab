/**
 * Seams: single bars where an item goes wrong again and again (docs/music-rules.md, *Practice*). One opens at four stumbles in sixteen
 * passes of a bar, on two days, at four times the share of the other bars; it heals by eight clean passes near the tempo it
 * failed at, and then is left alone for five days.
 */
import { entryOf, nth } from '../../base/list';
import { boundedTempo } from '../ladder';
import { dayAfter } from '../log/day';
import type { Bars } from '../log/model';
import type { Loops } from './loops';

/** What opens a seam: stumbles, in how many passes, on how many days, at how many times the share of the other bars. */
const OPENS = { stumbles: 4, passes: 16, days: 2, times: 4 };
/** Clean passes that heal it, from which share of the tempo at which it fails, and the days of quiet after it. */
const HEALS = { passes: 8, from: 0.92, quiet: 5 };
/** Share of the tempo it fails at, from which it is practised. */
const SEAM_START = 0.8;

const ALL = (1 << OPENS.passes) - 1;

interface BarPasses {
  /** Loops that are counted already. */
  seen: number;
  /** The latest passes, the last in the lowest bit: set where it went wrong. */
  mask: number;
  passes: number;
  /** The latest stumbles: at which pass, tempo, day. */
  fails: { readonly pass: number; readonly tempo: number; readonly day: string }[];
  open: { readonly tempo: number; readonly since: string; clean: number; stumbles: number } | null;
  quietUntil: string;
}

interface PassedLoop extends Bars {
  readonly tempo: number;
  readonly day: string;
  readonly at: readonly number[];
  readonly count: number;
}

/** The loops of an item, and the bars of it that ever went wrong: these alone are counted, when they are asked for. */
export interface Passes {
  /** Bars passed, and times the whole was, before anything ever went wrong: only how many they were is known. */
  quietBars: number;
  quiet: number;
  readonly loops: PassedLoop[];
  readonly bars: Map<number, BarPasses>;
}

/** No passes yet. */
export const newPasses = (): Passes => ({ quietBars: 0, quiet: 0, loops: [], bars: new Map() });

export interface Seam {
  /** The bar that goes wrong. */
  readonly bar: number;
  /** Beats a minute at which it fails, and those to begin from. */
  readonly tempo: number;
  readonly start: number;
  readonly stumbles: number;
  readonly since: string;
  /** The bar before and the bar: what is looped. */
  readonly loop: Bars;
}

const newBar = (seen: number): BarPasses => ({
  seen,
  mask: 0,
  passes: 0,
  fails: [],
  open: null,
  quietUntil: ''
});

function bits(mask: number): number {
  let count = 0;
  for (let rest = mask; rest; rest &= rest - 1) count += 1;
  return count;
}

/** Takes loops over bars from `from` on. A loop of which only the mark is known says nothing of single bars. */
export function passBars(passes: Passes, { loop, count }: Loops, from: number, day: string): void {
  const { length, tempo, at, stumbles } = loop;
  if (stumbles > 0 && at.length === 0) return;
  const { loops, bars } = passes;
  if (stumbles === 0 && bars.size === 0) {
    passes.quietBars += count * length;
    if (loop.bars === null) passes.quiet += count;
    return;
  }
  loops.push({ from, to: from + length - 1, tempo, day, at, count });
  for (const bar of at) {
    if (!bars.has(bar)) bars.set(bar, { ...newBar(0), passes: Math.min(OPENS.passes, passes.quiet) });
    countUp(passes, bar);
  }
}

/** Counts the loops over a bar that have come since it was last looked at. */
function countUp(passes: Passes, number: number): BarPasses {
  const bar = entryOf(passes.bars, number);
  const { loops } = passes;
  while (bar.seen < loops.length) {
    const { from, to, at, tempo, day, count } = nth(loops, bar.seen);
    bar.seen += 1;
    if (number < from || number > to) continue;
    for (let i = 0; i < count; i++) pass(passes, bar, at.includes(number), tempo, day);
  }
  return bar;
}

function pass(passes: Passes, bar: BarPasses, isStumble: boolean, tempo: number, day: string): void {
  const { open } = bar;
  if (open) {
    if (isStumble) {
      open.stumbles += 1;
      open.clean = Math.max(0, open.clean - 1);
    } else if (tempo >= open.tempo * HEALS.from) open.clean += 1;
    if (open.clean >= HEALS.passes) {
      Object.assign(bar, newBar(bar.seen));
      bar.quietUntil = dayAfter(day, HEALS.quiet);
    }
    return;
  }
  if (day <= bar.quietUntil) return;
  bar.passes += 1;
  bar.mask = ((bar.mask << 1) | Number(isStumble)) & ALL;
  if (!isStumble) return;
  const { passes: now } = bar;
  bar.fails = [...bar.fails.filter((fail) => now - fail.pass < OPENS.passes), { pass: now, tempo, day }];
  const days = new Set(bar.fails.map((fail) => fail.day)).size;
  if (bar.fails.length < OPENS.stumbles || days < OPENS.days || !standsOut(passes, bar)) return;
  const tempos = bar.fails.map((fail) => fail.tempo).sort((a, b) => a - b);
  bar.open = {
    tempo: nth(tempos, Math.floor(tempos.length / 2)),
    since: day,
    clean: 0,
    stumbles: tempos.length
  };
}

/** Whether a bar goes wrong so much more often than the others do, as far as the loops up to this one tell. */
function standsOut({ loops, bars, quietBars }: Passes, bar: BarPasses): boolean {
  const latest = loops.slice(0, bar.seen).slice(-OPENS.passes);
  const own = bits(bar.mask) / Math.min(OPENS.passes, bar.passes);
  // What went well before anything went wrong counts for the others too.
  let [stumbles, played] = [0, latest.length < OPENS.passes ? quietBars : 0];
  for (const { from, to, at, count } of latest) {
    played += count * (to - from + 1);
    stumbles += count * at.length;
    for (const number of at) if (bars.get(number) === bar) stumbles -= count;
    for (const [number, one] of bars) if (one === bar && number >= from && number <= to) played -= count;
  }
  return played <= 0 || own >= (OPENS.times * stumbles) / played;
}

/** The seams that are open, the longest open first. */
export function seamsOf(passes: Passes, bars: number): readonly Seam[] {
  const seams: Seam[] = [];
  for (const bar of passes.bars.keys()) {
    const own = countUp(passes, bar);
    if (!own.open) continue;
    const { tempo, since, stumbles } = own.open;
    const from = Math.max(1, bar - 1);
    seams.push({
      bar,
      tempo,
      start: boundedTempo(tempo * SEAM_START),
      stumbles,
      since,
      loop: { from, to: Math.max(bar, Math.min(bars, from + 1)) }
    });
  }
  return seams.sort((a, b) => (a.since < b.since ? -1 : a.since > b.since ? 1 : a.bar - b.bar));
}
