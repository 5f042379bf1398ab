/** What is kept, asked from outside: sent twice it is once, killed midway it is all or nothing, moved away it is told. */
import { randomUUID } from 'node:crypto';
import { mkdtempSync, readdirSync, renameSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { seeded } from '../mutate';
import { AT_FIVE } from '../plan';
import { Server } from '../server';

const place = () => join(mkdtempSync(join(tmpdir(), 'corvel-')), 'songbook.db');
const NOTE = { start: 0, length: 960, midi: 60, note: 'C' };
const CHORDS = [{ symbol: 'Dm7', beats: 4 }];

let server: Server;
beforeAll(async () => {
  server = new Server(place(), false);
  await server.start();
});
afterAll(() => server.stop());

async function newChart(on = server, source = '| Dbm7 | Gb7 |'): Promise<string> {
  return (await on.call<{ id: string }>('POST', 'songbook', { source, plan: AT_FIVE })).body.id;
}
const takeOf = (id: string) => ({
  id,
  name: 'A take',
  playedAt: 1,
  day: '2026-05-04',
  seconds: 1,
  data: { way: 'midi', source: '| C |', tempo: 100, start: 0, notes: [], troubles: [], targets: [] }
});

/** Everything that is made under an id of the client's: where it goes, and what it is. */
const KINDS: readonly (readonly [string, (chart: string) => string, (id: string) => object])[] = [
  ['a chart', () => 'songbook', (id) => ({ id, source: '| C |', plan: AT_FIVE })],
  [
    'a line',
    (chart) => `songbook/${chart}/lines`,
    (id) => ({ id, name: 'Ebb', data: { notes: [NOTE], over: [] } })
  ],
  ['a take', (chart) => `songbook/${chart}/takes`, takeOf],
  [
    'a lick',
    () => 'licks',
    (id) => ({
      id,
      name: 'Gangway',
      data: {
        meter: { beats: 4, unit: 4 },
        over: CHORDS,
        notes: [NOTE],
        tags: [],
        source: '',
        rating: 0,
        played: 0
      }
    })
  ],
  [
    'a set list',
    () => 'practice/set-lists',
    (id) => ({ id, name: 'Friday', data: { day: '2026-06-05', charts: [] } })
  ],
  [
    'an item',
    () => 'practice/items',
    (id) => ({ items: [{ id, data: { what: 'up', name: 'Up', tempo: { start: 60, goal: 90 } } }] })
  ],
  [
    'a chart file',
    () => 'songbook/file',
    (id) => ({ id, file: { corvel: 'chart', version: 1, chart: '| C |', plan: AT_FIVE, takes: [] } })
  ]
];

describe('sent twice', () => {
  it.each(KINDS)('%s is kept once, at once or late', async (_, path, body) => {
    const chart = await newChart();
    const id = randomUUID();
    const send = () => server.call<object>('POST', path(chart), body(id));
    const answers = await Promise.all(Array.from({ length: 8 }, send));
    expect(answers.map(({ status }) => status)).toEqual(Array(8).fill(200));
    expect((await send()).status).toBe(200);
  });

  it('an edit whose answer was lost is answered as it was, another one at its base is refused', async () => {
    const chart = await newChart();
    for (const [at, path, body] of [
      [1, (id: string) => `songbook/${chart}/lines/${id}`, { name: 'Flood' }],
      [2, (id: string) => `songbook/${chart}/takes/${id}`, { name: 'Flood' }],
      [3, (id: string) => `licks/${id}`, { name: 'Flood' }],
      [4, (id: string) => `practice/set-lists/${id}`, { name: 'Flood' }]
    ] as const) {
      const id = randomUUID();
      const [, where, made] = KINDS[at]!;
      expect((await server.call('POST', where(chart), made(id))).status).toBe(200);
      const edit = (name: string) => server.call('PUT', path(id), { ...body, name, base: 1 });
      expect([(await edit('Flood')).status, (await edit('Flood')).status]).toEqual([200, 200]);
      expect((await edit('Ebb')).status).toBe(409);
    }
  });

  it('the order of items is changed on top of the one that was seen', async () => {
    const ids = [randomUUID(), randomUUID(), randomUUID()];
    const [, , made] = KINDS[5]!;
    for (const id of ids) expect((await server.call('POST', 'practice/items', made(id))).status).toBe(200);
    const listed = async () =>
      (await server.call<{ items: { id: string }[] }>('GET', 'practice/items')).body.items.map(
        ({ id }) => id
      );
    const base = await listed();
    const order = [...base].reverse();
    expect((await server.call('PUT', 'practice/items', { order, base })).status).toBe(200);
    expect((await server.call('PUT', 'practice/items', { order, base })).status).toBe(200);
    expect((await server.call('PUT', 'practice/items', { order: base.slice(1), base })).status).toBe(409);
    expect(await listed()).toEqual(order);
  });
});

describe('killed midway', () => {
  /** Kills in all; many more in `npm run bench -- kills`. */
  const KILLS = Number(process.env.CORVEL_KILLS ?? 20);

  it('nothing acknowledged is lost, everything is there whole or not at all, nothing is left over', async () => {
    const own = new Server(place(), false);
    await own.start();
    const random = seeded(11);
    const kept = new Set<string>();
    const whole = new Map<string, number>();
    const sounds = new Map<string, number>();
    /** What has been acknowledged since it was looked at last is there, whole. */
    const allThere = async (): Promise<void> => {
      for (const id of kept) expect((await own.call('GET', `songbook/${id}`)).status).toBe(200);
      for (const [id, takes] of whole) {
        const { status, body } = await own.call<{ takes: unknown[] }>('GET', `songbook/${id}/takes`);
        const isThere = (await own.call('GET', `songbook/${id}`)).status === 200;
        expect(status).toBe(200);
        expect(body.takes).toHaveLength(isThere ? takes : 0);
      }
      for (const [path, bytes] of sounds) {
        const wav = new Uint8Array(
          await (await fetch(`${own.url}/api/v1/songbook/${path}/sound`)).arrayBuffer()
        );
        expect(wav.length).toBeGreaterThanOrEqual(44 + bytes);
        expect(new DataView(wav.buffer).getUint32(40, true)).toBeGreaterThanOrEqual(bytes);
      }
    };
    const forget = () => {
      for (const one of [kept, whole, sounds]) one.clear();
    };
    const everything = new Set<string>();
    for (let kill = 0; kill < KILLS; kill++) {
      const chart = await newChart(own);
      kept.add(chart);
      const take = randomUUID();
      expect((await own.call('POST', `songbook/${chart}/takes`, takeOf(take))).status).toBe(200);
      const file = {
        corvel: 'chart',
        version: 1,
        chart: '| C |',
        plan: AT_FIVE,
        takes: Array.from({ length: 12 }, () => ({ ...takeOf(''), id: undefined }))
      };
      let sent = 0;
      const work = async (): Promise<void> => {
        for (;;) {
          const id = randomUUID();
          const way = Math.floor(random() * 4);
          if (way === 0) {
            const made = await own.call('POST', 'songbook', { id, source: '| F |', plan: AT_FIVE });
            if (made.status === 200) kept.add(id);
          } else if (way === 1) {
            whole.set(id, 12);
            const made = await own.call('POST', 'songbook/file', { id, file });
            if (made.status === 200) kept.add(id);
          } else if (way === 2) {
            await (await fetch(`${own.url}/api/v1/archive`)).arrayBuffer();
          } else {
            const from = sent;
            const answer = await fetch(
              `${own.url}/api/v1/songbook/${chart}/takes/${take}/sound?from=${from}&rate=8000`,
              {
                method: 'PUT',
                headers: { 'content-type': 'application/octet-stream' },
                body: new Uint8Array(4000).fill(kill + 1)
              }
            );
            if (answer.ok) sounds.set(`${chart}/takes/${take}`, (sent = Math.max(sent, from + 4000)));
          }
        }
      };
      const workers = [1, 2, 3].map(() => work().catch(() => 'torn off'));
      const until = Date.now() + 30 + random() * 250;
      while (Date.now() < until) await own.call('GET', 'songbook?limit=1').catch(() => null);
      await own.stop('SIGKILL');
      await Promise.all(workers);
      await own.start();
      await allThere();
      for (const id of kept) everything.add(id);
      forget();
      const left = readdirSync(dirname(own.database)).filter((name) => /\.half$|\.work/.test(name));
      expect(left).toEqual([]);
    }
    for (const id of everything) kept.add(id);
    await allThere();
    await own.stop();
  }, 3_600_000);
});

describe('moved away', () => {
  it('the songbook is told to be so within one write, and taken up again when it is back', async () => {
    const own = new Server(place(), false);
    await own.start();
    await newChart(own);
    const away = `${own.database}.elsewhere`;
    renameSync(own.database, away);
    const answer = await own.call<{ error: { code: string; message: string } }>('POST', 'songbook', {
      source: '| C |'
    });
    expect([answer.status, answer.body.error.code]).toEqual([503, 'file-moved']);
    renameSync(away, own.database);
    expect((await own.call('POST', 'songbook', { source: '| C |' })).status).toBe(200);
    await own.stop();
  });
});
