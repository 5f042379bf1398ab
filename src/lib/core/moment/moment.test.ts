import { systemOf } from '../neck/systems/registry';
import { contextOf } from '../approaches/context';
import { keyCentre } from '../approaches/key-centre';
import { modes } from '../approaches/modes';
import { describe, expect, it } from 'vitest';
import { readSheet } from '../harmony/sheet';
import { STANDARD } from '../neck/tuning';
import type { ScaleChoice } from '../approaches/choice';
import type { Analysis } from '../harmony/analysis';
import { gripStages } from './grips';
import { marksEverywhere, momentOf, movesBetween, subjectOf, tonesElsewhere, tonesInReach } from './moment';

const { analysis } = readSheet('{key: Eb}\n| Fm7 | Bb7 | Ebmaj7 | N.C. |');
const chord = (i: number) => analysis.changes[i]!.chord!;
const inPosition = (of: Analysis, index: number, position: number, choice: ScaleChoice) => {
  const subject = subjectOf(of.changes[index]!.chord!, choice);
  return momentOf(of, index, STANDARD, choice, systemOf('positions').areaAt(STANDARD, subject, position));
};

describe('the moment of change', () => {
  it('gives every note under the hand its role', () => {
    const { marks, choice } = inPosition(analysis, 1, 6, modes(contextOf(analysis, 1)!)[0]!);
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
    const { marks } = inPosition(blues, 0, 6, choice);
    const blue = marks.filter((m) => m.note === 'Gb' || m.note === 'Bbb');
    expect(new Set(blue.map((m) => `${m.degree} ${m.role}`))).toEqual(new Set(['b3 other', 'b5 other']));
  });

  it('tells a chord that goes to a minor one from the same chord that does not, in one and the same area', () => {
    const { analysis: two } = readSheet('{key: Db}\n| Ab7 | Dbmaj7 | Ab7 | Dbm6 |');
    const altered = modes(contextOf(two, 2)!).find(({ degrees }) => degrees.includes('b13'))!;
    const subject = subjectOf(two.changes[0]!.chord!, altered);
    const area = systemOf('positions').areaAt(STANDARD, subject, 4);
    const roles = (index: number) =>
      momentOf(two, index, STANDARD, altered, area)
        .marks.filter(({ degree }) => degree === 'b13')
        .map(({ role }) => role);
    expect(new Set(roles(0))).not.toEqual(new Set(['tension']));
    expect(new Set(roles(2))).toEqual(new Set(['tension']));
  });

  it('has nothing to show where no chord sounds', () => {
    expect(momentOf(analysis, 3, STANDARD, null, null)).toMatchObject({ choice: null, marks: [] });
  });

  it('moves every chord tone to the nearest one of the next chord', () => {
    const moves = movesBetween(tonesInReach(chord(0), STANDARD, 6), tonesInReach(chord(1), STANDARD, 6));
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

  it('knows the whole neck by role', () => {
    const marks = marksEverywhere(analysis, 1, STANDARD, modes(contextOf(analysis, 1)!)[0]!);
    // Bb mixolydian sounds seven of twelve pitch classes on every string.
    expect(marks.filter(({ string, fret }) => string === 6 && fret > 0 && fret <= 12)).toHaveLength(7);
    expect(marks.find(({ string, fret }) => string === 6 && fret === 6)).toMatchObject({
      note: 'Bb',
      degree: '1',
      role: 'chord'
    });
    expect(marks.find(({ degree }) => degree === '11')!.role).toBe('avoid');
    expect(marksEverywhere(analysis, 3, STANDARD, null)).toEqual([]);
  });

  it('passes over rests and thin chords where it looks for grips', () => {
    const thin = readSheet('| C5 | Am7 | N.C. | F |').analysis;
    expect(gripStages(thin, STANDARD, 'closed', [4, 3, 2]).map(({ change }) => change)).toEqual([1, 3]);
    expect(gripStages(thin, STANDARD, 'drop2', [4, 3, 2, 1]).map(({ change }) => change)).toEqual([1]);
  });
});
