/** What the tests of formats share: pieces over a chart. */
import { readSheet } from '../harmony/sheet';
import type { LineNote } from '../line/model';
import { STANDARD, type Instrument } from '../neck/tuning';
import type { Piece, Voice } from './piece';

export const CHART = `{title: Ropes & <Knots>}
{key: Gm}
{time: 4/4}
{tempo: 104}
{start_of_grid label="A"}
| Am7b5 | D7b9 . . Gm/Bb | N.C. | Ebmaj7 |
{end_of_grid}
{time: 3/4}
{start_of_grid label="B"}
| F7sus4 | Bb6 |
{end_of_grid}
`;

export function pieceOf(voices: readonly Voice[], chart = CHART, neck: Instrument = STANDARD): Piece {
  const sheet = readSheet(chart);
  return { title: sheet.head.title ?? '', chart, sheet, neck, voices };
}

/** A note without what a file does not say: why it was written, and its name. */
export const plain = ({ purpose: _, note: _note, ...rest }: LineNote) => rest;
