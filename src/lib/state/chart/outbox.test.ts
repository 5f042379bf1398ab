import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { fakeStorage } from '$lib/testing/storage';
import { Outbox } from './outbox';

interface Thing {
  readonly id: string;
  readonly revision?: number;
  readonly bad?: true;
}

/** The route of these boxes alone. */
const OWN = 'own-rows';
const storage = fakeStorage();
const { kept } = storage;
/** What the server has, in order. */
let stored: string[] = [];
let isAway = false;
let requests = 0;

beforeEach(() => {
  kept.clear();
  [stored, isAway, requests] = [[], false, 0];
  vi.stubGlobal('localStorage', storage);
  vi.stubGlobal('fetch', (address: string, { body }: { body: string }) => {
    // Files share their process: what a log of another one still sends is not counted here.
    if (!address.includes(OWN)) return Promise.resolve(Response.json({}));
    requests += 1;
    if (isAway) return Promise.reject(new Error('away'));
    const { rows } = JSON.parse(body) as { rows: Thing[] };
    if (rows.some(({ bad }) => bad))
      return Promise.resolve(Response.json({ error: { message: 'This is no day.' } }, { status: 400 }));
    stored.push(...rows.map(({ id }) => id));
    return Promise.resolve(Response.json({}));
  });
});
afterEach(() => vi.unstubAllGlobals());

const things = (count: number, bad: readonly number[] = []): Thing[] =>
  Array.from({ length: count }, (_, i) => ({
    id: String(i),
    ...(bad.includes(i) ? { bad: true as const } : {})
  }));

describe('what waits for the server', () => {
  it('is there for who reads after a send, also where it was on its way already', async () => {
    const box = new Outbox<Thing>('box', OWN, 'rows');
    box.put(...things(1));
    await box.send();
    expect(stored).toEqual(['0']);
  });

  it('is stored but for what is refused, which is kept with the reason', async () => {
    const box = new Outbox<Thing>('box', OWN, 'rows');
    const told: string[] = [];
    box.watch(() => told.push(box.refused.at(-1)?.why ?? 'none'));
    box.put(...things(31, [17]));
    await vi.waitUntil(() => box.waiting.length === 0);
    expect(stored.map(Number).sort((a, b) => a - b)).toEqual(
      Array.from({ length: 31 }, (_, i) => i).filter((i) => i !== 17)
    );
    expect(box.refused).toEqual([{ thing: { id: '17', bad: true }, why: 'This is no day.' }]);
    expect(told).toEqual(['This is no day.']);
    // By halves, not one by one.
    expect(requests).toBeLessThan(15);
  });

  it('goes again when the player says so, or is let go', async () => {
    const box = new Outbox<Thing>('box', OWN, 'rows');
    box.put(...things(2, [0, 1]));
    await vi.waitUntil(() => box.refused.length === 2);
    box.drop('0');
    expect(box.refused.map(({ thing }) => thing.id)).toEqual(['1']);
    box.retry('1');
    await vi.waitUntil(() => box.refused.length === 1);
    expect(stored).toEqual([]);
  });

  it('waits on while the server is away, all of it', async () => {
    const box = new Outbox<Thing>('box', OWN, 'rows');
    isAway = true;
    box.put(...things(3));
    await vi.waitUntil(() => requests > 0);
    expect(new Outbox<Thing>('box', OWN, 'rows').waiting).toHaveLength(3);
    isAway = false;
    await vi.waitUntil(async () => {
      await box.send();
      return stored.length === 3;
    });
    expect(box.refused).toEqual([]);
  });
});
