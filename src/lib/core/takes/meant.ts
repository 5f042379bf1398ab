/** The notes that a line means at the changes: what is judged where it is that line that is played. */
import { firstOf } from '../base/list';
import { beatsOf, endOf, type LineNote } from '../line/model';
import { pulsesOf } from '../chart/pulses';
import type { Form } from '../chart/unroll';
import type { AnalysedChange } from '../harmony/analysis';
import type { MeantTarget } from './judge/judge';

/** Pulses by which a landing may come early or late and still be the one of its change. */
const PUSH = 0.5;

/**
 * For each change the note that a line lands on it, at the time at which the line has it: pushed, on it, or late. A change at which the
 * line begins nothing and holds no tone of the chord is not meant.
 */
export function meantBy(
  line: readonly LineNote[],
  changes: readonly AnalysedChange[],
  { bars }: Pick<Form, 'bars'>
): MeantTarget[] {
  const pulse = bars[0] ? firstOf(pulsesOf(bars[0])).beats : 1;
  return changes.flatMap(({ index, start, beats, chord }): MeantTarget[] => {
    if (!chord) return [];
    const isTone = ({ midi }: LineNote) => chord.pitchClasses.includes(midi % 12);
    const [from, to] = [start - PUSH * pulse, start + Math.min(PUSH * pulse, beats / 2)];
    const near = line.filter((note) => {
      const at = beatsOf(note.start);
      return (
        at >= from - 1e-6 && at <= to + 1e-6 && (at >= start - 1e-6 || beatsOf(endOf(note)) > start + 0.25)
      );
    });
    const first = near.find(isTone);
    // Of two notes at once the upper one is heard as the line.
    const landed = near
      .filter((note) => isTone(note) && note.start === first?.start)
      .sort((a, b) => b.midi - a.midi)[0];
    return landed ? [{ change: index, midi: landed.midi, at: beatsOf(landed.start) }] : [];
  });
}
