/** A plan in another key: the hand moves as far, an octave down where the neck ends; choices keep their kind. */
import type { CollectionFacts } from '../approaches/collection';
import { transposeKey, transposeNote } from '../chart/transpose';
import { lastPosition } from '../neck/position';
import type { Instrument } from '../neck/tuning';
import type { Home } from '../theory/tonic';
import type { Decision, Plan } from './model';

/** `home`: the key of the chart as it stands, from which names are spelled; `shift` in semitones up. */
export function movedPlan(plan: Plan, neck: Instrument, home: Home, shift: number): Plan {
  const highest = lastPosition(neck) - neck.span;
  const by = (plan.position ?? 0) + shift > highest ? shift - 12 : shift;
  const handMoved = (position: number) => Math.min(highest, Math.max(neck.capo, position + by));
  const collectionMoved = (facts: CollectionFacts): CollectionFacts => ({
    ...facts,
    root: transposeNote(facts.root, home, shift)
  });
  const decisions = plan.decisions.map((own): Decision => {
    const { position, choice, reading, pins } = own;
    const moved = pins
      ?.map((pin) => ({ ...pin, fret: pin.fret + by }))
      .filter(({ fret }) => fret >= neck.capo && fret <= neck.frets);
    return {
      ...own,
      ...(position === undefined ? {} : { position: handMoved(position) }),
      ...(choice
        ? {
            choice: {
              ...choice,
              collection: collectionMoved(choice.collection),
              ...(choice.then
                ? { then: { ...choice.then, collection: collectionMoved(choice.then.collection) } }
                : {})
            }
          }
        : {}),
      ...(reading?.key ? { reading: { ...reading, key: transposeKey(reading.key, home, shift) } } : {}),
      ...(moved ? { pins: moved.length ? moved : undefined } : {})
    };
  });
  return { ...plan, position: plan.position === null ? null : handMoved(plan.position), decisions };
}
