/** How soon and how well a note is told while it is played. */
import { LiveEar } from '../../../src/lib/core/takes/listen/live';
import { scoreOf, type Score } from './score';
import type { Specimen, TrueNote } from './set';

/** Samples of a block as they come from the worklet. */
const BLOCK = 512;
/** A note that is told later than this after its stroke was missed, in seconds. */
const LOST = 0.25;

export interface LiveFigure {
  readonly f: number;
  /** Seconds from a note's stroke to its being told: the middle, and nine tenths of them at most. */
  readonly middle: number;
  readonly most: number;
  /** Median of the seconds that a note is given less those at which it was played. */
  readonly shift: number;
  /** Processor milliseconds for a block. */
  readonly cost: number;
}

/** Every specimen heard block by block. A note is told at the end of the block in which it is heard. */
export function liveFigures(set: readonly Specimen[]): LiveFigure {
  const delays: number[] = [];
  const scores: Score[] = [];
  let blocks = 0;
  const before = process.cpuUsage().user;
  for (const { samples, rate, notes } of set) {
    const ear = new LiveEar(rate);
    const heard: (TrueNote & { readonly told: number })[] = [];
    for (let frame = 0; frame < samples.length; frame += BLOCK) {
      const block = samples.slice(frame, frame + BLOCK);
      const { at, began } = ear.take({ frame, samples: block });
      heard.push(...began.map((note) => ({ ...note, seconds: 0, told: at })));
      blocks++;
    }
    scores.push(scoreOf(heard, notes));
    for (const note of notes) {
      const own = heard.find(
        ({ midi, told }) => midi === note.midi && told > note.at && told - note.at < LOST
      );
      if (own) delays.push(own.told - note.at);
    }
  }
  const cost = (process.cpuUsage().user - before) / 1000 / blocks;
  delays.sort((a, b) => a - b);
  const share = (part: number) => delays[Math.floor(part * (delays.length - 1))] ?? 0;
  const mean = (value: (score: Score) => number) =>
    scores.reduce((sum, score) => sum + value(score), 0) / scores.length;
  return {
    f: mean(({ f }) => f),
    shift: mean(({ shift }) => shift),
    middle: share(0.5),
    most: share(0.9),
    cost
  };
}
