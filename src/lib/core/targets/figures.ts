/** What a path amounts to in numbers a player understands, and what one costs against another in words. */
import { FREE_FRETS } from './options';
import type { Target, TargetPath } from './path';

export interface PathFigures {
  readonly targets: number;
  /** Semitones moved in all. */
  readonly semitones: number;
  /** Steps of more frets than the hand covers. */
  readonly shifts: number;
  /** The longest step, in semitones. */
  readonly longest: number;
  /** Steps that stay on their pitch. */
  readonly held: number;
  /** Targets on a third or seventh. */
  readonly guideTones: number;
}

/** How far a target line moves: semitones in all, the widest step, what is held. */
export function figuresOf({ targets }: TargetPath): PathFigures {
  const steps = targets.flatMap(({ step }) => (step ? [step] : []));
  const sizes = steps.map(({ semitones }) => Math.abs(semitones));
  return {
    targets: targets.length,
    semitones: sizes.reduce((sum, size) => sum + size, 0),
    shifts: steps.filter(({ frets }) => Math.abs(frets) > FREE_FRETS).length,
    longest: Math.max(0, ...sizes),
    held: sizes.filter((size) => size === 0).length,
    guideTones: targets.filter(({ cell }) => cell.slot === '3' || cell.slot === '7').length
  };
}

/** What is compared: how a difference of n is said, and whether more of it is better. */
const COMPARED: readonly {
  readonly of: keyof PathFigures;
  readonly isBetterMore: boolean;
  readonly say: (n: string, way: 'more' | 'fewer') => string;
}[] = [
  {
    of: 'semitones',
    isBetterMore: false,
    say: (n, way) => `${n} semitone${n === 'one' ? '' : 's'} ${way} in all`
  },
  {
    of: 'shifts',
    isBetterMore: false,
    say: (n, way) => `${n} shift${n === 'one' ? '' : 's'} of the hand ${way}`
  },
  { of: 'guideTones', isBetterMore: true, say: (n, way) => `${n} ${way} on a 3 or 7` },
  { of: 'held', isBetterMore: true, say: (n, way) => `${n} ${way} held` }
];

const NUMBERS = [
  'no',
  'one',
  'two',
  'three',
  'four',
  'five',
  'six',
  'seven',
  'eight',
  'nine',
  'ten'
] as const;

/** A path against the best one: "one semitone more in all, but one shift of the hand fewer". */
export function priceOf(best: PathFigures, other: PathFigures): string {
  const differences = COMPARED.flatMap(({ of, isBetterMore, say }) => {
    const by = other[of] - best[of];
    if (by === 0) return [];
    const size = Math.abs(by);
    return [
      {
        isBetter: by > 0 === isBetterMore,
        words: say(NUMBERS[size] ?? String(size), by > 0 ? 'more' : 'fewer')
      }
    ];
  });
  const dearer = differences.filter(({ isBetter }) => !isBetter).map(({ words }) => words);
  const cheaper = differences.filter(({ isBetter }) => isBetter).map(({ words }) => words);
  if (differences.length === 0) {
    return other.longest === best.longest
      ? 'the same steps, elsewhere on the neck or on other degrees'
      : `as far in all, with a longest step of ${other.longest}`;
  }
  return [dearer.join(', '), cheaper.join(', ')].filter(Boolean).join(dearer.length ? ', but ' : '');
}

/** Where a path lands otherwise than another, by its place in both: the targets of the second that differ. */
export function differencesOf(best: TargetPath, other: TargetPath): Target[] {
  return other.targets.filter(({ cell }, i) => {
    const own = best.targets[i]?.cell;
    return own?.string !== cell.string || own.fret !== cell.fret;
  });
}
