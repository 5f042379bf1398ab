import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { transposeText } from '../chart/transpose';
import { readSheet } from '../harmony/sheet';
import { APPROACH_KINDS } from '../line/approach-notes';
import { systemOf } from '../neck/systems/registry';
import { readInstrument, STANDARD } from '../neck/tuning';
import { findTargets } from '../targets/path';
import { arrange } from './arrange';
import {
  approachWith,
  decide,
  decisionAt,
  isPinned,
  leaveChoice,
  moveChangeOver,
  overrule,
  paint,
  pin,
  pinsOf,
  resetRules,
  settle,
  takeChoices,
  takePath,
  unpin,
  unpinAll
} from './edits';
import { DEFAULT_PLAN, type Plan } from './model';
import { movedPlan } from './move';
import { realign } from './realign';
import { stage } from './stage';

const DORIAN = { approach: 'modes', collection: { kind: 'scale', root: 'F', type: 'dorian' } } as const;
const E_FLAT = { tonic: 'Eb', mode: 'major' } as const;
const CADENCE = '{key: Eb}\n| Fm7 | Bb7 | Ebmaj7 | C7b9 |';
const at = (text: string, plan: Plan = DEFAULT_PLAN, system = 'positions', neck = STANDARD) =>
  arrange({ sheet: readSheet(text), plan }, neck, systemOf(system));
const best = (arrangement: ReturnType<typeof at>) => {
  const options = arrangement.targetOptions(arrangement.plan.thread);
  return findTargets(arrangement.analysis, options).paths[0]!;
};

describe('edits of a plan', () => {
  it('keep a record per change, in order, and drop one in which nothing is decided any more', () => {
    const painted = paint(DEFAULT_PLAN, new Map([[3, 8], [1, 5]])); // prettier-ignore
    expect(painted.decisions).toEqual([
      { change: 1, position: 5 },
      { change: 3, position: 8 }
    ]);
    const pinned = pin(painted, 1, { string: 2, fret: 6 });
    expect(decisionAt(pinned, 1)).toEqual({ change: 1, position: 5, pins: [{ string: 2, fret: 6 }] });
    expect(settle(pinned, 7)).toMatchObject({
      position: 7,
      decisions: [{ change: 1, pins: [{ string: 2, fret: 6 }] }]
    });
    expect(unpinAll(settle(pinned, 7)).decisions).toEqual([]);
    expect(DEFAULT_PLAN.decisions).toEqual([]);
  });

  it('take, move over and leave a choice', () => {
    const over = { ...DORIAN, then: { beat: 3, collection: { kind: 'scale', root: 'Bb', type: 'mixolydian' } } } as const; // prettier-ignore
    const taken = takeChoices(DEFAULT_PLAN, new Map([[0, over]]));
    expect(decisionAt(moveChangeOver(taken, 0, 2), 0)!.choice!.then!.beat).toBe(2);
    expect(moveChangeOver(taken, 1, 2)).toBe(taken);
    expect(leaveChoice(taken, 0).decisions).toEqual([]);
  });

  it('overrule the reading part by part', () => {
    const both = overrule(overrule(DEFAULT_PLAN, 2, { key: 'Ab' }), 2, { function: 'borrowed' });
    expect(decisionAt(both, 2)!.reading).toEqual({ key: 'Ab', function: 'borrowed' });
    expect(decisionAt(overrule(both, 2, { key: '' }), 2)!.reading).toEqual({ function: 'borrowed' });
    expect(overrule(overrule(both, 2, { key: '' }), 2, { function: '' }).decisions).toEqual([]);
  });

  it('pin one target a beat, and let go of all of a change', () => {
    const first = pin(DEFAULT_PLAN, 0, { string: 3, fret: 5 });
    const later = pin(first, 0, { beat: 3, string: 2, fret: 6 });
    const again = pin(later, 0, { string: 4, fret: 7 });
    expect(pinsOf(again)).toEqual([
      { change: 0, string: 4, fret: 7 },
      { change: 0, beat: 3, string: 2, fret: 6 }
    ]);
    expect(isPinned(unpin(again, 0), 0)).toBe(false);
  });

  it('take another path so that it runs as it was shown', () => {
    const arrangement = at(CADENCE);
    const options = { ...arrangement.targetOptions('free'), alternatives: 20 };
    const [now, ...others] = findTargets(arrangement.analysis, options).paths;
    const isShared = (i: number, cell: object) =>
      JSON.stringify(now!.targets[i]!.cell) === JSON.stringify(cell);
    const other = others.find(({ targets }) => targets.some(({ cell }, i) => isShared(i, cell)));
    const solve = (plan: Plan) => best(at(CADENCE, plan));
    const taken = takePath(DEFAULT_PLAN, now!, other!, solve);
    expect(pinsOf(taken).length).toBeGreaterThan(0);
    const cells = (path: typeof now) => path!.targets.map(({ cell }) => `${cell.string}:${cell.fret}`);
    expect(cells(best(at(CADENCE, taken)))).toEqual(cells(other));
  });

  it('take a path where nothing can be solved by pinning all of it', () => {
    const path = best(at(CADENCE));
    const taken = takePath(DEFAULT_PLAN, null, path, () => null);
    expect(pinsOf(taken)).toHaveLength(path.targets.length);
    expect(pin(taken, 0, path.targets[0]!.cell)).toBe(taken);
  });

  it('reset the rules of the line, and nothing that was decided change by change', () => {
    const own = {
      ...pin(DEFAULT_PLAN, 1, { string: 1, fret: 3 }),
      direction: 'rising',
      reach: 'neck'
    } as const;
    expect(resetRules(own)).toEqual(pin(DEFAULT_PLAN, 1, { string: 1, fret: 3 }));
  });

  it('never touch another change', () => {
    const edits = fc.constantFrom<(plan: Plan, change: number) => Plan>(
      (plan, change) => pin(plan, change, { string: 2, fret: 5 }),
      (plan, change) => unpin(plan, change),
      (plan, change) => paint(plan, new Map([[change, 7]])),
      (plan, change) => approachWith(plan, change, 'below'),
      (plan, change) => overrule(plan, change, { key: 'G' }),
      (plan, change) => takeChoices(plan, new Map([[change, DORIAN]])),
      (plan, change) => leaveChoice(plan, change)
    );
    fc.assert(
      fc.property(fc.array(fc.tuple(edits, fc.nat(5)), { maxLength: 20 }), (list) => {
        let plan: Plan = DEFAULT_PLAN;
        for (const [edit, change] of list) {
          const next = edit(plan, change);
          const others = (one: Plan) => one.decisions.filter((decision) => decision.change !== change);
          expect(others(next)).toEqual(others(plan));
          const order = next.decisions.map((decision) => decision.change);
          expect(order).toEqual([...new Set(order)].sort((a, b) => a - b));
          expect(next.decisions.every((decision) => Object.keys(decision).length > 1)).toBe(true);
          plan = next;
        }
      })
    );
  });
});

describe('decisions when the text is edited', () => {
  const plan = [1, 3].map((change) => ({ change }));
  it('go with the chords they stand on: one before them is deleted, one is put in', () => {
    expect(realign(plan, ['C', 'F', 'G', 'Am'], ['F', 'G', 'Am'])).toEqual([{ change: 0 }, { change: 2 }]);
    expect(realign(plan, ['C', 'F', 'G', 'Am'], ['C', 'Dm', 'F', 'G', 'Am'])).toEqual([
      { change: 2 },
      { change: 4 }
    ]);
  });
  it('are dropped with their chord, and never slide to its neighbour', () => {
    expect(realign(plan, ['C', 'F', 'G', 'Am'], ['C', 'G', 'Am'])).toEqual([{ change: 2 }]);
    expect(realign(plan, ['C', 'F', 'G', 'Am'], ['C', 'Fm', 'G', 'Am'])).toEqual([{ change: 3 }]);
  });
});

describe('an arrangement', () => {
  it('plays what is chosen by hand, else by the approach where outlined, else the scale of the key', () => {
    const taken = takeChoices(DEFAULT_PLAN, new Map([[0, { ...DORIAN, collection: { ...DORIAN.collection, type: 'minor pentatonic' } }]])); // prettier-ignore
    expect(at(CADENCE, taken).chosen.map((choice) => choice?.name)).toEqual([
      'F minor pentatonic',
      'Bb mixolydian',
      'Eb major',
      'C altered'
    ]);
    const none = at(CADENCE, { ...taken, outline: 0 });
    expect(none.chosen.map((choice) => choice?.name)).toEqual([
      'F minor pentatonic',
      'Eb major',
      'Eb major',
      'Eb major'
    ]);
    expect(none.outlined).toBe(0);
  });

  it('brings every position within the neck, capo and span counted', () => {
    const neck = readInstrument({ capo: 3, frets: 19 })!;
    const plan = paint({ ...DEFAULT_PLAN, position: 0 }, new Map([[1, 24]]));
    const { positions, lowestPosition, highestPosition } = at(CADENCE, plan, 'positions', neck);
    expect(positions).toEqual([3, 15, 3, 3]);
    expect([lowestPosition, highestPosition]).toEqual([3, 15]);
  });

  it('leaves out a pin that the tuning has taken the sense out of, and keeps it in the plan', () => {
    const plan = pin(DEFAULT_PLAN, 0, { string: 2, fret: 9 });
    expect(at(CADENCE, plan).targetOptions('free').fixed).toHaveLength(1);
    const drop = readInstrument({ tuning: 'half-step down' })!;
    expect(at(CADENCE, plan, 'positions', drop).targetOptions('free').fixed).toHaveLength(0);
    expect(at(CADENCE, plan).targetOptions('3').fixed).toHaveLength(0);
  });

  it('leads into targets by the wish for all, and by the wish of a change', () => {
    const plan = approachWith({ ...DEFAULT_PLAN, approachNotes: 'below' }, 2, 'none');
    const arrangement = at(CADENCE, plan);
    const path = best(arrangement);
    const into = [...arrangement.approachNotes(path).keys()].map((i) => path.targets[i]!.change);
    expect(into).not.toContain(2);
    expect(into.length).toBeGreaterThan(1);
    // Without any wish the skeleton is led in by what fits.
    expect(APPROACH_KINDS.length).toBeGreaterThan(3);
    const plain = at(CADENCE);
    expect(plain.skeleton(best(plain)).notes.some(({ purpose }) => purpose === 'approach')).toBe(true);
  });

  it('works out again only what an edit touches', () => {
    const sheet = readSheet(CADENCE);
    const first = arrange({ sheet, plan: DEFAULT_PLAN }, STANDARD, systemOf('forms'));
    const all = [first.chosen, first.map, first.moments, first.tones, first.union];
    expect(all.every(Boolean)).toBe(true);
    const moved = arrange(
      { sheet, plan: { ...DEFAULT_PLAN, position: 8 } },
      STANDARD,
      systemOf('forms'),
      first
    );
    expect(moved.chosen).toBe(first.chosen);
    expect(moved.map).toBe(first.map);
    expect(moved.union).toBe(first.union);
    expect(moved.moments).not.toBe(first.moments);
    const pinned = arrange(
      { sheet, plan: pin(DEFAULT_PLAN, 0, { string: 3, fret: 5 }) },
      STANDARD,
      systemOf('forms'),
      moved
    );
    expect(pinned.chosen).toBe(first.chosen);
    const chosen = arrange({ sheet, plan: takeChoices(DEFAULT_PLAN, new Map([[0, DORIAN]])) }, STANDARD, systemOf('forms'), pinned); // prettier-ignore
    expect(chosen.analysis).toBe(first.analysis);
    expect(chosen.chosen).not.toBe(first.chosen);
  });

  it('gives the same with a history as without one', () => {
    const plans = fc.array(
      fc.record({
        position: fc.integer({ min: 0, max: 15 }),
        outline: fc.option(fc.nat(4)),
        approach: fc.constantFrom('modes', 'chord-pentatonic', 'arpeggio')
      }),
      { minLength: 1, maxLength: 5 }
    );
    const sheet = readSheet(CADENCE);
    fc.assert(
      fc.property(plans, fc.constantFrom('positions', 'minor-boxes', 'three'), (list, id) => {
        const system = systemOf(id);
        let before: ReturnType<typeof arrange> | undefined;
        for (const part of list) {
          const plan = { ...DEFAULT_PLAN, ...part };
          const now = arrange({ sheet, plan }, STANDARD, system, before);
          const fresh = arrange({ sheet, plan }, STANDARD, system);
          expect(now.moments).toEqual(fresh.moments);
          expect(now.union).toBe(fresh.union);
          before = now;
        }
      }),
      { numRuns: 25 }
    );
  });
});

describe('a stage', () => {
  it('is worked out once, when asked for, and handed on over stages that nobody asked', () => {
    let made = 0;
    const make = () => ++made;
    const first = stage(() => ['a'], make, undefined);
    expect(made).toBe(0);
    expect([first.value, first.value]).toEqual([1, 1]);
    const unasked = stage(() => ['a'], make, first);
    expect(stage(() => ['a'], make, unasked).value).toBe(1);
    expect(stage(() => ['b'], make, unasked).value).toBe(2);
    expect(stage(() => ['a', 'a'], make, first).value).toBe(3);
  });
});

describe('a hand that the player has put nowhere', () => {
  it('lies where everything played needs the fewest stretches, of a place that the map names', () => {
    for (const system of ['positions', 'minor-boxes', 'forms']) {
      for (const text of [CADENCE, '{key: Ab}\n| Bbm7 | Eb7 | Abmaj7 |', '{key: F#m}\n| F#m | D | A | E |']) {
        const arrangement = at(text, DEFAULT_PLAN, system);
        const { home, map, subjects, rows } = arrangement;
        expect(map.map(({ position }) => position)).toContain(home);
        const stretches = (position: number) =>
          subjects
            .flatMap((subject) => systemOf(system).areaAt(STANDARD, subject!, position).cells)
            .filter(({ stretch }) => stretch).length;
        const places = rows
          .map(({ position }) => position)
          .filter((position) => position >= 1 && position <= 12);
        // A chord that comes twice counts once, so that the least is told chord by chord.
        if (new Set(subjects.map((subject) => subject!.collection.name)).size === subjects.length) {
          expect(stretches(home)).toBe(Math.min(...places.map(stretches)));
        }
      }
    }
    expect(at(CADENCE, { ...DEFAULT_PLAN, position: 9 }).home).toBe(9);
  });
});

describe('a plan in another key', () => {
  it('gives the same degrees and shapes, so far as the neck goes', () => {
    const plan = decide({ ...DEFAULT_PLAN, position: 5 }, new Map([[0, { choice: DORIAN, pins: [{ string: 3, fret: 8 }], reading: { key: 'Eb' } }]])); // prettier-ignore
    const home = at(CADENCE, plan);
    const moved = at(transposeText(CADENCE, E_FLAT, 3), movedPlan(plan, STANDARD, E_FLAT, 3));
    expect(moved.chosen[0]!.name).toBe('Ab dorian');
    expect(moved.plan.decisions[0]).toMatchObject({
      pins: [{ string: 3, fret: 11 }],
      reading: { key: 'Gb' }
    });
    expect(moved.chosen.map((choice) => choice!.degrees)).toEqual(
      home.chosen.map((choice) => choice!.degrees)
    );
    const shape = (one: typeof home, by: number) =>
      one.areas.map((area) => area!.cells.map(({ string, fret }) => `${string}:${fret - by}`).sort());
    expect(shape(moved, 3)).toEqual(shape(home, 0));
  });

  it('goes an octave down where the neck ends, and lets go of what it cannot hold', () => {
    const plan = pin({ ...DEFAULT_PLAN, position: 14 }, 0, { string: 3, fret: 10 });
    const moved = movedPlan(plan, STANDARD, E_FLAT, 9);
    expect(moved.position).toBe(11);
    expect(pinsOf(moved)).toEqual([{ change: 0, string: 3, fret: 7 }]);
    expect(pinsOf(movedPlan(plan, STANDARD, E_FLAT, 1))).toEqual([{ change: 0, string: 3, fret: 11 }]);
    // A pin that neither way keeps is let go.
    const wide = pin(pin(DEFAULT_PLAN, 0, { string: 3, fret: 1 }), 1, { string: 1, fret: 21 });
    expect(pinsOf(movedPlan(wide, STANDARD, E_FLAT, 9))).toEqual([{ change: 1, string: 1, fret: 18 }]);
  });

  it('goes the short way, and not below the first fret', () => {
    const at = (position: number, shift: number) =>
      movedPlan({ ...DEFAULT_PLAN, position }, STANDARD, E_FLAT, shift).position;
    expect([1, 5, 6].map((shift) => at(5, shift))).toEqual([6, 10, 11]);
    expect([11, 10, 8].map((shift) => at(5, shift))).toEqual([4, 3, 1]);
    expect(at(5, 7)).toBe(12);
    expect(at(0, 0)).toBe(0);
  });
});
