/** Pentatonic boxes, numbered from the minor root or from the major root. Source: docs/music-rules.md, The neck. */
import { thirdOf } from '../../theory/mode';
import { pitchClass } from '../../theory/note';
import { areaOf, fillInstead, handFor, type Area, type AreaName, type Quality, type Subject } from '../area';
import {
  boxesOf,
  formOf,
  minorPentatonic,
  nearestTo,
  pentatonicOf,
  relativeMinor,
  type Box,
  type Pentatonic
} from '../box';
import { fingerAt, positionFill, type PositionCell } from '../position';
import type { Instrument } from '../tuning';
import type { Home, NeckSystem, Row } from './system';

/** How a system calls a box of a pentatonic. */
export type BoxNaming = (box: Box, quality: Quality) => AreaName;

const boxName = (number: number): AreaName => ({ kind: 'box', words: `box ${number}` });

/** The cells of a box with fingers, and the blue notes of a blues scale where the hand finds them. */
function boxCells(neck: Instrument, box: Box, { added }: Pentatonic): PositionCell[] {
  const position = handFor(neck, box.cells);
  const own = box.cells.map((cell): PositionCell => ({
    ...cell,
    finger: fingerAt(cell.fret, position, neck.capo),
    stretch: cell.fret > neck.capo && (cell.fret < position || cell.fret >= position + neck.span)
  }));
  const [low, high] = [box.cells[0]?.midi ?? 0, box.cells.at(-1)?.midi ?? 0];
  const blue = positionFill(neck, added, position).filter(({ midi }) => midi >= low && midi <= high);
  return [...own, ...blue];
}

/** A collection that has boxes, in the one nearest a position; null where it has none. */
export function boxArea(
  neck: Instrument,
  subject: Subject,
  position: number,
  naming: BoxNaming
): Area | null {
  const { root, notes } = subject.collection;
  const pentatonic = pentatonicOf(root, notes);
  const box = pentatonic && nearestTo(boxesOf(neck, pentatonic), position);
  if (!box) return null;
  const quality: Quality = pitchClass(root) === pentatonic.first ? 'minor' : 'major';
  const { minor, major, anchor } = box;
  return areaOf(subject, boxCells(neck, box, pentatonic), {
    name: naming(box, quality),
    anchor,
    position: handFor(neck, box.cells),
    box: { minor, major, form: formOf(box, quality) }
  });
}

/** Rows at the boxes of the home key's pentatonic; the last frets are too few for one. */
export function boxRows(neck: Instrument, { tonic, mode }: Home, naming: BoxNaming): Row[] {
  return boxesOf(neck, minorPentatonic(relativeMinor(pitchClass(tonic), thirdOf(mode))))
    .filter(({ anchor }) => anchor + neck.span - 1 <= neck.frets)
    .map((box) => ({ name: naming(box, thirdOf(mode)), position: box.anchor }));
}

function boxSystem(id: string, title: string, hint: string, naming: BoxNaming): NeckSystem {
  return {
    id,
    title,
    hint,
    rows: (neck, home) => boxRows(neck, home, naming),
    areaAt: (neck, subject, position) =>
      boxArea(neck, subject, position, naming) ?? fillInstead(neck, subject, position, 'boxes')
  };
}

export const minorBoxes = boxSystem(
  'minor-boxes',
  'Boxes from the minor root',
  'Pentatonic boxes; box 1 starts on the minor root',
  ({ minor }) => boxName(minor)
);

export const majorBoxes = boxSystem(
  'major-boxes',
  'Boxes from the major root',
  'The same boxes; box 1 starts on the major root',
  ({ major }) => boxName(major)
);
