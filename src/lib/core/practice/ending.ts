/** How a band comes to an end: on the I of the chart's home, on 1 of a bar after the form. Source: docs/music-rules.md, The band. */
import { hasChord } from '../chart/unroll';
import type { Analysis, AnalysedChange } from '../harmony/analysis';
import type { Excerpt } from '../harmony/excerpt';
import { isMinorKey } from '../harmony/key';
import { readChord } from '../theory/chord-reader';
import { pitchClass } from '../theory/note';

/** The tempo of the last bars of a feel that slows, as parts of its own, a pulse each. */
const SLOWING = [0.96, 0.92, 0.87, 0.81, 0.75, 0.68] as const;
const SLOWS: ReadonlySet<string> = new Set(['ballad', 'bolero']);

/** The chord that a chart comes home to: its own I as it is written, else a plain triad of the key; without a key its first chord. */
export function homeChord({ key, changes }: Analysis): AnalysedChange | null {
  const sounding = changes.filter(hasChord);
  const first = sounding[0];
  if (!first) return null;
  const tonic = pitchClass(key.tonic);
  const isMinor = isMinorKey(key);
  const own = sounding.filter(
    ({ chord }) => chord.rootPc === tonic && !chord.tones.includes(isMinor ? '3' : 'b3')
  );
  // As the first of them is written, so that a blues ends on its seventh and a song on its triad.
  const written = own.find(({ chord }) => !chord.bass) ?? own[0];
  if (written) return written;
  const symbol = `${key.tonic}${isMinor ? 'm' : ''}`;
  const reading = readChord(symbol);
  return reading.kind === 'chord' ? { ...first, symbol, chord: reading.chord } : first;
}

/** An excerpt with a bar more, in which its home is struck once; as it is where there is no chord. */
export function withEnding(excerpt: Excerpt, analysis: Analysis): Excerpt {
  const home = homeChord(analysis);
  const last = excerpt.bars.at(-1);
  if (!home || !last) return excerpt;
  const { beats } = excerpt;
  return {
    ...excerpt,
    bars: [...excerpt.bars, { ...last, start: beats, section: `${last.section}\u0000end` }],
    changes: [...excerpt.changes, { source: home, start: beats, beats: last.beats }],
    beats: beats + last.beats
  };
}

/** A tempo from a beat on, as a part of the tempo before. */
export interface Slowing {
  readonly start: number;
  readonly part: number;
}

/** How the end of an excerpt with its ending slows, in beats of the excerpt; empty where its feel keeps time. */
export function slowingOf({ bars }: Excerpt, feel: string): Slowing[] {
  const last = bars.at(-1);
  if (!last || !SLOWS.has(feel)) return [];
  const beat = last.beats / last.meter.beats;
  const from = last.start - (SLOWING.length - 1) * beat;
  return SLOWING.map((part, i) => ({ start: from + i * beat, part })).filter(({ start }) => start >= 0);
}

/** Where a beat sounds, in beats of the first tempo, once the ending slows. */
export function slowedBeat(slowing: readonly Slowing[], beat: number): number {
  return slowing.reduce((at, { start, part }, i) => {
    if (beat <= start) return at;
    const until = Math.min(beat, slowing[i + 1]?.start ?? Infinity);
    return at + (until - start) * (1 / part - 1);
  }, beat);
}
