import { describe, expect, it } from 'vitest';
import { laidKeys, layKeys } from './keys';

const shortcut = (id: string) => ({
  id,
  keys: 'N',
  name: id,
  presses: ['n'],
  run: () => undefined,
  single: true,
  command: false
});

describe('the pile of keys', () => {
  it('has a view above its chart, and the chart above what is everywhere, whichever is laid first', () => {
    const lift = [
      layKeys('Takes', () => [shortcut('correct')]),
      layKeys('The chart', () => [shortcut('naming')], 'chart'),
      layKeys('Everywhere', () => [shortcut('find')], 'everywhere')
    ];
    expect(laidKeys().map(({ name }) => name)).toEqual(['Takes']);
    lift[0]!();
    expect(laidKeys().map(({ name }) => name)).toEqual(['The chart']);
    lift[1]!();
    expect(laidKeys().map(({ name }) => name)).toEqual(['Everywhere']);
    lift[2]!();
    expect(laidKeys()).toEqual([]);
  });

  it('has what is laid last on top, among views', () => {
    const lift = [
      layKeys('Takes', () => [shortcut('correct')]),
      layKeys('Correct the notes', () => [shortcut('next')])
    ];
    expect(laidKeys().map(({ name }) => name)).toEqual(['Correct the notes']);
    for (const off of lift) off();
  });
});
