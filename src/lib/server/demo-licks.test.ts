import { describe, expect, it } from 'vitest';
import { lickFacts } from '../core/line/lick-facts';
import { STANDARD } from '../core/neck/tuning';
import { demoLick } from './demo';
import { DEMO_LICKS, NOT_TOLD } from './demo-licks';

describe('the demo lick book', () => {
  it('has licks of every style, each with a name of its own', () => {
    expect(DEMO_LICKS.length).toBeGreaterThanOrEqual(24);
    expect(new Set(DEMO_LICKS.map(({ name }) => name)).size).toBe(DEMO_LICKS.length);
    const tags = new Set(DEMO_LICKS.flatMap((lick) => lick.tags));
    for (const style of ['swing', 'blues', 'minor blues', 'rock', 'soul', 'waltz', 'modal'])
      expect(tags).toContain(style);
  });

  it.each(DEMO_LICKS.map((lick) => [lick.name, lick] as const))(
    '%s is whole, lies on the neck, and says honestly whether it tells its chords',
    (_, lick) => {
      const data = demoLick(lick);
      const written = lick.notes.split(/\s+/).filter((word) => /^[A-G]/.test(word)).length;
      expect(data.notes).toHaveLength(written);
      expect(data.notes.every(({ place }) => place)).toBe(true);
      const { told, position } = lickFacts(data, STANDARD);
      expect(Math.abs(position! - lick.position), `${lick.name}: position ${position}`).toBeLessThanOrEqual(
        2
      );
      expect(lick.tags.includes(NOT_TOLD), `${lick.name}: ${told}`).toBe(told < 0.75);
    }
  );
});
