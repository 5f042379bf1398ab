import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { contextOf } from '../approaches/context';
import { modes } from '../approaches/modes';
import { readSheet } from '../harmony/sheet';
import { STANDARD } from '../neck/tuning';
import { FREE_PATH, type TargetOptions, DEFAULT_WEIGHTS } from '../targets/options';
import { findTargets } from '../targets/path';
import { tonesOfAll } from '../moment/moment';
import { APPROACH_KINDS, approachesOf, type ApproachWish } from './approach-notes';
import { endOf, ticksOf } from './model';
import { skeletonLine } from './skeleton';

function led(text: string, wish: ApproachWish | null, options: Partial<TargetOptions> = {}) {
  const { analysis } = readSheet(text);
  const rules = { ...FREE_PATH, degrees: ['3', '7'] as const, position: 5, standIn: true, ...options };
  const path = findTargets(analysis, rules).paths[0]!;
  const chosen = analysis.changes.map(({ index }) => {
    const context = contextOf(analysis, index);
    return context ? (modes(context)[0] ?? null) : null;
  });
  const notes = approachesOf(analysis, path, chosen, STANDARD, rules.loop, () => wish);
  const tones = tonesOfAll(
    analysis,
    STANDARD,
    analysis.changes.map(() => 5)
  );
  return {
    analysis,
    path,
    notes,
    line: skeletonLine(analysis, { beats: 4, unit: 4 }, path, notes, tones).notes
  };
}

describe('approach notes', () => {
  it('lead into the third of B flat seven from a semitone below, on the last half beat of F minor', () => {
    const { path, notes } = led('| Fm7 | Bb7 |', 'below', { fixed: [{ change: 1, string: 3, fret: 7 }] });
    expect(path.targets[1]!.cell).toMatchObject({ degree: '3', note: 'D' });
    expect(notes.get(1)).toEqual([
      {
        kind: 'below',
        change: 0,
        beat: 4.5,
        beats: 0.5,
        string: 3,
        fret: 6,
        midi: 61,
        note: 'Db',
        degree: 'b13',
        // A semitone above the fifth.
        role: 'avoid'
      }
    ]);
    expect(notes.has(0)).toBe(false);
  });

  it('judge against the chord they sound on', () => {
    const { notes } = led('| Dm7 | G7 | Cmaj7 |', 'above', {
      fixed: [
        { change: 1, string: 4, fret: 9 },
        { change: 2, string: 3, fret: 9 }
      ]
    });
    // F, a semitone above the third of C, is the seventh of G7.
    expect(notes.get(2)![0]).toMatchObject({ note: 'F', degree: 'b7', role: 'chord', change: 1 });
  });

  it('take the step of the scale from the side the line comes from', () => {
    const { notes, path } = led('| G7 | Cmaj7 |', 'step', {
      fixed: [
        { change: 0, string: 3, fret: 10 },
        { change: 1, string: 3, fret: 9 }
      ]
    });
    expect(path.targets[1]!.step!.semitones).toBe(-1);
    // From above: F, which is where the line is already, so that only a longer approach would help.
    expect(notes.has(1)).toBe(false);
    const below = led('| G7 | Cmaj7 |', 'step', {
      fixed: [
        { change: 0, string: 4, fret: 9 },
        { change: 1, string: 3, fret: 9 }
      ]
    });
    expect(below.notes.get(1)![0]).toMatchObject({ note: 'D', degree: '5' });
  });

  it('enclose: the step above, then the semitone below', () => {
    const { notes } = led('| Gm7 | C7 |', 'enclosure', { fixed: [{ change: 1, string: 3, fret: 9 }] });
    expect(notes.get(1)!.map(({ note, beat }) => `${note} ${beat}`)).toEqual(['F 4', 'Eb 4.5']);
  });

  it('bring the minor third up to the major one, and nothing else', () => {
    const third = led('| F7 | Bb7 |', 'third', { degrees: ['3'] });
    expect(third.notes.get(1)![0]!.midi).toBe(third.path.targets[1]!.cell.midi - 1);
    expect(led('| F7 | Bb7 |', 'third', { column: '7' }).notes.size).toBe(0);
    expect(led('| F7 | Bbm7 |', 'third', { degrees: ['3'] }).notes.has(1)).toBe(false);
  });

  it('fit: the blues move on dominants, else from the side of the line', () => {
    const { notes } = led('| F7 | Bb7 | Eb7 |', 'fitting', { degrees: ['3'] });
    expect([...notes.values()].flat().every(({ kind }) => kind === 'third')).toBe(true);
  });

  it('come round the loop, inside a change, and never where there is no room', () => {
    // Ab is held here, and led into from the bar before.
    const weights = { ...DEFAULT_WEIGHTS, held: 0 };
    const loop = led('| Fm7 | Bb7 |', 'below', { loop: true, weights });
    expect(loop.notes.get(0)![0]!.change).toBe(1);
    const inside = led('| Fm7 |', 'below', { every: 2 });
    expect(inside.notes.get(1)![0]).toMatchObject({ change: 0, beat: 2.5 });
    const short = led('{time: 4/4}\n| Fm7 Bb7 Eb7 Ab7 |', 'enclosure');
    expect([...short.notes.values()].length).toBe(0);
    expect(led('| Fm7 | N.C. | Bb7 |', 'below').notes.has(1)).toBe(false);
  });
});

describe('the skeleton line', () => {
  it('lands, leaves and approaches without gap inside a change, overlap or a note past its chord', () => {
    const chords = fc.array(fc.constantFrom('Fm7', 'Bb7', 'Ebmaj7 C7', 'Am7b5 D7b9', 'N.C.', 'Gm6'), {
      minLength: 1,
      maxLength: 6
    });
    const wishes = fc.constantFrom<ApproachWish | null>(null, 'fitting', ...APPROACH_KINDS);
    fc.assert(
      fc.property(chords, wishes, fc.boolean(), fc.constantFrom(null, 2), (bars, wish, loop, every) => {
        if (bars.every((bar) => bar === 'N.C.')) return;
        const { analysis, line, path } = led(`| ${bars.join(' | ')} |`, wish, { loop, every });
        const ordered = [...line].sort((a, b) => a.start - b.start);
        ordered.forEach((note, i) => {
          const change = analysis.changes.findLast(({ start }) => ticksOf(start) <= note.start)!;
          expect(note.length).toBeGreaterThan(0);
          expect(Number.isInteger(note.start) && Number.isInteger(note.length)).toBe(true);
          expect(endOf(note)).toBeLessThanOrEqual(ticksOf(change.start + change.beats));
          const next = ordered[i + 1];
          if (next) expect(endOf(note)).toBeLessThanOrEqual(next.start);
          expect(STANDARD.strings[note.place!.string - 1]! + note.place!.fret).toBe(note.midi);
        });
        expect(line.filter(({ purpose }) => purpose === 'target')).toHaveLength(path.targets.length);
      }),
      { numRuns: 150 }
    );
  });

  it('leaves a long landing for another chord tone', () => {
    const { line } = led('| Fm7 | Bb7 |', 'below');
    expect(line.map(({ purpose }) => purpose)).toEqual(['target', 'leave', 'approach', 'target', 'leave']);
    expect(line[1]!.midi).not.toBe(line[0]!.midi);
  });
});
