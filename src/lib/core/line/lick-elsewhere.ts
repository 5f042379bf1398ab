/** A lick in other keys and other areas: the same idiom wherever the player may need it. */
import { nth } from '../base/list';
import { transposeNote, transposeSymbol } from '../chart/transpose';
import { forms } from '../neck/systems/forms';
import type { Instrument } from '../neck/tuning';
import { isMinorKey, type Key } from '../harmony/key';
import { homeUp } from '../theory/tonic';
import { homeOfLick, type KeptLick } from './lick-facts';
import type { LineNote } from './model';
import { atPitch, laidOut, nearestShift } from './move';
import { laidUnder } from './phrase/hand';

/** Where a lick is wanted. */
export interface Elsewhere {
  /** Semitones up from where it was kept, 0 to 11. */
  readonly shift: number;
  /** One of the areas of its key, by its place up the neck; null for where it was kept. */
  readonly area: number | null;
}

export interface LickThere {
  readonly key: Key;
  readonly over: KeptLick['over'];
  readonly notes: readonly LineNote[];
  /** "E form"; null on the strings where it was kept. */
  readonly areaName: string | null;
  /** How many areas its key has. */
  readonly areas: number;
}

const OCTAVE = 12;
/** Octaves in which it is tried in an area, the nearest first. */
const OCTAVES = [0, OCTAVE, -OCTAVE];

/** A lick in a key and an area; null where it does not lie there in any octave. */
export function lickElsewhere(
  lick: KeptLick,
  { shift, area }: Elsewhere,
  neck: Instrument
): LickThere | null {
  const home = homeOfLick(lick);
  const key = homeUp(home, shift);
  const rows = areasOf(neck, key);
  const moved = lick.notes.map((note) => ({
    ...atPitch(note, note.midi + nearestShift(0, shift)),
    note: transposeNote(note.note, home, shift)
  }));
  const row = area === null ? null : rows[area % rows.length];
  const notes = row ? under(moved, row.position, neck) : along(lick.notes, moved, shift, neck);
  if (!notes) return null;
  return {
    key,
    over: lick.over.map(({ symbol, beats }) => ({ symbol: transposeSymbol(symbol, home, shift), beats })),
    notes,
    areaName: row ? row.name.words : null,
    areas: rows.length
  };
}

/** The five areas of a key, each once, up the neck. */
function areasOf(neck: Instrument, { tonic, mode }: Key) {
  const seen = new Set<string>();
  return forms
    .rows(neck, { tonic, mode: isMinorKey({ tonic, mode }) ? 'minor' : 'major' })
    .filter(({ name }) => {
      const title = name.words;
      return !seen.has(title) && seen.add(title);
    });
}

function along(
  kept: readonly LineNote[],
  moved: readonly LineNote[],
  shift: number,
  neck: Instrument
): readonly LineNote[] | null {
  if (shift === 0) return kept;
  for (const where of ['along', 'every octave'] as const) {
    const laid = laidOut(kept, moved, { neck, where, anyOctave: true });
    if (laid.notes) return laid.notes.map((note, i) => ({ ...note, note: nth(moved, i).note }));
  }
  return null;
}

/** Under one hand, in the nearest octave in which it lies there. */
function under(moved: readonly LineNote[], position: number, neck: Instrument): readonly LineNote[] | null {
  for (const octave of OCTAVES) {
    const raised = moved.map((note) => ({ ...atPitch(note, note.midi + octave), note: note.note }));
    const laid = laidUnder(raised, position, neck);
    if (laid) return laid;
  }
  return null;
}
