import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { fakeStorage } from '$lib/testing/storage';
import { DEFAULT_PLAN } from '$lib/core/plan/model';
import { Autosave, type Stored } from './autosave.svelte';
import { Drafts, type Draft } from './drafts';
import { takeUpDrafts } from './keeping';
import type { News } from '../windows';

const draft = (source: string, position = 5): Draft => ({ source, plan: { ...DEFAULT_PLAN, position } });

/** A server that holds one chart, and can be away, lose its answers or refuse. */
class FakeServer {
  stored: Stored & { id: string } = { id: 'one', version: 1, ...draft('| C |') };
  revisions: Stored[] = [];
  mood: 'well' | 'away' | 'loses answers' | 'full' | 'deleted' = 'well';
  calls: string[] = [];

  readonly fetch = (async (
    path: string,
    { method = 'GET', body = '' }: { method?: string; body?: string } = {}
  ) => {
    this.calls.push(method);
    await Promise.resolve();
    if (this.mood === 'away') throw new TypeError('away');
    if (this.mood === 'full') return this.#answer(507, { error: { message: 'The disk is full.' } });
    if (path.endsWith('/bring-back')) {
      this.mood = 'well';
      return this.#answer(200, {});
    }
    if (method === 'POST') return this.#answer(200, { id: 'two' });
    if (this.mood === 'deleted') return this.#answer(404, {});
    if (method === 'GET') return this.#answer(200, this.stored);
    const { base, source, plan } = JSON.parse(body) as Draft & { base: number };
    const before = this.revisions.find(({ version }) => version === base + 1);
    if (base !== this.stored.version) {
      if (before?.source === source) return this.#answer(200, { version: base + 1 });
      return this.#answer(409, { stored: this.stored });
    }
    this.stored = { ...this.stored, version: base + 1, source, plan };
    this.revisions.push(this.stored);
    if (this.mood === 'loses answers') {
      this.mood = 'well';
      throw new TypeError('lost');
    }
    return this.#answer(200, { version: base + 1 });
  }) as unknown as typeof fetch;

  #answer(status: number, body: object): Response {
    return new Response(JSON.stringify(body), { status });
  }
}

let server: FakeServer;
let store: ReturnType<typeof fakeStorage>;
let told: News[];
function open(window = 'first'): Autosave {
  const outside = {
    fetch: server.fetch,
    drafts: new Drafts(store, window),
    tell: (news: News) => told.push(news)
  };
  return new Autosave({ id: 'one', version: server.stored.version }, outside);
}
const passed = (milliseconds: number) => vi.advanceTimersByTimeAsync(milliseconds);

beforeEach(() => {
  vi.useFakeTimers();
  server = new FakeServer();
  store = fakeStorage();
  told = [];
});
afterEach(() => vi.useRealTimers());

describe('saving', () => {
  it('saves the last of a run of edits, and tells the other windows', async () => {
    const save = open();
    for (const source of ['| D |', '| Dm |', '| Dm7 |']) save.take(draft(source));
    expect(save.status.kind).toBe('pending');
    await passed(600);
    expect(save.status.kind).toBe('saved');
    expect(server.stored).toMatchObject({ source: '| Dm7 |', version: 2 });
    expect(server.calls).toEqual(['PUT']);
    expect(told).toEqual([{ kind: 'saved', chart: 'one', version: 2 }]);
    expect(store.length).toBe(0);
  });

  it('keeps what was typed on the device while the server is away, and saves it when it is back', async () => {
    const save = open();
    server.mood = 'away';
    save.take(draft('| Dm7 |'));
    await passed(600);
    expect(save.status.kind).toBe('offline');
    expect(save.isKept).toBe(true);
    expect([...store.kept.values()][0]).toContain('| Dm7 |');
    server.mood = 'well';
    await passed(3100);
    expect(save.status.kind).toBe('saved');
    expect(store.length).toBe(0);
  });

  it('sends a save again whose answer was lost, and is not refused', async () => {
    const save = open();
    server.mood = 'loses answers';
    save.take(draft('| Dm7 |'));
    await passed(4000);
    expect(save.status.kind).toBe('saved');
    expect(save.version).toBe(2);
    expect(server.stored.version).toBe(2);
  });

  it('says what the server says is wrong, and goes on trying', async () => {
    const save = open();
    server.mood = 'full';
    save.take(draft('| Dm7 |'));
    await passed(600);
    expect(save.status).toEqual({ kind: 'offline', message: 'The disk is full.' });
    server.mood = 'well';
    await passed(3100);
    expect(save.status.kind).toBe('saved');
  });

  it('edits during a save are saved after it', async () => {
    const save = open();
    save.take(draft('| D |'));
    const saving = save.flush();
    save.take(draft('| E |'));
    await saving;
    await passed(600);
    expect(server.stored).toMatchObject({ source: '| E |', version: 3 });
  });

  it('a text that is too large stays, on the device too, and is not sent', async () => {
    const save = open();
    save.take(draft('C '.repeat(40_000)));
    await passed(5000);
    expect(save.status.kind).toBe('refused');
    expect(server.calls).toEqual([]);
    expect(store.length).toBe(1);
  });
});

describe('another window', () => {
  it('that saved first leaves both versions to choose from', async () => {
    const save = open();
    server.stored = { ...server.stored, version: 2, source: '| F |' };
    save.take(draft('| G |'));
    await passed(600);
    expect(save.status).toMatchObject({ kind: 'stale', stored: { source: '| F |', version: 2 } });
    save.rebase(2);
    save.take(draft('| G |'));
    await passed(600);
    expect(server.stored).toMatchObject({ source: '| G |', version: 3 });
  });

  it('is heard of before the next edit', async () => {
    const save = open();
    server.stored = { ...server.stored, version: 2, source: '| F |' };
    expect(await save.look()).toMatchObject({ source: '| F |', version: 2 });
    save.take(draft('| G |'));
    expect(await save.look()).toBeNull();
    expect(save.status.kind).toBe('stale');
  });

  it('that deleted the chart does not take the text along', async () => {
    const save = open();
    server.mood = 'deleted';
    save.take(draft('| G |'));
    await passed(600);
    expect(save.status.kind).toBe('gone');
    save.take(draft('| G | A |'));
    expect(save.status.kind).toBe('gone');
    expect([...store.kept.values()][0]).toContain('| G | A |');
    await save.restore();
    expect(server.stored.source).toBe('| G | A |');
    expect(save.status.kind).toBe('saved');
  });

  it('that deleted the chart leaves it to be kept as a new one', async () => {
    const save = open();
    server.mood = 'deleted';
    save.take(draft('| G |'));
    await passed(600);
    expect(await save.keepAsNew(draft('| G |'))).toBeTruthy();
    expect(store.length).toBe(0);
  });
});

describe('drafts that were left behind', () => {
  function workspace(save: Autosave) {
    const took: string[] = [];
    return {
      took,
      id: 'one',
      ...draft(server.stored.source),
      autosave: save,
      settle: () => undefined,
      adopt: (taken: Draft) => void took.push(`adopt ${taken.source}`),
      load: () => undefined,
      oppose: (taken: Draft, stored: Stored) => void took.push(`oppose ${taken.source} to ${stored.source}`)
    };
  }
  async function crash(source: string): Promise<void> {
    const lost = open('crashed');
    server.mood = 'away';
    lost.take(draft(source));
    await passed(600);
    lost.close();
    server.mood = 'well';
  }
  const none: Promise<ReadonlySet<string>> = Promise.resolve(new Set());

  it('are taken up as an edit where the chart stands as it did', async () => {
    await crash('| G |');
    const kept = workspace(open('next'));
    expect(await takeUpDrafts(kept, new Drafts(store, 'next'), none)).toBe(true);
    expect(kept.took).toEqual(['adopt | G |']);
    expect(store.length).toBe(0);
  });

  it('stand beside a chart that has moved on', async () => {
    await crash('| G |');
    server.stored = { ...server.stored, version: 4, source: '| F |' };
    const kept = workspace(open('next'));
    await takeUpDrafts(kept, new Drafts(store, 'next'), none);
    expect(kept.took).toEqual(['oppose | G | to | F |']);
  });

  it('are left to a window that is still open, and forgotten where they were saved after all', async () => {
    await crash('| G |');
    const kept = workspace(open('next'));
    const open2 = Promise.resolve(new Set(['crashed']));
    expect(await takeUpDrafts(kept, new Drafts(store, 'next'), open2)).toBe(false);
    expect(store.length).toBe(1);
    server.stored = { ...server.stored, version: 2, source: '| G |' };
    expect(await takeUpDrafts(workspace(open('next')), new Drafts(store, 'next'), none)).toBe(false);
    expect(store.length).toBe(0);
  });

  it('go on from their own version where the page is an older one that was kept on the device', async () => {
    server.stored = { ...server.stored, version: 5 };
    store.setItem('corvel-draft:one:crashed', JSON.stringify({ base: 5, ...draft('| G |'), at: 1 }));
    // The page was kept at version 1; what was typed stands on 5.
    const save = new Autosave({ id: 'one', version: 1 });
    const kept = workspace(save);
    expect(await takeUpDrafts(kept, new Drafts(store, 'next'), none)).toBe(true);
    expect(kept.took).toEqual(['adopt | G |']);
    expect(save.version).toBe(5);
  });

  it('that are torn are passed over', async () => {
    store.setItem('corvel-draft:one:crashed', '{"base":1,"source":');
    expect(await takeUpDrafts(workspace(open('next')), new Drafts(store, 'next'), none)).toBe(false);
  });

  it('do not stop a browser that keeps nothing', async () => {
    const full = {
      ...fakeStorage(),
      setItem: () => {
        throw new Error('no room');
      }
    };
    const save = new Autosave(
      { id: 'one', version: 1 },
      { fetch: server.fetch, drafts: new Drafts(full, 'x'), tell: () => undefined }
    );
    save.take(draft('| G |'));
    expect(save.isKept).toBe(false);
    await passed(600);
    expect(server.stored.source).toBe('| G |');
  });
});
