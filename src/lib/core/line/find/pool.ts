/** What a line may be made of: the cells of an area of the neck, and what each is on a chord. */
import type { ScaleChoice } from '../../approaches/choice';
import { nameOf, namingOf } from '../../neck/shape';
import { positionFill } from '../../neck/position';
import { spots, type Instrument, type Spot } from '../../neck/tuning';
import type { NamedTone } from '../../moment/moment';
import type { Chord } from '../../theory/chord';
import { pitchClass, simpleSpelling } from '../../theory/note';

/** Where a line lies; what is left out bounds nothing. */
export interface LineArea {
  /** The hand stays there. */
  readonly position?: number | undefined;
  /** Frets, both in. */
  readonly window?: { readonly from: number; readonly to: number } | undefined;
  /** MIDI numbers, both in. */
  readonly range?: { readonly low: number; readonly high: number } | undefined;
  readonly strings?: readonly number[] | undefined;
}

/** What a cell is on its chord. */
export type CellKind = 'chord' | 'choice' | 'avoid' | 'chromatic';

export interface PoolCell extends NamedTone {
  readonly finger?: number;
  readonly isStretch: boolean;
  readonly kind: CellKind;
}

const ALL = Array.from({ length: 12 }, (_, pc) => pc);

/** The cells of an area, before they are anything on a chord; in a position one for each pitch. */
function cellsIn(neck: Instrument, { position, window, range, strings }: LineArea, home: readonly number[]) {
  const isAllowed = ({ string, fret, midi }: Spot) =>
    (!window || (fret >= window.from && fret <= window.to)) &&
    (!range || (midi >= range.low && midi <= range.high)) &&
    (!strings || strings.includes(string));
  if (position === undefined) {
    return spots(neck, 0, neck.frets)
      .filter(isAllowed)
      .map((spot) => ({ ...spot, isStretch: false }));
  }
  // What is at home lies where position fill has it; chromatic notes lie round it.
  const filled = positionFill(neck, home, position);
  const known = new Set(filled.map(({ midi }) => midi));
  const between = positionFill(neck, ALL, position).filter(({ midi }) => !known.has(midi));
  return [...filled, ...between]
    .filter(isAllowed)
    .map(({ stretch, ...cell }) => ({ ...cell, isStretch: stretch }));
}

/** The pool of a change: every cell of its area, from the lowest pitch up. `target` lies where the target line has it. */
export function poolOf(
  neck: Instrument,
  area: LineArea,
  chord: Chord,
  choice: ScaleChoice | null,
  target: NamedTone | null
): PoolCell[] {
  const naming = namingOf(chord, choice);
  const own = new Set(choice?.notes.map(pitchClass) ?? chord.pitchClasses);
  const avoided = new Set(choice?.avoid ?? []);
  const home = [...new Set([...own, ...chord.pitchClasses])];
  const cells = cellsIn(neck, area, home).filter(
    ({ midi, string }) =>
      !target || midi !== target.midi || area.position === undefined || string === target.string
  );
  const isThere = cells.some(({ midi, string }) => midi === target?.midi && string === target.string);
  const all = target && !isThere ? [...cells, { ...target, isStretch: false }] : cells;
  return all
    .map((cell): PoolCell => {
      const pc = cell.midi % 12;
      const name = nameOf(pc, naming);
      const kind = chord.pitchClasses.includes(pc)
        ? 'chord'
        : !own.has(pc)
          ? 'chromatic'
          : avoided.has(name.degree)
            ? 'avoid'
            : 'choice';
      // On a staff a neighbour's plain name is read quicker than two signs.
      const note = kind !== 'chord' && /##|bb/.test(name.note) ? simpleSpelling(name.note) : name.note;
      return { ...cell, ...name, note, kind };
    })
    .sort((a, b) => a.midi - b.midi || a.string - b.string);
}
