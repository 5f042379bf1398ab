import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { soundAt, STANDARD } from '../neck/tuning';
import {
  bent,
  copied,
  joinedIn,
  lengthOf,
  moved,
  noteOn,
  pasted,
  played,
  split,
  transposed,
  withLength,
  withNote,
  without
} from './edit';
import { endOf, TICKS, type LineNote } from './model';
import { eighths, lineOf } from './testing';

const shown = (notes: readonly LineNote[]) =>
  notes.map(({ start, length, midi }) => `${midi}@${start / TICKS}+${length / TICKS}`).join(' ');
const on = (string: number, fret: number, at: number, beats: number) =>
  noteOn(STANDARD, string, fret, at * TICKS, beats * TICKS);

describe('writing a line', () => {
  it('puts a fret in as a note, as long as was asked, until the next begins', () => {
    expect(shown(withNote([], on(2, 6, 1, 1)))).toBe('65@1+1');
    expect(shown(withNote(eighths(60), on(2, 6, 0.25, 1)))).toBe('60@0+0.25 65@0.25+1');
    expect(shown(withNote(lineOf('- 1, C4 1'), on(2, 6, 0.5, 2)))).toBe('65@0.5+0.5 60@1+1');
  });

  it('replaces a note on its string, and makes a double stop of one on another', () => {
    const one = withNote([], on(2, 6, 0, 1));
    expect(shown(withNote(one, on(2, 8, 0, 0.25)))).toBe('67@0+1');
    const two = withNote(one, on(3, 8, 0, 0.25));
    expect(shown(two)).toBe('63@0+1 65@0+1');
    // There are no three: the farther one makes room.
    expect(shown(withNote(two, on(1, 6, 0, 1)))).toBe('65@0+1 70@0+1');
  });

  it('takes out, lengthens, splits and joins', () => {
    const line = eighths(60, 62, 64, 65);
    expect(shown(without(line, { from: 480, to: 1440 }))).toBe('60@0+0.5 65@1.5+0.5');
    expect(shown(withLength(line, 1440, 1920))).toBe('60@0+0.5 62@0.5+0.5 64@1+0.5 65@1.5+2');
    expect(shown(withLength(line, 0, 1920))).toBe(shown(line));
    expect(shown(split(line, 480))).toBe('60@0+0.5 62@0.5+0.25 62@0.75+0.25 64@1+0.5 65@1.5+0.5');
    expect(shown(joinedIn(line, { from: 480, to: 1440 }))).toBe('60@0+0.5 62@0.5+1 65@1.5+0.5');
  });

  it('copies a passage and puts it in the place of another', () => {
    const line = eighths(60, 62, 64, 65);
    const passage = copied(line, { from: 0, to: 960 });
    expect(shown(passage)).toBe('60@0+0.5 62@0.5+0.5');
    expect(shown(pasted(line, passage, 960, 960))).toBe('60@0+0.5 62@0.5+0.5 60@1+0.5 62@1.5+0.5');
    // What was held into it ends, and it ends where the next begins.
    expect(shown(pasted(lineOf('C4 4, D4 1'), passage, 960, 960))).toBe('60@0+1 60@1+0.5 62@1.5+0.5 62@4+1');
    // What leads in takes the place of what was there, and ends what lasts into it.
    const pickup = [on(1, 0, 0.5, 0.5), on(2, 6, 1, 1)].map((note) => ({
      ...note,
      start: note.start - TICKS
    }));
    expect(shown(pasted(lineOf('C4 0.25, D4 0.25, F4 0.5, G4 1'), pickup, 960, 960))).toBe(
      '60@0+0.25 62@0.25+0.25 64@0.5+0.5 65@1+1'
    );
  });

  it('transposes on the strings where they have the fret', () => {
    const line = withNote(withNote([], on(2, 6, 0, 1)), on(1, 21, 1, 1));
    const up = transposed(line, { from: 0, to: 9999 }, 2, STANDARD);
    expect(up.map(({ midi }) => midi)).toEqual([67, 87]);
    expect(up.map(({ place }) => place?.fret)).toEqual([8, undefined]);
    expect(transposed(line, { from: 960, to: 9999 }, 1, STANDARD)[0]).toBe(line[0]);
  });

  it('moves a note in time and pitch, and no third one to two', () => {
    const line = lineOf('C4 1, E4 1, (F4 A4) 1');
    expect(shown(moved(line, 0, 960, 60)!)).toBe('60@1+1 64@1+1 65@2+1 69@2+1');
    expect(shown(moved(line, 0, 480, 62)!)).toBe('62@0.5+0.5 64@1+1 65@2+1 69@2+1');
    expect(moved(line, 0, 1920, 60)).toBeNull();
    expect(moved(line, 0, -480, 60)).toBeNull();
  });

  it('gives a note a way of being played and takes it away', () => {
    const line = eighths(60, 62);
    const once = played(line, 480, 'slide');
    expect(once[1]!.slide).toBe(true);
    expect(played(once, 480, 'slide')).toEqual(line);
  });

  it('bends by half, by whole, lets down, and is plain again; the fret stays', () => {
    const line = withNote([], on(2, 8, 0, 1));
    const each = [bent(line, 0)];
    for (let i = 0; i < 3; i++) each.push(bent(each.at(-1)!, 0));
    expect(each.map(([note]) => [note!.midi, note!.bend?.from, note!.release?.to])).toEqual([
      [68, 67, undefined],
      [69, 67, undefined],
      [69, 67, 67],
      [67, undefined, undefined]
    ]);
    expect(each.every(([note]) => note!.place!.fret === 8)).toBe(true);
  });

  it('knows lengths in every meter', () => {
    const eighth = { value: 8, isDotted: false, isTriplet: false } as const;
    expect(lengthOf(eighth, { unit: 4 })).toBe(480);
    expect(lengthOf(eighth, { unit: 8 })).toBe(960);
    expect(lengthOf({ ...eighth, isTriplet: true }, { unit: 4 })).toBe(320);
    expect(lengthOf({ ...eighth, value: 4, isDotted: true }, { unit: 4 })).toBe(1440);
  });

  it('stays one voice of two notes at most, in order, whatever is done to it', () => {
    const time = fc.integer({ min: 0, max: 15 }).map((n) => n * 240);
    const edit = fc.record({
      what: fc.constantFrom('note', 'note', 'note', 'length', 'paste', 'split', 'join', 'move'),
      at: time,
      length: fc.constantFrom(240, 320, 480, 960),
      string: fc.integer({ min: 1, max: 6 }),
      fret: fc.integer({ min: 0, max: 12 })
    });
    fc.assert(
      fc.property(fc.array(edit, { maxLength: 20 }), (edits) => {
        let notes: LineNote[] = [];
        for (const { what, at, length, string, fret } of edits) {
          if (what === 'note') notes = withNote(notes, noteOn(STANDARD, string, fret, at, length));
          if (what === 'length') notes = withLength(notes, at, length);
          if (what === 'paste') notes = pasted(notes, copied(notes, { from: 0, to: length }), at, length);
          if (what === 'split') notes = split(notes, at);
          if (what === 'join') notes = joinedIn(notes, { from: at, to: at + length });
          if (what === 'move' && notes.length) {
            notes = moved(notes, fret % notes.length, at, soundAt(STANDARD, string, fret)) ?? notes;
          }
          notes.forEach((note, i) => {
            const next = notes.find((other, n) => n > i && other.start > note.start);
            expect(note.length).toBeGreaterThan(0);
            if (next) expect(endOf(note)).toBeLessThanOrEqual(next.start);
            expect(notes.filter(({ start }) => start === note.start).length).toBeLessThanOrEqual(2);
            if (i) expect(note.start).toBeGreaterThanOrEqual(notes[i - 1]!.start);
          });
        }
      }),
      { numRuns: 80 }
    );
  });
});
