/**
 * When the notes of a line sound: rhythm cells, a character a slot, for each subdivision of the beat. `x` is struck, `.` held, `-`
 * silent. Source: docs/music-rules.md, Finding a line.
 */
import { firstOf } from '../../base/list';
import type { Ticks } from '../../base/units';
import type { PlayedBar } from '../../chart/unroll';
import { chanceOf, oneOf } from '../chance';
import { TICKS, ticksOf } from '../model';

/** How full a rhythm is. */
export type Density = 'open' | 'full';

interface RhythmCell {
  readonly perBeat: readonly number[];
  /** Two beats of it. */
  readonly pattern: string;
  /** Feels it belongs to; all where nothing is said. */
  readonly feels?: readonly string[];
}

/** The first that fits is what a line has without a seed. */
const OPEN: readonly RhythmCell[] = [
  // A push into the second beat belongs where the drums push.
  { perBeat: [2], pattern: 'xx.x', feels: ['bossa', 'samba', 'funk', 'soul', 'reggae'] },
  { perBeat: [2], pattern: 'x.xx' },
  { perBeat: [2], pattern: 'xxx.' },
  { perBeat: [2], pattern: 'x-xx' },
  { perBeat: [2], pattern: 'x.x.' },
  // Long–short: what a shuffle has between its beats.
  { perBeat: [3], pattern: 'x.xx.x' },
  { perBeat: [3], pattern: 'xxxx.x' },
  { perBeat: [3], pattern: 'x.xxxx' },
  { perBeat: [4], pattern: 'x.xxx.xx' },
  { perBeat: [4], pattern: 'x..xx.x.' },
  { perBeat: [4], pattern: 'x.x.xxx.' },
  { perBeat: [4], pattern: 'x.-xx.xx', feels: ['funk', 'soul', 'half-time rock'] },
  { perBeat: [1], pattern: 'xx' },
  { perBeat: [1], pattern: 'x.' }
];

/** One moment at which something may sound. */
export interface RhythmSlot {
  /** In ticks. */
  readonly start: Ticks;
  readonly length: Ticks;
}

export interface RhythmWish {
  readonly density: Density;
  readonly perBeat: number;
  readonly feel: string | null;
  /** 0 takes the plainest. */
  readonly seed: number;
  /** Bars of a phrase, at whose end the line breathes; 0 for none. */
  readonly phrase: number;
  /** Moments that are struck whatever the rhythm has there, in ticks: the targets. */
  readonly struck: ReadonlySet<number>;
  /** Ticks before those that lead into them, which are struck as well. */
  readonly leading: ReadonlySet<number>;
}

/** Beats of the note that ends a phrase, and of the silence after it. */
const RELEASE = 1;
const BREATH = 1;

/** The slots of some bars, one after another without overlap. */
export function rhythmOver(bars: readonly PlayedBar[], wish: RhythmWish): RhythmSlot[] {
  const { density, perBeat, feel, seed, phrase, struck, leading } = wish;
  const slot = TICKS / perBeat;
  const fitting = OPEN.filter(
    (one) => one.perBeat.includes(perBeat) && (!one.feels || one.feels.includes(feel ?? ''))
  );
  const marks: { at: number; mark: string }[] = [];
  bars.forEach((bar, i) => {
    const start = ticksOf(bar.start);
    const end = ticksOf(bar.start + bar.beats);
    const chance = chanceOf(seed, bar.number);
    const { pattern } =
      density === 'full' || fitting.length === 0
        ? FULL
        : seed === 0
          ? firstOf(fitting)
          : oneOf(chance, fitting);
    const breathes = phrase > 0 && i > 0 && i % phrase === 0;
    for (let n = 0, at = start; at < end; n++, at = start + n * slot) {
      const since = at - start;
      const isRelease = breathes && since > 0 && since < RELEASE * TICKS;
      const isBreath = breathes && since >= RELEASE * TICKS && since < (RELEASE + BREATH) * TICKS;
      const own = isRelease ? '.' : isBreath ? '-' : pattern.charAt(n % pattern.length);
      const isStruck = struck.has(at) || (leading.has(at) && !isRelease && !isBreath) || since === 0;
      marks.push({ at, mark: isStruck ? 'x' : own });
    }
  });
  // Targets that lie off the grid are struck all the same.
  for (const at of struck) if (!marks.some((one) => one.at === at)) marks.push({ at, mark: 'x' });
  marks.sort((a, b) => a.at - b.at);
  const last = bars.at(-1);
  const end = last ? ticksOf(last.start + last.beats) : 0;
  return marks.flatMap(({ at, mark }, i): RhythmSlot[] => {
    if (mark !== 'x') return [];
    const next = marks.slice(i + 1).find((one) => one.mark !== '.');
    return [{ start: at, length: (next?.at ?? end) - at }];
  });
}

const FULL: RhythmCell = { perBeat: [], pattern: 'x' };
