/** The page of the day, by itself. */
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { SetListData, StoredSetList, Today } from '$lib/api/practice';

const DATA: SetListData = { day: '2027-03-01', charts: [], note: '' } as unknown as SetListData;
const server = vi.hoisted(() => ({
  list: null as unknown as StoredSetList,
  bases: [] as number[],
  refuses: 0
}));
vi.mock('../call', () => ({
  callSongbook: () => Promise.reject(new Error('not asked')),
  callRoute: (
    path: string,
    _: string,
    method?: string,
    body?: { base: number; name?: string; data?: SetListData }
  ) => {
    if (method === undefined) return Promise.resolve(day([server.list]));
    const { base, ...edit } = body!;
    server.bases.push(base);
    if (server.refuses-- > 0 || base !== server.list.version)
      return Promise.reject(new Error(`${path}: changed in another window`));
    server.list = { ...server.list, ...edit, version: base + 1 };
    return Promise.resolve({ version: base + 1 });
  }
}));

const day = (setLists: readonly StoredSetList[]) =>
  ({
    day: '2027-01-01',
    minutes: 25,
    items: [],
    charts: [],
    setLists,
    plan: { session: [] }
  }) as unknown as Today;
const { TodayState } = await import('./today.svelte');

beforeEach(() => {
  server.list = { id: 'quay', name: 'The quay', version: 1, data: DATA } as unknown as StoredSetList;
  server.bases = [];
  server.refuses = 0;
});

describe('set lists', () => {
  const named = (name: string) => ({ ...DATA, day: name }) as SetListData;

  it('keep edits that come one upon another, each on what the one before has become', async () => {
    const today = new TodayState(day([server.list]));
    const first = today.changeSetList(server.list, { name: 'The pier' });
    // It is shown at once, so that the next edit is made of it.
    expect(today.now.setLists[0]!.name).toBe('The pier');
    const second = today.changeSetList(today.now.setLists[0]!, { data: named('2027-04-01') });
    await Promise.all([first, second]);
    expect(server.bases).toEqual([1, 2]);
    expect([server.list.name, server.list.data!.day, today.problem]).toEqual(['The pier', '2027-04-01', '']);
  });

  it('show what another window has made of them where an edit is refused, and say so', async () => {
    const today = new TodayState(day([server.list]));
    server.refuses = 1;
    await today.changeSetList(server.list, { name: 'The pier' });
    expect(today.now.setLists[0]!.name).toBe('The quay');
    expect(today.problem).toContain('another window');
  });
});
