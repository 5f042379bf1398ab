import { contextOf } from '../approaches/context';
import { keyCentre } from '../approaches/key-centre';
import { modes } from '../approaches/modes';
import { describe, expect, it } from 'vitest';
import { readSheet } from '../harmony/sheet';
import { STANDARD } from '../neck/tuning';
import { momentOf, movesBetween, tonesElsewhere, tonesInReach } from './moment';

const { analysis } = readSheet('{key: Eb}\n| Fm7 | Bb7 | Ebmaj7 | N.C. |');
const chord = (i: number) => analysis.changes[i]!.chord!;

describe('the moment of change', () => {
  it('gives every note under the hand its role', () => {
    const { marks, choice } = momentOf(analysis, 1, STANDARD, 6, modes(contextOf(analysis, 1)!)[0]!);
    expect(choice!.name).toBe('Bb mixolydian');
    const roles = new Map(marks.map((m) => [m.degree, m.role]));
    expect(Object.fromEntries(roles)).toEqual({
      '1': 'chord',
      '3': 'chord',
      '5': 'chord',
      b7: 'chord',
      '9': 'tension',
      '13': 'tension',
      '11': 'avoid'
    });
  });

  it('reads the passing notes of a blues scale as blue', () => {
    const { analysis: blues } = readSheet('{key: Eb}\n| Eb7 | Ab7 | Bb7 |');
    const choice = keyCentre(contextOf(blues, 0)!)[0]!;
    const { marks } = momentOf(blues, 0, STANDARD, 6, choice);
    const blue = marks.filter((m) => m.note === 'Gb' || m.note === 'Bbb');
    expect(new Set(blue.map((m) => `${m.degree} ${m.role}`))).toEqual(new Set(['b3 other', 'b5 other']));
  });

  it('has nothing to show where no chord sounds', () => {
    expect(momentOf(analysis, 3, STANDARD, 6, null)).toMatchObject({ choice: null, marks: [] });
  });

  it('moves every chord tone to the nearest one of the next chord', () => {
    const moves = movesBetween(chord(0), chord(1), STANDARD, 6);
    const byDegree = new Map(moves.map((m) => [m.from.degree, `${m.to.degree} ${m.semitones}`]));
    expect(byDegree.get('1')).toBe('5 0');
    expect(byDegree.get('b3')).toBe('b7 0');
    expect(byDegree.get('b7')).toBe('3 -1');
  });

  it('parts the neck into what the hand reaches and the rest', () => {
    const near = tonesInReach(chord(2), STANDARD, 6);
    const far = tonesElsewhere(chord(2), STANDARD, 5, 10);
    expect(near.every((t) => t.fret >= 5 && t.fret <= 10)).toBe(true);
    expect(far.every((t) => t.fret < 5 || t.fret > 10)).toBe(true);
  });
});
