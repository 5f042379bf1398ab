/** Three notes a string: the shapes of seven-note scales that run straight up, one from each note of the scale. */
import { firstOf, lastOf, nth } from '../base/list';
import { pitchClass, type NoteName } from '../theory/note';
import { lowestFret, type Instrument, type Spot } from './tuning';

const NOTES_A_STRING = 3;

export interface ThreeAString {
  /** Its fret on the lowest string. */
  readonly anchor: number;
  /** Lowest pitch first; fewer than three a string where nut or last fret cut the shape. */
  readonly cells: readonly Spot[];
}

/** All shapes of a seven-note scale, lowest anchor first; none for collections of another size. */
export function threeAString(neck: Instrument, notes: readonly NoteName[]): ThreeAString[] {
  const pcs = [...new Set(notes.map(pitchClass))];
  if (pcs.length !== 7) return [];
  const held = new Set(pcs);
  const lowest = lastOf(neck.strings);
  const [first, top] = [lowestFret(neck), firstOf(neck.strings) + neck.frets];
  const pitches = Array.from({ length: top - lowest + 1 }, (_, i) => lowest + i).filter((m) =>
    held.has(m % 12)
  );
  return pitches
    .filter((pitch) => pitch >= lowest + first && pitch <= lowest + neck.frets)
    .map((start) => {
      const from = pitches.indexOf(start);
      const cells = pitches
        .slice(from, from + neck.strings.length * NOTES_A_STRING)
        .map((midi, n): Spot => {
          const string = neck.strings.length - Math.floor(n / NOTES_A_STRING);
          return { string, fret: midi - nth(neck.strings, string - 1), midi };
        })
        .filter(({ fret }) => fret >= first && fret <= neck.frets);
      return { anchor: start - lowest, cells };
    });
}
