/** One octave from each root on strings 6, 5 and 4. Source: docs/music-rules.md, The neck. */
import { nth } from '../../base/list';
import type { StringNumber } from '../../base/units';
import { pitchClass, type NoteName } from '../../theory/note';
import { areaOf, fillAt } from '../area';
import { nearestTo } from '../box';
import { positionFill } from '../position';
import type { Instrument } from '../tuning';
import { fretsOf, placeRows, type NeckSystem, type Place } from './system';

const ROOT_STRINGS = [6, 5, 4] as const;

function rootPlaces(neck: Instrument, root: NoteName): (Place & { readonly string: StringNumber })[] {
  return ROOT_STRINGS.filter((string) => string <= neck.strings.length).flatMap((string) =>
    fretsOf(neck, pitchClass(root), [string]).map((fret) => ({
      name: { kind: 'root', words: `root on ${string}` },
      position: fret,
      anchor: fret,
      string
    }))
  );
}

export const roots: NeckSystem = {
  id: 'roots',
  title: 'Root on string 6, 5 or 4',
  hint: 'One octave up from the root',
  rows: (neck, { tonic }) => placeRows(neck, rootPlaces(neck, tonic)),
  areaAt: (neck, subject, position) => {
    const place = nearestTo(rootPlaces(neck, subject.naming.root), position);
    if (!place) return fillAt(neck, subject, position);
    const { name, anchor, string } = place;
    const from = nth(neck.strings, string - 1) + anchor;
    const cells = positionFill(neck, subject.collection.notes.map(pitchClass), anchor);
    const octave = cells.filter(({ midi }) => midi >= from && midi <= from + 12);
    return areaOf(subject, octave, { name, anchor, position: anchor });
  }
};
