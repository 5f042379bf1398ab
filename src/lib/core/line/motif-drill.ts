/** Drills on a motif: carried from chord to chord in one form or another, or called and answered. Source: docs/music-rules.md, Drills. */
import { firstOf, nth } from '../base/list';
import type { Beats, Midi, Ticks } from '../base/units';
import type { PlayedChange } from '../harmony/excerpt';
import type { NamedCell } from '../neck/shape';
import type { NamedTone } from '../moment/moment';
import type { DrillMaterial } from './drill';
import { TICKS, ticksOf, written, type LineNote } from './model';
import { operated, type MotifNote, type MotifOperationId, type MotifShape } from './operations';

/** A motif of a bar as beats and places of the shape, counted from the landing; no step is wider than two places. */
const shape = (notes: readonly (readonly [at: number, beats: Beats, step: number])[]): MotifShape => ({
  notes: notes.map(([at, beats, pitch]) => ({ start: ticksOf(at), length: ticksOf(beats), pitch })),
  length: ticksOf(4)
});

const MOTIFS: readonly MotifShape[] = [
  shape([
    [0, 0.5, 0],
    [0.5, 0.5, 1],
    [1, 1, 2],
    [2, 1, 0]
  ]),
  shape([
    [0, 1, 0],
    [1, 0.5, 2],
    [1.5, 0.5, 1],
    [2, 1, -1]
  ]),
  shape([
    [0, 0.5, 0],
    [0.5, 1, -1],
    [1.5, 0.5, 1],
    [2, 1, 2]
  ]),
  shape([
    [0, 1.5, 0],
    [1.5, 0.5, 1],
    [2, 0.5, 2],
    [2.5, 0.5, 0]
  ])
];

/** What comes of the motif on one change after another. */
const FORMS: readonly MotifOperationId[] = [
  'repeat',
  'repeat',
  'other ending',
  'invert',
  'fragment',
  'diminish'
];

const formed = (motif: MotifShape, operations: readonly MotifOperationId[]) =>
  operations.reduce((own, id) => operated(own, id), motif);

/** One motif a round over every change, in the forms it takes in turn. */
export function motifsInTurn(material: DrillMaterial): LineNote[] {
  const motif = nth(MOTIFS, material.round % MOTIFS.length);
  let n = 0;
  return barsIn(material).flatMap((bar) => laid(bar, operated(motif, nth(FORMS, n++ % FORMS.length))));
}

/** A call over one change, over the next its head with another end; silence after both. */
export function callsAndAnswers(material: DrillMaterial): LineNote[] {
  let n = 0;
  return barsIn(material).flatMap((bar) => {
    const pair = Math.floor(n / 2);
    const motif = nth(MOTIFS, (material.round + pair) % MOTIFS.length);
    return laid(withAir(bar), formed(motif, n++ % 2 === 0 ? ['repeat'] : ['fragment', 'other ending']));
  });
}

/** A beat of silence at the end, in short bars too. */
const withAir = (bar: DrillBar): DrillBar =>
  bar.end - bar.from > 2 * TICKS ? { ...bar, end: bar.end - TICKS } : bar;

/** Up to four beats of one change, with what lies under the hand there. */
interface DrillBar {
  readonly change: PlayedChange;
  readonly from: number;
  readonly end: Ticks;
  readonly cells: readonly NamedCell[];
  readonly landing: NamedTone;
}

const BAR = 4;

function barsIn({ excerpt, areas, targets }: DrillMaterial): DrillBar[] {
  return excerpt.changes.flatMap((change, at): DrillBar[] => {
    const cells = areas[at]?.cells ?? [];
    if (cells.length === 0) return [];
    const landing = targets[at] ?? firstOf(cells);
    const count = Math.max(1, Math.floor(change.beats / BAR));
    return Array.from({ length: count }, (_, n) => {
      const from = ticksOf(change.start + n * BAR);
      const end = n === count - 1 ? ticksOf(change.start + change.beats) : from + BAR * TICKS;
      return { change, from, end, cells, landing };
    });
  });
}

/** A form of the motif from the landing on, the other way round where the shape ends before it does. */
function laid(bar: DrillBar, form: MotifShape): LineNote[] {
  const { cells, landing, from, end } = bar;
  const home = nearestTo(cells, landing.midi);
  const isInside = (motif: MotifShape) => motif.notes.every(({ pitch }) => cells[home + pitch] !== undefined);
  const turned = operated(form, 'invert');
  const own = isInside(form) || !isInside(turned) ? form : turned;
  return own.notes.flatMap((note, i): LineNote[] => {
    const start = from + note.start;
    const tone = note.pitch === 0 && !note.isOpen ? landing : toneOf(bar, home, note);
    if (!tone || start >= end) return [];
    return [written(tone, start, Math.min(note.length, end - start), i === 0 ? 'target' : 'run')];
  });
}

function nearestTo(cells: readonly NamedCell[], midi: Midi): number {
  let best = 0;
  cells.forEach((cell, i) => {
    if (Math.abs(cell.midi - midi) < Math.abs(nth(cells, best).midi - midi)) best = i;
  });
  return best;
}

/** The place of the shape; for an open end the nearest other tone of the chord. */
function toneOf({ cells, change }: DrillBar, home: number, { pitch, isOpen }: MotifNote): NamedTone | null {
  const own = cells[home + pitch] ?? null;
  if (!isOpen) return own;
  const chord = new Set(change.source.chord?.pitchClasses ?? []);
  const at = own?.midi ?? nth(cells, home).midi;
  const tones = cells.filter(({ midi }) => chord.has(midi % 12) && midi !== at);
  return tones.length > 0 ? nth(tones, nearestTo(tones, at)) : own;
}
