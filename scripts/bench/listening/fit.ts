/**
 * Fits the weights by which an event is told to be a stroke of the player (`core/takes/listen/strokes.ts`): a logistic regression over what
 * begins in sounds whose notes are known. Sources that are to measure the listener, the other sound font and the unknown string, are left out.
 */
import { withoutEchoes } from '../../../src/lib/core/takes/listen/echo';
import { eventsIn, type Event } from '../../../src/lib/core/takes/listen/events';
import { framesOf } from '../../../src/lib/core/takes/listen/frames';
import { RATE } from '../../../src/lib/core/takes/listen/listen';
import { resampled } from '../../../src/lib/core/takes/listen/resample';
import { featuresOf, plainOf } from '../../../src/lib/core/takes/listen/strokes';
import { expressive, EXPRESSIVE } from './expressive';
import { hasSynthesizer, KINDS, specimens, type Specimen } from './set';

interface Row {
  readonly features: readonly number[];
  readonly isStroke: boolean;
}

/** An event is a stroke where a note begins near it: the pitch of one that is bent or slid into is still on its way. */
const NEAR = { seconds: 0.05, semitones: 0.7, gliding: 5.5 } as const;
/** Steps of the fit, how far each goes, and how large weights are held down. */
const FIT = { steps: 800, rate: 0.05, small: 1e-4 } as const;

function rowsOf({ samples, rate, notes }: Specimen): Row[] {
  const sound = resampled(samples, rate, RATE);
  const events = withoutEchoes(
    eventsIn(sound, RATE, () => undefined),
    RATE
  );
  const frames = framesOf(sound, RATE);
  const plain = plainOf(events);
  const free = new Set(notes);
  let before: Event | undefined;
  return events.map((event): Row => {
    const features = featuresOf(event, before, plain, frames);
    const own = [...free].find(
      ({ at, midi, bend }) =>
        Math.abs(at - event.onset.at / RATE) < NEAR.seconds &&
        Math.abs(midi - event.begun.pitch) < (bend ? NEAR.gliding : NEAR.semitones)
    );
    if (own) {
      free.delete(own);
      before = event;
    }
    return { features, isStroke: own !== undefined };
  });
}

/** The weights of `featuresOf`, in their order. */
export function fittedWeights(dir: string): number[] {
  const sets = [
    ...(hasSynthesizer() ? KINDS.flatMap((kind) => specimens(dir, kind, [60, 126])) : []),
    ...EXPRESSIVE.flatMap((kind) => [
      ...(hasSynthesizer() ? expressive(dir, kind, 'own font') : []),
      ...expressive(dir, kind, 'player')
    ])
  ];
  const rows = sets.flatMap(rowsOf);
  const count = rows[0]!.features.length;
  const [weights, mean, square] = Array.from({ length: 3 }, () => new Array<number>(count).fill(0)) as [
    number[],
    number[],
    number[]
  ];
  for (let step = 1; step <= FIT.steps; step++) {
    const slope = new Array<number>(count).fill(0);
    for (const { features, isStroke } of rows) {
      const sum = features.reduce((total, value, i) => total + value * weights[i]!, 0);
      const miss = 1 / (1 + Math.exp(-sum)) - Number(isStroke);
      features.forEach((value, i) => (slope[i]! += miss * value));
    }
    // Adam, as it is usual.
    for (let i = 0; i < count; i++) {
      const own = slope[i]! / rows.length + FIT.small * weights[i]!;
      mean[i] = 0.9 * mean[i]! + 0.1 * own;
      square[i] = 0.999 * square[i]! + 0.001 * own * own;
      weights[i]! -=
        (FIT.rate * (mean[i]! / (1 - 0.9 ** step))) / (Math.sqrt(square[i]! / (1 - 0.999 ** step)) + 1e-8);
    }
  }
  return weights.map((weight) => Math.round(100 * weight) / 100);
}
