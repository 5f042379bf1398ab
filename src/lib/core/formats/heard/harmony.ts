/**
 * The harmony of parts that play it without a name: chords from all that sounds, quantised to the beat, spelled by the key that they make,
 * each bar with how sure it is. Source: docs/music-rules.md, Files.
 */
import { nth } from '../../base/list';
import { pulsesOf } from '../../chart/pulses';
import { readSheet } from '../../harmony/sheet';
import { accidentalsOf } from '../../harmony/key-signature';
import { keyText, readKey, type Key } from '../../harmony/key';
import { TICKS } from '../../line/model';
import { barRanges } from '../../theory/words';
import { chartOf, type Found, type FoundBar, type FoundChord } from '../chart-of';
import type { LeftOut } from '../text/import';
import { chordsHeard, type HeardStretch } from './chords-heard';
import { keySet, symbolOf } from './naming';
import { soundings, type PlayedNote, type Sounding } from './sounding';

export interface HeardHarmony {
  readonly chords: readonly FoundChord[];
  /** As it is written in a chart. */
  readonly key: string;
  /** For each bar, 0 to 1: how sure its chords are; 1 where nothing sounds. */
  readonly sure: readonly number[];
}

/** Pulses in which chords are heard at most: some two thousand bars, as many changes as a chart may have. */
const MOST_PULSES = 8000;

/** Whether there are more pulses than are listened to. */
export function isTooLong(bars: readonly FoundBar[]): boolean {
  let pulses = 0;
  for (const { start, length, meter } of bars) {
    pulses += meter.beats > MOST_PULSES ? meter.beats : pulsesOf({ start, beats: length, meter }).length;
    if (pulses > MOST_PULSES) return true;
  }
  return false;
}

export const TOO_LONG = 'It is too long for its chords to be named; save a part of it.';

/** A bar under this is doubtful. */
const DOUBTFUL = 0.5;
/** Chords are told where the bars that sound are this sure on average. */
const CHORDS_AT_ALL = 0.45;
const SILENT = 'N.C.';

/**
 * The harmony of some parts; null where they have none that can be told, or are too long.
 * @param parts the notes of each part by itself
 * @param signature the key that the file declares; it counts where the chords belong to it as well as to the one they make
 */
export function harmonyHeard(
  bars: readonly FoundBar[],
  parts: readonly (readonly PlayedNote[])[],
  signature?: string
): HeardHarmony | null {
  if (isTooLong(bars)) return null;
  const pulses = soundings(bars, parts);
  if (pulses.length === 0 || isTuneAlone(parts.flat())) return null;
  const { stretches: first } = chordsHeard(pulses);
  const plain: Key = { tonic: 'C', mode: 'major' };
  const read = analysed(
    bars,
    named(first, pulses, () => plain)
  );
  if (!read) return null;
  const keyAt = (pulse: number): Key => {
    const { start } = nth(pulses, pulse);
    return read.changes.findLast((change) => change.start * TICKS <= start + 1)?.key ?? read.key;
  };
  const { stretches: again } = chordsHeard(
    pulses,
    pulses.map((_, i) => keySet(keyAt(i)))
  );
  const home = homeOf(bars, again, pulses, read.key, signature);
  const chords = named(again, pulses, (i) => {
    const own = keyAt(i);
    // One accidental more or less is not worth two spellings of the same chord.
    return Math.abs(accidentalsOf(own) - accidentalsOf(home)) <= 2 ? home : own;
  });
  const sure = surenessOf(bars, again, pulses);
  const sounding = sure.filter((_, i) => again.some((one) => one.row && touches(one, pulses, i)));
  const mean = sounding.reduce((sum, one) => sum + one, 0) / Math.max(1, sounding.length);
  return mean < CHORDS_AT_ALL ? null : { chords, key: keyText(home), sure };
}

/** What a player is told of chords that were named by their notes, and what the chart says of it. */
export function toldOf(heard: HeardHarmony | null): {
  readonly left: readonly LeftOut[];
  readonly said: Pick<Found, 'comment' | 'folds'>;
} {
  if (!heard) return { left: [], said: {} };
  const doubtful = heard.sure.flatMap((sure, i) => (sure < DOUBTFUL ? [i + 1] : []));
  const named = {
    text: '',
    why: 'The chords have no names in this file; they were named by what all parts play'
  };
  if (doubtful.length === 0) return { left: [named], said: { folds: true } };
  const bars = barRanges(doubtful);
  return {
    left: [
      named,
      {
        text: '',
        why: `${sentence(bars)} ${doubtful.length === 1 ? 'is' : 'are'} uncertain; listen, and correct what is wrong`
      }
    ],
    said: { folds: true, comment: `Uncertain in the file: ${bars}` }
  };
}

const sentence = (words: string) => `${words.charAt(0).toUpperCase()}${words.slice(1)}`;

/** Whether notes are one voice that goes by steps for the most part: a tune, in which chords would be guesses. */
function isTuneAlone(notes: readonly PlayedNote[]): boolean {
  const all = [...notes].sort((a, b) => a.start - b.start || a.midi - b.midi);
  const motions = all.slice(1).map((note, i) => ({
    isTogether: note.start - nth(all, i).start <= TICKS / 16,
    semitones: Math.abs(note.midi - nth(all, i).midi)
  }));
  const one = motions.filter(({ isTogether }) => !isTogether);
  if (one.length < ALONE * motions.length) return false;
  return one.filter(({ semitones }) => semitones <= 2).length > one.length / 2;
}
/** The share of notes that begin by themselves where there is one voice. */
const ALONE = 0.95;

/** By how much, for each bar, bar lines elsewhere must fit better to be moved there. */
const BETTER = 0.5;
/** Bars of which the bar lines are looked for. */
const LOOKED_AT = 64;

/**
 * Where the first bar line stands, in ticks from the start: 0 where the file has it right, more where a pickup comes before it. Chords
 * change on first beats; bars that are all cut in the same wrong place have them change elsewhere.
 */
export function firstBarLine(bars: readonly FoundBar[], parts: readonly (readonly PlayedNote[])[]): number {
  const own = bars.slice(0, LOOKED_AT);
  const [first] = own;
  if (!first || own.length < FEWEST_BARS || own.some(({ length }) => length !== first.length)) return 0;
  if (isTooLong(own)) return 0;
  const perBar = soundings([first], []).map(({ start }) => start - first.start);
  const pulses = soundings(own, parts);
  const { stretches, worth } = chordsHeard(pulses);
  if (perBar.length > MOST_SHIFTS) return 0;
  const changes = stretches.slice(1).map(({ from }) => from % perBar.length);
  if (changes.filter((at) => at === 0).length >= changes.length / 2) return 0;
  const worths = perBar.map((shift, i) => {
    if (i === 0) return worth;
    const moved = own.slice(0, -1).map((bar) => ({ ...bar, start: bar.start + shift }));
    return chordsHeard(soundings(moved, parts)).worth;
  });
  const best = worths.indexOf(Math.max(...worths));
  return nth(worths, best) - worth > BETTER * own.length ? nth(perBar, best) : 0;
}
const FEWEST_BARS = 6;
/** Pulses of a bar on which its line may be looked for. */
const MOST_SHIFTS = 12;

function named(
  stretches: readonly HeardStretch[],
  pulses: readonly Sounding[],
  keyAt: (pulse: number) => Key
): FoundChord[] {
  const all = stretches.map((stretch, i): FoundChord => {
    const next = stretches[i + 1]?.row?.root ?? null;
    const symbol = symbolOf(stretch, pulses, keyAt(stretch.from), next) ?? SILENT;
    return { start: nth(pulses, stretch.from).start, symbol };
  });
  return all.filter(({ symbol }, i) => symbol !== all[i - 1]?.symbol);
}

function analysed(bars: readonly FoundBar[], chords: readonly FoundChord[], key?: string) {
  const { chart } = chartOf({ bars, chords, key }, TICKS);
  return chart === null ? null : readSheet(chart).analysis;
}

/** The key that the chords make; the declared one where they belong to it as well. */
function homeOf(
  bars: readonly FoundBar[],
  stretches: readonly HeardStretch[],
  pulses: readonly Sounding[],
  heard: Key,
  signature: string | undefined
): Key {
  const declared = signature === undefined ? null : readKey(signature);
  const own =
    analysed(
      bars,
      named(stretches, pulses, () => heard)
    )?.key ?? heard;
  if (!declared || accidentalsOf(declared) === accidentalsOf(own)) return own;
  const share = (key: Key) => {
    const set = keySet(key);
    let [inside, all] = [0, 0];
    for (const { from, to, row } of stretches) {
      if (!row) continue;
      all += to - from;
      if ((row.pitchSet & ~set) === 0) inside += to - from;
    }
    return inside / Math.max(1, all);
  };
  return share(declared) >= share(own) ? declared : own;
}

const touches = ({ from, to }: HeardStretch, pulses: readonly Sounding[], bar: number) =>
  nth(pulses, from).bar <= bar && nth(pulses, to - 1).bar >= bar;

/** How sure each bar is: as its least sure chord. */
function surenessOf(
  bars: readonly FoundBar[],
  stretches: readonly HeardStretch[],
  pulses: readonly Sounding[]
): number[] {
  const sure = bars.map(() => 1);
  for (const { from, to, row, sure: own } of stretches) {
    if (!row) continue;
    for (let bar = nth(pulses, from).bar; bar <= nth(pulses, to - 1).bar; bar++)
      sure[bar] = Math.min(nth(sure, bar), own);
  }
  return sure;
}
