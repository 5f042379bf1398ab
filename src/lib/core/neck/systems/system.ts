/** A neck system: one way of cutting the neck up into areas. The notes of a collection stay what they are. */
import { nth } from '../../base/list';
import type { Mode } from '../../theory/mode';
import type { NoteName, PitchClass } from '../../theory/note';
import type { Area, AreaName, Subject } from '../area';
import type { Instrument } from '../tuning';

/** The key that the neck is cut up around. */
export interface Home {
  readonly tonic: NoteName;
  readonly mode: Mode;
}

/** A place for the hand to go to. */
export interface Row {
  readonly name: AreaName;
  readonly position: number;
}

export interface NeckSystem {
  readonly id: string;
  /** As the player reads it. */
  readonly title: string;
  /** What it is for, in a few words. */
  readonly hint: string;
  /** The areas of the home key, up the neck: the windows that the position steps through. */
  readonly rows: (neck: Instrument, home: Home) => Row[];
  /** A collection in the area nearest a position. */
  readonly areaAt: (neck: Instrument, subject: Subject, position: number) => Area;
}

/** A row with the fret that its shape is named from. */
export interface Place extends Row {
  readonly anchor: number;
}

/** Frets at which a pitch class lies on some strings. */
export function fretsOf(neck: Instrument, pc: PitchClass, strings: readonly number[]): number[] {
  return strings.flatMap((string) => {
    const open = nth(neck.strings, string - 1);
    return Array.from({ length: neck.frets + 1 }, (_, fret) => fret).filter(
      (fret) => fret >= neck.capo && (open + fret) % 12 === pc
    );
  });
}

/** Places as rows up the neck: one a fret, and room for the hand above. */
export function placeRows(neck: Instrument, places: readonly Place[]): Row[] {
  const byFret = new Map<number, Row>();
  for (const { name, position } of places) {
    if (position + neck.span - 1 <= neck.frets && !byFret.has(position))
      byFret.set(position, { name, position });
  }
  return [...byFret.values()].sort((a, b) => a.position - b.position);
}
