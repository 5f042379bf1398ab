import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { systemOf } from '../neck/systems/registry';
import { STANDARD } from '../neck/tuning';
import { DEFAULT_PLAN, type Plan } from './model';
import { arrangeVersion, carriedOver, haveSameChoices } from './version';

const CHORDS = ['Dbm7', 'Gb7', 'Cbmaj7', 'Fm7b5', 'Bb7b9', 'Ebm6'];
const textOf = (chords: readonly string[]) => `{key: Gb}\n| ${chords.join(' | ')} |`;
const chords = fc.array(fc.constantFrom(...CHORDS), { minLength: 1, maxLength: 10 });
const decidedOn = (changes: readonly number[]): Plan => ({
  ...DEFAULT_PLAN,
  decisions: changes.map((change) => ({ change, position: change + 1 }))
});

describe('a version of a chart', () => {
  it('carried over to its own text is itself', () => {
    const version = { source: textOf(CHORDS), plan: decidedOn([0, 3]) };
    expect(carriedOver(version, version.source)).toBe(version);
  });

  it('keeps every decision on a chord of the same symbol, in its order, and none twice', () => {
    fc.assert(
      fc.property(chords, chords, (before, after) => {
        const plan = decidedOn(before.map((_, i) => i));
        const carried = carriedOver({ source: textOf(before), plan }, textOf(after));
        const kept = carried.plan.decisions;
        // What was decided tells by its position where it came from.
        for (const { change, position } of kept) expect(after[change]).toBe(before[position! - 1]);
        const places = kept.map(({ change }) => change);
        expect(places).toEqual([...new Set(places)].sort((a, b) => a - b));
      })
    );
  });

  it('keeps all of them where chords are only put in', () => {
    fc.assert(
      fc.property(chords, fc.nat(10), fc.constantFrom(...CHORDS), (before, at, chord) => {
        const plan = decidedOn(before.map((_, i) => i));
        const after = [...before.slice(0, at), chord, ...before.slice(at)];
        expect(carriedOver({ source: textOf(before), plan }, textOf(after)).plan.decisions).toHaveLength(
          before.length
        );
      })
    );
  });

  it('has other choices with another scale, approach or reading, not with another place of the hand', () => {
    const collection = { root: 'G', kind: 'scale', type: 'altered' } as const;
    const choice = { approach: 'modes', collection } as unknown as NonNullable<
      Plan['decisions'][number]['choice']
    >;
    const chosen: Plan = { ...DEFAULT_PLAN, decisions: [{ change: 1, choice }] };
    const moved: Plan = {
      ...chosen,
      position: 9,
      decisions: [
        { position: 7, choice, change: 1 },
        { change: 2, position: 3 }
      ]
    };
    expect(haveSameChoices(chosen, moved)).toBe(true);
    expect(haveSameChoices(chosen, DEFAULT_PLAN)).toBe(false);
    expect(haveSameChoices(chosen, { ...chosen, approach: 'blues' })).toBe(false);
    const read: Plan = { ...chosen, decisions: [{ change: 1, choice, reading: { key: 'Ab' } }] };
    expect(haveSameChoices(chosen, read)).toBe(false);
  });

  it('is arranged as one', () => {
    const version = { source: '{key: C}\n| Am7 | Dm7 | G7 | Cmaj7 |', plan: DEFAULT_PLAN };
    const { sheet, plan, chosen } = arrangeVersion(version, STANDARD, systemOf('positions'));
    expect(sheet.form.changes).toHaveLength(4);
    expect(plan).toBe(version.plan);
    expect(chosen[2]?.name).toBe('G mixolydian');
  });
});
