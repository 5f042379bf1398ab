import { describe, expect, it } from 'vitest';
import { collectionOf } from '../core/approaches/collection';
import { DEFAULT_PLAN } from '../core/plan/model';
import { planSchema } from './plan';
import { DEFAULT_SETTINGS } from './default-settings';
import { settingsSchema } from './settings';

describe('what was stored by an earlier version', () => {
  const FIRST = {
    position: 7,
    thread: '3',
    degrees: ['3'],
    loop: false,
    fixed: [
      { change: 2, string: 2, fret: 8 },
      { change: 2, beat: 3, string: 3, fret: 7 }
    ],
    choices: [
      { change: 0, approach: 'modes', name: 'F dorian' },
      {
        change: 2,
        approach: 'substitution',
        name: 'Ebmaj7 arpeggio',
        then: { beat: 3, name: 'Bbmaj7 arpeggio from D' }
      },
      { change: 3, approach: 'triads', name: 'D minor triad' },
      { change: 4, approach: 'guide-tones', name: 'Am7b5 guide tones' },
      { change: 5, approach: 'modes', name: 'nothing anybody plays' }
    ],
    overrules: [{ change: 1, key: 'Ab', function: 'borrowed' }],
    positions: [{ change: 2, position: 10 }],
    approaches: [{ change: 1, kind: 'enclosure' }],
    school: 'blues',
    approach: 'below'
  };

  it('is read into a record per change, with what has come since at its first value', () => {
    const plan = planSchema.parse(FIRST);
    const { position, thread, degrees, loop } = FIRST;
    expect(plan).toMatchObject({
      position,
      thread,
      degrees,
      loop,
      approach: 'blues',
      approachNotes: 'below'
    });
    expect(plan).toMatchObject({ weights: DEFAULT_PLAN.weights, which: 'all', every: null, reach: 'hand' });
    expect(plan.decisions.map(({ change }) => change)).toEqual([0, 1, 2, 3, 4]);
    expect(plan.decisions[1]).toEqual({
      change: 1,
      reading: { key: 'Ab', function: 'borrowed' },
      approachNote: 'enclosure'
    });
    expect(plan.decisions[2]).toEqual({
      change: 2,
      position: 10,
      pins: [
        { string: 2, fret: 8 },
        { beat: 3, string: 3, fret: 7 }
      ],
      choice: {
        approach: 'substitution',
        collection: { kind: 'arpeggio', root: 'Eb', type: 'maj7' },
        then: { beat: 3, collection: { kind: 'arpeggio', root: 'Bb', type: 'maj7', inversion: 1 } }
      }
    });
  });

  it('keeps what was chosen: every collection is made again by the name it had', () => {
    const { decisions } = planSchema.parse(FIRST);
    const made = decisions.flatMap(({ choice }) => (choice ? [collectionOf(choice.collection)!.name] : []));
    expect(made).toEqual(FIRST.choices.slice(0, 4).map(({ name }) => name));
  });

  it('is not mended where it is no plan at all', () => {
    for (const stored of [null, 7, 'plan', [], {}, { position: 3 }, { fixed: 'all' }]) {
      expect(planSchema.safeParse(stored).success, JSON.stringify(stored)).toBe(false);
    }
  });

  it('of the settings', () => {
    expect(settingsSchema.parse({ theme: 'stage', leftHanded: true })).toEqual({
      ...DEFAULT_SETTINGS,
      theme: 'stage',
      leftHanded: true
    });
  });

  it('a new plan is a whole one', () => {
    expect(planSchema.parse(DEFAULT_PLAN)).toEqual(DEFAULT_PLAN);
  });

  it.each([
    [{ ...DEFAULT_PLAN, position: -1 }],
    [{ ...DEFAULT_PLAN, every: 0 }],
    [{ ...DEFAULT_PLAN, weights: { ...DEFAULT_PLAN.weights, pitch: -1 } }],
    [{ ...DEFAULT_PLAN, approachNotes: 'magic' }],
    [{ ...DEFAULT_PLAN, strings: [] }],
    [{ ...DEFAULT_PLAN, decisions: [{ change: 0, position: 99 }] }],
    [{ ...DEFAULT_PLAN, decisions: [{ change: -1 }] }]
  ])('%#: what cannot be is not taken', (plan) => {
    expect(planSchema.safeParse(plan).success).toBe(false);
  });

  it('settings keep to instruments that are there', () => {
    expect(settingsSchema.safeParse({ tuning: 'H2 X3 Y4' }).success).toBe(false);
    expect(settingsSchema.safeParse({ frets: 12 }).success).toBe(false);
    expect(settingsSchema.safeParse({ span: 7 }).success).toBe(false);
    expect(
      settingsSchema.safeParse({ tuning: 'C2 G2 C3 G3 C4 E4', frets: 24, span: 6, capo: 5 }).success
    ).toBe(true);
  });
});
