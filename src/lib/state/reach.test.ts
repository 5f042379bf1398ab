import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';

vi.mock('$app/paths', () => ({ resolve: (path: string) => path }));
const { Reach } = await import('./reach.svelte');

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

describe('a server that is away', () => {
  it('is looked for until it answers, and told of once, within five seconds', async () => {
    let isUp = false;
    let looks = 0;
    const back = vi.fn();
    const reach = new Reach(() => {
      looks++;
      return isUp ? Promise.resolve(new Response('{}')) : Promise.reject(new Error('away'));
    });
    const stop = reach.onBack(back);
    reach.lost();
    reach.lost();
    expect(reach.isAway).toBe(true);
    await vi.advanceTimersByTimeAsync(9000);
    expect(looks).toBeGreaterThanOrEqual(3);
    expect(back).not.toHaveBeenCalled();
    isUp = true;
    await vi.advanceTimersByTimeAsync(5000);
    expect(reach.isAway).toBe(false);
    expect(back).toHaveBeenCalledTimes(1);
    const before = looks;
    await vi.advanceTimersByTimeAsync(20_000);
    expect(looks).toBe(before);
    stop();
  });

  it('that answers is not looked for again', async () => {
    const asked = vi.fn(() => Promise.resolve(new Response('{}')));
    const reach = new Reach(asked);
    await reach.look();
    await vi.advanceTimersByTimeAsync(20_000);
    expect(reach.isAway).toBe(false);
    expect(asked).toHaveBeenCalledTimes(1);
  });

  it('that answers with a fault is away', async () => {
    const reach = new Reach(() => Promise.resolve(new Response('', { status: 502 })));
    await reach.look();
    expect(reach.isAway).toBe(true);
  });
});
