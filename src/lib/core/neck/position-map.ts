/** The position map: areas of the home key down, changes across, what is played on each laid out in each. */
import { type Home, type NeckSystem, type Row } from './systems/system';
import type { Area, Subject } from './area';
import type { Instrument } from './tuning';

export interface MapRow extends Row {
  /** One for each subject; null where nothing is played. */
  readonly areas: readonly (Area | null)[];
}

/** What is played on one chord again and again is laid out once a row. */
function areaKey({ naming, collection }: Subject): string {
  return `${collection.name} ${naming.root} ${naming.tones.join(' ')}`;
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
  const laidOut = new Map<string, Area>();
  return subjects.map((subject, i) => {
    if (!subject) return null;
    const position = positions[i]!;
    const key = `${position} ${areaKey(subject)}`;
    let area = laidOut.get(key);
    if (!area) laidOut.set(key, (area = organisation.areaAt(neck, subject, position)));
    return area;
  });
}
