/** Places for notes that have none. */
import { nth } from '../base/list';
import type { Midi } from '../base/units';
import { lowestFret, type Instrument } from '../neck/tuning';
import type { LineNote } from './model';
import { frettedPitch, placeNotes } from './place';

/** True where some string has the pitch. */
const isOnNeck = (neck: Instrument, midi: Midi) =>
  neck.strings.some((open) => midi - open >= lowestFret(neck) && midi - open <= neck.frets);

/** Notes without a place are placed as near the others as can be; those that have one stay. What no string reaches has none. */
export function placedAnew(notes: readonly LineNote[], neck: Instrument): readonly LineNote[] {
  const placed = (some: readonly LineNote[], keepsPlaces: boolean) =>
    placeNotes(some, { neck, keepsPlaces, alternatives: 1 }).places[0]?.notes;
  const whole = placed(notes, true) ?? placed(notes, false);
  if (whole) return whole;
  const reached = notes.filter((note) => isOnNeck(neck, frettedPitch(note)));
  const found = placed(reached, false) ?? [];
  const places = new Map(reached.map((note, i) => [note, found[i]?.place]));
  return notes.map(({ place: _, ...note }, i) => {
    const place = places.get(nth(notes, i));
    return place ? { ...note, place } : note;
  });
}
