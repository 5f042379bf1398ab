import { describe, expect, it } from 'vitest';
import { TICKS } from '../line/model';
import { chartOf, type FoundBar } from './chart-of';

const BAR = 4 * TICKS;
const bars = (count: number, sections: Record<number, string> = {}): FoundBar[] =>
  Array.from({ length: count }, (_, i) => ({
    start: i * BAR,
    length: BAR,
    meter: { beats: 4, unit: 4 },
    ...(sections[i] ? { section: sections[i] } : {})
  }));
const at = (beats: number, symbol: string) => ({ start: beats * TICKS, symbol });

describe('a chart from bars and chords in time', () => {
  it('holds a chord over the bars that name none, and is silent before the first', () => {
    const { chart, left } = chartOf({ bars: bars(4), chords: [at(4, 'Fm7'), at(14, 'Bb7')] }, TICKS);
    expect(chart).toBe('{time: 4/4}\n{start_of_grid}\n| N.C. | Fm7 | Fm7 | Fm7 Bb7 |\n{end_of_grid}\n');
    expect(left).toEqual([]);
  });

  it('takes as few cells as say it, and moves what stands off half a beat', () => {
    const { chart, left } = chartOf(
      { bars: bars(2), chords: [at(0, 'C'), at(2.5, 'F'), at(5.2, 'G')] },
      TICKS
    );
    expect(chart).toContain('| C . . . . F . . | F G . . |');
    expect(left).toEqual([{ text: '', why: '1 chord moved to the nearest half beat' }]);
  });

  it('opens a part where a mark stands, and has no chart without chords', () => {
    const { chart } = chartOf(
      { title: 'Slack {Water}', bars: bars(2, { 1: 'B' }), chords: [at(0, 'C')] },
      TICKS
    );
    expect(chart).toContain('{title: Slack Water}');
    expect(chart).toContain('| C |\n{end_of_grid}\n{start_of_grid label="B"}\n| C |');
    expect(chartOf({ bars: bars(2), chords: [] }, TICKS).chart).toBeNull();
  });
});
