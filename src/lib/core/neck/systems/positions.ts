/** Plain hand positions, named by the fret of the first finger. Source: docs/music-rules.md, The neck. */
import { fillAt, positionName } from '../area';
import { boxRows } from './boxes';
import type { NeckSystem } from './system';

export const positions: NeckSystem = {
  id: 'positions',
  title: 'Hand positions',
  hint: 'By the fret of the first finger',
  rows: (neck, home) => boxRows(neck, home, ({ anchor }) => positionName(anchor)),
  areaAt: (neck, subject, position) => fillAt(neck, subject, position)
};
