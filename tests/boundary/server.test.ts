/** The server from outside: nothing that is asked ends it, nothing keeps others waiting, and it is left in order. */
import { spawn, spawnSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { chmodSync, existsSync, mkdirSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { request } from 'node:http';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { mutant, samples, seeded } from '../mutate';
import { AT_FIVE } from '../plan';
import { Server } from '../server';

const place = () => join(mkdtempSync(join(tmpdir(), 'corvel-')), 'songbook.db');
const START = fileURLToPath(new URL('../../scripts/start.mjs', import.meta.url));
const HEAVY = `{key: C}\n${Array.from({ length: 1500 }, (_, i) => `|${'CDEFGAB'[(i * 3) % 7]}${['m7', '7', 'maj7', 'm7b5', '7b9', 'dim7'][i % 6]}`).join('')}|`;

let server: Server;
beforeAll(async () => {
  server = new Server(place(), false);
  await server.start();
});
afterAll(() => server.stop());

const raw = (method: string, path: string, headers: Record<string, string>, body?: string | Uint8Array) =>
  fetch(`${server.url}/api/v1/${path}`, {
    method,
    headers,
    ...(body === undefined ? {} : { body: body as BodyInit })
  });
/** A request that works for longer than any test waits. */
const heavy = (signal: AbortSignal) =>
  fetch(`${server.url}/api/v1/targets`, {
    method: 'POST',
    signal,
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ chart: HEAVY, loop: true, alternatives: 20 })
  });
const isAlive = async () => {
  expect((await server.call('GET', 'songbook?limit=1')).status).toBe(200);
};
async function newChart(source = '| C |'): Promise<string> {
  return (await server.call<{ id: string }>('POST', 'songbook', { source, plan: AT_FIVE })).body.id;
}
async function newTake(chart: string, samples = 50_000): Promise<string> {
  const id = randomUUID();
  const data = {
    way: 'microphone',
    source: '| C |',
    tempo: 100,
    start: 0,
    notes: [],
    troubles: [],
    targets: []
  };
  const take = { id, name: 'A take', playedAt: 1, day: '2026-05-04', seconds: 1, data };
  expect((await server.call('POST', `songbook/${chart}/takes`, take)).status).toBe(200);
  const sound = `songbook/${chart}/takes/${id}/sound?from=0&rate=44100`;
  expect(
    (await raw('PUT', sound, { 'content-type': 'application/octet-stream' }, new Uint8Array(2 * samples)))
      .status
  ).toBe(200);
  return id;
}

describe('no request ends the server', () => {
  it('not an archive whose sounds are deleted while it is read', async () => {
    const chart = await newChart();
    // More than a socket holds, so that the archive is still being written.
    const takes = [];
    for (let i = 0; i < 4; i++) takes.push(await newTake(chart, 4_000_000));
    const answer = await raw('GET', 'archive', {});
    const reader = answer.body!.getReader();
    await reader.read();
    for (const take of takes)
      expect((await server.call('DELETE', `songbook/${chart}/takes/${take}/sound`)).status).toBe(200);
    for (let isDone = false; !isDone;) ({ done: isDone } = await reader.read());
    await isAlive();
  });

  it('not forty archives that nobody reads to the end, and nothing of them stays open', async () => {
    const chart = await newChart();
    await newTake(chart, 4_000_000);
    const handles = () => readdirSync(`/proc/${server.pid}/fd`).length;
    // The thread that draws pages comes with the first one, or by itself a little later; it has handles too.
    await (await fetch(server.url)).text();
    const before = handles();
    for (let i = 0; i < 40; i++) {
      const gone = new AbortController();
      const answer = await fetch(`${server.url}/api/v1/archive`, { signal: gone.signal });
      await answer.body!.getReader().read();
      gone.abort();
    }
    await isAlive();
    const until = Date.now() + 20_000;
    while (handles() > before + 4 && Date.now() < until) await server.call('GET', 'songbook?limit=1');
    expect(handles()).toBeLessThanOrEqual(before + 4);
  });

  it('not a folder of sounds that is a file', async () => {
    const own = new Server(place(), false);
    writeFileSync(`${own.database}-takes`, 'no folder');
    await own.start();
    const answer = await fetch(`${own.url}/api/v1/archive`);
    expect(answer.status).toBe(500);
    expect(((await answer.json()) as { error: { message: string } }).error.message).toMatch(/\w.*\./);
    expect((await own.call('GET', 'songbook')).status).toBe(200);
    await own.stop();
  });

  it('not two thousand that are nearly right', async () => {
    const [all, random] = [samples(), seeded(20_260_314)];
    expect(all.length).toBeGreaterThan(30);
    for (let done = 0; done < 2000; done += 4) {
      await Promise.all(
        Array.from({ length: 4 }, async () => {
          const { method, path, headers, body } = mutant(all, random);
          const answer = await raw(method, path, headers, body);
          const text = await answer.text();
          expect(
            answer.status,
            `${method} ${path} ${body?.slice(0, 2000)}\n${text.slice(0, 300)}`
          ).toBeLessThan(500);
        })
      );
    }
    await isAlive();
    expect(server.isRunning).toBe(true);
  }, 300_000);
});

describe('nobody waits', () => {
  it('for code to be compiled that the build has compiled', () => {
    const { isReady } = createRequire(import.meta.url)('../../build/programs/run.cjs');
    expect(['server', 'work'].filter((name) => !isReady(name))).toEqual([]);
  });

  it('light requests are answered while eight heavy ones run, and a take is saved', async () => {
    const chart = await newChart();
    let done = 0;
    const gone = new AbortController();
    const running = Array.from({ length: 8 }, () =>
      heavy(gone.signal).then(
        () => done++,
        () => 'left'
      )
    );
    for (let i = 0; i < 5; i++) {
      expect((await server.call('POST', 'analysis', { chart: '| Dm7 | G7 |' })).status).toBe(200);
      expect((await server.call('GET', 'songbook?limit=1')).status).toBe(200);
    }
    await newTake(chart, 100);
    expect((await fetch(`${server.url}/charts/${chart}`)).status).toBe(200);
    // How far they come meanwhile is the machine's matter; that others wait for them is not.
    expect(done).toBeLessThan(8);
    gone.abort();
    await Promise.all(running);
  });

  it('work ends with the client that asked for it', async () => {
    const gone = new AbortController();
    const running = Array.from({ length: 8 }, () => heavy(gone.signal).catch(() => 'left'));
    const begun = server.worked();
    while (server.worked() < begun + 1000) await new Promise((later) => setTimeout(later, 20));
    gone.abort();
    await Promise.all(running);
    // Those eight would go on for a minute of processor time and more.
    const left = server.worked();
    let before = -1;
    while (server.worked() - before > 50) {
      before = server.worked();
      expect(before - left).toBeLessThan(10_000);
      await new Promise((later) => setTimeout(later, 500));
    }
    await isAlive();
  });

  it('reading goes on while another program holds the file, and the write is done when it lets go', async () => {
    const id = await newChart();
    const held = spawn(process.execPath, [
      '-e',
      `const db = new (require('better-sqlite3'))(${JSON.stringify(server.database)});
       db.exec('begin immediate'); console.log('held'); process.stdin.on('data', () => { db.exec('commit'); process.exit(0); });`
    ]);
    await new Promise((ready) => held.stdout.once('data', ready));
    let isSaved = false;
    const save = server
      .call('PUT', `songbook/${id}`, { base: 1, source: '| F |', plan: AT_FIVE })
      .then(({ status }) => {
        isSaved = true;
        return status;
      });
    for (let i = 0; i < 5; i++) expect((await server.call('GET', `songbook/${id}`)).status).toBe(200);
    expect((await fetch(`${server.url}/charts/${id}`)).status).toBe(200);
    expect(isSaved).toBe(false);
    held.stdin.write('x');
    expect(await save).toBe(200);
  });
});

describe('the door', () => {
  it('stays shut for other machines without a key', () => {
    const { stdout, stderr, status } = spawnSync(process.execPath, [START], {
      env: {
        ...process.env,
        HOST: '0.0.0.0',
        PORT: '0',
        CORVEL_DB: place(),
        CORVEL_KEY: '',
        CORVEL_NAMES: ''
      },
      encoding: 'utf8'
    });
    expect(status).not.toBe(0);
    expect(stdout + stderr).toContain('CORVEL_KEY');
  });

  it('opens with key and names, also for files of the build', async () => {
    const own = new Server(place(), false, {
      // Another way to write this machine's own address: taken for another one, it never listens elsewhere.
      HOST: '127.1',
      CORVEL_KEY: 'a key as long as this',
      CORVEL_NAMES: 'corvel.example'
    });
    await own.start();
    const ask = (path: string, headers: Record<string, string> = {}) =>
      new Promise<number>((answer, failed) => {
        request(
          { host: '127.0.0.1', port: own.port, path, headers: { host: 'corvel.example', ...headers } },
          (got) => {
            got.resume();
            answer(got.statusCode!);
          }
        )
          .on('error', failed)
          .end();
      });
    for (const path of ['/', '/api/v1/songbook', '/_app/version.json']) expect(await ask(path)).toBe(401);
    expect(await ask('/', { host: '127.0.0.1' })).toBe(403);
    await own.stop();
  });

  it('knows this machine by its other address', async () => {
    const own = new Server(place(), false, { HOST: '::1' });
    try {
      await own.start();
    } catch (error) {
      // A machine without that address says so itself.
      expect(String(error)).toContain('EADDRNOTAVAIL');
      return;
    }
    expect((await fetch(`http://[::1]:${own.port}/api/v1/songbook`)).status).toBe(200);
    expect((await fetch(`http://[::1]:${own.port}/`)).status).toBe(200);
    await own.stop();
  });

  it('tells every file what it is, and takes no body that does not say so', async () => {
    for (const path of ['/', '/_app/version.json', '/api/v1/songbook'])
      expect((await fetch(server.url + path)).headers.get('x-content-type-options')).toBe('nosniff');
    const status = await new Promise<number>((answer) => {
      const sent = request(
        { host: '127.0.0.1', port: server.port, path: '/api/v1/settings', method: 'PUT' },
        (got) => {
          got.resume();
          answer(got.statusCode!);
        }
      );
      sent.end('{"theme": "stage"}');
    });
    expect(status).toBe(415);
    const elsewhere = await fetch(`${server.url}/api/v1/archive`, {
      headers: { 'sec-fetch-site': 'cross-site' }
    });
    // Node's own client may not send this header; where it does, it is refused.
    expect([200, 403]).toContain(elsewhere.status);
    await elsewhere.body?.cancel();
  });
});

describe('what is asked for', () => {
  it('is told of in names that any encoding can write, and kept the same twice', async () => {
    const source = '{title: Ebb \ud83c tide}\n| C |';
    const band = await server.call('POST', 'export', { chart: source, format: 'csv' }).catch(() => null);
    expect(band === null || band.status < 500).toBe(true);
    const file = await raw(
      'POST',
      'band',
      { 'content-type': 'application/json' },
      '{"chart": "{title: a\\ud83cb}\\n| C |"}'
    );
    expect(file.status).toBe(200);
    await file.body?.cancel();
    const id = randomUUID();
    const body = { id, source, plan: AT_FIVE };
    const first = await server.call<{ source: string }>('POST', 'songbook', body);
    expect(first.body.source).toBe('{title: Ebb \ufffd tide}\n| C |');
    expect((await server.call('POST', 'songbook', body)).status).toBe(200);
    const edit = { base: 1, source: `${source} `, plan: AT_FIVE };
    expect((await server.call('PUT', `songbook/${id}`, edit)).status).toBe(200);
    expect((await server.call('PUT', `songbook/${id}`, edit)).status).toBe(200);
  });

  it('as an archive of what is not there is refused in a sentence', async () => {
    expect((await server.call('GET', 'archive?sounds=')).status).toBe(400);
  });

  it('as a part of a sound is that part', async () => {
    const chart = await newChart();
    const take = await newTake(chart, 100);
    const answer = await raw('GET', `songbook/${chart}/takes/${take}/sound`, { range: 'bytes=0-3' });
    expect([answer.status, await answer.text()]).toEqual([206, 'RIFF']);
  });
});

describe('the end', () => {
  it('leaves one whole file, also where it may not be written to any more', async () => {
    for (const isReadOnly of [false, true]) {
      const own = new Server(place(), false);
      await own.start();
      expect((await own.call('POST', 'songbook', { source: '| C |' })).status).toBe(200);
      if (isReadOnly) chmodSync(own.database, 0o444);
      expect(await own.stop()).toBe(0);
      if (!isReadOnly) expect(existsSync(`${own.database}-wal`)).toBe(false);
    }
  });

  it('comes in order when the terminal is closed', async () => {
    const own = new Server(place(), false);
    await own.start();
    expect((await own.call('POST', 'songbook', { source: '| C |' })).status).toBe(200);
    own.leaveAlone();
    expect(await own.stop('SIGHUP')).toBe(0);
    expect(existsSync(`${own.database}-wal`)).toBe(false);
  });

  it('does not come from saying something that nobody reads, and comes in order then too', async () => {
    const own = new Server(place(), false, { NODE_OPTIONS: '--import ./tests/boundary/bomb.mjs' });
    await own.start();
    own.leaveAlone();
    await fetch(`${own.url}/word`);
    expect((await own.call('POST', 'songbook', { source: '| C |' })).status).toBe(200);
    const ended = own.ended();
    await fetch(`${own.url}/bomb`).catch(() => null);
    expect(await ended).toBe(1);
    expect(existsSync(`${own.database}-wal`)).toBe(false);
  });

  it('comes in order after an error that nobody foresaw', async () => {
    const own = new Server(place(), false, { NODE_OPTIONS: '--import ./tests/boundary/bomb.mjs' });
    await own.start();
    expect((await own.call('POST', 'songbook', { source: '| C |' })).status).toBe(200);
    const ended = own.ended();
    await fetch(`${own.url}/bomb`).catch(() => null);
    expect(await ended).toBe(1);
    expect(existsSync(`${own.database}-wal`)).toBe(false);
    mkdirSync(`${own.database}-takes`, { recursive: true });
    rmSync(`${own.database}-takes`, { recursive: true });
  });
});
