import { describe, expect, it } from 'vitest';
import { sure } from './sure';

describe('what is asked often', () => {
  it('says nothing where it holds', () => {
    sure(3).toBe(3);
    sure(3).toBeGreaterThan(2);
    sure(3).toBeGreaterThanOrEqual(3);
    sure(3).toBeLessThan(4);
    sure(3).toBeLessThanOrEqual(3);
    sure([1, 2]).toContain(2);
    sure(new Set(['a'])).toContain('a');
    sure([1, 2]).toLack(3);
    expect.assertions(0);
  });

  it('fails with the words of its caller where it does not', () => {
    expect(() => sure(3, 'bar 4').toBe(4)).toThrow(/bar 4/);
    expect(() => sure(3).toBeGreaterThan(3)).toThrow();
    expect(() => sure(3).toBeGreaterThanOrEqual(4)).toThrow();
    expect(() => sure(3).toBeLessThan(3)).toThrow();
    expect(() => sure(Number.NaN).toBeLessThanOrEqual(3)).toThrow();
    expect(() => sure([1, 2], 'bar 4').toContain(3)).toThrow(/bar 4/);
    expect(() => sure(new Set(['a'])).toLack('a')).toThrow();
  });
});
