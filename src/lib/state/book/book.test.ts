import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { noteOf, TICKS } from '$lib/core/line/model';
import { DEFAULT_PLAN } from '$lib/core/plan/model';
import { BookKeys } from './book.svelte';

const chart = {
  id: 'quay',
  version: 1,
  damaged: false,
  source: '{key: Gb}\n| Abm7 | Db7 | Gbmaj7 | % |',
  plan: DEFAULT_PLAN
};
const line = { id: 'a', name: 'Gangway', data: { notes: [noteOf(0, TICKS, 66)] } };
const asked: string[] = [];

beforeEach(() => {
  asked.length = 0;
  vi.stubGlobal('fetch', (path: string) => {
    // Files share their process: what a log of another one still sends is not counted here.
    if (path.includes('quay')) asked.push(path);
    return Promise.resolve(Response.json({ lines: [line, { ...line, id: 'damaged', data: null }] }));
  });
});

afterEach(() => void vi.unstubAllGlobals());

describe('a book in several keys', () => {
  it('has the chart and its lines in each, made once however often it is asked for', async () => {
    const book = new BookKeys(chart);
    await book.make([0, 5]);
    const [own, up] = [book.ready.get(0)!, book.ready.get(5)!];
    expect([own, up].map(({ workspace }) => workspace.changes.map(({ symbol }) => symbol))).toEqual([
      ['Abm7', 'Db7', 'Gbmaj7', 'Gbmaj7'],
      ['C#m7', 'F#7', 'Bmaj7', 'Bmaj7']
    ]);
    expect(up.home.tonic).toBe('B');
    expect([own, up].map(({ lines }) => lines.map(({ id, notes }) => [id, notes[0]!.midi % 12]))).toEqual([
      [['a', 6]],
      [['a', 11]]
    ]);
    await book.make([5, 7]);
    expect([...book.ready.keys()]).toEqual([0, 5, 7]);
    expect([book.ready.get(5), asked.length, book.progress]).toEqual([up, 1, null]);
    book.close();
  });

  it('stops where it is told, and goes on with what is asked for last', async () => {
    const book = new BookKeys(chart);
    const first = book.make([0, 1, 2]);
    book.stop();
    await first;
    expect([book.ready.size, book.isStopped, book.progress]).toEqual([0, true, null]);
    const overtaken = book.make([1, 2]);
    await book.make([3]);
    await overtaken;
    expect([...book.ready.keys()]).toEqual([3]);
    book.close();
  });

  it('is made without its lines where they cannot be read, and says so', async () => {
    vi.stubGlobal('fetch', () => Promise.reject(new TypeError('no network')));
    const book = new BookKeys(chart);
    await book.make([0]);
    expect(book.ready.get(0)!.lines).toEqual([]);
    expect(book.problem).not.toBe('');
    book.close();
  });
});
