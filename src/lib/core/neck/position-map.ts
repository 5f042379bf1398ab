/** The position map: areas of the home key down, changes across, what is played on each laid out in each. */
import { nth } from '../base/list';
import { oncePer } from '../base/once';
import { type Home, type NeckSystem, type Row } from './systems/system';
import type { Area, Subject } from './area';
import type { Instrument } from './tuning';

export interface MapRow extends Row {
  /** One for each subject; null where nothing is played. */
  readonly areas: readonly (Area | null)[];
}

const areasOn = oncePer((neck: Instrument) =>
  oncePer((system: NeckSystem) =>
    oncePer((subject: Subject) => {
      const known: Area[] = [];
      return (position: number) => (known[position] ??= system.areaAt(neck, subject, position));
    })
  )
);

/** A subject in the area nearest a position; laid out once, as long as it and the neck are there. */
export function areaOf(neck: Instrument, system: NeckSystem, subject: Subject, position: number): Area {
  return areasOn(neck)(system)(subject)(position);
}

/** Lays every subject out in the area nearest each row. */
export function positionMap(
  neck: Instrument,
  organisation: NeckSystem,
  home: Home,
  subjects: readonly (Subject | null)[]
): MapRow[] {
  return organisation.rows(neck, home).map((row) => ({
    ...row,
    areas: areasAt(
      neck,
      organisation,
      subjects,
      subjects.map(() => row.position)
    )
  }));
}

/** Every subject in the area nearest a position of its own. */
export function areasAt(
  neck: Instrument,
  organisation: NeckSystem,
  subjects: readonly (Subject | null)[],
  positions: readonly number[]
): (Area | null)[] {
  return subjects.map((subject, i) => subject && areaOf(neck, organisation, subject, nth(positions, i)));
}
