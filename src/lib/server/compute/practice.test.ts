import { describe, expect, it } from 'vitest';
import { practiceRequest } from '../../api/requests';
import { PlayerError } from '../../api/errors';
import { parse } from '../web/body';
import { answerPractice } from './practice';

const plan = (request: object) => answerPractice(parse(practiceRequest, request));
const refusal = (request: object) => {
  try {
    plan(request);
  } catch (error) {
    if (error instanceof PlayerError) return error.error;
  }
  return null;
};
const ITEMS = [
  { id: 'shapes', what: 'up', chart: 'pump', key: 'Eb', tempo: { start: 60, goal: 80 } },
  {
    id: 'targets',
    what: 'targets',
    chart: 'pump',
    key: 'Eb',
    after: ['shapes'],
    tempo: { start: 60, goal: 80 }
  }
];
const row = (day: string) => ({ item: 'shapes', day, tempo: 80, clean: true, rounds: 2, seconds: 60 });
const BASE = { items: ITEMS, log: [], minutes: 25, day: '2026-03-05' };

describe('the route of the plan for a day', () => {
  it('opens what stands on an item once that is held on two days, and tells due cards and held items', () => {
    const { session, due, held } = plan({
      ...BASE,
      log: [row('2026-03-02'), row('2026-03-04')],
      cards: [
        { id: 'b', due: '2026-03-05T08:00:00Z' },
        { id: 'a', due: '2026-03-01' },
        { id: 'c', due: '2026-03-06' }
      ]
    });
    expect(held).toEqual(['shapes']);
    expect(due).toEqual(['a', 'b']);
    expect(session.map(({ kind }) => kind)).toContain('new');
    expect(session.find(({ kind }) => kind === 'new')).toMatchObject({ item: 'targets', tempo: 60 });
    expect(session.reduce((sum, { minutes }) => sum + minutes, 0)).toBe(25);
  });

  it('answers an empty log with a first session, and an empty everything with something to do', () => {
    expect(plan(BASE).session[0]).toMatchObject({ kind: 'new', item: 'shapes' });
    expect(plan({ ...BASE, items: [] }).session.length).toBeGreaterThan(0);
  });

  it('leaves rows alone whose item is gone', () => {
    const log = [{ ...row('2026-03-02'), item: 'gone' }];
    expect(plan({ ...BASE, log })).toEqual(plan({ ...BASE, log: [] }));
  });

  it('refuses in a sentence what cannot be planned', () => {
    expect(refusal({ ...BASE, minutes: 0 })!.message).toContain('1 to 240');
    expect(refusal({ ...BASE, minutes: 10_000 })!.message).toContain('two sessions');
    expect(refusal({ ...BASE, day: '2026-02-30' })!.message).toContain('“2026-02-30” is no day');
    expect(refusal({ ...BASE, items: [ITEMS[0], ITEMS[0]] })!.message).toContain('two items');
    expect(refusal({ ...BASE, log: [{ ...row('2026-03-02'), tempo: 5000 }] })!.path).toBe('log.0.tempo');
  });
});
