import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readSheet } from '../harmony/sheet';
import { noteOf, ordered, TICKS } from './model';
import { readLine, readPart } from './read';

const { form, analysis, head } = readSheet('{key: Gb}\n| Gbmaj7 | Ebm7 Abm7 | Db7b9 | Cb6 . Bbm7b5 Eb7 |');
const ground = { form, analysis, chosen: analysis.changes.map(() => null) };

describe('a part of a line', () => {
  it('knows the goal of an enclosure whose first note alone is asked for', () => {
    // G, F, G flat: both sides of the root of Gbmaj7, which falls on beat 2.
    const notes = [noteOf(480, 240, 67), noteOf(720, 240, 65), noteOf(TICKS, TICKS, 66)];
    const line = { meter: head.meter, notes };
    expect(readLine(line, ground).notes[0]).toMatchObject({ role: 'approach', leadsTo: 2 });
    expect(readPart(line, ground, 0, 1)).toEqual(readLine(line, ground).notes.slice(0, 1));
  });

  it('is read as the whole is, whatever stands around it', () => {
    const notes = fc.array(
      fc.tuple(
        fc.integer({ min: -4, max: 63 }),
        fc.constantFrom(120, 240, 480, 960),
        fc.integer({ min: 54, max: 70 })
      ),
      { minLength: 1, maxLength: 60 }
    );
    fc.assert(
      fc.property(notes, fc.nat(59), fc.nat(20), (all, from, count) => {
        const line = {
          meter: head.meter,
          notes: ordered(all.map(([at, length, midi]) => noteOf((at * TICKS) / 4, length, midi)))
        };
        const whole = readLine(line, ground).notes;
        expect(readPart(line, ground, from, from + count)).toEqual(whole.slice(from, from + count));
      })
    );
  });
});
