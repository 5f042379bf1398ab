/**
 * A motif carried through the changes: the same rhythm over each next stretch as long as it, its pitches shifted exactly, or led to the
 * nearest tones of what is played there with its contour kept. Each time it comes it may be another form of itself.
 */
import { firstOf, nth } from '../../base/list';
import type { Ticks } from '../../base/units';
import { pulsesOf } from '../../chart/pulses';
import { cheapestWay } from '../cheapest';
import { ticksOf, written, type LineNote } from '../model';
import { nearestShift, type Measure } from '../move';
import { operated, PLAIN_BEAT, type MotifNote, type MotifOperationId } from '../operations';
import { pushOf } from '../read';
import { stretchesOf, type FindWish, type FoundLines, type Stretch } from './find';
import type { PoolCell } from './pool';

export interface Motif {
  /** In the order of a line; time counts from its start. */
  readonly notes: readonly LineNote[];
  /** In ticks, with the silence that belongs to it. */
  readonly length: Ticks;
  /** What its notes are counted in at a time. */
  readonly measureAt: (ticks: Ticks) => Measure;
  readonly how: 'shifted' | 'led';
  /** What is done with it each time it comes, in turn; said again as it is where nothing is said. */
  readonly operations?: readonly MotifOperationId[] | undefined;
}

/** A contour that is lost is dearer than any distance. */
const CONTOUR_LOST = 100;
const OCTAVE = 12;

/** A motif carried to each next chord. Says at which change it cannot be. Source: docs/music-rules.md, Finding a line. */
export function carryMotif(motif: Motif, wish: FindWish): FoundLines {
  const stretches = stretchesOf(wish);
  const [first, last] = [stretches[0], stretches.at(-1)];
  if (!first || !last || motif.notes.length === 0 || motif.length <= 0) return { lines: [] };
  const { form: played } = wish.ground;
  const push = pushOf(played);
  const [pulse] = played.bars[0] ? pulsesOf(played.bars[0]) : [];
  const beat = pulse?.isTriple ? { whole: ticksOf(pulse.beats), half: ticksOf(pulse.beats / 3) } : PLAIN_BEAT;
  const operations = motif.operations?.length ? motif.operations : (['repeat'] as const);
  const whole = {
    notes: motif.notes.map(({ start, length, midi }) => ({ start, length, pitch: midi })),
    length: motif.length
  };
  const notes: LineNote[] = [];
  let cost = 0;
  let near = firstOf(motif.notes).midi;
  for (let at = first.from, n = 0; at < last.end; n++) {
    const form = operated(whole, nth(operations, n % operations.length), beat);
    const own = form.notes.flatMap((note): Own[] => {
      const stretch = stretchAt(stretches, at + note.start, at + note.start + note.length, push);
      return stretch ? [{ note, stretch }] : [];
    });
    if (own.length > 0) {
      const found = carriedTo(motif, own, near);
      if (!found) {
        const { change } = firstOf(own).stretch;
        const message = `The motif does not lie over ${change.symbol} in that part of the neck; lead it, or allow more of the neck.`;
        return { lines: [], noLine: { change: change.index, message } };
      }
      own.forEach(({ note, stretch }, i) => {
        const start = at + note.start;
        const end = Math.min(start + note.length, stretch.end);
        notes.push({ ...written(nth(found.cells, i), start, end - start, 'run') });
      });
      cost += found.cost;
      near = firstOf(found.cells).midi;
    }
    at += form.length;
  }
  return { lines: [{ notes, cost, parts: {}, exact: motif.how === 'led' }] };
}

/** What a note is heard over: what sounds when it begins, or the chord to come where it pushes into that. */
function stretchAt(
  stretches: readonly Stretch[],
  start: Ticks,
  end: Ticks,
  push: number
): Stretch | undefined {
  const at = stretches.findIndex((one) => start >= one.from && start < one.end);
  const next = stretches[at + 1];
  if (at >= 0 && next && next.from - start <= push && end > next.from) return next;
  return stretches[at];
}

/** A note of the motif and what it is heard over. */
interface Own {
  readonly note: MotifNote;
  readonly stretch: Stretch;
}

/** The motif over one stretch of time, in the octave nearest to where it was. */
function carriedTo(
  motif: Motif,
  own: readonly Own[],
  near: number
): { readonly cells: readonly PoolCell[]; readonly cost: number } | null {
  const [{ note: first, stretch }] = own as [Own];
  const shift = nearestShift(motif.measureAt(first.start).root, stretch.measure.root);
  const octaves = [0, -1, 1, -2, 2]
    .map((octave) => shift + OCTAVE * octave)
    .sort((a, b) => Math.abs(first.pitch + a - near) - Math.abs(first.pitch + b - near));
  for (const semitones of octaves) {
    const found = motif.how === 'shifted' ? shifted(own, semitones) : led(own, semitones);
    if (found) return found;
  }
  return null;
}

/** The tones of the chord that a last note may be instead of its own pitch. */
const endings = ({ note, stretch }: Own, semitones: number): PoolCell[] => {
  const tones = stretch.pool.filter(
    ({ midi }) => stretch.change.chord.pitchClasses.includes(midi % OCTAVE) && midi !== note.pitch + semitones
  );
  const least = Math.min(...tones.map(({ midi }) => Math.abs(midi - note.pitch - semitones)));
  return tones.filter(({ midi }) => Math.abs(midi - note.pitch - semitones) === least);
};

function shifted(own: readonly Own[], semitones: number) {
  const layers = own.map((one) =>
    one.note.isOpen
      ? endings(one, semitones)
      : one.stretch.pool.filter(({ midi }) => midi === one.note.pitch + semitones)
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
function led(own: readonly Own[], semitones: number) {
  const layers = own.map((one) =>
    one.note.isOpen ? endings(one, semitones) : one.stretch.pool.filter(({ kind }) => kind !== 'chromatic')
  );
  if (layers.some(({ length }) => length === 0)) return null;
  const wanted = own.map(({ note }) => note.pitch + semitones);
  const away = (cell: PoolCell, i: number) =>
    Math.abs(cell.midi - nth(wanted, i)) + (cell.kind === 'avoid' ? 1 : 0);
  const lost = (from: PoolCell, to: PoolCell, i: number) =>
    nth(own, i).note.isOpen ||
    Math.sign(to.midi - from.midi) === Math.sign(nth(wanted, i) - nth(wanted, i - 1))
      ? 0
      : CONTOUR_LOST;
  const cells = cheapestWay(layers, away, lost);
  const cost = cells.reduce(
    (sum, cell, i) => sum + away(cell, i) + (i > 0 ? lost(nth(cells, i - 1), cell, i) : 0),
    0
  );
  return cost < CONTOUR_LOST ? { cells, cost } : null;
}
