/** How a written line sounds: where swing has its notes. The only place where written time becomes played time. */
import type { Beats, Ticks } from '../base/units';
import { endOf, TICKS, type LineNote } from './model';

/** When a note sounds, in beats. */
export interface Sounding {
  readonly start: Beats;
  readonly beats: Beats;
}

/** How time is bent. */
export interface Swing {
  /** Where the second half of a pulse falls, 0.5 for straight. */
  readonly ratio: number;
  /** The pulse that swings at a time in beats; null where nothing does. */
  readonly pulseAt: (beat: number) => Sounding | null;
}

/** Every whole beat swings alike. */
export function beatSwing(ratio: number): Swing {
  return { ratio, pulseAt: (beat) => ({ start: Math.floor(beat + 1e-9), beats: 1 }) };
}

/** Moves a part of a pulse, 0 to 1, to where a swung pulse has it. */
export function bent(part: number, ratio: number): number {
  return part < 0.5 ? part * 2 * ratio : ratio + (part - 0.5) * 2 * (1 - ratio);
}

/** Moves a time in beats to where a swung pulse has it. */
export function swung(time: number, { ratio, pulseAt }: Swing): number {
  const pulse = pulseAt(time);
  return pulse ? pulse.start + pulse.beats * bent((time - pulse.start) / pulse.beats, ratio) : time;
}

/** The inverse of `bent`: from the part of a swung pulse that has sounded to the part that is written. */
export function straightened(part: number, ratio: number): number {
  return part < ratio ? part / (2 * ratio) : 0.5 + (part - ratio) / (2 * (1 - ratio));
}

/** The written time, in beats, that stands where a swung pulse has come to. */
export function unswung(time: number, { ratio, pulseAt }: Swing): number {
  const pulse = pulseAt(time);
  return pulse ? pulse.start + pulse.beats * straightened((time - pulse.start) / pulse.beats, ratio) : time;
}

/** The swing as some notes have it: a pulse in which one starts off its halves is played as written. */
export function swingUnder(notes: readonly LineNote[], swing: Swing): Swing {
  const finer = new Set(
    notes.flatMap(({ start }) => {
      const pulse = swing.pulseAt(start / TICKS);
      if (!pulse) return [];
      const halves = ((start / TICKS - pulse.start) / pulse.beats) * 2;
      return Math.abs(halves - Math.round(halves)) < 1e-6 ? [] : [pulse.start];
    })
  );
  return {
    ratio: swing.ratio,
    pulseAt: (beat) => {
      const pulse = swing.pulseAt(beat);
      return pulse && finer.has(pulse.start) ? null : pulse;
    }
  };
}

/**
 * When the notes of a line sound over changes (in beats). Only eighths swing: a pulse in which notes start anywhere else
 * is played as written. A chord's own ends stay where they are.
 */
export function sounding(
  notes: readonly LineNote[],
  changes: readonly { readonly start: Beats; readonly beats: Beats }[],
  swing: Swing
): Sounding[] {
  const own = swingUnder(notes, swing);
  const ends = new Set(changes.flatMap(({ start, beats }) => [start, start + beats]));
  const at = (ticks: Ticks) => {
    const beats = ticks / TICKS;
    return ends.has(beats) ? beats : swung(beats, own);
  };
  return notes.map((note) => {
    const start = at(note.start);
    return { start, beats: at(endOf(note)) - start };
  });
}
