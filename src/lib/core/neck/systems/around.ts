/** Positions around a chord's 1, 3 and 5: the first finger goes where one of them lies on the two lowest strings. */
import { thirdOf } from '../../theory/mode';
import { DEGREES, type Degree } from '../../theory/degree';
import { pitchClass, spell, type NoteName } from '../../theory/note';
import { prettyDegree } from '../../theory/typeset';
import { fillAt, type Quality } from '../area';
import { nearestTo } from '../box';
import type { Instrument } from '../tuning';
import { fretsOf, placeRows, type NeckSystem, type Place } from './system';

const HOME_TONES: Readonly<Record<Quality, readonly Degree[]>> = {
  major: ['1', '3', '5'],
  minor: ['1', 'b3', '5']
};

function tonePlaces(neck: Instrument, root: NoteName, tones: readonly Degree[]): Place[] {
  const count = neck.strings.length;
  return tones
    .filter((tone) => ['1', '3', '5'].includes(DEGREES[tone].slot))
    .flatMap((degree) =>
      fretsOf(neck, pitchClass(spell(root, degree)), [count, count - 1]).map((fret): Place => ({
        name: { kind: 'around', words: `around the ${prettyDegree(degree)}` },
        position: fret,
        anchor: fret
      }))
    );
}

export const around: NeckSystem = {
  id: 'around',
  title: 'Around the 1, 3 and 5',
  hint: 'First finger on a chord tone of the two lowest strings',
  rows: (neck, { tonic, mode }) => placeRows(neck, tonePlaces(neck, tonic, HOME_TONES[thirdOf(mode)])),
  areaAt: (neck, subject, position) => {
    const { root, tones } = subject.naming;
    const place = nearestTo(tonePlaces(neck, root, tones), position);
    return place ? fillAt(neck, subject, place.position, place.name) : fillAt(neck, subject, position);
  }
};
