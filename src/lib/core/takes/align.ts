/** Ties what was played to the beats of a chart: seconds become ticks of written time, close to the grid where a player meant the grid. */
import { nth } from '../base/list';
import type { Beats, Midi, Seconds, Ticks } from '../base/units';
import { noteOf, TICKS, type LineNote } from '../line/model';
import type { Stretch, Technique } from './stretches';

/** How the clock ran while a take was played. */
export interface TakeClock {
  /** Beats a minute. */
  readonly tempo: number;
  /** Seconds at which beat 0 of the form sounded. */
  readonly start: Seconds;
}

/** A note of a take, in beats as it was played. */
export interface BeatNote {
  /** Beats since the form began, as it was played. */
  readonly at: number;
  readonly beats: Beats;
  readonly midi: Midi;
  readonly technique?: Technique;
}

/** The beat at a second of a take, as it was played. */
export function beatOf({ tempo, start }: TakeClock, second: number): number {
  return ((second - start) * tempo) / 60;
}

/** The second of a take at which a beat sounds. */
export function secondOf({ tempo, start }: TakeClock, beat: number): number {
  return start + (beat * 60) / tempo;
}

/** How long before the form begins a note still belongs to it, in beats. */
const BEFORE = 0.7;
/** Notes sound at least this long, in beats. */
const SHORTEST = 1 / 16;

/** Notes in beats, in the order of time, one voice: each at most until the next begins. What comes before the form is left out. */
export function inBeats(notes: readonly Stretch[], clock: TakeClock): BeatNote[] {
  const sorted = notes
    .map(({ at, seconds, midi, technique }) => ({
      at: beatOf(clock, at),
      beats: (seconds * clock.tempo) / 60,
      midi,
      ...(technique ? { technique } : {})
    }))
    .filter(({ at }) => at >= -BEFORE)
    .sort((a, b) => a.at - b.at || a.midi - b.midi);
  return sorted.map((note, i) => {
    const next = sorted.find((other, n) => n > i && other.at > note.at + SHORTEST);
    const room = next ? next.at - note.at : Infinity;
    return { ...note, beats: Math.max(SHORTEST, Math.min(note.beats, room)) };
  });
}

/** Times the form was played through, at least once. */
export function roundsOf(notes: readonly BeatNote[], formBeats: number): number {
  const last = notes.at(-1);
  // A last note that anticipates a round that never came is none of it.
  return last ? Math.max(1, Math.ceil((last.at - BEFORE) / formBeats)) : 1;
}

/** Notes that begin within so many beats of one another were struck together. */
const TOGETHER = 1 / 24;
/** Gaps below this, in ticks, are none. */
const ARTICULATION = 0.3 * TICKS;
/** Grids that players play on, in parts of a beat. */
const GRIDS = [4, 3] as const;
/** So near a place of a grid it is meant, in ticks. */
const MEANT = 0.11 * TICKS;

/**
 * Notes as a line would be written: each on its place of the grid that the player plays on. One voice, so none overlaps the next.
 * `writtenAt`: the beat as it is written, exactly on a place where it is near one.
 */
export function asWritten(
  notes: readonly BeatNote[],
  writtenAt: (beat: number, isExact?: boolean) => number
): LineNote[] {
  const starts = notes.map(({ at }) => Math.max(0, Math.round(writtenAt(at, true) * TICKS)));
  return notes.flatMap(({ at, beats, midi, technique }, i): LineNote[] => {
    const start = nth(starts, i);
    const next = starts.slice(i + 1).find((other) => other > start) ?? Infinity;
    // Of two notes that fall on one place the later one was meant; struck together they are a double stop.
    const other = notes[i + 1];
    if (other && starts[i + 1] === start && !(other.at - at < TOGETHER && other.midi > midi)) return [];
    const end = Math.max(start + TICKS / 16, onGrid(Math.round(writtenAt(at + beats) * TICKS)));
    // A short gap is how notes are parted, and no rest.
    return [noteOf(start, (next - end < ARTICULATION ? next : Math.min(end, next)) - start, midi)].map(
      (note) => ({ ...note, ...technique })
    );
  });
}

function onGrid(ticks: Ticks): number {
  const near = GRIDS.map((parts) => Math.round(ticks / (TICKS / parts)) * (TICKS / parts));
  const best = near.reduce((a, b) => (Math.abs(b - ticks) < Math.abs(a - ticks) ? b : a));
  return Math.abs(best - ticks) <= MEANT ? best : ticks;
}
