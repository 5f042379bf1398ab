/** The position that is proposed where the player has not put the hand anywhere. Source: docs/music-rules.md, The neck. */
import type { Subject } from '../neck/area';
import { areaOf } from '../neck/position-map';
import type { NeckSystem, Row } from '../neck/systems/system';
import type { Instrument } from '../neck/tuning';

/** Where a hand lies best when nothing else decides. */
const MIDDLE = 5;
/** The nut and the high frets are places to choose, not to be put. */
const LOWEST = 1;
const HIGHEST = 12;

/** What is laid out, once each: how a collection lies does not depend on the chord it is played over. */
export function differentSubjects(subjects: readonly (Subject | null)[]): ReadonlyMap<string, Subject> {
  return new Map(subjects.flatMap((subject) => (subject ? [[subject.collection.name, subject]] : [])));
}

/**
 * Of the areas that the neck system has, the one with the fewest stretches for everything that is played, the nearest to fret 5 of
 * those that are as easy.
 */
export function easiestPosition(
  neck: Instrument,
  system: NeckSystem,
  rows: readonly Row[],
  subjects: Iterable<Subject>
): number {
  const played = [...subjects];
  const places = rows
    .map(({ position }) => position)
    .filter((position) => position >= neck.capo + LOWEST && position <= neck.capo + HIGHEST);
  const stretches = (position: number) =>
    played.reduce(
      (sum, subject) =>
        sum + areaOf(neck, system, subject, position).cells.filter(({ stretch }) => stretch).length,
      0
    );
  const ranked = places
    .map((position) => ({ position, cost: stretches(position) }))
    .sort(
      (a, b) =>
        a.cost - b.cost ||
        Math.abs(a.position - neck.capo - MIDDLE) - Math.abs(b.position - neck.capo - MIDDLE)
    );
  return ranked[0]?.position ?? neck.capo + MIDDLE;
}
