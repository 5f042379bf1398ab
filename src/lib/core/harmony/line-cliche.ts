/** Line clichés: a root held over several changes while one voice, or the bass, walks by semitones. */
import { nth } from '../base/list';
import { type Change, type Chorded, type Form, hasChord } from '../chart/unroll';
import { pitchClass, type PitchClass } from '../theory/note';
import type { Cadence } from './cadence-model';

/** So many chords make a line. */
const FEWEST = 3;

/** The voices of a change that may walk: its tones and its bass. */
function voices({ chord }: Chorded<Change>): Set<PitchClass> {
  const bass = chord.bass === undefined ? [] : [pitchClass(chord.bass)];
  return new Set([...chord.pitchClasses, ...bass]);
}

/** How many changes in a row, from one on, have a voice that moves a semitone each time in one direction. */
function lengthOfLine(run: readonly Chorded<Change>[], from: number, direction: 1 | -1): number {
  let reached = voices(nth(run, from));
  let at = from + 1;
  for (; at < run.length; at++) {
    const held = voices(nth(run, at));
    const before = voices(nth(run, at - 1));
    // A tone that the chord before had already has not moved there.
    const moved = [...reached]
      .map((pc) => (pc + direction + 12) % 12)
      .filter((pc) => held.has(pc) && !before.has(pc));
    if (moved.length === 0) break;
    reached = new Set(moved);
  }
  return at - from;
}

/** The lines of a form, each as long as it goes. */
export function lineCliches({ changes }: Form): Cadence[] {
  const found: Cadence[] = [];
  let start = 0;
  while (start < changes.length) {
    const first = nth(changes, start);
    let end = start + 1;
    while (first.chord && end < changes.length && nth(changes, end).chord?.rootPc === first.chord.rootPc)
      end++;
    const run = changes.slice(start, end).filter(hasChord);
    for (let from = 0; first.chord && from + FEWEST <= run.length;) {
      const length = Math.max(lengthOfLine(run, from, 1), lengthOfLine(run, from, -1));
      if (length >= FEWEST) {
        const mode = first.chord.tones.includes('b3') ? 'minor' : 'major';
        found.push({
          kind: 'line cliché',
          from: nth(run, from).index,
          to: nth(run, from + length - 1).index,
          goal: { tonic: first.chord.root, mode }
        });
      }
      from += Math.max(1, length - 1);
    }
    start = end;
  }
  return found;
}
