/** A plan in another key: the hand moves as far, the short way, an octave on where the neck ends; choices keep their kind. */
import type { CollectionFacts } from '../approaches/collection';
import { transposeKey, transposeNote } from '../chart/transpose';
import { lastPosition } from '../neck/position';
import type { Instrument } from '../neck/tuning';
import type { Home } from '../theory/tonic';
import type { Decision, Plan } from './model';

/** The wider way round the octave begins here, in semitones. */
const SHORT_WAY = 6;
const OCTAVE = 12;

/** Frets by which everything moves: the short way, unless hand or pins would leave the neck and the octave beside it keeps them. */
function fretsMoved({ position, decisions }: Plan, neck: Instrument, shift: number): number {
  const highest = lastPosition(neck) - neck.span;
  const hands = [position, ...decisions.map((own) => own.position)].filter((one) => typeof one === 'number');
  const pins = decisions.flatMap((own) => own.pins?.map(({ fret }) => fret) ?? []);
  const isOnNeck = (by: number) =>
    // A hand that was not at the nut is not brought there.
    hands.every((hand) => hand + by >= Math.min(hand, neck.capo + 1) && hand + by <= highest) &&
    pins.every((fret) => fret + by >= neck.capo && fret + by <= neck.frets);
  const short = shift > SHORT_WAY ? shift - OCTAVE : shift;
  return [short, short + OCTAVE, short - OCTAVE].find(isOnNeck) ?? short;
}

/** `home`: the key of the chart as it stands, from which names are spelled; `shift` in semitones up, 0 to 11. */
export function movedPlan(plan: Plan, neck: Instrument, home: Home, shift: number): Plan {
  const highest = lastPosition(neck) - neck.span;
  const by = fretsMoved(plan, neck, shift);
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
