import { describe, expect, it } from 'vitest';
import { record, redo, startHistory, undo } from './history';
import { realign } from '$lib/core/plan/realign';

describe('history', () => {
  it('undoes and does again', () => {
    let h = record(record(startHistory('a'), 'b', 'x', 0), 'c', 'y', 1);
    h = undo(h);
    expect(h.present).toBe('b');
    expect(redo(h).present).toBe('c');
    expect(undo(undo(undo(h))).present).toBe('a');
    expect(redo(record(h, 'd', 'z', 2)).present).toBe('d');
  });

  it('takes a run of typing back in one step', () => {
    let h = startHistory('');
    for (const [i, text] of ['C', 'Cm', 'Cm7'].entries()) h = record(h, text, 'text', i * 100, true);
    expect(undo(h).present).toBe('');
    expect(undo(record(h, 'Cm7 F7', 'text', 99_999, true)).present).toBe('Cm7');
  });
});

describe('realign', () => {
  const pins = [{ change: 0 }, { change: 2 }];
  it('keeps decisions on their changes when chords come in before them', () => {
    expect(realign(pins, ['C', 'F', 'G'], ['Am', 'C', 'F', 'G'])).toEqual([{ change: 1 }, { change: 3 }]);
  });
  it('lets a decision go with its change', () => {
    expect(realign(pins, ['C', 'F', 'G'], ['C', 'F', 'G7'])).toEqual([{ change: 0 }]);
  });
});
