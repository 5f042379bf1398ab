/**
 * A motif carried through the changes: the same rhythm over each next stretch as long as it, its pitches shifted exactly, or led to the
 * nearest tones of what is played there with its contour kept.
 */
import { cheapestWay } from '../cheapest';
import { endOf, written, type LineNote } from '../model';
import { nearestShift, type Measure } from '../move';
import { stretchesOf, type FindWish, type FoundLines, type Stretch } from './find';
import type { PoolCell } from './pool';

export interface Motif {
  /** In the order of a line; time counts from its start. */
  readonly notes: readonly LineNote[];
  /** In ticks, with the silence that belongs to it. */
  readonly length: number;
  /** What its notes are counted in at a time. */
  readonly measureAt: (ticks: number) => Measure;
  readonly how: 'shifted' | 'led';
}

/** A contour that is lost is dearer than any distance. */
const CONTOUR_LOST = 100;
const OCTAVE = 12;

export function carryMotif(motif: Motif, wish: FindWish): FoundLines {
  const stretches = stretchesOf(wish);
  const [first, last] = [stretches[0], stretches.at(-1)];
  if (!first || !last || motif.notes.length === 0 || motif.length <= 0) return { lines: [] };
  const notes: LineNote[] = [];
  let cost = 0;
  let near = motif.notes[0]!.midi;
  for (let at = first.from; at < last.end; at += motif.length) {
    const own = motif.notes
      .map((note) => ({
        note,
        stretch: stretches.find(({ from, end }) => at + note.start >= from && at + note.start < end)
      }))
      .filter((one): one is { note: LineNote; stretch: Stretch } => one.stretch !== undefined);
    if (own.length === 0) continue;
    const found = carriedTo(motif, own, near);
    if (!found) {
      const { change } = own[0]!.stretch;
      const message = `The motif does not lie over ${change.symbol} in that part of the neck; lead it, or allow more of the neck.`;
      return { lines: [], noLine: { change: change.index, message } };
    }
    own.forEach(({ note, stretch }, i) => {
      const start = at + note.start;
      const end = Math.min(at + endOf(note), stretch.end);
      notes.push({ ...written(found.cells[i]!, start, end - start, 'run') });
    });
    cost += found.cost;
    near = found.cells[0]!.midi;
  }
  return { lines: [{ notes, cost, parts: {}, exact: motif.how === 'led' }] };
}

/** The motif over one stretch of time, in the octave nearest to where it was. */
function carriedTo(
  motif: Motif,
  own: readonly { readonly note: LineNote; readonly stretch: Stretch }[],
  near: number
): { readonly cells: readonly PoolCell[]; readonly cost: number } | null {
  const [{ note: first, stretch }] = own as [(typeof own)[number]];
  const shift = nearestShift(motif.measureAt(first.start).root, stretch.measure.root);
  const octaves = [0, -1, 1, -2, 2]
    .map((octave) => shift + OCTAVE * octave)
    .sort((a, b) => Math.abs(first.midi + a - near) - Math.abs(first.midi + b - near));
  for (const semitones of octaves) {
    const found = motif.how === 'shifted' ? shifted(own, semitones) : led(own, semitones);
    if (found) return found;
  }
  return null;
}

type Own = readonly { readonly note: LineNote; readonly stretch: Stretch }[];

function shifted(own: Own, semitones: number) {
  const layers = own.map(({ note, stretch }) =>
    stretch.pool.filter(({ midi }) => midi === note.midi + semitones)
  );
  return layers.every(({ length }) => length > 0) ? { cells: nearestCells(layers), cost: 0 } : null;
}

/** Of the cells of each pitch those that lie nearest together. */
function nearestCells(layers: readonly (readonly PoolCell[])[]): PoolCell[] {
  return cheapestWay(
    layers,
    () => 0,
    (from, to) => Math.abs(to.fret - from.fret) + Math.abs(to.string - from.string)
  );
}

/** Null where its contour cannot be kept. */
function led(own: Own, semitones: number) {
  const layers = own.map(({ stretch }) => stretch.pool.filter(({ kind }) => kind !== 'chromatic'));
  if (layers.some(({ length }) => length === 0)) return null;
  const wanted = own.map(({ note }) => note.midi + semitones);
  const away = (cell: PoolCell, i: number) =>
    Math.abs(cell.midi - wanted[i]!) + (cell.kind === 'avoid' ? 1 : 0);
  const lost = (from: PoolCell, to: PoolCell, i: number) =>
    Math.sign(to.midi - from.midi) === Math.sign(wanted[i]! - wanted[i - 1]!) ? 0 : CONTOUR_LOST;
  const cells = cheapestWay(layers, away, lost);
  const cost = cells.reduce(
    (sum, cell, i) => sum + away(cell, i) + (i > 0 ? lost(cells[i - 1]!, cell, i) : 0),
    0
  );
  return cost < CONTOUR_LOST ? { cells, cost } : null;
}
