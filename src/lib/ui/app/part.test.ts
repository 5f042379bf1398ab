import { describe, expect, it } from 'vitest';
import { Part } from './part';

describe('a part of the page', () => {
  it('is there at once when it has come, and is fetched once', async () => {
    let fetched = 0;
    const part = new Part(() => Promise.resolve({ default: `part ${++fetched}` }));
    expect(part.now).toBeNull();
    expect(await part.fetch()).toBe('part 1');
    expect(part.now).toBe('part 1');
    expect(await part.fetch()).toBe('part 1');
  });

  it('is asked for again after it could not be had', async () => {
    let isAway = true;
    const part = new Part(() =>
      isAway ? Promise.reject(new Error('away')) : Promise.resolve({ default: 'here' })
    );
    await expect(part.fetch()).rejects.toThrow('away');
    expect(part.now).toBeNull();
    isAway = false;
    expect(await part.fetch()).toBe('here');
  });
});
