/** All neck systems in one list: a new one is one new file and one new row. The first is the plain hand position. */
import type { Area, Subject } from '../area';
import type { Instrument } from '../tuning';
import { around } from './around';
import { majorBoxes, minorBoxes } from './boxes';
import { forms } from './forms';
import { positions } from './positions';
import { roots } from './roots';
import type { Home, NeckSystem } from './system';
import { three } from './three';

export const NECK_SYSTEMS: readonly NeckSystem[] = [
  positions,
  minorBoxes,
  majorBoxes,
  forms,
  around,
  roots,
  three
];

/** The system of an id; hand positions where the id is unknown. */
export function systemOf(id: string): NeckSystem {
  return NECK_SYSTEMS.find((one) => one.id === id) ?? positions;
}

/** All areas of a collection up the neck, in the windows of a system, each once. */
export function areasOf(neck: Instrument, system: NeckSystem, home: Home, subject: Subject): Area[] {
  const areas = system.rows(neck, home).map(({ position }) => system.areaAt(neck, subject, position));
  return [...new Map(areas.map((area) => [area.anchor, area])).values()].sort((a, b) => a.anchor - b.anchor);
}
