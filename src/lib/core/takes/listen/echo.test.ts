import { expect, it } from 'vitest';
import { chanceOf } from '../../line/chance';
import { withoutEchoes } from './echo';
import type { Event } from './events';

const RATE = 1000;
const event = (at: number, pitch: number, salience: number) =>
  ({ onset: { at: Math.round(at * RATE) }, begun: { pitch, salience } }) as Event;

it('finds the echoes of a take of ten minutes, and none where there are none', () => {
  const chance = chanceOf(7);
  const played = Array.from({ length: 3000 }, (_, i) =>
    event(i * 0.2 + 0.03 * chance(), 50 + Math.floor(6 * chance()), 0.8 + 0.2 * chance())
  );
  expect(withoutEchoes(played, RATE)).toBe(played);
  const echoes = played.map(({ onset, begun }) =>
    event(onset.at / RATE + 0.31, begun.pitch, begun.salience / 2)
  );
  const all = [...played, ...echoes].sort((a, b) => a.onset.at - b.onset.at);
  const left = new Set(withoutEchoes(all, RATE));
  expect(echoes.filter((own) => left.has(own)).length).toBeLessThan(60);
  expect(played.filter((own) => left.has(own)).length).toBeGreaterThan(2940);
});
